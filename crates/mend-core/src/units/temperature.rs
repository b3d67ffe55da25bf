//! A temperature and a temperature difference are two things: 60 °C − 20 °C is 40 K, not 40 °C.

use std::ops::{Add, Sub};

use serde::{Deserialize, Serialize};

/// What 0 °C is on the absolute scale, in K. Exact by definition (SI).
pub const ZERO_CELSIUS_IN_KELVIN: f64 = 273.15;

/// A temperature. Kept in °C.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Temperature(f64);

impl Temperature {
    /// From degrees Celsius.
    pub const fn celsius(value: f64) -> Self {
        Self(value)
    }
    /// From degrees Fahrenheit.
    pub fn fahrenheit(value: f64) -> Self {
        Self((value - 32.0) / 1.8)
    }
    /// In degrees Celsius.
    pub const fn in_celsius(self) -> f64 {
        self.0
    }
    /// In kelvin.
    pub fn in_kelvin(self) -> f64 {
        self.0 + ZERO_CELSIUS_IN_KELVIN
    }
    /// In degrees Fahrenheit.
    pub fn in_fahrenheit(self) -> f64 {
        self.0 * 1.8 + 32.0
    }
}

impl Sub for Temperature {
    type Output = TempDelta;
    fn sub(self, rhs: Self) -> TempDelta {
        TempDelta(self.0 - rhs.0)
    }
}
// Temperature + Temperature is not implemented, on purpose.
impl Add<TempDelta> for Temperature {
    type Output = Self;
    fn add(self, rhs: TempDelta) -> Self {
        Self(self.0 + rhs.0)
    }
}
impl Sub<TempDelta> for Temperature {
    type Output = Self;
    fn sub(self, rhs: TempDelta) -> Self {
        Self(self.0 - rhs.0)
    }
}

/// A difference between two temperatures, in K.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub struct TempDelta(f64);

impl TempDelta {
    /// From kelvin.
    pub const fn kelvin(value: f64) -> Self {
        Self(value)
    }
    /// In kelvin.
    pub const fn in_kelvin(self) -> f64 {
        self.0
    }
}

/// The scale in which a person wants to read temperatures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
pub enum Scale {
    /// Degrees Celsius.
    #[default]
    Celsius,
    /// Degrees Fahrenheit.
    Fahrenheit,
}

impl Scale {
    /// The number to print for a temperature on this scale.
    pub fn of(self, temperature: Temperature) -> f64 {
        match self {
            Self::Celsius => temperature.in_celsius(),
            Self::Fahrenheit => temperature.in_fahrenheit(),
        }
    }
    /// The number to print for a difference, in degrees of this scale.
    pub fn of_delta(self, delta: TempDelta) -> f64 {
        match self {
            Self::Celsius => delta.in_kelvin(),
            Self::Fahrenheit => delta.in_kelvin() * 1.8,
        }
    }
    /// A typed number read on this scale.
    ///
    /// ```
    /// use mend_core::units::Scale;
    /// let typed = Scale::Fahrenheit.read(752.0);
    /// assert!((typed.in_celsius() - 400.0).abs() < 1e-9);
    /// assert!((Scale::Fahrenheit.of(typed) - 752.0).abs() < 1e-9);
    /// ```
    pub fn read(self, value: f64) -> Temperature {
        match self {
            Self::Celsius => Temperature::celsius(value),
            Self::Fahrenheit => Temperature::fahrenheit(value),
        }
    }
    /// The unit's symbol.
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::Celsius => "°C",
            Self::Fahrenheit => "°F",
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fahrenheit_goes_out_and_comes_back() {
        let t = Scale::Fahrenheit.read(752.0);
        assert!((t.in_celsius() - 400.0).abs() < 1e-9);
        assert!((Scale::Fahrenheit.of(t) - 752.0).abs() < 1e-9);
    }

    #[test]
    fn a_difference_scales_without_the_offset() {
        let d = Temperature::celsius(60.0) - Temperature::celsius(20.0);
        assert_eq!(Scale::Fahrenheit.of_delta(d), 72.0);
    }
}
