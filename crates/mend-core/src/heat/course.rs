//! What is done on a board, stage by stage: the recipe as the solver runs it.

use super::at_work::blowing;
use super::boundary::{ActiveTools, BoundaryConditions, HeatedBoard, Radiation, TipDrive};
use super::case::Case;
use super::iron::Iron;
use super::network::Network;
use super::parameters::ParameterSample;
use super::recipe::{HeatingAids, Recipe};
use super::run_stage::{Nearing, PIECE_S, Round, RunStage, WaitsFor};
use super::tool::{ComesNearWhen, HotAir};
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

/// What a stage is heated with.
#[derive(Clone, Copy)]
struct StageTools<'a> {
    air: Option<&'a HotAir>,
    aids: &'a HeatingAids,
    /// Which stage it is: where the tips go in it.
    stage: usize,
}

impl Course<'_> {
    pub(super) fn stages(&self) -> Vec<RunStage> {
        let Recipe { air, longest, preheat, during, .. } = self.case.recipe;
        let mut stages = Vec::new();
        for (k, stage) in preheat.iter().enumerate() {
            let tools = StageTools { air: stage.air.as_ref(), aids: &stage.during, stage: k };
            stages.push(self.approached(stage.lasts.in_seconds(), tools));
            let preheater = HeatingAids { preheater: stage.during.preheater, ..HeatingAids::default() };
            stages.extend(
                (stage.change.in_seconds() >= 1.0).then(|| {
                    self.stage(stage.change.in_seconds(), StageTools { air: None, aids: &preheater, ..tools })
                }),
            );
        }
        let last = StageTools { air: air.as_ref(), aids: during, stage: preheat.len() };
        stages.push(self.approached(longest.in_seconds(), last));
        stages
    }

    /// A stage, whose nozzle may come near first. A linear model has it at its distance from the start.
    fn approached(&self, seconds: f64, tools: StageTools<'_>) -> RunStage {
        let linear = matches!(self.scene.ambient.radiation, Radiation::Linear);
        let nearing = self.nearing(seconds, tools).filter(|_| !linear);
        RunStage { nearing, ..self.stage(seconds, tools) }
    }

    fn nearing(&self, seconds: f64, tools: StageTools<'_>) -> Option<Nearing> {
        let air = tools.air?;
        let way = air.approach?;
        let over_s = way.over.in_seconds().min(seconds).floor() as usize;
        let at = |mm: f64| {
            let air = HotAir { distance: Length::mm(mm), ..*air };
            [self.scene.with(&self.working(StageTools { air: Some(&air), ..tools }))]
        };
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
        let pieces = (0..over_s).step_by(PIECE_S).map(piece).collect();
        Some(Nearing { far: at(from), pieces, over_s, waits_for })
    }

    fn stage(&self, seconds: f64, tools: StageTools<'_>) -> RunStage {
        let working = self.working(tools);
        let rounds = tools.aids.irons().zip(&self.network.tips[tools.stage]).map(|(iron, places)| Round {
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
        let mut working = self.working(StageTools { air: air.as_ref(), aids: during, stage: preheat.len() });
        if let Some(blowing) = &mut working.blowing {
            blowing.jet = blowing.jet.unheated();
        }
        self.scene.with(&working)
    }

    fn working(&self, StageTools { air, aids, stage }: StageTools<'_>) -> ActiveTools {
        let tips = aids.irons().zip(&self.network.tips[stage]);
        let tips = tips.filter_map(|(iron, places)| Some((*places.first()?, self.drive(iron)))).collect();
        let preheater =
            aids.preheater.map(|preheater| (preheater, preheater.area(self.case.board.connector.body.centre)));
        let blowing = air.map(|air| blowing(self.case, air, self.parameters));
        ActiveTools { blowing, preheater, tips }
    }
}
