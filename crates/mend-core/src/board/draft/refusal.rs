//! What is refused, as every act shares it.

use super::RULE;
use crate::finding::Finding;
use crate::finding::problem::{DraftProblem, Problem};

pub(super) fn refuse(place: &str, problem: impl Into<Problem>) -> Finding {
    Finding::blocking(RULE, place, problem)
}

pub(super) fn no_part() -> Finding {
    refuse("part", DraftProblem::NoPart)
}
