//! What a component is worth by its marking or its schematic: so many farads, ohms or henries.

use std::fmt;
use std::str::FromStr;

/// What is measured of a component.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ValueKind {
    /// F.
    Capacitance,
    /// Ω.
    Resistance,
    /// H.
    Inductance,
}

/// A value, in SI units.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NominalValue {
    /// Of what.
    pub kind: ValueKind,
    /// F, Ω or H, over zero.
    pub amount: f64,
}

const UNITS: [(&str, ValueKind); 5] = [
    ("ohm", ValueKind::Resistance),
    ("Ω", ValueKind::Resistance),
    ("R", ValueKind::Resistance),
    ("F", ValueKind::Capacitance),
    ("H", ValueKind::Inductance),
];
const PREFIXES: [(&str, f64); 8] =
    [("p", 1e-12), ("n", 1e-9), ("u", 1e-6), ("µ", 1e-6), ("μ", 1e-6), ("m", 1e-3), ("k", 1e3), ("M", 1e6)];
/// Nothing on a board is outside these, SI (E).
const RANGES: [(ValueKind, (f64, f64)); 3] = [
    (ValueKind::Capacitance, (1e-13, 1.0)),
    (ValueKind::Resistance, (1e-4, 1e9)),
    (ValueKind::Inductance, (1e-10, 10.0)),
];

/// A text that is no value.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct NotAValue;

impl FromStr for NominalValue {
    type Err = NotAValue;

    /// ```
    /// use mend_core::board::NominalValue;
    /// let value: NominalValue = "4.7 uF".parse().expect("a value");
    /// assert_eq!((value.amount * 1e6, value.to_string()), (4.7, "4.7 µF".to_owned()));
    /// assert!("4.7".parse::<NominalValue>().is_err() && "1.8k".parse::<NominalValue>().is_err());
    /// ```
    fn from_str(text: &str) -> Result<Self, NotAValue> {
        let text = text.trim();
        let (rest, kind) =
            UNITS.iter().find_map(|(unit, kind)| Some((text.strip_suffix(unit)?, *kind))).ok_or(NotAValue)?;
        let scaled = PREFIXES.iter().find_map(|(prefix, factor)| Some((rest.strip_suffix(prefix)?, *factor)));
        let (number, factor) = scaled.unwrap_or((rest, 1.0));
        let number: f64 = number.trim().replace(',', ".").parse().map_err(|_| NotAValue)?;
        let value = Self { kind, amount: number * factor };
        if value.is_possible() { Ok(value) } else { Err(NotAValue) }
    }
}

impl NominalValue {
    fn is_possible(self) -> bool {
        RANGES.iter().any(|(kind, (low, high))| *kind == self.kind && (*low..=*high).contains(&self.amount))
    }
}

impl fmt::Display for NominalValue {
    /// With the prefix that leaves one to three digits before the point.
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        let unit = match self.kind {
            ValueKind::Capacitance => "F",
            ValueKind::Resistance => "Ω",
            ValueKind::Inductance => "H",
        };
        let steps = [(1e6, "M"), (1e3, "k"), (1.0, ""), (1e-3, "m"), (1e-6, "µ"), (1e-9, "n"), (1e-12, "p")];
        // What rounding makes of 1 is 1: 1e-6 / 1e-6 may be a hair less.
        let fitting = steps.into_iter().find(|(factor, _)| self.amount / factor > 0.9995).unwrap_or((1e-12, "p"));
        let shown = (self.amount / fitting.0 * 1e3).round() / 1e3;
        write!(out, "{shown} {}{unit}", fitting.1)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_are_read_as_they_are_marked_and_come_back_the_same() {
        for (typed, shown) in [
            ("100nF", "100 nF"),
            ("0.1 uF", "100 nF"),
            ("4,7µF", "4.7 µF"),
            ("120 ohm", "120 Ω"),
            ("10kΩ", "10 kΩ"),
            ("2.2 uH", "2.2 µH"),
            ("1 R", "1 Ω"),
        ] {
            let value: NominalValue = typed.parse().expect(typed);
            assert_eq!(value.to_string(), shown, "{typed}");
            assert_eq!(value.to_string().parse::<NominalValue>().map(|again| again.to_string()).as_deref(), Ok(shown));
        }
    }

    #[test]
    fn what_has_no_unit_or_can_not_be_is_no_value() {
        for typed in ["", "nF", "100", "-3 uF", "0 F", "9 MF", "1e400 F", "NaN F", "twelve ohm"] {
            assert_eq!(typed.parse::<NominalValue>(), Err(NotAValue), "{typed}");
        }
    }
}
