//! What a rule is given, and what it says.

use crate::board::Role;
use crate::inspection::condition::Condition;
use crate::inspection::sheet::{DiodeReading, PinReference, PinStanding, standing};

/// Where the fault may be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Suspect {
    /// The port: its contacts, its joints, its lands.
    Port,
    /// What is behind it: a chip, a filter, a protection part.
    Behind,
    /// Neither: nothing of what was looked at is at fault.
    Elsewhere,
}

/// Which rule speaks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ClueKind {
    /// Lands that are not whole.
    BrokenLand,
    /// Nothing flows where it does on good boards.
    OpenAtThePort,
    /// A short that was gone with the part.
    ShortGoesWithIt,
    /// A short that is there with the part off.
    ShortStays,
    /// A short that has not been looked at with the part off.
    ShortToSettle,
    /// More flows than on good boards, and it is no short.
    LeaksBehind,
    /// Every pin is like those of good boards.
    LikeTheOthers,
}

/// What a rule says.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Clue {
    /// Which rule.
    pub kind: ClueKind,
    /// Where it points to.
    pub suspect: Suspect,
    /// Which pins it is about; none: all.
    pub pins: Vec<String>,
}

/// A pin as it was looked at and measured.
#[derive(Debug, Clone, PartialEq)]
pub struct SeenPin {
    /// Its name.
    pub name: String,
    /// What it carries.
    pub role: Role,
    /// Its land; none: not looked at.
    pub condition: Option<Condition>,
    /// With the old part on.
    pub before: Option<DiodeReading>,
    /// With no part on.
    pub off: Option<DiodeReading>,
    /// What good boards read.
    pub reference: Option<PinReference>,
}

impl SeenPin {
    fn stands(&self, reading: Option<DiodeReading>) -> Option<PinStanding> {
        Some(standing(reading?, self.role, self.reference.as_ref()))
    }

    /// With the old part on.
    pub(super) fn before(&self) -> Option<PinStanding> {
        self.stands(self.before)
    }

    /// With no part on.
    pub(super) fn off(&self) -> Option<PinStanding> {
        self.stands(self.off)
    }
}

/// A clue about the pins of which something holds; none where it holds of none.
pub(super) fn about(
    pins: &[SeenPin],
    kind: ClueKind,
    suspect: Suspect,
    holds: impl Fn(&SeenPin) -> bool,
) -> Option<Clue> {
    let pins: Vec<String> = pins.iter().filter(|pin| holds(pin)).map(|pin| pin.name.clone()).collect();
    (!pins.is_empty()).then_some(Clue { kind, suspect, pins })
}

#[cfg(test)]
pub(super) mod fixture {
    use super::*;
    use DiodeReading::Volts;

    /// A signal pin that good boards read at 0.5 V, whole, with these readings.
    pub(crate) fn pin(name: &str, before: Option<DiodeReading>, off: Option<DiodeReading>) -> SeenPin {
        let reference = PinReference::of(&[Volts(0.49), Volts(0.50), Volts(0.51)]);
        let condition = Some(Condition::Whole);
        SeenPin { name: name.to_owned(), role: Role::Signal, condition, before, off, reference }
    }
}
