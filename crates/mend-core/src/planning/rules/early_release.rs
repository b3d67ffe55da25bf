//! All joints molten before the last pass begins: the part comes away when nobody holds it.

use super::Seen;
use crate::finding::Finding;

pub(super) fn said(seen: &Seen<'_>) -> Vec<Finding> {
    let early = seen.fine.release.filter(|t| *t < seen.fine.last_from);
    let said = early.map(|t| {
        let message = format!("the part is loose {:.0} s before the last pass begins", seen.fine.last_from - t);
        Finding::warning("early_release", "before", message).hint("shorten the soak, or lift it then")
    });
    said.into_iter().collect()
}
