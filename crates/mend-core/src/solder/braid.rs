//! What a pass of braid leaves in a joint.

use crate::board::JointGroup;

/// A land from which a pad sinks heat like a ground pad, mm² (E).
const LARGE_PAD: f64 = 3.0;

/// Share of the molten solder that one pass leaves (engineering estimates; no published constant is known).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Left {
    /// A good pass.
    pub least: f64,
    /// The usual one.
    pub usual: f64,
    /// A poor one.
    pub most: f64,
}

const fn left(least: f64, usual: f64, most: f64) -> Left {
    Left { least, usual, most }
}

impl Left {
    /// With the part off: flat pads, large pads, holes.
    pub fn with_part_off(group: &JointGroup) -> Self {
        match (group.holes, group.wetted > LARGE_PAD) {
            (true, _) | (_, true) => left(0.10, 0.20, 0.40),
            _ => left(0.05, 0.10, 0.20),
        }
    }

    /// With the pins still in.
    pub const fn with_pins_in(group: &JointGroup) -> Self {
        if group.holes { left(0.25, 0.40, 0.70) } else { left(0.10, 0.20, 0.40) }
    }
}
