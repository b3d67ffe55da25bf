//! A board of many layers: the model is known to run fast on it.

use super::input::RuleInput;
use crate::finding::Finding;

pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let stack = &seen.order.board.stack;
    let message =
        format!("{} copper layers: such boards melt later than computed, the band leans that way", stack.layers);
    let warn = Finding::warning("dense_board", "copper.layers", message).hint("expect the late end of the band");
    if stack.is_dense() { vec![warn] } else { Vec::new() }
}
