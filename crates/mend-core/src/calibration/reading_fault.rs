//! A reading that can't be one: the thermocouple has come off, broken or frozen.

use super::observation::Observation;

/// What a bead on a board can be, °C.
const POSSIBLE_C: (f64, f64) = (-20.0, 500.0);
/// Nothing on a board warms or cools faster, K/s (E: a bead in the bare jet).
const STEEPEST: f64 = 60.0;
/// A reading that has not changed by more than this for so long is frozen, K and s, while the runs expect as much.
const STILL_K: f64 = 0.05;
const STILL_S: f64 = 5.0;
const EXPECTED_K: f64 = 2.0;

/// Of a thermocouple a reading counts once in so many seconds: what no parameter explains lasts about twice as long.
pub(super) const APART_S: f64 = 5.0;
/// A bead that was taped by hand lies within so many mm of where it is said to (E).
pub(super) const WITHIN_MM: f64 = 1.0;

/// The sound readings of one thermocouple up to a moment, thinned, as observations.
///
/// ```
/// use mend_core::calibration::reading_fault::counted;
/// let readings = (0..30).map(|k| [f64::from(k), 24.0 + f64::from(k)]);
/// assert_eq!(counted(readings.chain([[31.0, f64::NAN]]), 20.0).len(), 5);
/// ```
pub fn counted(readings: impl Iterator<Item = [f64; 2]>, until_s: f64) -> Vec<Observation> {
    let (mut sound, mut next_s, mut all) = (SoundReadings::default(), f64::NEG_INFINITY, Vec::new());
    for [at_s, celsius] in readings.filter(|[at_s, _]| *at_s <= until_s) {
        if sound.take([at_s, celsius], 0.0).is_ok() && at_s >= next_s {
            next_s = at_s + APART_S;
            all.push(Observation::Reading { thermocouple: 0, at_s, celsius, within_mm: WITHIN_MM });
        }
    }
    all
}

/// Why a reading is left out.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ReadingFault {
    /// No number, or none that a bead can have: an open circuit.
    Open,
    /// It jumped, K/s.
    Jump { per_s: f64 },
    /// It has not changed for so long, s.
    Frozen { for_s: f64 },
}

/// What came from one thermocouple so far.
#[derive(Debug, Clone, Default)]
pub struct SoundReadings {
    /// Seconds and °C that were sound.
    sound: Vec<[f64; 2]>,
    /// Since when it reads the same.
    same_since: Option<[f64; 2]>,
}

impl SoundReadings {
    /// The last sound one: seconds and °C.
    pub fn last(&self) -> Option<[f64; 2]> {
        self.sound.last().copied()
    }

    /// Takes a reading, or says why it is none. `expected_k` is how far it should have come in the last seconds.
    ///
    /// ```
    /// use mend_core::calibration::reading_fault::{ReadingFault, SoundReadings};
    /// let mut readings = SoundReadings::default();
    /// assert_eq!(readings.take([1.0, 24.0], 0.0), Ok(()));
    /// assert_eq!(readings.take([2.0, f64::NAN], 0.0), Err(ReadingFault::Open));
    /// assert!(matches!(readings.take([2.0, 190.0], 0.0), Err(ReadingFault::Jump { .. })));
    /// ```
    pub fn take(&mut self, [at_s, celsius]: [f64; 2], expected_k: f64) -> Result<(), ReadingFault> {
        if !(POSSIBLE_C.0..=POSSIBLE_C.1).contains(&celsius) || !at_s.is_finite() {
            return Err(ReadingFault::Open);
        }
        if let Some([before_s, before]) = self.last() {
            let per_s = (celsius - before).abs() / (at_s - before_s).max(0.1);
            if per_s > STEEPEST {
                return Err(ReadingFault::Jump { per_s });
            }
        }
        match self.same_since {
            Some([since_s, same]) if (celsius - same).abs() <= STILL_K => {
                let for_s = at_s - since_s;
                if for_s >= STILL_S && expected_k.abs() > EXPECTED_K {
                    return Err(ReadingFault::Frozen { for_s });
                }
            }
            _ => self.same_since = Some([at_s, celsius]),
        }
        self.sound.push([at_s, celsius]);
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_reading_that_stands_still_is_frozen_only_while_it_should_rise() {
        let mut readings = SoundReadings::default();
        let last = |readings: &mut SoundReadings, expected: f64| {
            let all: Vec<_> = (0..10).map(|k| readings.take([f64::from(k), 80.0], expected)).collect();
            all[9]
        };
        assert_eq!(last(&mut readings, 0.5), Ok(()), "the runs expect no more");
        assert!(matches!(last(&mut SoundReadings::default(), 6.0), Err(ReadingFault::Frozen { .. })));
    }

    #[test]
    fn after_a_jump_it_is_taken_again_once_it_is_back() {
        let mut readings = SoundReadings::default();
        let all = [[0.0, 60.0], [1.0, 300.0], [2.0, 62.0]].map(|reading| readings.take(reading, 0.0).is_ok());
        assert_eq!(all, [true, false, true]);
    }
}
