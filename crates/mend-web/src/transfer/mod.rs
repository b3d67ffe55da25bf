//! A shop as files of the open formats: [`export`] writes all of it, `import` reads such files one by one or as a whole;
//! [`check`] reads everything once.

mod check;
mod export;
mod file_places;
mod floor;
mod import;
mod stored_json;
mod worked;

pub use crate::opening::CannotOpen;
pub use check::check;
pub use export::{Sink, export};
pub use import::{Imported, Source, import_file, import_whole};
