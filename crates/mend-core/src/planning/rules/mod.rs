//! What there is to say about a plan beyond its margins: one rule, one file, each answering with findings. A rule that looks
//! at the recipe alone can forbid it; one that looks at the runs warns.
//!
//! A good rule names the thing, its value and the way out, and stays silent where there is nothing to do.

mod cells;
mod dense_board;
mod early_release;
mod idle_shield;
mod jet_port;
mod own_joints;
pub(in crate::planning) mod ramp;

use super::plan::Order;
use crate::finding::Finding;
use crate::heat::blowing::Blowing;
use crate::heat::run::Run;

/// What a rule may look at once everything has run.
pub(super) struct Seen<'a> {
    pub(super) order: &'a Order<'a>,
    /// The air of the last pass, nominally, where there is one.
    pub(super) air: Option<&'a Blowing>,
    /// The nominal run on the plan's own grid.
    pub(super) fine: &'a Run,
    /// The second at which all goes off: at release or at the stop line, from the first tool.
    pub(super) off: usize,
    /// Where the factory's metal melts, °C.
    pub(super) factory_melts_c: f64,
}

/// All rules about runs, in alphabetic order.
pub(super) fn said(seen: &Seen<'_>) -> Vec<Finding> {
    let rules: [fn(&Seen<'_>) -> Vec<Finding>; 7] = [
        cells::said,
        dense_board::said,
        early_release::said,
        idle_shield::said,
        jet_port::said,
        own_joints::said,
        ramp::said,
    ];
    rules.iter().flat_map(|rule| rule(seen)).collect()
}
