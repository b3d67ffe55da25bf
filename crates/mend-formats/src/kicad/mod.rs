//! Boards and footprints of an open layout format of S-expressions (`.kicad_pcb`, `.kicad_mod`), read only:
//! docs/formats/imports.md.
//!
//! In reading order: [`sexpr`] bytes to lists, bounded in size, depth and count; `tree` looking into lists; `pads`,
//! `footprint`, `outline`, `copper` what is drawn; [`layout`] a whole board; `part` a footprint as a connector;
//! [`draft`] a chosen part and what is near it as a draft. What is not understood is counted by name, never guessed.

mod copper;
mod draft;
mod footprint;
mod layout;
mod notes;
mod outline;
mod pads;
mod part;
pub mod sexpr;
mod tree;

pub use draft::draft;
pub use footprint::{Footprint, footprint};
pub use layout::{Layout, layout};
pub use notes::ImportNotes;
pub use part::connector;

pub(crate) const RULE: &str = "layout_file";
/// Longer words of a file are cut, letters.
const WORD: usize = 40;
