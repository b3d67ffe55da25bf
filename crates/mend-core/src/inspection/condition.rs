//! In what state the land of a joint is: pad, hole and the trace at it, before any heat and after the part is off.

use serde::{Deserialize, Serialize};

use crate::board::Joint;
use crate::units::Duration;

/// A state.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Condition {
    /// As it should be.
    Whole,
    /// Green or black: copper eaten, still there.
    Corroded,
    /// Loose from the laminate, still joined to its trace.
    Lifted,
    /// The trace at it is broken, or the barrel of a hole.
    Torn,
    /// Gone.
    Missing,
}

/// What mending takes at the bench (E: with trace wire or foil, adhesive and mask, cured).
const MINUTES: [(Condition, f64); 4] =
    [(Condition::Corroded, 3.0), (Condition::Lifted, 6.0), (Condition::Torn, 12.0), (Condition::Missing, 15.0)];
/// A hole whose barrel is gone: the far side has to carry, and the joint is proved from there (E).
const HOLE_MINUTES: f64 = 8.0;

impl Condition {
    /// All of them, as on the key line.
    pub const ALL: [Self; 5] = [Self::Whole, Self::Corroded, Self::Lifted, Self::Torn, Self::Missing];

    /// As it is stored and said.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Whole => "whole",
            Self::Corroded => "corroded",
            Self::Lifted => "lifted",
            Self::Torn => "torn",
            Self::Missing => "missing",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|condition| condition.name() == name)
    }

    /// Does current still get through?
    pub const fn carries(self) -> bool {
        matches!(self, Self::Whole | Self::Corroded | Self::Lifted)
    }
}

/// How long it takes to mend a joint in that state.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::inspection::condition::{Condition, mending};
/// let joint = &Bench::try_new().expect("the example").board.connector.joints[0];
/// assert_eq!(mending(joint, Condition::Whole).in_seconds(), 0.0);
/// assert!(mending(joint, Condition::Missing) > mending(joint, Condition::Lifted));
/// ```
pub fn mending(joint: &Joint, condition: Condition) -> Duration {
    let minutes = MINUTES.iter().find(|(of, _)| *of == condition).map_or(0.0, |(_, minutes)| *minutes);
    let far_side = if joint.shape.is_hole() && !condition.carries() { HOLE_MINUTES } else { 0.0 };
    Duration::seconds(60.0 * (minutes + far_side))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::JointShape;
    use crate::example::Bench;

    #[test]
    fn a_torn_hole_takes_longer_than_a_torn_pad() {
        let mut joint = Bench::try_new().expect("the example").board.connector.joints[0].clone();
        joint.shape = JointShape::Pad { width: 0.3, depth: 1.0 };
        let pad = mending(&joint, Condition::Torn);
        joint.shape = JointShape::Hole { drill: 0.8, pad: 1.4 };
        assert!(mending(&joint, Condition::Torn) > pad);
        assert_eq!(mending(&joint, Condition::Lifted).in_seconds(), 360.0, "the far side has nothing to carry yet");
    }

    #[test]
    fn every_state_is_read_back_as_it_is_stored() {
        assert!(Condition::ALL.iter().all(|state| Condition::named(state.name()) == Some(*state)));
        assert_eq!(Condition::named("bent"), None);
    }
}
