//! A thermocouple logger on a board that is heated: a trigger puts the air on, a reset cools the board, and what it reads follows
//! a curve with the lag and the noise of a bead on a wire.

use std::time::Instant;

use super::{Answers, Noise, written};

/// Of a taped bead and its logger, K and s.
const NOISE_K: f64 = 0.5;
const LAG_S: f64 = 0.8;
/// An open circuit (SCPI-1999, 7.2.1.4).
const OPEN: &str = "+9.90000000E+37";

/// The logger.
#[derive(Debug)]
pub struct ThermocoupleStandIn {
    name: String,
    /// What the place of the bead comes to at each full second of heat, °C.
    curve: Vec<f32>,
    /// The curve runs so many times as fast as a clock.
    faster: f64,
    on: Option<Instant>,
    open: bool,
    noise: Noise,
}

impl ThermocoupleStandIn {
    /// On a place with this curve, °C at each full second of heat.
    pub fn new(name: &str, curve: Vec<f32>, faster: f64) -> Self {
        Self { name: name.to_owned(), curve, faster, on: None, open: false, noise: Noise(5) }
    }

    fn now(&mut self) -> f64 {
        let seconds = self.on.map_or(0.0, |on| on.elapsed().as_secs_f64() * self.faster - LAG_S);
        let last = self.curve.len().saturating_sub(1);
        let at = seconds.clamp(0.0, last as f64);
        let point = |k: usize| self.curve.get(k.min(last)).map_or(f64::NAN, |celsius| f64::from(*celsius));
        let (low, high) = (point(at as usize), point(at as usize + 1));
        low + (high - low) * at.fract() + NOISE_K * self.noise.bell()
    }
}

impl Answers for ThermocoupleStandIn {
    fn answer(&mut self, line: &str) -> Option<String> {
        match line.to_ascii_uppercase().as_str() {
            "*IDN?" => return Some(format!("Stand-in,{},0,1", self.name)),
            "READ?" | "MEAS:TEMP? TC,K" | "MEAS:TEMP?" => {
                let celsius = self.now();
                return Some(if self.open { OPEN.to_owned() } else { written(celsius) });
            }
            "*TRG" => self.on = self.on.or_else(|| Some(Instant::now())),
            "*RST" => self.on = None,
            // On request the wire breaks, and is mended.
            "SIM:OPEN 1" => self.open = true,
            "SIM:OPEN 0" => self.open = false,
            _ => {}
        }
        None
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_stays_cold_until_it_is_triggered_and_reads_open_where_the_wire_is_broken() {
        let mut logger = ThermocoupleStandIn::new("logger", (0..100).map(|k| 24.0 + k as f32).collect(), 1000.0);
        let mut read = |line: &str| logger.answer(line).map(|said| said.parse::<f64>().expect("a number"));
        assert!(read("READ?").is_some_and(|cold| (cold - 24.0).abs() < 4.0));
        assert_eq!(read("*TRG"), None);
        std::thread::sleep(std::time::Duration::from_millis(200));
        assert!(read("MEAS:TEMP? TC,K").is_some_and(|hot| hot > 100.0), "a hundred seconds of heat are over");
        read("SIM:OPEN 1");
        assert_eq!(read("READ?"), Some(9.9e37));
        read("SIM:OPEN 0");
        read("*RST");
        assert!(read("READ?").is_some_and(|cold| (cold - 24.0).abs() < 4.0));
    }
}
