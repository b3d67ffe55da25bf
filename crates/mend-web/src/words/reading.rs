//! A reading of the diode sheet, in words.

use mend_core::inspection::sheet::DiodeReading;

/// As a meter shows it: millivolts, or OL.
pub(crate) fn reading(of: DiodeReading) -> String {
    match of {
        DiodeReading::Volts(volts) => format!("{:.0}", 1000.0 * volts),
        DiodeReading::Open => "OL".to_owned(),
    }
}
