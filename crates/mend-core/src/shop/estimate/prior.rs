//! What a stop usually takes by the hand of somebody trained, from what is known of the job. All of it is an engineering
//! estimate (E), wide, and replaced by the shop's own past.

use serde::{Deserialize, Serialize};

use crate::shop::Stop;

/// What is known of a job that makes it longer.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
pub struct JobSize {
    /// Things that come out by its opening map; none: no map yet.
    pub items: Option<usize>,
    /// Pins to walk.
    pub pins: usize,
    /// Time at the bench by its plan, s; none: not planned yet.
    pub bench_s: Option<f64>,
}

/// A stop's time before anything was learnt.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PriorTime {
    /// As often less as more, s.
    pub usual_s: f64,
    /// Standard deviation of its logarithm.
    pub spread: f64,
}

/// A stop that was planned piece by piece, and one that is a guess.
const PLANNED: f64 = 0.3;
const GUESSED: f64 = 0.5;

/// What a stop usually takes.
///
/// ```
/// use mend_core::shop::Stop;
/// use mend_core::shop::estimate::prior::{JobSize, prior};
/// let known = JobSize { bench_s: Some(1500.0), ..JobSize::default() };
/// let (planned, guessed) = (prior(Stop::Run, known), prior(Stop::Run, JobSize::default()));
/// assert_eq!(planned.usual_s, 1500.0);
/// assert!(planned.spread < guessed.spread);
/// ```
pub fn prior(stop: Stop, size: JobSize) -> PriorTime {
    let minutes = |minutes: f64, spread: f64| PriorTime { usual_s: 60.0 * minutes, spread };
    let pins = size.pins as f64;
    match stop {
        Stop::Intake => minutes(6.0, GUESSED),
        // Twenty seconds a screw, cable or clip, and a few minutes to set up.
        Stop::Opening => size.items.map_or(minutes(15.0, GUESSED), |n| minutes(3.0 + n as f64 / 3.0, PLANNED)),
        Stop::Board => minutes(2.0, GUESSED),
        Stop::Look => minutes(4.0 + pins / 8.0, GUESSED),
        Stop::Alloy => minutes(1.0, GUESSED),
        Stop::Method => minutes(2.0, GUESSED),
        Stop::Heat => minutes(2.0, GUESSED),
        Stop::Run => size.bench_s.map_or(minutes(45.0, GUESSED), |s| PriorTime { usual_s: s, spread: PLANNED }),
        Stop::Pins => minutes(2.0 + pins / 6.0, PLANNED),
        Stop::Test => minutes(6.0, GUESSED),
        Stop::Close => size.items.map_or(minutes(18.0, GUESSED), |n| minutes(4.0 + n as f64 / 2.5, PLANNED)),
        Stop::Handover => minutes(5.0, GUESSED),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn more_to_do_takes_longer() {
        let (small, large) =
            (JobSize { items: Some(4), pins: 6, bench_s: None }, JobSize { items: Some(24), pins: 40, bench_s: None });
        for stop in [Stop::Opening, Stop::Look, Stop::Pins, Stop::Close] {
            assert!(prior(stop, small).usual_s < prior(stop, large).usual_s, "{stop:?}");
        }
    }
}
