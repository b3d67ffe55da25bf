//! A hot-air station that says what it does.

use super::{Answers, Noise, written};

/// Of its own sensor, K.
const NOISE_K: f64 = 1.0;

/// The readout.
#[derive(Debug)]
pub struct ReadoutStandIn {
    name: String,
    set_c: f64,
    /// Its outlet is so much hotter than it is set, K.
    off_k: f64,
    shown_flow: f64,
    noise: Noise,
}

impl ReadoutStandIn {
    /// Set to a temperature and a flow as its display shows it; its outlet is off by so many kelvin.
    pub fn new(name: &str, set_c: f64, shown_flow: f64, off_k: f64) -> Self {
        Self { name: name.to_owned(), set_c, off_k, shown_flow, noise: Noise(17) }
    }
}

impl Answers for ReadoutStandIn {
    fn answer(&mut self, line: &str) -> Option<String> {
        match line.to_ascii_uppercase().as_str() {
            "*IDN?" => Some(format!("Stand-in,{},0,1", self.name)),
            "READ?" => {
                let outlet = self.set_c + self.off_k + NOISE_K * self.noise.bell();
                Some([outlet, self.set_c, self.shown_flow].map(written).join(","))
            }
            _ => None,
        }
    }
}
