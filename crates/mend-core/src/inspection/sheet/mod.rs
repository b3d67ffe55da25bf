//! The diode sheet: a forward reading of each pin, held against good boards; typed, or taken off a meter hands-free.
//!
//! - `reading`: a reading and when it was taken; `reference`: what good boards read, and how a pin stands to them;
//!   `touches`: which of a meter's readings are those of a pin
//!
//! Judges readings one by one. What they mean together is for `fault`.

mod reading;
mod reference;
mod touches;

pub use reading::{DiodeReading, MOST_V, NoReading, SHORT_V, SheetPhase};
pub use reference::{PinReference, PinStanding, standing};
pub use touches::Touches;
