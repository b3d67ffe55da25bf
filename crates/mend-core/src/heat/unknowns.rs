//! What nobody knows about a board and a station, as samples. Near the balance of heat in and heat out the time to melt
//! is a cliff: a prediction is a band over these, with "may not melt" as a possible end.

use statrs::distribution::{ContinuousCDF, Normal};

use super::tool::Station;
use crate::board::StackUp;

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
}

/// Logarithmic spread of the in-plane conductivity: nobody counts layers (prior of heating.md section 6).
const CONDUCTION_SPREAD: f64 = 0.30;
/// Logarithmic spread of the losses (same).
const LOSS_SPREAD: f64 = 0.20;
/// Boards of ten layers and more melt later than computed (0.6-0.8 of what is seen): their jet leans down by this.
const DENSE_LEAN: f64 = 0.88;

impl Unknowns {
    /// As computed, nothing scaled, but for what is known to lean.
    pub fn nominal(stack: &StackUp) -> Self {
        Self { jet: if stack.is_dense() { DENSE_LEAN } else { 1.0 }, conduction: 1.0, loss: 1.0, flow: 1.0 }
    }

    /// `count` samples about the nominal, spread evenly over the four-dimensional bell. The same every time.
    ///
    /// An additive recurrence on the generalised golden ratio g (g^5 = g + 1 for four dimensions; Roberts 2018): evenly
    /// spread at any count, and no random state.
    pub fn samples(count: usize, station: &Station, stack: &StackUp) -> Vec<Self> {
        const GOLDEN: f64 = 1.167_303_978_261_418_7;
        let nominal = Self::nominal(stack);
        let bell = Normal::standard();
        (1..=count)
            .map(|k| {
                let draw = |dimension: i32, spread: f64| {
                    let even = (0.5 + k as f64 * GOLDEN.powi(-dimension)).fract();
                    (spread * bell.inverse_cdf(even.clamp(0.01, 0.99))).exp()
                };
                Self {
                    jet: nominal.jet * draw(1, station.jet_spread),
                    conduction: draw(2, CONDUCTION_SPREAD),
                    loss: draw(3, LOSS_SPREAD),
                    flow: draw(4, station.flow_spread),
                }
            })
            .collect()
    }
}
