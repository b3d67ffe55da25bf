//! A shop as files of the open formats: [`export`] writes all of it, `import_file` reads one of them and `import_whole` all;
//! [`check`] reads everything once.

mod check;
mod export;
mod file_places;
mod floor;
mod import_file;
mod import_whole;
mod put_job;
mod stored_json;
mod worked;

pub use crate::filling::CannotFill;
pub use check::check;
pub use export::{Sink, export};
pub use import_file::{Imported, import_file};
pub use import_whole::{Source, import_whole};
