//! The board model, `urgent-mend/board/1`: docs/formats/board.md.

mod file;
mod schema;

pub use file::{BoardFile, parse};
pub use schema::schema;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/board/1";
