//! Money, in the smallest coin, so that a price never gains or loses one by rounding.

use std::fmt;
use std::str::FromStr;

use serde::{Deserialize, Serialize};

/// An amount in the shop's own currency. Kept in hundredths.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Money(i64);

/// Why a typed amount can't be taken.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("an amount is digits with at most two decimals, like 85 or 85.50")]
pub struct NotMoney;

impl Money {
    /// From hundredths of the currency.
    pub const fn hundredths(value: i64) -> Self {
        Self(value)
    }
    /// What so many seconds cost where this is the price of an hour, to the next hundredth.
    ///
    /// ```
    /// use mend_core::units::Money;
    /// let hour: Money = "60".parse().expect("an amount");
    /// assert_eq!(hour.for_seconds(90.0).to_string(), "1.50");
    /// ```
    pub fn for_seconds(self, seconds: f64) -> Self {
        Self((self.0 as f64 * seconds / 3600.0).round() as i64)
    }
    /// In hundredths of the currency.
    pub const fn in_hundredths(self) -> i64 {
        self.0
    }
}

impl fmt::Display for Money {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}.{:02}", self.0 / 100, self.0 % 100)
    }
}

impl FromStr for Money {
    type Err = NotMoney;
    fn from_str(text: &str) -> Result<Self, NotMoney> {
        let text = text.trim().replace(',', ".");
        let (whole, part) = text.split_once('.').unwrap_or((&text, ""));
        let digits = |s: &str| s.bytes().all(|b| b.is_ascii_digit());
        if whole.is_empty() || whole.len() > 9 || part.len() > 2 || !digits(whole) || !digits(part) {
            return Err(NotMoney);
        }
        let whole: i64 = whole.parse().map_err(|_| NotMoney)?;
        let cents: i64 = format!("{part:0<2}").parse().map_err(|_| NotMoney)?;
        Ok(Self(whole * 100 + cents))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn amounts_are_read_as_people_write_them() {
        for (typed, hundredths) in [("85", 8500), ("85.5", 8550), ("85,50", 8550), (" 0.07 ", 7)] {
            assert_eq!(typed.parse(), Ok(Money::hundredths(hundredths)), "{typed}");
        }
        for typed in ["", "-5", "1.234", "eighty", "1.2.3", "99999999999"] {
            assert_eq!(typed.parse::<Money>(), Err(NotMoney), "{typed}");
        }
    }
}
