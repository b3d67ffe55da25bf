//! What leaves the nozzle against what is set: a thermocouple in the jet, close below the nozzle. Read at two set temperatures and two
//! flows it tells the station's efficiency and its nozzle's loss (equation 4 of the heat model); what is left is an offset.

use super::grid::{Bell, weighed};
use crate::board::Face;
use crate::heat::jet::{Jet, JetLaw};
use crate::heat::known::{Knowledge, Teachable};
use crate::heat::motion::Motion;
use crate::heat::nozzle_air::NozzleAir;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::units::{Flow, Length, Temperature};

/// The thermocouple is held so far below the nozzle, mm.
pub const BELOW_MM: f64 = 10.0;
/// A bead in a jet reads so exactly, K (E: it shines to the room, and nobody holds it still).
const BEAD_K: f64 = 4.0;
/// What is guessed of efficiency (0.9-1.0, E), of the nozzle's loss (0.01-0.06 W/K, E; of its logarithm), and of a display, K (E).
const SHARE_SPREAD: f64 = 0.03;
const LOSS_SPREAD: f64 = 0.5;
const DISPLAY_K: f64 = 15.0;
/// Flows, L/min, and set temperatures, K, nearer than this are one.
const SAME_LPM: f64 = 2.0;
const SAME_K: f64 = 20.0;

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
    /// For each reading what the model expects there with what was found, °C.
    pub expected_c: Vec<f64>,
    /// Efficiency and loss; none where the readings can't tell them apart.
    pub air: Option<NozzleAir>,
    /// How much hotter it is than expected with them, K.
    pub off_k: f64,
    /// How far single readings lie from that, K.
    pub spread_k: f64,
    /// What it teaches of the station, with that efficiency and loss.
    pub says: Knowledge,
}

/// Where a thermocouple is read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OutletSpot<'a> {
    /// Below which station's nozzle.
    pub station: &'a Station,
    /// Of what width.
    pub nozzle: Length,
    /// In what room.
    pub ambient: Temperature,
}

/// Readings below a nozzle; none where there is no reading.
///
/// ```
/// use mend_core::calibration::outlet::{OutletReading, OutletSpot, measured};
/// use mend_core::example::{AMBIENT, Bench};
/// use mend_core::units::{Flow, Length, Temperature};
/// let bench = Bench::try_new().expect("the example");
/// let (set, flow) = (Temperature::celsius(350.0), Flow::litres_per_minute(100.0));
/// let cold = OutletReading { set, flow, read: Temperature::celsius(200.0) };
/// let spot = OutletSpot { station: &bench.station, nozzle: Length::mm(10.0), ambient: AMBIENT };
/// let found = measured(&spot, &[cold]).expect("a reading");
/// assert!(found.off_k < -50.0 && found.air.is_none(), "much cooler than it should be; one reading tells no more");
/// ```
pub fn measured(spot: &OutletSpot<'_>, readings: &[OutletReading]) -> Option<OutletMeasured> {
    if readings.is_empty() {
        return None;
    }
    let air = tells_air(readings).then(|| spot.air(readings));
    let law = spot.law(air.unwrap_or(spot.station.nozzle_air));
    let expected_c: Vec<f64> = readings.iter().map(|reading| spot.expects(reading, &law)).collect();
    let off: Vec<f64> = readings.iter().zip(&expected_c).map(|(r, expected)| r.read.in_celsius() - expected).collect();
    let mean = |of: &[f64]| of.iter().sum::<f64>() / of.len() as f64;
    let off_k = mean(&off);
    let spread_k = mean(&off.iter().map(|off| (off - off_k).powi(2)).collect::<Vec<f64>>()).sqrt();
    let says = Knowledge::one(Teachable::Outlet, off_k, spread_k.max(BEAD_K));
    Some(OutletMeasured { expected_c, air, off_k, spread_k, says })
}

/// Are there two flows and two set temperatures?
fn tells_air(readings: &[OutletReading]) -> bool {
    let far = |of: &dyn Fn(&OutletReading) -> f64, apart: f64| {
        let (low, high) = readings.iter().map(of).fold((f64::MAX, f64::MIN), |(a, b), v| (a.min(v), b.max(v)));
        high - low >= apart
    };
    far(&|r| r.set.in_celsius(), SAME_K) && far(&|r| r.flow.in_litres_per_minute(), SAME_LPM)
}

impl OutletSpot<'_> {
    fn law(&self, air: NozzleAir) -> JetLaw {
        JetLaw { exit_share: air.share, nozzle_loss: air.loss, ..self.station.law(1.0) }
    }

    /// What the bead should read, °C.
    fn expects(&self, reading: &OutletReading, law: &JetLaw) -> f64 {
        let (set, flow, distance) = (reading.set, reading.flow, Length::mm(BELOW_MM));
        let (face, motion, aim) = (Face::Top, Motion::Still, [0.0, 0.0]);
        let air = HotAir { set, flow, nozzle: self.nozzle, distance, face, motion, aim, approach: None, tilt: None };
        self.ambient.in_celsius() + Jet::new(&air, law, self.ambient).gas_excess(0.0)
    }

    /// Efficiency and loss from readings that tell them apart; the display's own offset goes along, so that neither takes it on.
    fn air(&self, readings: &[OutletReading]) -> NozzleAir {
        let usual = NozzleAir::USUAL;
        let guessed = [
            Bell { mean: usual.share, spread: SHARE_SPREAD },
            Bell::ln(usual.loss, LOSS_SPREAD),
            Bell { mean: 0.0, spread: DISPLAY_K },
        ];
        let bead = Bell { mean: 0.0, spread: BEAD_K };
        let [share, loss, _] = weighed(guessed, &|&[share, loss, off]| {
            let law = JetLaw { exit_shift: off, ..self.law(NozzleAir { share, loss: loss.exp() }) };
            readings.iter().map(|r| bead.log_density(r.read.in_celsius() - self.expects(r, &law))).sum()
        });
        NozzleAir { share: share.mean, loss: loss.mean.exp() }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};

    fn at(set: f64, flow: f64, read: f64) -> OutletReading {
        let (set, read) = (Temperature::celsius(set), Temperature::celsius(read));
        OutletReading { set, flow: Flow::litres_per_minute(flow), read }
    }

    #[test]
    fn readings_as_expected_teach_that_it_is_as_expected() {
        let bench = Bench::try_new().expect("the example");
        let spot = OutletSpot { station: &bench.station, nozzle: Length::mm(10.0), ambient: AMBIENT };
        let of = |readings: &[OutletReading]| measured(&spot, readings);
        let first = of(&[at(300.0, 100.0, 300.0), at(400.0, 100.0, 400.0)]).expect("readings");
        let [a, b] = [first.expected_c[0], first.expected_c[1]];
        assert!(a < 300.0 && b < 400.0 && b > a, "cooler than what is set: {a} {b}");
        let exact = of(&[at(300.0, 100.0, a), at(400.0, 100.0, b)]).expect("readings");
        assert!(exact.off_k.abs() < 1e-9 && exact.spread_k < 1e-9 && exact.air.is_none(), "one flow tells no loss");
        assert!((exact.says.precision[(2, 2)] - 1.0 / 16.0).abs() < 1e-9, "not better than a bead is");
        assert_eq!(of(&[]), None);
    }

    #[test]
    fn a_nozzle_that_loses_much_is_told_from_a_display_that_is_off() {
        let bench = Bench::try_new().expect("the example");
        let truth = NozzleAir { share: 0.95, loss: 0.06 };
        let spot = OutletSpot { station: &bench.station, nozzle: Length::mm(10.0), ambient: AMBIENT };
        let law = spot.law(truth);
        let places = [200.0, 300.0, 400.0].into_iter().flat_map(|set| [30.0, 100.0].map(|flow| (set, flow)));
        let read = |off: f64| -> Vec<OutletReading> {
            places.clone().map(|(set, flow)| at(set, flow, off + spot.expects(&at(set, flow, 0.0), &law))).collect()
        };
        let found = measured(&spot, &read(0.0)).expect("readings");
        let air = found.air.expect("three set temperatures at two flows");
        assert!((air.loss / truth.loss).ln().abs() < 0.25 && (air.share - truth.share).abs() < 0.02, "{found:?}");
        assert!(found.off_k.abs() < 5.0 && found.spread_k < 3.0, "{found:?}");
        let hot = measured(&spot, &read(12.0)).expect("readings");
        assert!((hot.off_k - found.off_k) > 6.0, "a display that is off stays an offset: {hot:?}");
        let loss = hot.air.expect("the same").loss;
        assert!((loss / air.loss).ln().abs() < 0.25, "and is not taken for a loss: {loss}");
    }
}
