//! A meter whose probe goes from pin to pin of a table, some of them faulty.

use super::{Answers, Noise, written};

/// Of a reading, of its value.
const NOISE: f64 = 0.003;
/// Nothing is connected (SCPI-1999, 7.2.1.4).
const OPEN: &str = "+9.90000000E+37";

/// What a pin reads.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PinReading {
    /// Forward voltage with the red lead on ground, V; none: open.
    pub diode_v: Option<f64>,
    /// Resistance to its test point, Ω; none: open.
    pub ohm: Option<f64>,
    /// Capacitance to ground, F; none: open.
    pub farad: Option<f64>,
}

/// The meter. `SIM:PIN n` puts its probe to a pin, from 0.
#[derive(Debug)]
pub struct MeterStandIn {
    name: String,
    pins: Vec<PinReading>,
    at: usize,
    noise: Noise,
}

impl MeterStandIn {
    /// On the pins of a table.
    pub fn new(name: &str, pins: Vec<PinReading>) -> Self {
        Self { name: name.to_owned(), pins, at: 0, noise: Noise(29) }
    }

    fn told(&mut self, of: impl Fn(&PinReading) -> Option<f64>) -> String {
        let noise = 1.0 + NOISE * self.noise.bell();
        self.pins.get(self.at).and_then(of).map_or_else(|| OPEN.to_owned(), |value| written(value * noise))
    }
}

impl Answers for MeterStandIn {
    fn answer(&mut self, line: &str) -> Option<String> {
        let upper = line.to_ascii_uppercase();
        if let Some(pin) = upper.strip_prefix("SIM:PIN ").and_then(|pin| pin.trim().parse().ok()) {
            self.at = pin;
            return None;
        }
        match upper.as_str() {
            "*IDN?" => Some(format!("Stand-in,{},0,1", self.name)),
            "MEAS:DIOD?" | "READ?" => Some(self.told(|pin| pin.diode_v)),
            "MEAS:CONT?" | "MEAS:RES?" => Some(self.told(|pin| pin.ohm)),
            "MEAS:CAP?" => Some(self.told(|pin| pin.farad)),
            _ => None,
        }
    }
}
