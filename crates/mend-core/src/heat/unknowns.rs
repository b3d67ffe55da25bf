//! What nobody knows about a board and a station, as samples. Near the balance of heat in and heat out the time to melt
//! is a cliff: a prediction is a band over these, with "may not melt" as a possible end.

use statrs::distribution::{ContinuousCDF, Normal};

use super::tool::Station;
use crate::board::StackUp;
use crate::solder::MeltTarget;
use crate::units::TempDelta;

/// Factors on the nominal model.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Unknowns {
    /// On the jet's transfer.
    pub jet: f64,
    /// On the in-plane conductivity.
    pub conduction: f64,
    /// On the natural losses.
    pub loss: f64,
    /// On the real flow.
    pub flow: f64,
    /// Where the joints' metal melts: in parts of its spread, which holds eight in ten.
    pub melt: f64,
    /// On what a shield resists with.
    pub shield: f64,
}

/// Logarithmic spread of the losses (same).
const LOSS_SPREAD: f64 = 0.20;
/// Logarithmic spread of what a shield resists with: nothing measured stands behind it (E, heating.md section 5: what
/// comes through tape is anything from 0.4 to 0.97).
const SHIELD_SPREAD: f64 = 0.6;
/// Boards of ten layers and more melt later than computed (0.6-0.8 of what is seen): their jet leans down by this.
const DENSE_LEAN: f64 = 0.86;

/// Half width of the middle eight in ten of a bell, in standard deviations (T).
pub(super) const EIGHT_IN_TEN: f64 = 1.281_6;

impl Unknowns {
    /// Where a joint melts in this sample.
    pub fn melts(&self, target: &MeltTarget) -> MeltTarget {
        let shift = TempDelta::kelvin(self.melt * target.spread.in_kelvin());
        MeltTarget { solidus: target.solidus + shift, melted: target.melted + shift, ..*target }
    }

    /// As computed, nothing scaled, but for what is known to lean.
    pub fn nominal(stack: &StackUp) -> Self {
        Self {
            jet: if stack.is_dense() { DENSE_LEAN } else { 1.0 },
            conduction: 1.0,
            loss: 1.0,
            flow: 1.0,
            melt: 0.0,
            shield: 1.0,
        }
    }

    /// `count` samples about the nominal, spread evenly over the bell. The same every time.
    ///
    /// An additive recurrence on the generalised golden ratio g (g^5 = g + 1 for the four of the heating; Roberts 2018): evenly
    /// spread at any count, and no random state.
    pub fn samples(count: usize, station: &Station, stack: &StackUp) -> Vec<Self> {
        const GOLDEN: f64 = 1.167_303_978_261_418_7;
        // The melting is a fifth on its own, by the golden ratio of one dimension.
        const ONE: f64 = 0.618_033_988_749_894_9;
        // What shields resist with, a sixth: by the square root of two.
        const OTHER: f64 = 0.414_213_562_373_095_1;
        let nominal = Self::nominal(stack);
        let bell = Normal::standard();
        (1..=count)
            .map(|k| {
                let bell_at = |ratio: f64| bell.inverse_cdf((0.5 + k as f64 * ratio).fract().clamp(0.01, 0.99));
                let draw = |dimension: i32, spread: f64| (spread * bell_at(GOLDEN.powi(-dimension))).exp();
                Self {
                    jet: nominal.jet * draw(1, station.jet_spread),
                    conduction: draw(2, stack.conduction_spread()),
                    loss: draw(3, LOSS_SPREAD),
                    flow: draw(4, station.flow_spread),
                    melt: bell_at(ONE) / EIGHT_IN_TEN,
                    shield: (SHIELD_SPREAD * bell_at(OTHER)).exp(),
                }
            })
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::tool::Blower;
    use crate::units::{Flow, Length, Temperature};

    #[test]
    fn what_is_not_known_of_the_copper_widens_the_samples() {
        let station = Station {
            name: "x".to_owned(),
            blower: Blower::Pump,
            set_range: (Temperature::celsius(100.0), Temperature::celsius(480.0)),
            flow_range: (Flow::litres_per_minute(10.0), Flow::litres_per_minute(100.0)),
            nozzles: vec![Length::mm(8.0)],
            heater_w: None,
            jet_scale: 1.0,
            jet_spread: 0.1,
            flow_spread: 0.1,
        };
        let widest = |spread| {
            let stack = StackUp { spread, ..StackUp::usual(Length::mm(1.0)) };
            Unknowns::samples(20, &station, &stack).iter().map(|u| u.conduction).fold(0.0, f64::max)
        };
        assert!(widest(Some(0.15)) < widest(None) && widest(None) < widest(Some(0.6)));
        assert_eq!(widest(None), widest(Some(0.30)));
    }
}
