//! Components whose own joints melt with the part's: they stay by surface tension alone.

use super::input::RuleInput;
use crate::finding::{Finding, Severity, list};

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let melts = seen.factory_melts_c as f32;
    let components = seen.order.board.components.iter().zip(&seen.fine.traces.own_joints);
    let molten =
        components.filter(|(n, curve)| n.soldered() > 0.0 && curve.iter().take(seen.off + 1).any(|t| *t >= melts));
    let names: Vec<&str> = molten.map(|(n, _)| n.name.as_str()).collect();
    if names.is_empty() {
        return Vec::new();
    }
    let message = format!("the own joints of {} melt too", list(&names));
    let finding = Finding::warning("own_joints", "components", message);
    vec![
        Finding { severity: Severity::Note, ..finding }
            .hint("they stay where nobody bumps them: no tweezers near them until all is solid"),
    ]
}
