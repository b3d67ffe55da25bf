//! What leaves the nozzle against what is set: a thermocouple in the jet, close below the nozzle.

use crate::board::Face;
use crate::heat::jet::Jet;
use crate::heat::known::{Knowledge, Teachable};
use crate::heat::motion::Motion;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::units::{Flow, Length, Temperature};

/// The thermocouple is held so far below the nozzle, mm.
pub const BELOW_MM: f64 = 10.0;
/// A bead in a jet reads so exactly, K (E: it shines to the room, and nobody holds it still).
const BEAD_K: f64 = 4.0;

/// A reading.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OutletReading {
    /// What was set.
    pub set: Temperature,
    /// The flow.
    pub flow: Flow,
    /// What the thermocouple came to.
    pub read: Temperature,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct OutletMeasured {
    /// For each reading what the model expects there, °C.
    pub expected_c: Vec<f64>,
    /// How much hotter it is than expected, mean, K.
    pub off_k: f64,
    /// How far single readings lie from that, K.
    pub spread_k: f64,
    /// What it teaches of the station.
    pub says: Knowledge,
}

/// Readings below a station's nozzle in a room; none where there is no reading.
///
/// ```
/// use mend_core::calibration::outlet::{OutletReading, measured};
/// use mend_core::example::{AMBIENT, Bench};
/// use mend_core::units::{Flow, Length, Temperature};
/// let bench = Bench::try_new().expect("the example");
/// let (set, flow) = (Temperature::celsius(350.0), Flow::litres_per_minute(100.0));
/// let cold = OutletReading { set, flow, read: Temperature::celsius(200.0) };
/// let found = measured((&bench.station, Length::mm(10.0)), AMBIENT, &[cold]).expect("a reading");
/// assert!(found.off_k < -50.0, "much cooler than it should be");
/// ```
pub fn measured(
    (station, nozzle): (&Station, Length),
    ambient: Temperature,
    readings: &[OutletReading],
) -> Option<OutletMeasured> {
    let expected = |reading: &OutletReading| {
        let (set, flow, distance) = (reading.set, reading.flow, Length::mm(BELOW_MM));
        let (face, motion, aim) = (Face::Top, Motion::Still, [0.0, 0.0]);
        let air = HotAir { set, flow, nozzle, distance, face, motion, aim, approach: None, tilt: None };
        ambient.in_celsius() + Jet::new(&air, &station.law(1.0), ambient).gas_excess(0.0)
    };
    let expected_c: Vec<f64> = readings.iter().map(expected).collect();
    let off: Vec<f64> = readings.iter().zip(&expected_c).map(|(r, expected)| r.read.in_celsius() - expected).collect();
    if off.is_empty() {
        return None;
    }
    let mean = |of: &[f64]| of.iter().sum::<f64>() / of.len() as f64;
    let off_k = mean(&off);
    let spread_k = mean(&off.iter().map(|off| (off - off_k).powi(2)).collect::<Vec<f64>>()).sqrt();
    let says = Knowledge::one(Teachable::Outlet, (off_k, spread_k.max(BEAD_K)));
    Some(OutletMeasured { expected_c, off_k, spread_k, says })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};

    #[test]
    fn readings_as_expected_teach_that_it_is_as_expected() {
        let bench = Bench::try_new().expect("the example");
        let at = |set: f64, read: f64| OutletReading {
            set: Temperature::celsius(set),
            flow: Flow::litres_per_minute(100.0),
            read: Temperature::celsius(read),
        };
        let of = |readings: &[OutletReading]| measured((&bench.station, Length::mm(10.0)), AMBIENT, readings);
        let first = of(&[at(300.0, 300.0), at(400.0, 400.0)]).expect("readings");
        let [a, b] = [first.expected_c[0], first.expected_c[1]];
        assert!(a < 300.0 && b < 400.0 && b > a, "cooler than what is set: {a} {b}");
        let exact = of(&[at(300.0, a), at(400.0, b)]).expect("readings");
        assert!(exact.off_k.abs() < 1e-9 && exact.spread_k < 1e-9);
        assert!((exact.says.precision[(2, 2)] - 1.0 / 16.0).abs() < 1e-9, "not better than a bead is");
        assert_eq!(of(&[]), None);
    }
}
