//! What is done on a board, stage by stage: the recipe as the solver runs it.

use super::at_work::blowing;
use super::boundary::{ActiveTools, BoundaryConditions, HeatedBoard, Radiation, TipDrive};
use super::case::Case;
use super::iron::Iron;
use super::network::Network;
use super::parameters::ParameterSample;
use super::recipe::{HeatingAids, Recipe};
use super::run_stage::{Round, RunStage};
use super::tool::{Approach, HotAir};
use crate::units::Length;

/// While a nozzle comes near, its distance stands for so long, s: a jet follows its cube root at the most.
const PIECE_S: f64 = 3.0;

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
            stages.extend(self.approached(stage.lasts.in_seconds(), stage.air.as_ref(), (&stage.during, k)));
            let preheater = HeatingAids { preheater: stage.during.preheater, ..HeatingAids::default() };
            stages.extend(
                (stage.change.in_seconds() >= 1.0)
                    .then(|| self.stage(stage.change.in_seconds(), None, (&preheater, k))),
            );
        }
        stages.extend(self.approached(longest.in_seconds(), air.as_ref(), (during, preheat.len())));
        stages
    }

    /// A stage, in pieces while its nozzle comes near. A linear model has it at its distance from the start.
    fn approached(&self, seconds: f64, air: Option<&HotAir>, during: (&HeatingAids, usize)) -> Vec<RunStage> {
        let linear = matches!(self.scene.ambient.radiation, Radiation::Linear);
        let approach = air.and_then(|air| Some((air, air.approach?))).filter(|_| !linear);
        let Some((air, Approach { from, over })) = approach else { return vec![self.stage(seconds, air, during)] };
        let mut stages: Vec<RunStage> = Vec::new();
        let (over, mut past) = (over.in_seconds().min(seconds).floor(), 0.0);
        while past < over {
            let lasts = PIECE_S.min(over - past);
            let part = (past + lasts / 2.0) / over.max(1.0);
            let distance = from.in_mm() + (air.distance.in_mm() - from.in_mm()) * part;
            stages.push(self.stage(lasts, Some(&HotAir { distance: Length::mm(distance), ..*air }), during));
            past += lasts;
        }
        if seconds > over {
            stages.push(self.stage(seconds - over, Some(air), during));
        }
        stages.iter_mut().skip(1).for_each(|stage| stage.goes_on = true);
        stages
    }

    fn stage(&self, seconds: f64, air: Option<&HotAir>, (during, stage): (&HeatingAids, usize)) -> RunStage {
        let working = self.working(air, (during, stage));
        let rounds = during.irons().zip(&self.network.tips[stage]).map(|(iron, places)| Round {
            drive: self.drive(iron),
            places: places.clone(),
            dwell_s: iron.dwell_s(),
        });
        let air = [self.scene.with(&working)];
        RunStage { seconds: seconds as usize, air, rounds: rounds.collect(), goes_on: false }
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
