//! The units in which values are entered.

use serde::{Deserialize, Serialize};

use super::Scale;

/// The unit of a value that was entered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub enum Unit {
    /// A bare number: a count or a share of 1.
    #[serde(rename = "1")]
    One,
    /// Degrees Celsius.
    #[serde(rename = "°C")]
    Celsius,
    /// Degrees Fahrenheit: typed so, and to be answered so.
    #[serde(rename = "°F")]
    Fahrenheit,
    /// Seconds.
    #[serde(rename = "s")]
    Seconds,
    /// Millimetres.
    #[serde(rename = "mm")]
    Millimetres,
    /// Square millimetres.
    #[serde(rename = "mm²")]
    SquareMillimetres,
    /// Micrometres.
    #[serde(rename = "µm")]
    Micrometres,
    /// Litres per minute.
    #[serde(rename = "L/min")]
    LitresPerMinute,
    /// Per cent.
    #[serde(rename = "%")]
    Percent,
    /// Degrees of an angle.
    #[serde(rename = "°")]
    Degrees,
    /// Grams.
    #[serde(rename = "g")]
    Grams,
    /// Grams per square millimetre.
    #[serde(rename = "g/mm²")]
    GramsPerSquareMillimetre,
    /// Plated holes per square millimetre.
    #[serde(rename = "holes/mm²")]
    HolesPerSquareMillimetre,
    /// Watts per metre and kelvin.
    #[serde(rename = "W/mK")]
    WattsPerMetreKelvin,
    /// Watts.
    #[serde(rename = "W")]
    Watts,
    /// Watts per kelvin.
    #[serde(rename = "W/K")]
    WattsPerKelvin,
    /// Kelvins per watt.
    #[serde(rename = "K/W")]
    KelvinPerWatt,
    /// Copper layers, or layers of tape.
    #[serde(rename = "layers")]
    Layers,
    /// Copper planes.
    #[serde(rename = "planes")]
    Planes,
    /// Edges of copper that are seen in a hole.
    #[serde(rename = "lines")]
    Lines,
}

impl Unit {
    /// As it stands behind a number; empty for a bare one.
    ///
    /// ```
    /// use mend_core::units::Unit;
    /// assert_eq!((Unit::LitresPerMinute.symbol(), Unit::One.symbol()), ("L/min", ""));
    /// ```
    pub const fn symbol(self) -> &'static str {
        match self {
            Self::One => "",
            Self::Celsius => "°C",
            Self::Fahrenheit => "°F",
            Self::Seconds => "s",
            Self::Millimetres => "mm",
            Self::SquareMillimetres => "mm²",
            Self::Micrometres => "µm",
            Self::LitresPerMinute => "L/min",
            Self::Percent => "%",
            Self::Degrees => "°",
            Self::Grams => "g",
            Self::GramsPerSquareMillimetre => "g/mm²",
            Self::HolesPerSquareMillimetre => "holes/mm²",
            Self::WattsPerMetreKelvin => "W/mK",
            Self::Watts => "W",
            Self::WattsPerKelvin => "W/K",
            Self::KelvinPerWatt => "K/W",
            Self::Layers => "layers",
            Self::Planes => "planes",
            Self::Lines => "lines",
        }
    }
}

impl From<Scale> for Unit {
    fn from(scale: Scale) -> Self {
        match scale {
            Scale::Celsius => Self::Celsius,
            Scale::Fahrenheit => Self::Fahrenheit,
        }
    }
}
