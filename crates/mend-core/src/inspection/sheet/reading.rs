//! A reading of a pin in diode mode: the red lead on ground, the black one on the pin.

use serde::{Deserialize, Serialize};

/// What a meter in diode mode can show, V (D: hand meters end at 2-3 V).
pub const MOST_V: f64 = 3.0;
/// Below this a pin is joined to ground, V (E: a milliampere through leads and contacts gives a hundredth).
pub const SHORT_V: f64 = 0.03;

/// What was read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum DiodeReading {
    /// Forward voltage, V.
    Volts(f64),
    /// Nothing flows.
    Open,
}

/// When it was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum SheetPhase {
    /// With the old part on.
    Before,
    /// With no part on.
    Off,
    /// With the new part on.
    After,
    /// On another board of the model, known to be good.
    Good,
}

impl SheetPhase {
    /// All of them, in the order of the work.
    pub const ALL: [Self; 4] = [Self::Before, Self::Off, Self::After, Self::Good];

    /// As it is stored.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Before => "before",
            Self::Off => "off",
            Self::After => "after",
            Self::Good => "good",
        }
    }

    /// Read back.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|phase| phase.key() == key)
    }
}

/// Why something typed is no reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoReading {
    /// Not a number, nor a word for open.
    Unread,
    /// A number that no meter shows in diode mode.
    Beyond,
}

impl DiodeReading {
    /// What was typed, as meters show it: volts with their decimals (`0.482`, `0,482`), millivolts without (`482`), `OL` where nothing
    /// flows.
    ///
    /// ```
    /// use mend_core::inspection::sheet::{NoReading, DiodeReading};
    /// assert_eq!(DiodeReading::parse("482"), Ok(DiodeReading::Volts(0.482)));
    /// assert_eq!(DiodeReading::parse("OL"), Ok(DiodeReading::Open));
    /// assert_eq!(DiodeReading::parse("1.8k"), Err(NoReading::Unread));
    /// ```
    pub fn parse(typed: &str) -> Result<Self, NoReading> {
        let typed = typed.trim().to_ascii_lowercase();
        if ["ol", "o.l", "o", "open"].contains(&typed.as_str()) {
            return Ok(Self::Open);
        }
        let typed = typed.replace(',', ".");
        let value: f64 = typed.parse().map_err(|_| NoReading::Unread)?;
        let volts = if typed.contains('.') && value <= MOST_V { value } else { value / 1000.0 };
        if (0.0..=MOST_V).contains(&volts) { Ok(Self::Volts(volts)) } else { Err(NoReading::Beyond) }
    }

    /// Is the pin joined to ground?
    pub fn is_short(self) -> bool {
        matches!(self, Self::Volts(volts) if volts < SHORT_V)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn volts_millivolts_and_open_are_told_apart_and_nothing_else_is_taken() {
        for (typed, read) in
            [("0.482", 0.482), ("0,5", 0.5), ("1203", 1.203), ("3", 0.003), ("0", 0.0), ("482.5", 0.4825)]
        {
            assert_eq!(DiodeReading::parse(typed), Ok(DiodeReading::Volts(read)), "{typed}");
        }
        assert_eq!(DiodeReading::parse(" o.l "), Ok(DiodeReading::Open));
        for (typed, why) in [
            ("1.8k", NoReading::Unread),
            ("", NoReading::Unread),
            ("-0.4", NoReading::Beyond),
            ("3001", NoReading::Beyond),
            ("nan", NoReading::Beyond),
        ] {
            assert_eq!(DiodeReading::parse(typed), Err(why), "{typed}");
        }
    }
}
