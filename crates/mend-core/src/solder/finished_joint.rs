//! What a row of joints holds with the new part on it.

use crate::materials::Composition;

/// The joints of a row when the new part is soldered.
#[derive(Debug, Clone, PartialEq)]
pub struct FinishedJoints {
    /// The row.
    pub row: String,
    /// After good, usual and poor passes of braid.
    pub metals: [Composition; 3],
}
