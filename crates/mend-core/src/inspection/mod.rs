//! The pin walk: what each pin showed under the nudge, and what follows from all of them.

mod pin;
mod verdict;

pub use pin::PinMark;
pub use verdict::{Verdict, Walked, verdict};
