//! Numbers with their units, names in a row, and sentences that begin with a capital.

use mend_core::heat::shield::ShieldKind;
use mend_core::planning::band::{Band, TimeBand};
use mend_core::planning::plan::WorksIn;
use mend_core::units::{Scale, TempDelta, Temperature, Unit};

use super::Words;

/// So many names are listed in running text.
const NAMED: usize = 3;

impl Words {
    /// A temperature: `217 °C`, `423 °F`.
    pub fn temperature(&self, celsius: f64) -> String {
        format!("{:.0} {}", self.scale.of(Temperature::celsius(celsius)), self.scale.symbol())
    }

    /// A band of temperatures: `315–409 °F`.
    pub fn temperature_band(&self, Band { low, high, .. }: Band) -> String {
        let at = |celsius: f64| self.scale.of(Temperature::celsius(celsius));
        format!("{:.0}–{:.0} {}", at(low), at(high), self.scale.symbol())
    }

    /// How far two temperatures are apart: `25 K`, `45 °F`.
    pub fn apart(&self, kelvin: f64) -> String {
        format!("{:.0} {}", self.scale.of_delta(TempDelta::kelvin(kelvin)), self.apart_unit())
    }

    /// The unit of how far two temperatures are apart.
    pub fn apart_unit(&self) -> &'static str {
        match self.scale {
            Scale::Celsius => "K",
            Scale::Fahrenheit => "°F",
        }
    }

    /// A ramp: `3.5 K/s`, `6.3 °F/s`.
    pub fn ramp(&self, k_per_s: f64) -> String {
        format!("{:.1} {}/s", self.scale.of_delta(TempDelta::kelvin(k_per_s)), self.apart_unit())
    }

    /// The number of a value in its unit, °C on the visitor's scale.
    fn number(&self, value: f64, unit: Unit) -> String {
        match unit {
            Unit::Celsius => tenths(self.scale.of(Temperature::celsius(value))),
            _ => plain(value),
        }
    }

    /// The unit's symbol, °C on the visitor's scale.
    fn symbol(&self, unit: Unit) -> &'static str {
        if unit == Unit::Celsius { self.scale.symbol() } else { unit.symbol() }
    }

    /// A value with its unit: `3 mm`.
    pub(super) fn quantity(&self, value: f64, unit: Unit) -> String {
        join(self.number(value, unit), self.symbol(unit))
    }

    /// From one value to another: `1 to 5 mm`.
    pub(super) fn range(&self, low: f64, high: f64, unit: Unit) -> String {
        join(format!("{} to {}", self.number(low, unit), self.number(high, unit)), self.symbol(unit))
    }

    /// The remedy of a value out of range: `between 1 and 5 mm`.
    pub(super) fn between(&self, low: f64, high: f64, unit: Unit) -> String {
        join(format!("between {} and {}", self.number(low, unit), self.number(high, unit)), self.symbol(unit))
    }
}

/// How often something works: `19 of 20`.
pub fn of_samples(WorksIn { works, of }: WorksIn) -> String {
    format!("{works} of {of}")
}

/// A band of seconds: `14–20 s`; one figure where both ends are the same second.
pub fn seconds_band(low: f64, high: f64) -> String {
    if low.round() == high.round() { format!("{low:.0} s") } else { format!("{low:.0}–{high:.0} s") }
}

/// When a part comes away: `14–20 s`; where one in ten never does, from when on.
pub fn release(band: &TimeBand) -> String {
    match (band.low_s, band.high_s) {
        (Some(low), Some(high)) => seconds_band(low, high),
        (Some(low), None) => format!("{low:.0} s, or never"),
        _ => "may not melt".to_owned(),
    }
}

/// A kind of shield: `foil tent 2 mm off`.
pub fn shield(kind: ShieldKind) -> String {
    match kind {
        ShieldKind::Polyimide { layers: 1 } => "polyimide tape".to_owned(),
        ShieldKind::Polyimide { layers } => format!("{layers} layers of polyimide tape"),
        ShieldKind::AluminiumTape => "aluminium tape".to_owned(),
        ShieldKind::FoilTent { gap_mm } => format!("foil tent {gap_mm} mm off"),
        ShieldKind::MetalBlock { height_mm } => format!("copper block {height_mm} mm high"),
        ShieldKind::HolderJaw => "jaw of the holder".to_owned(),
        ShieldKind::Finger => "finger".to_owned(),
    }
}

fn join(number: String, symbol: &str) -> String {
    match symbol {
        "" => number,
        "°" => format!("{number}°"),
        _ => format!("{number} {symbol}"),
    }
}

/// A number as people write it; one out of this world by its power of ten, and not in three hundred digits.
pub(super) fn plain(value: f64) -> String {
    if value.abs() < 1e7 { value.to_string() } else { format!("{value:e}") }
}

fn tenths(value: f64) -> String {
    plain((value * 10.0).round() / 10.0)
}

/// A place to a hundredth of a millimetre: `(500, 8.25) mm`.
pub(super) fn place(x_mm: f64, y_mm: f64) -> String {
    let round = |mm: f64| (mm * 100.0).round() / 100.0;
    format!("({}, {}) mm", round(x_mm), round(y_mm))
}

/// Names in running text: `C7, C8, C9 and 3 more`.
pub(super) fn list(names: &[String]) -> String {
    match names.len() {
        0..=NAMED => names.join(", "),
        many => format!("{} and {} more", names[..NAMED].join(", "), many - NAMED),
    }
}

/// `1 joint`, `3 joints`.
pub(super) fn count(number: usize, one: &str, many: &str) -> String {
    if number == 1 { format!("1 {one}") } else { format!("{number} {many}") }
}

/// The same text, beginning with a capital.
pub fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_uppercase().chain(letters).collect())
}

/// The same text, beginning with a small letter.
pub(super) fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_lowercase().chain(letters).collect())
}

#[cfg(test)]
mod tests {
    use super::*;

    const FAHRENHEIT: Words = Words { scale: Scale::Fahrenheit };

    #[test]
    fn a_release_is_a_band_one_second_from_when_on_or_never() {
        let said = |low_s, high_s| release(&TimeBand { low_s, mid_s: low_s, high_s, share: 1.0 });
        assert_eq!(said(Some(14.2), Some(19.8)), "14–20 s");
        assert_eq!(said(Some(5.1), Some(5.3)), "5 s");
        assert_eq!((said(Some(55.0), None), said(None, None)), ("55 s, or never".into(), "may not melt".into()));
        let band = Band { low: 157.0, mid: 180.0, high: 209.0 };
        assert_eq!(Words { scale: Scale::Fahrenheit }.temperature_band(band), "315–408 °F");
    }

    #[test]
    fn a_number_out_of_this_world_stays_short() {
        assert_eq!((plain(-0.8), plain(9999.0), plain(1e300)), ("-0.8".into(), "9999".into(), "1e300".into()));
    }

    #[test]
    fn many_names_are_cut_to_three() {
        let names = |names: &[&str]| list(&names.iter().map(|name| (*name).to_owned()).collect::<Vec<_>>());
        assert_eq!(names(&[]), "");
        assert_eq!(names(&["a", "b", "c"]), "a, b, c");
        assert_eq!(names(&["a", "b", "c", "d", "e"]), "a, b, c and 2 more");
    }

    #[test]
    fn every_temperature_is_said_on_the_visitors_scale_and_nothing_else_is_changed() {
        let celsius = Words::default();
        assert_eq!((celsius.temperature(217.0), FAHRENHEIT.temperature(217.0)), ("217 °C".into(), "423 °F".into()));
        assert_eq!((celsius.apart(25.0), FAHRENHEIT.apart(25.0)), ("25 K".into(), "45 °F".into()));
        assert_eq!(FAHRENHEIT.ramp(3.0), "5.4 °F/s");
        assert_eq!(FAHRENHEIT.range(100.0, 450.0, Unit::Celsius), "212 to 842 °F");
        assert_eq!(FAHRENHEIT.range(0.2, 5.0, Unit::Millimetres), "0.2 to 5 mm");
        assert_eq!(celsius.quantity(7.0, Unit::One), "7");
    }
}
