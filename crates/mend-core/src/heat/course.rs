//! What is done on a board, stage by stage: the recipe as the solver runs it.

use super::at_work::blowing;
use super::boundary::{ActiveTools, BoundaryConditions, HeatedBoard, Radiation, TipDrive};
use super::case::Case;
use super::iron::Iron;
use super::network::Network;
use super::parameters::ParameterSample;
use super::recipe::{HeatingAids, Recipe};
use super::run_stage::{Nearing, PIECE_S, Round, RunStage, WaitsFor};
use super::tool::{Approach, ComesNearWhen, HotAir};
use crate::units::{Length, Temperature};

/// The board under joints whose flux smokes so that an eye sees it, °C: rosin boils off from there. E, within 20 K.
const FLUX_SMOKES: Temperature = Temperature::celsius(180.0);

/// What the stages are made from.
pub(super) struct Course<'a> {
    pub(super) case: &'a Case<'a>,
    pub(super) parameters: &'a ParameterSample,
    pub(super) scene: HeatedBoard<'a>,
    pub(super) network: &'a Network,
}

impl Course<'_> {
    pub(super) fn stages(&self) -> Vec<RunStage> {
        let Recipe { air, longest, preheat, during, .. } = self.case.recipe;
        let mut stages = Vec::new();
        for (k, stage) in preheat.iter().enumerate() {
            stages.push(self.approached(stage.lasts.in_seconds(), stage.air.as_ref(), (&stage.during, k)));
            let preheater = HeatingAids { preheater: stage.during.preheater, ..HeatingAids::default() };
            stages.extend(
                (stage.change.in_seconds() >= 1.0)
                    .then(|| self.stage(stage.change.in_seconds(), None, (&preheater, k))),
            );
        }
        stages.push(self.approached(longest.in_seconds(), air.as_ref(), (during, preheat.len())));
        stages
    }

    /// A stage, whose nozzle may come near first. A linear model has it at its distance from the start.
    fn approached(&self, seconds: f64, air: Option<&HotAir>, during: (&HeatingAids, usize)) -> RunStage {
        let linear = matches!(self.scene.ambient.radiation, Radiation::Linear);
        let approach = air.and_then(|air| Some((air, air.approach?))).filter(|_| !linear);
        let nearing = approach.map(|(air, approach)| self.nearing((air, approach), seconds, during));
        RunStage { nearing, ..self.stage(seconds, air, during) }
    }

    fn nearing(&self, (air, way): (&HotAir, Approach), seconds: f64, during: (&HeatingAids, usize)) -> Nearing {
        let over_s = way.over.in_seconds().min(seconds).floor() as usize;
        let at = |mm: f64| [self.scene.with(&self.working(Some(&HotAir { distance: Length::mm(mm), ..*air }), during))];
        let (from, to) = (way.from.in_mm(), air.distance.in_mm());
        let piece = |begins: usize| {
            let middle = (begins + (begins + PIECE_S).min(over_s)) as f64 / 2.0;
            at(from + (to - from) * middle / over_s.max(1) as f64)
        };
        let waits_for = match way.when {
            ComesNearWhen::AtOnce => WaitsFor::Nothing,
            ComesNearWhen::FluxSmokes => WaitsFor::PadsAt((FLUX_SMOKES - self.case.ambient).in_kelvin()),
            ComesNearWhen::FirstShines => WaitsFor::FirstJoint,
        };
        Nearing { far: at(from), pieces: (0..over_s).step_by(PIECE_S).map(piece).collect(), over_s, waits_for }
    }

    fn stage(&self, seconds: f64, air: Option<&HotAir>, (during, stage): (&HeatingAids, usize)) -> RunStage {
        let working = self.working(air, (during, stage));
        let rounds = during.irons().zip(&self.network.tips[stage]).map(|(iron, places)| Round {
            drive: self.drive(iron),
            places: places.clone(),
            dwell_s: iron.dwell_s(),
        });
        let air = [self.scene.with(&working)];
        RunStage { seconds: seconds as usize, air, rounds: rounds.collect(), nearing: None }
    }

    fn drive(&self, iron: &Iron) -> TipDrive {
        TipDrive { set: (iron.set - self.case.ambient).in_kelvin(), to_tip: self.case.station.iron.to_tip }
    }

    pub(super) fn last_without_jet(&self) -> BoundaryConditions {
        let Recipe { air, preheat, during, .. } = self.case.recipe;
        let mut working = self.working(air.as_ref(), (during, preheat.len()));
        if let Some(blowing) = &mut working.blowing {
            blowing.jet = blowing.jet.unheated();
        }
        self.scene.with(&working)
    }

    fn working(&self, air: Option<&HotAir>, (during, stage): (&HeatingAids, usize)) -> ActiveTools {
        let tips = during.irons().zip(&self.network.tips[stage]);
        let tips = tips.filter_map(|(iron, places)| Some((*places.first()?, self.drive(iron)))).collect();
        let preheater =
            during.preheater.map(|preheater| (preheater, preheater.area(self.case.board.connector.body.centre)));
        let blowing = air.map(|air| blowing(self.case, air, self.parameters));
        ActiveTools { blowing, preheater, tips }
    }
}
