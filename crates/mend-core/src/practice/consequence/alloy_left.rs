//! Alloy that stays in a joint is found by the pin walk, a week later.

use crate::board::groups;
use crate::practice::attempt::Attempt;
use crate::practice::goal::PracticeGoal;
use crate::practice::harm::{Harm, Harmed};

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    if attempt.scene.goal != PracticeGoal::CleanUp {
        return Vec::new();
    }
    let rows = groups(&attempt.scene.board).into_iter().filter(|group| !group.hidden);
    let left = rows.filter(|group| group.joints.iter().any(|k| !attempt.is_clean(*k)));
    let what =
        |row: String| Harm { what: Harmed::AlloyLeft { row }, at_s: attempt.seconds(), seen_s: None, force_n: None };
    left.map(|group| what(group.name)).collect()
}
