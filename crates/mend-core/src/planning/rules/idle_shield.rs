//! A shield on a face that no air meets: it keeps the heat in.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let recipe = seen.order.recipe;
    let faces: Vec<_> = recipe.airs().map(|air| air.face).collect();
    let idle = recipe.shields.iter().enumerate().filter(|(_, s)| s.block().is_none() && !faces.contains(&s.face));
    let finding =
        |shield| Finding::warning("idle_shield", format!("shields[{shield}]"), PlanProblem::IdleShield { shield });
    idle.map(|(k, _)| finding(k)).collect()
}
