//! What a rule may look at.

use crate::heat::blowing::Blowing;
use crate::heat::run::Run;
use crate::planning::order::Order;

/// What a rule may look at once everything has run.
pub(in crate::planning) struct RuleInput<'a> {
    pub(in crate::planning) order: &'a Order<'a>,
    /// The air of the last stage, nominally, where there is one.
    pub(in crate::planning) air: Option<&'a Blowing>,
    /// The nominal run on the plan's own grid.
    pub(in crate::planning) fine: &'a Run,
    /// The second at which all goes off: at release or at the abort time, from the first tool.
    pub(in crate::planning) off: usize,
    /// Where the factory's metal melts, °C.
    pub(in crate::planning) factory_melts_c: f64,
}
