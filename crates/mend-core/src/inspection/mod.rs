//! What is looked at and measured before the heat and after it, and what follows.
//!
//! - [`condition`]: in what state the lands are; [`sheet`]: the diode sheet; [`fault`]: is the port the fault at all?
//! - [`component_check`]: what stands near, after the heat; [`insulation`]: pins side by side
//! - [`PinMark`], [`verdict`]: the pin walk, each pin under the nudge; [`functional_test`]: what the port is for, tried; [`rework`]: how often it
//!   went back, and for how long
//!
//! Judges what a person saw and a meter read. It looks at no picture and measures nothing itself.

pub mod component_check;
pub mod condition;
pub mod fault;
pub mod functional_test;
pub mod insulation;
pub mod rework;
pub mod sheet;

mod pin;
mod verdict;

pub use pin::PinMark;
pub use verdict::{Verdict, Walked, verdict};
