//! Iron only, joint by joint: few, large joints that the tip gets to.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, iron, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::recipe::Recipe;

/// More joints than this and one has set while the last melts (E: a tip comes back to each within about two seconds).
const MOST_JOINTS: usize = 6;

/// See the head of this file.
#[derive(Debug)]
pub struct IronOnly;

impl Method for IronOnly {
    fn family(&self) -> MethodFamily {
        MethodFamily::IronOnly
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Learning
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (joints, hidden) = (subject.joints().len(), subject.hidden());
        Fit::default()
            .not(subject.equipment.tips.is_empty(), Obstacle::NoIronTip)
            .not_any(subject.tips_too_wide())
            .not(hidden > 0, Obstacle::HiddenFromTip { joints: hidden })
            .not(joints > MOST_JOINTS, Obstacle::TooManyForTip { joints })
            .good(joints <= MOST_JOINTS && hidden == 0, Advantage::AllWithinReach { joints })
            .good(!subject.is_heavy(), Advantage::LightBoard)
            .mind(subject.is_heavy(), Caveat::HeavyForTip)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let start = iron(subject, unfed(subject.composition), None).with_tips(subject.fine_tips());
        // Seldom are all of them liquid at once: each end is levered up while it is, and pegs do not bend.
        let levered = subject.board.connector.pegs == 0;
        vec![Start { recipe: Recipe { levered, ..start.recipe.clone() }, ..start }]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn a_few_joints_in_reach_are_the_irons_and_many_or_hidden_ones_are_not() {
        let jack = shop("power-jack");
        assert_eq!(against(&IronOnly, &jack), []);
        let start = &IronOnly.starts(&jack.subject())[0];
        assert!(start.recipe.air.is_none() && start.composition.feed.is_none() && start.recipe.levered);
        assert_eq!(start.recipe.during.iron.as_ref().map(|iron| iron.tip.in_mm()), Some(4.0), "the stoutest owned");
        assert!(against(&IronOnly, &shop("flex")).iter().any(|r| matches!(r, Obstacle::TooManyForTip { .. })));
        let mut port = shop("usb-c-top");
        port.equipment.tips.clear();
        let found = against(&IronOnly, &port);
        assert!(
            found.contains(&Obstacle::NoIronTip) && found.contains(&Obstacle::HiddenFromTip { joints: 12 }),
            "{found:?}"
        );
        assert_eq!(IronOnly.fit(&jack.heavy().subject()).minds.len(), 1);
    }
}
