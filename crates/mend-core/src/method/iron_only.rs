//! Iron only, joint by joint: few, large joints that the tip gets to.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, iron, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;

/// More joints than this and one has set while the last melts (E: a tip comes back to each within about two seconds).
const MOST_JOINTS: usize = 6;

/// See the head of this file.
#[derive(Debug)]
pub struct IronOnly;

static WORDS: MethodText = MethodText {
    name: "Iron only",
    how: "One stout tip goes from joint to joint until all are liquid at once.",
    danger: "chasing joints: one sets while the next melts",
    early: &[
        "The first joint is matt again when the tip leaves the last: a stouter tip, or another way.",
        "The part tilts on one leg: stop, a pad goes next.",
    ],
    clean_up: "Little: the joints keep their metal, braid each once.",
    heat: &["Tip flat on joint and pad, fresh solder on it, two seconds each, round and round."],
    cue: "Every joint stays bright while the tip is at the next one.",
    not_coming: &["A stouter tip.", "A preheater below.", "Alloy flooded over all joints."],
    cautions: &[Caution::Burns, Caution::Fumes],
    level: SkillLevel::Learning,
};

impl Method for IronOnly {
    fn family(&self) -> MethodFamily {
        MethodFamily::IronOnly
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, hidden) = (subject.joints().len(), subject.hidden());
        Fit::default()
            .not(subject.equipment.tips.is_empty(), "no iron tip in the shop")
            .not(hidden > 0, format!("{hidden} joints are hidden: no tip gets there"))
            .not(joints > MOST_JOINTS, format!("{joints} joints: the first is solid before the last melts"))
            .good(joints <= MOST_JOINTS && hidden == 0, format!("{joints} joints, all within reach of the tip"))
            .good(!subject.is_heavy(), "the board does not draw the heat away")
            .mind(subject.is_heavy(), "a heavy board: the tip may not hold all joints")
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        vec![iron(subject, unfed(subject.composition), None)]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn a_few_joints_in_reach_are_the_irons_and_many_or_hidden_ones_are_not() {
        let jack = shop("power-jack");
        assert_eq!(against(&IronOnly, &jack), "");
        let start = &IronOnly.starts(&jack.subject())[0];
        assert!(start.recipe.air.is_none() && start.composition.feed.is_none());
        assert_eq!(start.recipe.during.iron.as_ref().map(|iron| iron.tip.in_mm()), Some(4.0), "the stoutest owned");
        assert!(against(&IronOnly, &shop("flex")).contains("the first is solid before the last melts"));
        let mut port = shop("usb-c-top");
        port.equipment.tips.clear();
        let found = against(&IronOnly, &port);
        assert!(found.contains("no iron tip in the shop") && found.contains("hidden"), "{found}");
        assert_eq!(IronOnly.fit(&jack.heavy().subject()).minds.len(), 1);
    }
}
