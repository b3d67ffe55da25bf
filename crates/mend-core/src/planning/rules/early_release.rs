//! All joints molten before the last stage begins: the part comes away when nobody holds it.

use super::input::RuleInput;
use crate::finding::Finding;
use crate::finding::problem::PlanProblem;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let early = seen.fine.release.filter(|t| *t < seen.fine.last_from);
    let finding = early.map(|t| {
        Finding::warning("early_release", "preheat", PlanProblem::EarlyRelease { s: seen.fine.last_from - t })
    });
    finding.into_iter().collect()
}
