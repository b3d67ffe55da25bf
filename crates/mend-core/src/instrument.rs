//! What instruments at a bench measure, whoever makes them and however they are spoken to.

/// Why an instrument gave no value.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum InstrumentFault {
    /// Nothing answers at its address.
    Unreachable,
    /// It took the question and did not answer in time, or answered half a line.
    Silent,
    /// It went on and on.
    Endless,
    /// What it said is no answer to the question; the first of it.
    Garbled {
        /// At most a few dozen characters.
        said: String,
    },
    /// It answers that there is nothing to measure: an open circuit, an overload.
    Open,
}

/// Reads a temperature.
pub trait Thermometer {
    /// Now, °C.
    fn celsius(&mut self) -> Result<f64, InstrumentFault>;
}

/// What a hot-air station says of itself.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HotAirReading {
    /// At its outlet, °C.
    pub outlet_c: f64,
    /// What it is set to, °C.
    pub set_c: f64,
    /// What its display shows for the flow, in its own unit.
    pub shown_flow: f64,
}

/// Reads a hot-air station.
pub trait HotAirReadout {
    /// Now.
    fn read(&mut self) -> Result<HotAirReading, InstrumentFault>;
}

/// A hand-held or bench meter.
pub trait Meter {
    /// Forward voltage of a diode, V; an open circuit is a fault.
    fn diode_v(&mut self) -> Result<f64, InstrumentFault>;
    /// Resistance of a connection that may be none, Ω.
    fn continuity_ohm(&mut self) -> Result<f64, InstrumentFault>;
    /// Resistance, Ω.
    fn resistance_ohm(&mut self) -> Result<f64, InstrumentFault>;
    /// Capacitance, F.
    fn capacitance_f(&mut self) -> Result<f64, InstrumentFault>;
}
