//! Bridge wire: tinned copper along all joints, soldered to each, the iron on the wire.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Obstacle};
use super::start::{Start, fed, iron, unfed};
use super::subject::Subject;
use super::usual;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::recipe::{HeatingAids, Recipe};

/// Longer than this the far end stays solid, mm (E: heating.md, section 5, 15-25 mm on a warm board).
const LONGEST_MM: f64 = 40.0;

/// See the head of this file.
#[derive(Debug)]
pub struct BridgeWire;

impl Method for BridgeWire {
    fn family(&self) -> MethodFamily {
        MethodFamily::BridgeWire
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (hidden, joints) = (subject.hidden(), subject.joints().len());
        let long = subject.board.connector.body.width.max(subject.board.connector.body.depth);
        Fit::default()
            .not(subject.equipment.tips.is_empty(), Obstacle::NoIronTip)
            .not(!subject.equipment.wire, Obstacle::NoWire)
            .not(hidden > 0, Obstacle::HiddenFromWire { joints: hidden })
            .not(joints < 4, Obstacle::TooFewForWire { joints })
            .not(long > LONGEST_MM, Obstacle::TooLongForWire { mm: long })
            .good(subject.holes() > 4, Advantage::LegsOnOneWire { holes: subject.holes() })
            .good(!subject.equipment.preheater && subject.is_shy(), Advantage::NoAirOnShyPart)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let leaded = subject.equipment.leaded().next().and_then(|alloy| fed(subject, alloy));
        let composition = leaded.unwrap_or_else(|| unfed(subject.composition));
        let cold = iron(subject, composition, Some(usual::WIRE));
        let preheater = subject
            .equipment
            .preheater
            .then(|| HeatingAids { preheater: Some(usual::preheater(subject.board)), ..HeatingAids::default() });
        let warm = preheater.map(|preheater| {
            let during = HeatingAids { preheater: preheater.preheater, ..cold.recipe.during.clone() };
            let recipe = Recipe { preheat: vec![usual::warm(preheater)], during, ..cold.recipe.clone() };
            Start { recipe, ..cold.clone() }
        });
        [Some(cold), warm].into_iter().flatten().collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn legs_in_a_row_get_a_wire_with_and_without_a_preheater() {
        let header = shop("box-header");
        assert_eq!(against(&BridgeWire, &header), []);
        let starts = BridgeWire.starts(&header.subject());
        assert_eq!(starts.iter().map(|s| s.recipe.during.preheater.is_some()).collect::<Vec<_>>(), [false, true]);
        assert!(starts.iter().all(|start| start.recipe.bridge == Some(usual::WIRE)));
    }

    #[test]
    fn it_wants_wire_and_joints_that_the_wire_reaches() {
        let mut header = shop("box-header");
        header.equipment.wire = false;
        assert_eq!(against(&BridgeWire, &header), [Obstacle::NoWire]);
        assert!(against(&BridgeWire, &shop("usb-c-top")).contains(&Obstacle::HiddenFromWire { joints: 12 }));
    }
}
