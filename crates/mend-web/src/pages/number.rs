//! Numbers as people type them, and as they are shown.

use mend_core::finding::Finding;
use mend_core::units::{Scale, TempDelta};

/// Reads a typed number; where it is none, zero, and an objection that names the field and what was typed.
pub(crate) fn number((rule, place): (&str, &str), typed: &str, bad: &mut Vec<Finding>) -> f64 {
    let read = typed.trim().replace(',', ".").parse::<f64>().ok().filter(|v| v.is_finite());
    if read.is_none() {
        let object = Finding::blocking(rule, place, format!("“{typed}” is no number"));
        bad.push(object.hint("type digits, like 380"));
    }
    read.unwrap_or_default()
}
/// How far two temperatures are apart: `25 K`, `45 °F`.
pub(crate) fn apart(kelvin: f64, scale: Scale) -> String {
    let by = scale.of_delta(TempDelta::kelvin(kelvin));
    match scale {
        Scale::Celsius => format!("{by:.0} K"),
        Scale::Fahrenheit => format!("{by:.0} °F"),
    }
}
