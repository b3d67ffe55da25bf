//! Values that were entered and can't be taken.

use serde::{Deserialize, Serialize};

use crate::units::Unit;

/// A value that was entered and can't be taken.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum ValueProblem {
    /// A number outside its range.
    OutOfRange {
        /// As entered, in `unit`.
        value: f64,
        /// Lowest that is taken, in `unit`.
        low: f64,
        /// Highest that is taken, in `unit`.
        high: f64,
        /// Of all three.
        unit: Unit,
        /// Whose range it is, where that is one station's own.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        owner: Option<String>,
    },
    /// A component's value without its unit, or none that there is.
    NotAValue {
        /// As typed.
        text: String,
    },
    /// A number that must be whole.
    NotWhole {
        /// As entered.
        value: f64,
        /// Lowest that is taken.
        low: f64,
        /// Highest that is taken.
        high: f64,
    },
    /// No number at all.
    NotANumber {
        /// As typed.
        text: String,
        /// Lowest that is taken, in `unit`.
        low: f64,
        /// Highest that is taken, in `unit`.
        high: f64,
        /// Of both.
        unit: Unit,
    },
    /// None of the choices that there are.
    NotAChoice {
        /// As typed or sent.
        text: String,
        /// What there is to choose; empty where the page lists it.
        choices: Vec<String>,
    },
    /// No field of that name.
    NoSuchField {
        /// The fields that there are; empty where the page lists them.
        known: Vec<String>,
    },
    /// A name that is empty, too long or more than a line.
    BadName {
        /// How many characters it has.
        characters: usize,
        /// How many it may have.
        most: usize,
    },
    /// A text that is too long.
    TooLong {
        /// How many characters it may have.
        most: usize,
    },
    /// No sum of money.
    NotMoney {
        /// As typed.
        text: String,
    },
    /// No day.
    NotADay {
        /// As typed.
        text: String,
    },
    /// No row of this part's joints.
    NoSuchRow {
        /// As named.
        row: String,
    },
}

impl ValueProblem {
    /// The problem of a value that lies outside `low..=high`, both in `unit`; none where it lies inside.
    ///
    /// ```
    /// use mend_core::{finding::problem::ValueProblem, units::Unit};
    /// assert!(ValueProblem::outside(3.0, (1.0, 5.0), Unit::Millimetres).is_none());
    /// assert!(ValueProblem::outside(f64::NAN, (1.0, 5.0), Unit::Millimetres).is_some());
    /// ```
    pub fn outside(value: f64, range: (f64, f64), unit: Unit) -> Option<Self> {
        let (low, high) = range;
        (!(low..=high).contains(&value)).then_some(Self::OutOfRange { value, low, high, unit, owner: None })
    }
}
