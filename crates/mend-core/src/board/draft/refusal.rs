//! What is refused, in the words that every act shares.

use super::RULE;
use crate::finding::Finding;

pub(super) fn refuse(place: &str, message: impl Into<String>, hint: &str) -> Finding {
    Finding::blocking(RULE, place, message).hint(hint)
}

pub(super) fn no_part() -> Finding {
    refuse("part", "there is no part yet", "take one from the connector library")
}
