//! How an iron recovers: its tip is set on a block of copper, dips, and comes back. How deep and how long say what lies between
//! heater and tip, and what the heater gives at the most.
//!
//! Tip and block are two lumps: the heater gives to the tip, the tip to the block, and the block loses a little to the room.

use super::grid::{Bell, weighed};
use crate::heat::iron::{TIP_CAPACITY, wetted};
use crate::heat::iron_heater::IronHeater;
use crate::units::{Duration, Length, TempDelta, Temperature};

/// A block of the usual size, g.
pub const USUAL_BLOCK_G: f64 = 10.0;
/// A tip counts as recovered once it is so near to where it was before, K: nearer, the last kelvins take longest and say least.
pub const RECOVERED_K: f64 = 20.0;
/// Copper, J/gK and g/cm3 (T).
const COPPER_J_PER_GK: f64 = 0.385;
const COPPER_G_PER_CM3: f64 = 8.96;
/// Still air and radiation on a small hot block, W/m2K (E, 10-20).
const BLOCK_LOSES: f64 = 15.0;
/// What is guessed of an iron, of the logarithm: 0.8-2 K/W of cartridges with passive tips beyond (E), 45-95 W (E), and what a
/// wetted tip passes on, x0.5-2 (E).
const GUESSED: [f64; 3] = [0.45, 0.3, 0.4];
/// A bead on a tip reads so exactly, K (E: it sees the room as well).
const BEAD_K: f64 = 6.0;
/// A hand with a watch, s, and what one touch differs from the next, of the time (E).
const WATCH_S: f64 = 1.0;
const TOUCH: f64 = 0.08;
/// What cannot be told in so long is not waited for, s.
const LONGEST_S: f64 = 400.0;
/// Step of the integration, s: the stiffest of usual irons, 1.5 J/K over 1 W/K and 10 W/K of a direct heater, needs less than 0.27.
const STEP_S: f64 = 0.1;
/// Readings that are so far from the nearest iron that can be are none of an iron on copper: sum of squares a reading.
const NO_IRON: f64 = 9.0;

/// A touch.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Touch {
    /// What the tip read before.
    pub before: Temperature,
    /// The lowest that it came to.
    pub lowest: Temperature,
    /// Until it was back within [`RECOVERED_K`].
    pub recovered: Duration,
}

/// On what.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Block {
    /// Its mass, g.
    pub mass_g: f64,
    /// How warm it was before each touch.
    pub begins: Temperature,
    /// Width of the tip.
    pub tip: Length,
}

/// What came of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct IronMeasured {
    /// The heater.
    pub heater: IronHeater,
    /// Eight in ten: from heater to tip, K/W.
    pub to_tip: [f64; 2],
    /// Eight in ten: what it gives at the most, W.
    pub most: [f64; 2],
    /// Does an iron on copper do what was read? If not, nothing should be kept.
    pub fits: bool,
}

/// The heater of an iron that touched a block; none where it never did.
///
/// ```
/// use mend_core::calibration::iron_recovery::{Block, Touch, USUAL_BLOCK_G, measured};
/// use mend_core::units::{Duration, Length, Temperature};
/// let block = Block { mass_g: USUAL_BLOCK_G, begins: Temperature::celsius(23.0), tip: Length::mm(3.0) };
/// let (before, lowest) = (Temperature::celsius(350.0), Temperature::celsius(210.0));
/// let touch = Touch { before, lowest, recovered: Duration::seconds(32.0) };
/// let found = measured(&block, &[touch]).expect("a touch");
/// assert!(found.fits && found.to_tip[0] < found.heater.to_tip && found.heater.to_tip < found.to_tip[1]);
/// ```
pub fn measured(block: &Block, touches: &[Touch]) -> Option<IronMeasured> {
    let first = touches.first()?;
    let usual = IronHeater::USUAL;
    let guessed =
        [Bell::ln(usual.to_tip, GUESSED[0]), Bell::ln(usual.most, GUESSED[1]), Bell::ln(wetted(block.tip), GUESSED[2])];
    let off = |at: &[f64; 3]| -> f64 {
        let [to_tip, most, contact] = at.map(f64::exp);
        let iron = TouchingIron { heater: IronHeater { to_tip, most }, contact, block };
        // All touches begin about as hot: one run for them all unless they do not.
        let same = iron.recovers(first.before);
        let one = |touch: &Touch| if touch.before == first.before { same } else { iron.recovers(touch.before) };
        touches.iter().map(|touch| off(touch, one(touch))).sum()
    };
    let [to_tip, most, contact] = weighed(guessed, &|at| -0.5 * off(at));
    let best = off(&[to_tip.mean, most.mean, contact.mean]);
    let [low, middle, high] = to_tip.eight_in_ten_of_ln();
    let [least, watts, greatest] = most.eight_in_ten_of_ln();
    Some(IronMeasured {
        heater: IronHeater { to_tip: middle, most: watts },
        to_tip: [low, high],
        most: [least, greatest],
        fits: best < NO_IRON * 2.0 * touches.len() as f64,
    })
}

/// How far a touch lies from what an iron does, squares of standard deviations.
fn off(touch: &Touch, does: Recovery) -> f64 {
    let seconds = touch.recovered.in_seconds();
    let dip = (touch.lowest - touch.before).in_kelvin() + does.dip.in_kelvin();
    let late = (seconds - does.seconds) / WATCH_S.hypot(TOUCH * seconds);
    (dip / BEAD_K).powi(2) + late.powi(2)
}

/// What an iron does on a block.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Recovery {
    dip: TempDelta,
    seconds: f64,
}

/// An iron on its block.
struct TouchingIron<'a> {
    heater: IronHeater,
    /// Tip to block, W/K.
    contact: f64,
    block: &'a Block,
}

impl TouchingIron<'_> {
    /// From a tip that stands at `before` when it touches.
    fn recovers(&self, before: Temperature) -> Recovery {
        let Block { mass_g, begins, .. } = *self.block;
        let side_m = (mass_g / COPPER_G_PER_CM3).cbrt() * 1e-2;
        let (holds, loses) = (mass_g * COPPER_J_PER_GK, BLOCK_LOSES * 6.0 * side_m * side_m);
        let (set, room) = (before.in_celsius(), begins.in_celsius());
        let rates = |tip: f64, block: f64| {
            let (given, passed) =
                (self.heater.gives(TempDelta::kelvin((set - tip).max(0.0))), self.contact * (tip - block));
            ((given - passed) / TIP_CAPACITY, (passed - loses * (block - room)) / holds)
        };
        let (mut tip, mut block, mut lowest, mut seconds) = (set, room, set, 0.0);
        let mut dipped = false;
        while seconds < LONGEST_S {
            let (a, b) = rates(tip, block);
            let (c, d) = rates(tip + STEP_S * a, block + STEP_S * b);
            (tip, block) = (tip + STEP_S * (a + c) / 2.0, block + STEP_S * (b + d) / 2.0);
            seconds += STEP_S;
            lowest = tip.min(lowest);
            dipped = dipped || tip < set - RECOVERED_K;
            if dipped && tip >= set - RECOVERED_K {
                break;
            }
        }
        Recovery { dip: TempDelta::kelvin(set - lowest), seconds }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const BLOCK: Block = Block { mass_g: USUAL_BLOCK_G, begins: Temperature::celsius(23.0), tip: Length::mm(3.0) };

    /// A touch of an iron with these figures, read exactly.
    fn touch(to_tip: f64, most: f64, contact: f64) -> Touch {
        let before = Temperature::celsius(350.0);
        let iron = TouchingIron { heater: IronHeater { to_tip, most }, contact, block: &BLOCK };
        let Recovery { dip, seconds } = iron.recovers(before);
        Touch { before, lowest: before - dip, recovered: Duration::seconds(seconds) }
    }

    #[test]
    fn a_block_takes_what_copper_takes_from_a_heater_that_gives_all_it_can() {
        let stiff = touch(0.1, 30.0, 5.0);
        let joules = 327.0 * (COPPER_J_PER_GK * USUAL_BLOCK_G);
        let least = joules * (327.0 - RECOVERED_K) / 327.0 / 30.0;
        let seconds = stiff.recovered.in_seconds();
        assert!(seconds > 0.98 * least && seconds < 1.15 * least, "{seconds} against {least}: the room takes a little");
    }

    #[test]
    fn a_weak_heater_recovers_late_and_a_poor_way_to_the_tip_dips_deep() {
        let [usual, weak, poor] = [(1.2, 65.0), (1.2, 40.0), (3.0, 65.0)].map(|(r, p)| touch(r, p, 0.45));
        assert!(weak.recovered.in_seconds() > 1.15 * usual.recovered.in_seconds());
        assert!(poor.lowest < usual.lowest && poor.recovered.in_seconds() > usual.recovered.in_seconds());
    }

    #[test]
    fn the_heater_is_found_from_its_touches_and_better_from_three() {
        for (to_tip, most, contact) in [(0.8, 80.0, 0.45), (2.5, 50.0, 0.6), (1.2, 65.0, 0.3)] {
            let one = touch(to_tip, most, contact);
            let found = measured(&BLOCK, &[one; 3]).expect("touches");
            assert!(found.fits, "{found:?}");
            assert!((found.heater.to_tip / to_tip).ln().abs() < 0.3, "{to_tip}: {found:?}");
            assert!((found.heater.most / most).ln().abs() < 0.3, "{most}: {found:?}");
            let wide = |found: &IronMeasured| found.to_tip[1] / found.to_tip[0];
            let once = measured(&BLOCK, &[one]).expect("a touch");
            assert!(wide(&found) <= wide(&once) && wide(&once) < 4.0, "{found:?} {once:?}");
        }
        assert_eq!(measured(&BLOCK, &[]), None);
    }

    #[test]
    fn what_no_iron_on_copper_does_is_said_to_be_none() {
        let before = Temperature::celsius(350.0);
        let odd = Touch { before, lowest: Temperature::celsius(345.0), recovered: Duration::seconds(200.0) };
        assert!(!measured(&BLOCK, &[odd]).expect("a touch").fits);
    }
}
