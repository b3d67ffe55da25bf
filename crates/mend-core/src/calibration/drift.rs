//! A station that is no longer what it was: what the last lessons say of its jet against what all before them said.

use nalgebra::{SMatrix, SVector};

use super::lesson::{Lesson, lasting_at};
use crate::heat::known::{Belief, TEACHABLE, Teachable};

/// Everything that can be learnt, and the jet once more.
type Both = SMatrix<f64, { TEACHABLE + 1 }, { TEACHABLE + 1 }>;
type EachOf = SVector<f64, { TEACHABLE + 1 }>;
const JET: usize = Teachable::Jet as usize;
const SINCE: usize = TEACHABLE;
/// Variance of a logarithm of which nothing is known: a factor of e either way is a standard deviation.
const UNKNOWN: f64 = 1.0;

/// So many of the last lessons may stand against those before them.
const RECENT: std::ops::RangeInclusive<usize> = 1..=4;
/// And so many must stand before.
const BEFORE: usize = 2;
/// What is further apart than this is named, standard deviations of both together (design of the station's pages).
const NAMED: f64 = 2.0;

/// A change.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Drift {
    /// The first lesson after it, by its place.
    pub since: usize,
    /// How far it went, of the logarithm: −0.16 is 15 % weaker.
    pub change: f64,
    /// The same in standard deviations.
    pub deviations: f64,
}

/// The clearest change of a station's jet that its lessons show, if one is clear. What board, hand and room are is taken from the
/// lessons before: only the jet is asked anew.
///
/// ```
/// use mend_core::calibration::{drift::drift, lesson::{Lesson, Owner}};
/// use mend_core::example::Bench;
/// use mend_core::heat::known::{Belief, Knowledge, Teachable};
/// let bench = Bench::try_new().expect("the example");
/// let blind = Belief::blind(&bench.order().case(&[]));
/// let lesson = |week: f64, mean: f64| {
///     let says = Knowledge::one(Teachable::Jet, mean, 0.08);
///     Lesson { says, at_s: 6.0e5 * week, shares: vec![Owner::Nozzle] }
/// };
/// let even: Vec<Lesson> = (0..8).map(|k| lesson(f64::from(k), -0.1)).collect();
/// assert_eq!(drift(&even, &blind), None);
/// let weaker: Vec<Lesson> = (0..8).map(|k| lesson(f64::from(k), if k < 5 { -0.1 } else { -0.5 })).collect();
/// let found = drift(&weaker, &blind).expect("a third less");
/// assert!(found.since == 5 && (-0.5..-0.3).contains(&found.change));
/// ```
pub fn drift(lessons: &[Lesson], blind: &Belief) -> Option<Drift> {
    let changes = RECENT.filter_map(|recent| change(lessons, lessons.len().checked_sub(recent)?, blind));
    let clearest = changes.max_by(|a, b| a.deviations.abs().total_cmp(&b.deviations.abs()));
    clearest.filter(|found| found.deviations.abs() > NAMED)
}

/// The jet before and the jet since, as two things: board, hand and room are the same for both, so that what is not known of them
/// does not count against a change.
fn change(lessons: &[Lesson], since: usize, blind: &Belief) -> Option<Drift> {
    let (before, recent) = lessons.split_at(since);
    if before.len() < BEFORE {
        return None;
    }
    let was = blind.taught(&lasting_at(before, recent.first()?.at_s, blind));
    let says = lasting_at(recent, recent.last()?.at_s, blind);
    // The jet since stands last, and nothing is known of it yet; what the recent lessons say of the jet they say of that one.
    let of = |k: usize| if k == JET { SINCE } else { k };
    let (mut prior, mut precision) = (Both::zeros(), Both::zeros());
    let (mut mean, mut pull) = (EachOf::zeros(), EachOf::zeros());
    prior[(SINCE, SINCE)] = UNKNOWN;
    for i in 0..TEACHABLE {
        (mean[i], pull[of(i)]) = (was.mean[i], says.pull[i]);
        for j in 0..TEACHABLE {
            prior[(i, j)] = was.covariance[(i, j)];
            precision[(of(i), of(j))] = says.precision[(i, j)];
        }
    }
    // As in `Belief::taught`.
    let inverse = (Both::identity() + prior * precision).try_inverse()?;
    let (covariance, mean) = (inverse * prior, inverse * (mean + prior * pull));
    let change = mean[SINCE] - mean[JET];
    let variance = covariance[(SINCE, SINCE)] + covariance[(JET, JET)] - 2.0 * covariance[(SINCE, JET)];
    Some(Drift { since, change, deviations: change / variance.max(f64::MIN_POSITIVE).sqrt() })
}
