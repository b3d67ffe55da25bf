//! What there is to say about a plan beyond its margins: one rule, one file, each answering with findings. A rule that looks
//! at the recipe alone can forbid it; one that looks at the runs warns.
//!
//! A good rule names the thing, its value and the way out, and stays silent where there is nothing to do.

mod cells;
mod dense_board;
mod early_release;
mod idle_shield;
pub(super) mod input;
mod jet_port;
mod own_joints;
pub(in crate::planning) mod ramp;

use crate::finding::Finding;
use input::RuleInput;

/// All rules about runs, in alphabetic order.
pub(super) fn check(seen: &RuleInput<'_>) -> Vec<Finding> {
    let rules: [fn(&RuleInput<'_>) -> Vec<Finding>; 7] = [
        cells::check,
        dense_board::check,
        early_release::check,
        idle_shield::check,
        jet_port::check,
        own_joints::check,
        ramp::check,
    ];
    rules.iter().flat_map(|rule| rule(seen)).collect()
}
