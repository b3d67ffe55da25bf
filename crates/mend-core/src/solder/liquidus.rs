//! Where the first solid forms: the temperature at which the strongest driving force of any solid is zero.

use super::linear::Vector;
use super::phase::GAS_CONSTANT;
use super::system::{LIQUID, System};

/// Between these lies every liquidus that matters, K: below the lowest removal alloys, above silver.
const RANGE: (f64, f64) = (250.0, 1400.0);
/// Tolerance, K.
const TOLERANCE: f64 = 1e-3;
const MOST_STEPS: usize = 80;

/// The strongest driving force of a solid against the liquid x, J/mol, and which solid.
fn strongest(system: &mut System, x: &Vector, kelvin: f64) -> (f64, usize) {
    system.set(kelvin);
    let mu = system.liquid_potentials(x);
    let solids = LIQUID + 1..system.len();
    let mut best = (f64::NEG_INFINITY, LIQUID);
    for phase in solids {
        let drive = system.drive(phase, &mu);
        if drive > best.0 {
            best = (drive, phase);
        }
    }
    (best.0 * GAS_CONSTANT * kelvin, best.1)
}

/// Liquidus in K and the solid that forms first; none where it is not found.
pub(super) fn first_solid(system: &mut System, x: &Vector) -> Option<(f64, usize)> {
    let (mut low, mut high) = RANGE;
    let (mut at_low, first) = strongest(system, x, low);
    let (mut at_high, _) = strongest(system, x, high);
    if !(at_low > 0.0 && at_high < 0.0) {
        return None;
    }
    let mut primary = first;
    let mut stuck = 0_i32;
    for step in 1..=MOST_STEPS {
        if high - low < TOLERANCE {
            return Some((high, primary));
        }
        // Regula falsi (Illinois: an end that stays put is halved), and a bisection each fifth step.
        let middle =
            if step % 5 == 0 { (low + high) / 2.0 } else { (low * at_high - high * at_low) / (at_high - at_low) };
        let middle = middle.clamp(low + TOLERANCE / 4.0, high - TOLERANCE / 4.0);
        let (value, phase) = strongest(system, x, middle);
        if !value.is_finite() {
            return None;
        }
        if value > 0.0 {
            (low, at_low, primary) = (middle, value, phase);
            at_high = if stuck == 1 { at_high / 2.0 } else { at_high };
            stuck = 1;
        } else {
            (high, at_high) = (middle, value);
            at_low = if stuck == -1 { at_low / 2.0 } else { at_low };
            stuck = -1;
        }
    }
    None
}
