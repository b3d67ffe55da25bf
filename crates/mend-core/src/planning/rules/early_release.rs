//! All joints molten before the last stage begins: the part comes away when nobody holds it.

use super::input::RuleInput;
use crate::finding::Finding;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let early = seen.fine.release.filter(|t| *t < seen.fine.last_from);
    let finding = early.map(|t| {
        let message = format!("the part is loose {:.0} s before the last stage begins", seen.fine.last_from - t);
        Finding::warning("early_release", "preheat", message).hint("shorten the soak, or lift it then")
    });
    finding.into_iter().collect()
}
