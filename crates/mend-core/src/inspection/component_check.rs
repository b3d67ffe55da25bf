//! Components after the heat: in place, knocked off or harmed; and measured where a value is known.

use crate::board::{NominalValue, ValueKind};

/// How a component was found.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ComponentState {
    /// Where it was, and whole.
    InPlace,
    /// Off its pads, or askew on them.
    KnockedOff,
    /// There, and marked by heat.
    Harmed,
}

impl ComponentState {
    /// All of them, as on the key line.
    pub const ALL: [Self; 3] = [Self::InPlace, Self::KnockedOff, Self::Harmed];

    /// As it is stored and said.
    pub const fn name(self) -> &'static str {
        match self {
            Self::InPlace => "in place",
            Self::KnockedOff => "knocked off",
            Self::Harmed => "harmed",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|state| state.name() == name)
    }
}

/// How a measured value stands to the one that is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ValueStanding {
    /// As it should be.
    AsKnown,
    /// Less than it can be: a cracked or an open capacitor, a part beside it that is shorted.
    TooLow,
    /// More than it can be: a resistor or a filter that is open.
    TooHigh,
    /// Not what is measured of such a thing: ohms of a capacitor.
    OtherKind,
}

/// In a circuit a capacitor reads its own value at least, since others lie beside it; a resistor its own at most. Parts are within
/// a fifth of what they are marked with, and a meter adds to that (E).
const TOLERANCE: f64 = 0.25;
/// A coil's own value is lost beside others: within a factor of two (E).
const COIL: f64 = 2.0;

/// What a value measured on the board says.
///
/// ```
/// use mend_core::inspection::component_check::{ValueStanding, stands};
/// let of = |text: &str| text.parse().expect("a value");
/// assert_eq!(stands(of("100 nF"), of("4.7 uF")), ValueStanding::AsKnown, "others lie beside it");
/// assert_eq!(stands(of("100 nF"), of("20 nF")), ValueStanding::TooLow);
/// ```
pub fn stands(known: NominalValue, measured: NominalValue) -> ValueStanding {
    if known.kind != measured.kind {
        return ValueStanding::OtherKind;
    }
    let times = measured.amount / known.amount;
    match known.kind {
        ValueKind::Capacitance if times < 1.0 - TOLERANCE => ValueStanding::TooLow,
        ValueKind::Resistance if times > 1.0 + TOLERANCE => ValueStanding::TooHigh,
        ValueKind::Inductance if times < 1.0 / COIL => ValueStanding::TooLow,
        ValueKind::Inductance if times > COIL => ValueStanding::TooHigh,
        _ => ValueStanding::AsKnown,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn of(text: &str) -> NominalValue {
        text.parse().expect(text)
    }

    #[test]
    fn a_resistor_reads_its_own_at_most_and_a_coil_near_it() {
        assert_eq!(stands(of("10 kohm"), of("3 kohm")), ValueStanding::AsKnown);
        assert_eq!(stands(of("10 kohm"), of("2 Mohm")), ValueStanding::TooHigh);
        assert_eq!(stands(of("2.2 uH"), of("1.9 uH")), ValueStanding::AsKnown);
        assert_eq!(stands(of("2.2 uH"), of("0.4 uH")), ValueStanding::TooLow);
        assert_eq!(stands(of("100 nF"), of("120 ohm")), ValueStanding::OtherKind);
    }

    #[test]
    fn every_state_is_read_back_as_it_is_stored() {
        assert!(ComponentState::ALL.iter().all(|state| ComponentState::named(state.name()) == Some(*state)));
        assert_eq!(ComponentState::named("gone"), None);
    }
}
