//! Iron with alloy flood: all joints covered with leaded or low-melt solder, rocked loose with the tip.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, fed, iron};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;
use crate::heat::bridge::Bridge;

/// A flood that a tip drags along a row, mm² (E, 1-3).
const FLOOD: Bridge = Bridge { wire_mm: 0.0, bead_mm2: 2.0 };
/// A row longer than this sets at one end while the tip is at the other, mm (E; the heat run says how far it carries).
const LONGEST_MM: f64 = 30.0;

/// See the head of this file.
#[derive(Debug)]
pub struct IronFlood;

static WORDS: MethodText = MethodText {
    name: "Iron with alloy flood",
    how: "Leaded or low-melt solder covers all joints; the tip runs along the flood while the part is rocked off.",
    danger: "melting the component with the iron's barrel",
    early: &[
        "The flood skins over behind the tip: more alloy, or a preheater below.",
        "Plastic beside the barrel shines or leans: lift the tip, come from the other side.",
    ],
    clean_up: "Much: every trace of the flood out, flooded fresh and wicked again.",
    heat: &["Tip along the flood to and fro, never on plastic; rock the part gently, only sideways."],
    cue: "The whole flood stays bright from end to end and the part floats.",
    not_coming: &["More alloy.", "A preheater below.", "Low-melt instead of leaded."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::Lead],
    level: SkillLevel::Trained,
};

impl Method for IronFlood {
    fn family(&self) -> MethodFamily {
        MethodFamily::IronFlood
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let hidden = subject.hidden();
        let equipment = subject.equipment;
        let long = subject.board.connector.body.width.max(subject.board.connector.body.depth);
        let barrel = subject.under_the_barrel();
        let open = subject.board.connector.family.has_open_contacts();
        Fit::default()
            .not(equipment.tips.is_empty(), "no iron tip in the shop")
            .not(hidden > 0, format!("{hidden} joints are hidden: the flood does not reach them"))
            .not(
                equipment.leaded().chain(equipment.low_melt()).next().is_none(),
                "neither leaded nor low-melt alloy in stock",
            )
            .not(long > LONGEST_MM, format!("{long:.0} mm long: one end sets while the tip is at the other"))
            .not(subject.holes() == subject.joints().len(), "plated legs: the flood does not mix down the holes")
            .good(open, "a small latch connector: the tip's heat goes into the joints, not into the plastic")
            .good(!subject.shy_near(subject.board.connector.face).is_empty(), "no air on the plastics beside it")
            .mind(barrel.is_some(), barrel.map_or(String::new(), |n| format!("the iron's barrel passes {}", n.name)))
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
        assert_eq!(against(&IronFlood, &flex), "");
        let fit = IronFlood.fit(&flex.subject());
        assert!(fit.minds.iter().any(|mind| mind.contains("passes latch")), "{:?}", fit.minds);
        let starts = IronFlood.starts(&flex.subject());
        let fed: Vec<&str> = starts.iter().filter_map(|s| Some(s.composition.fed()?.metal.name.as_str())).collect();
        assert_eq!(fed, ["Sn63Pb37", "Sn42Bi58"]);
        assert!(starts.iter().all(|start| start.recipe.bridge == Some(FLOOD)));
    }

    #[test]
    fn without_alloy_or_with_plated_legs_alone_it_does_not_apply() {
        let mut flex = shop("flex");
        flex.equipment.alloys.truncate(1);
        assert_eq!(against(&IronFlood, &flex), "neither leaded nor low-melt alloy in stock");
        assert!(against(&IronFlood, &shop("header")).contains("does not mix down the holes"));
    }
}
