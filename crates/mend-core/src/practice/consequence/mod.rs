//! What comes of what hands do, a file each. Each looks at an attempt as it stands and says what is harmed now.

mod alloy_left;
mod barrel_pulled;
mod body_damaged;
mod component_moves;
mod fit_moved;
mod laminate_blisters;
mod pad_lifts;
pub(super) mod pull;

use super::attempt::Attempt;
use super::harm::Harm;

/// A rule: what is harmed now.
type ConsequenceRule = fn(&Attempt) -> Vec<Harm>;

/// Those that may happen at any moment.
pub(super) const ALWAYS: [ConsequenceRule; 6] = [
    pad_lifts::look,
    barrel_pulled::look,
    body_damaged::look,
    component_moves::look,
    laminate_blisters::look,
    fit_moved::look,
];

/// Those that are found when it is done.
pub(super) const AT_THE_END: [ConsequenceRule; 2] = [alloy_left::look, fit_moved::cold];
