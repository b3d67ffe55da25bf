//! The pin walk: what each pin showed under the nudge, and what follows from all of them.
//!
//! Judges marks that a person gave. It looks at no picture and measures nothing itself.

mod pin;
mod verdict;

pub use pin::PinMark;
pub use verdict::{Verdict, Walked, verdict};
