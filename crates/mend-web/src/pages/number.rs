//! Numbers as people type them, and as they are shown.

use mend_core::finding::Finding;
use mend_core::units::{Scale, Temperature};

/// Reads a typed number; where it is none, zero, and an objection that names the field and what was typed.
pub(crate) fn number(rule: &str, place: &str, typed: &str, bad: &mut Vec<Finding>) -> f64 {
    let read = typed.trim().replace(',', ".").parse::<f64>().ok().filter(|v| v.is_finite());
    if read.is_none() {
        let object = Finding::written(rule, place, format!("“{typed}” is no number"));
        bad.push(object.hint("type digits, like 380"));
    }
    read.unwrap_or_default()
}
/// A temperature as a form shows it: to a tenth, and whole where it is within a tenth of that, so that 700 °F shown as 371.1 °C
/// comes back as 700 °F: a tenth of a °C is less than two of a °F.
pub(crate) fn degrees(temperature: Temperature, scale: Scale) -> String {
    let shown = scale.of(temperature);
    let whole = shown.round();
    if (shown - whole).abs() < 0.1 { whole.to_string() } else { ((shown * 10.0).round() / 10.0).to_string() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_temperature_typed_on_one_scale_survives_being_shown_on_the_other() {
        for typed in (300..=1000).map(f64::from) {
            let shown: f64 = degrees(Temperature::fahrenheit(typed), Scale::Celsius).parse().expect("a number");
            assert_eq!(degrees(Temperature::celsius(shown), Scale::Fahrenheit), typed.to_string());
        }
        assert_eq!(degrees(Temperature::celsius(400.0), Scale::Celsius), "400");
    }
}
