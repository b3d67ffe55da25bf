//! Quantities as types. Numbers come in and go out by named doors, so nobody asks "millimetres of what".
//!
//! Converts between the units that people type and those that are computed in. It has no arithmetic of compound units, and
//! puts no words to a number: that is the web's.

mod duration;
mod flow;
mod length;
mod money;
mod temperature;
mod unit;

pub use duration::Duration;
pub use flow::Flow;
pub use length::Length;
pub use money::Money;
pub use temperature::{Scale, TempDelta, Temperature, ZERO_CELSIUS_IN_KELVIN};
pub use unit::Unit;
