//! The board model, `urgent-mend/board/2`: docs/formats/board.md.

pub(crate) mod component;
pub(crate) mod connector;
pub(crate) mod file;
mod schema;

pub use file::{BoardFile, parse, write};
pub use schema::schema;

use crate::reading::Accepted;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/board/2";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/board/1"] };

/// To a ten-thousandth: what turning and shifting leaves behind is no measure.
pub(crate) fn tidy(value: f64) -> f64 {
    (value * 1e4).round() / 1e4
}
