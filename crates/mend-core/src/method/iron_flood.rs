//! Iron with alloy flood: all joints covered with leaded or low-melt solder, rocked loose with the tip.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, fed, iron};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::board::Role;
use crate::caution::Caution;
use crate::heat::bridge::Bridge;

/// A flood that a tip drags along a row, mm² (E, 1-3).
const FLOOD: Bridge = Bridge { wire_mm: 0.0, bead_mm2: 2.0 };
/// A row longer than this sets at one end while the tip is at the other, mm (E; the heat run says how far it carries).
const LONGEST_MM: f64 = 30.0;

/// See the head of this file.
#[derive(Debug)]
pub struct IronFlood;

impl Method for IronFlood {
    fn family(&self) -> MethodFamily {
        MethodFamily::IronFlood
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::Lead]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let hidden = subject.hidden();
        let plated = subject.joints().iter().filter(|joint| joint.role == Role::Anchor && joint.shape.is_hole());
        let anchors = plated.count();
        let equipment = subject.equipment;
        let long = subject.board.connector.body.width.max(subject.board.connector.body.depth);
        let barrel = subject.under_the_barrel();
        let open = subject.board.connector.family.has_open_contacts();
        Fit::default()
            .not(equipment.tips.is_empty(), Obstacle::NoIronTip)
            .not(hidden > 0, Obstacle::HiddenFromFlood { joints: hidden })
            .not(equipment.leaded().chain(equipment.low_melt()).next().is_none(), Obstacle::NoFloodAlloy)
            .not(long > LONGEST_MM, Obstacle::TooLongForFlood { mm: long })
            .not(subject.holes() == subject.joints().len(), Obstacle::OnlyHoles)
            .not_unless_all_melt(subject.is_heavy() && anchors > 0, Obstacle::AnchorsFreeze { joints: anchors })
            .good(open, Advantage::TipSparesLatch)
            .good(!subject.shy_near(subject.board.connector.face).is_empty(), Advantage::NoAirOnPlastics)
            .mind_any(barrel.map(|n| Caveat::BarrelPasses { component: n.name.clone() }))
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let alloys = subject.equipment.leaded().take(1).chain(subject.equipment.low_melt().take(1));
        alloys.filter_map(|alloy| Some(iron(subject, fed(subject, alloy)?, Some(FLOOD)))).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn a_small_latch_connector_is_flooded_with_each_alloy_in_stock() {
        let flex = shop("flex").latch(0.5);
        assert_eq!(against(&IronFlood, &flex), []);
        let fit = IronFlood.fit(&flex.subject());
        assert!(fit.minds.contains(&Caveat::BarrelPasses { component: "latch".to_owned() }), "{:?}", fit.minds);
        let starts = IronFlood.starts(&flex.subject());
        let fed: Vec<&str> = starts.iter().filter_map(|s| Some(s.composition.fed()?.metal.name.as_str())).collect();
        assert_eq!(fed, ["Sn63Pb37", "Sn42Bi58"]);
        assert!(starts.iter().all(|start| start.recipe.bridge == Some(FLOOD)));
    }

    #[test]
    fn without_alloy_or_with_plated_legs_alone_it_does_not_apply() {
        let mut flex = shop("flex");
        flex.equipment.alloys.truncate(1);
        assert_eq!(against(&IronFlood, &flex), [Obstacle::NoFloodAlloy]);
        assert!(against(&IronFlood, &shop("header")).contains(&Obstacle::OnlyHoles));
    }
}
