//! What a lesson says, `urgent-mend/lesson/1`: docs/formats/lesson.md.

use mend_core::finding::Finding;
use mend_core::heat::known::{Knowledge, Pairs, TEACHABLE, TeachableValues};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/lesson/1";
const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "lesson_file";

/// The file as it is written: a bell over jet, flow, outlet, distance, conduction, capacity and losses, in this order.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub(crate) struct LessonFile {
    format: String,
    /// Row by row.
    precision: [[f64; TEACHABLE]; TEACHABLE],
    /// Precision times mean.
    pull: [f64; TEACHABLE],
}

/// Writes what a lesson says.
pub fn write(says: &Knowledge) -> Result<String, serde_json::Error> {
    serde_json::to_string(&LessonFile::from_known(says))
}

/// Reads what a lesson says.
pub fn parse(bytes: &[u8]) -> Result<Knowledge, Vec<Finding>> {
    reading::json::<LessonFile>(RULE, bytes)?.known()
}

impl LessonFile {
    /// As it is written.
    pub(crate) fn from_known(says: &Knowledge) -> Self {
        let precision = std::array::from_fn(|i| std::array::from_fn(|j| says.precision[(i, j)]));
        Self { format: FORMAT.to_owned(), precision, pull: std::array::from_fn(|k| says.pull[k]) }
    }

    /// What it says, or why it is no lesson: a precision is symmetric and has no negative direction.
    pub(crate) fn known(self) -> Result<Knowledge, Vec<Finding>> {
        reading::expect_format(RULE, &self.format, &ACCEPTED)?;
        let precision = Pairs::from_fn(|i, j| self.precision[i][j]);
        let known = Knowledge { precision, pull: TeachableValues::from(self.pull) };
        let small = 1e-6 * precision.amax().max(1.0);
        let sound = precision.iter().chain(known.pull.iter()).all(|v| v.is_finite())
            && (precision - precision.transpose()).amax() <= small
            && precision.symmetric_eigenvalues().min() >= -small;
        let none = || vec![Finding::written(RULE, "precision", "this is no bell").hint("export it again")];
        sound.then_some(known).ok_or_else(none)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::heat::known::Teachable;

    #[test]
    fn a_lesson_comes_back_to_the_bit() {
        let says = Knowledge::one(Teachable::Jet, -0.1, 0.07).and(&Knowledge::one(Teachable::Outlet, 4.0, 3.0));
        assert_eq!(parse(write(&says).expect("written").as_bytes()), Ok(says));
    }

    #[test]
    fn what_is_no_bell_is_refused() {
        let mut says = Knowledge::one(Teachable::Jet, 0.0, 0.1);
        says.precision[(0, 0)] = -4.0;
        assert!(parse(write(&says).expect("written").as_bytes()).is_err());
    }
}
