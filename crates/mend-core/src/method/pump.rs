//! Pump or vacuum iron: each hole emptied for itself, then the part lifts out cold.

use super::equipment::{SkillLevel, Sucker, stoutest};
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, Vary, fed, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::iron::{Iron, USUAL_DWELL};
use crate::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use crate::units::{Duration, Length, Temperature};

/// On each hole, s: tried from short to long, as the shortest that runs through spares the laminate most (E: 3-8).
const DWELLS_S: [f64; 3] = [3.0, 5.0, 8.0];
/// Set temperatures, °C (E): a vacuum iron is used cooler than a soldering tip, its land is under it all the time.
const SETS_C: [f64; 4] = [300.0, 330.0, 360.0, 390.0];
/// On the last hole at the longest, s: the shortest that a last stage may be.
const LONGEST_S: f64 = 20.0;
/// To the next hole, s (E).
const CHANGE_S: f64 = 3.0;
/// A recipe has no more stages than this before its last.
const MOST_HOLES: usize = 10;

/// See the head of this file.
#[derive(Debug)]
pub struct Pump;

impl Method for Pump {
    fn family(&self) -> MethodFamily {
        MethodFamily::Pump
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Learning
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::Lead]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, holes) = (subject.joints().len(), subject.holes());
        Fit::default()
            .not(subject.equipment.tips.is_empty(), Obstacle::NoIronTip)
            .not_any(subject.tips_too_wide().filter(|_| holes > 0))
            .not(subject.equipment.sucker == Sucker::None, Obstacle::NoSucker)
            .not(holes == 0, Obstacle::NoHole)
            .not(holes > 0 && holes < joints, Obstacle::SurfaceJointsForPump { joints: joints - holes })
            .not(holes > MOST_HOLES, Obstacle::TooManyHoles { holes })
            .good(holes == joints, Advantage::EveryJointAlone)
            .good(subject.is_shy(), Advantage::BodyStaysCool)
            .mind(subject.is_heavy(), Caveat::PlanesDrawHeat)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let leaded = subject.equipment.leaded().next().and_then(|alloy| fed(subject, alloy));
        let composition = leaded.unwrap_or_else(|| unfed(subject.composition));
        let start = |(preheater, dwell): (bool, f64)| {
            let preheater = preheater.then(|| super::usual::preheater(subject.board));
            let tips = subject.fine_tips();
            let tip = stoutest(&tips).unwrap_or(Length::mm(2.0));
            let on = |name: &str| {
                let iron =
                    Some(Iron { set: Temperature::celsius(380.0), tip, row: name.to_owned(), dwell: USUAL_DWELL });
                HeatingAids { preheater, iron, ..HeatingAids::default() }
            };
            let lasts = (Duration::seconds(dwell), Duration::seconds(CHANGE_S));
            let stage = |name: &str| HeatingStage { air: None, during: on(name), lasts: lasts.0, change: lasts.1 };
            let (last, first) = subject.joints().split_last()?;
            let warm = preheater.map(|_| super::usual::warm(HeatingAids { preheater, ..HeatingAids::default() }));
            let preheat = warm.into_iter().chain(first.iter().map(|joint| stage(&joint.name))).collect();
            let longest = Duration::seconds(LONGEST_S);
            let recipe = Recipe { preheat, longest, ..Recipe::from(on(&last.name)) };
            let sets = SETS_C.map(Temperature::celsius).to_vec();
            Some(Start { composition: composition.clone(), recipe, vary: Vary::Iron { sets, tips } })
        };
        let preheaters: &[bool] = if subject.equipment.preheater { &[false, true] } else { &[false] };
        let tried = preheaters.iter().flat_map(|preheater| DWELLS_S.map(|dwell| (*preheater, dwell)));
        tried.filter_map(start).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn every_hole_gets_a_stage_of_its_own() {
        let jack = shop("power-jack");
        assert_eq!(against(&Pump, &jack), []);
        let legs = jack.board.connector.joints.len();
        for start in Pump.starts(&jack.subject()) {
            let preheater = usize::from(start.recipe.during.preheater.is_some());
            assert_eq!(start.recipe.preheat.len(), legs - 1 + preheater);
            assert!(start.recipe.in_turn(&jack.board));
        }
    }

    #[test]
    fn surface_joints_and_a_shop_without_a_pump_are_reasons_against() {
        assert!(against(&Pump, &shop("usb-c-top")).iter().any(|r| matches!(r, Obstacle::SurfaceJointsForPump { .. })));
        assert_eq!(against(&Pump, &shop("flex")), [Obstacle::NoHole]);
        let mut jack = shop("power-jack");
        jack.equipment.sucker = Sucker::None;
        assert_eq!(against(&Pump, &jack), [Obstacle::NoSucker]);
    }
}
