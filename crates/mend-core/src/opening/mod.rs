//! Opening a device and closing it again: what comes out, in which order, and what is still missing when it is closed.
//!
//! - [`item`]: screws, cables and all else that a device is opened by; [`map`]: where they are, one map for a device model
//! - [`order`]: the cell first; [`look_alike`]: screws that must not be swapped
//! - [`taps`]: what was taken out and put back, folded from a list of taps; [`tally`]: counted out and in
//!
//! Counts and orders. It sees no device: what is on a map is what a person has put there.

pub mod item;
pub mod look_alike;
pub mod map;
pub mod order;
pub mod tally;
pub mod taps;
