//! What to change: at most three, each by a rule, with its figures. What is within chance is no change.

use std::collections::BTreeMap;

use super::bias::Bias;
use super::groups::{GroupedBy, OutcomeGroup};
use super::interval::Share;
use super::outcome::JobOutcome;
use super::summary::Review;
use super::times::StageSummary;

/// No more than these are said: who is told ten things does none.
const MOST: usize = 3;
/// Fewer jobs than this change nothing.
const ENOUGH: usize = 5;
/// Bands hold eight in ten; a share whose interval lies wholly below this is told.
const BANDED: f64 = 0.8;
/// A station whose releases come this much later or sooner, all of its interval, is told: a tenth, in the logarithm.
const OFF: f64 = 0.095;
/// A change is told from this many standard errors on: more than two, for the clearest of many moments is looked for.
const CLEAR: f64 = 2.6;
/// A stop that takes half as long again, or a third less, is told.
const LONGER: f64 = 1.5;
const SHORTER: f64 = 0.67;
/// A method this much worse than all others, by its interval, is told.
const WORSE: f64 = 0.1;

/// A thing to change.
#[derive(Debug, Clone, PartialEq)]
pub enum ReviewChange {
    /// A station's releases come later or sooner than predicted: measure it.
    Station {
        /// Its name.
        name: String,
        /// By how much.
        bias: Bias,
    },
    /// A station that is no longer what it was: its releases come later or sooner than before.
    Drifted {
        /// Its name.
        name: String,
        /// Since when, in the outcomes' days.
        since_day: f64,
        /// On how many jobs since.
        jobs: usize,
        /// How much later since, as a logarithm.
        by: f64,
    },
    /// Bands hold too little.
    Bands {
        /// How many came within.
        inside: Share,
    },
    /// A method goes wrong more often than others.
    Method {
        /// Its name.
        name: String,
        /// Mended at the first go with it.
        own: Share,
        /// With all others.
        others: Share,
    },
    /// A stop takes longer or shorter than is estimated.
    Stage(StageSummary),
    /// Jobs that went on against the ledger came back.
    Overrides {
        /// Those that did.
        bad: Share,
    },
}

/// What to change, the weightiest first.
///
/// ```
/// use mend_core::shop::review::{JobOutcome, Review, changes};
/// let one = [JobOutcome::default()];
/// assert!(changes(&one, &Review::new(&one)).is_empty(), "one job changes nothing");
/// ```
pub fn changes(outcomes: &[JobOutcome], review: &Review) -> Vec<ReviewChange> {
    let mut found: Vec<(f64, ReviewChange)> = Vec::new();
    found.extend(latenesses(outcomes).into_iter().filter_map(drifted));
    found.extend(review.grouped(GroupedBy::Station).iter().filter_map(station));
    found.extend(bands(review));
    let all = review.all.first_time_right;
    found.extend(review.grouped(GroupedBy::Method).iter().filter_map(|group| method(all, group)));
    found.extend(review.stages.iter().filter_map(stage));
    let bad = review.overrides;
    if bad.n >= ENOUGH && bad.low > WORSE {
        found.push((2.0 * bad.value(), ReviewChange::Overrides { bad }));
    }
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    found.into_iter().take(MOST).map(|(_, change)| change).collect()
}

fn station(group: &OutcomeGroup) -> Option<(f64, ReviewChange)> {
    let bias = group.bias.filter(|bias| bias.n >= ENOUGH && (bias.low > OFF || bias.high < -OFF))?;
    Some((3.0 + bias.mean.abs(), ReviewChange::Station { name: group.name.clone(), bias }))
}

/// Each station's releases: the day, and how much later than predicted.
fn latenesses(outcomes: &[JobOutcome]) -> BTreeMap<&str, Vec<(f64, f64)>> {
    let mut by: BTreeMap<&str, Vec<(f64, f64)>> = BTreeMap::new();
    for outcome in outcomes.iter().filter(|outcome| !outcome.station.is_empty()) {
        if let Some(late) = outcome.lateness() {
            by.entry(&outcome.station).or_default().push((outcome.day, late));
        }
    }
    by
}

/// The clearest moment since which a station's releases differ from those before it (Welch's comparison of two means).
fn drifted((name, mut late): (&str, Vec<(f64, f64)>)) -> Option<(f64, ReviewChange)> {
    late.sort_by(|a, b| a.0.total_cmp(&b.0));
    let sums = PrefixSums::new(late.iter().map(|(_, late)| *late));
    let splits = ENOUGH..(late.len() + 1).saturating_sub(ENOUGH);
    let clearest = splits.map(|at| (at, sums.step(at))).max_by(|a, b| a.1.0.abs().total_cmp(&b.1.0.abs()))?;
    let (at, (deviations, by)) = clearest;
    let told = deviations.abs() > CLEAR && by.abs() > OFF;
    let (since_day, jobs, name) = (late[at].0, late.len() - at, name.to_owned());
    told.then(|| (4.0 + by.abs(), ReviewChange::Drifted { name, since_day, jobs, by }))
}

/// Sums of values and of their squares up to each place, so that each place costs the same however many jobs there are.
/// (Until this, each place summed all jobs: 100 000 took 5.7 s.) The values are taken from their mean, or the squares would cancel.
struct PrefixSums(Vec<(f64, f64)>);

impl PrefixSums {
    fn new(values: impl Iterator<Item = f64> + Clone) -> Self {
        let (n, sum) = values.clone().fold((0.0, 0.0), |(n, sum), value| (n + 1.0, sum + value));
        let mean: f64 = if n > 0.0 { sum / n } else { 0.0 };
        let mut sums = vec![(0.0, 0.0)];
        sums.extend(values.scan((0.0, 0.0), |(sum, squares), value| {
            let off = value - mean;
            (*sum, *squares) = (*sum + off, *squares + off * off);
            Some((*sum, *squares))
        }));
        Self(sums)
    }

    /// The mean and its variance between two places.
    fn mean(&self, from: usize, until: usize) -> (f64, f64) {
        let n = (until - from) as f64;
        let (sum, squares) = (self.0[until].0 - self.0[from].0, self.0[until].1 - self.0[from].1);
        let mean = sum / n;
        (mean, ((squares - n * mean * mean).max(0.0) / (n - 1.0)) / n)
    }

    /// How far the mean from a place on lies from the mean before it: in standard errors, and itself.
    fn step(&self, at: usize) -> (f64, f64) {
        let ((before, spread), (since, spread_since)) = (self.mean(0, at), self.mean(at, self.0.len() - 1));
        let by = since - before;
        (by / (spread + spread_since).sqrt().max(1e-9), by)
    }
}

fn bands(review: &Review) -> Option<(f64, ReviewChange)> {
    let inside = review.all.inside;
    (inside.n >= ENOUGH && inside.high < BANDED).then_some((2.5, ReviewChange::Bands { inside }))
}

fn method(all: Share, group: &OutcomeGroup) -> Option<(f64, ReviewChange)> {
    let own = group.first_time_right;
    let others = Share::new(all.of - own.of, all.n - own.n);
    let worse = own.n >= ENOUGH && others.n >= ENOUGH && own.high < others.value() - WORSE;
    worse.then(|| (2.0 + others.value() - own.value(), ReviewChange::Method { name: group.name.clone(), own, others }))
}

fn stage(stage: &StageSummary) -> Option<(f64, ReviewChange)> {
    let off = stage.factor >= LONGER || stage.factor <= SHORTER;
    (stage.n >= ENOUGH && off).then(|| (stage.factor.ln().abs(), ReviewChange::Stage(stage.clone())))
}

#[cfg(test)]
mod tests {
    use super::super::outcome::StageTaken;
    use super::super::summary::tests::job;
    use super::*;

    fn changes_of(outcomes: &[JobOutcome]) -> Vec<ReviewChange> {
        changes(outcomes, &Review::new(outcomes))
    }

    #[test]
    fn a_drifting_station_comes_first_and_chance_is_not_told() {
        let weak: Vec<JobOutcome> = (0..6).map(|k| job("Gull", 1.25 + 0.01 * f64::from(k))).collect();
        assert!(matches!(&changes_of(&weak)[0], ReviewChange::Station { name, bias } if name == "Gull" && bias.n == 6));
        let even: Vec<JobOutcome> = (0..12).map(|k| job("Gull", 0.9 + 0.02 * f64::from(k * 5 % 12))).collect();
        assert!(changes_of(&even).is_empty(), "{:?}", changes_of(&even));
        assert!(changes_of(&weak[..4]).is_empty(), "four are too few");
    }

    #[test]
    fn a_station_that_weakened_is_told_with_the_day_and_one_that_only_scatters_is_not() {
        let scatter = [0.0, 0.08, -0.06, 0.11, -0.1, 0.03, -0.04, 0.06];
        let at = |k: usize, weaker: f64| JobOutcome { day: k as f64, ..job("Gull", 1.0 + scatter[k % 8] + weaker) };
        let weakened: Vec<JobOutcome> = (0..16).map(|k| at(k, if k < 9 { 0.0 } else { 0.3 })).collect();
        let told = changes_of(&weakened);
        assert!(
            matches!(&told[0], ReviewChange::Drifted { since_day, jobs: 7, by, .. } if *since_day == 9.0 && *by > 0.2),
            "{told:?}"
        );
        let even: Vec<JobOutcome> = (0..16).map(|k| at(k, 0.0)).collect();
        assert!(changes_of(&even).is_empty(), "{:?}", changes_of(&even));
    }

    #[test]
    fn a_method_that_goes_wrong_and_a_stop_that_takes_longer_are_told() {
        let good = |k: u32| JobOutcome { job: i64::from(k), ..job("Gull", 1.0) };
        let bad = |k: u32| JobOutcome { method: "hot swap".to_owned(), reworks: u32::from(k < 7), ..good(k) };
        let mut outcomes: Vec<JobOutcome> = (0..20).map(good).chain((0..9).map(bad)).collect();
        assert!(matches!(&changes_of(&outcomes)[0], ReviewChange::Method { name, .. } if name == "hot swap"));
        for outcome in &mut outcomes {
            outcome.reworks = 0;
            outcome.stages = vec![StageTaken { stop: "Close".to_owned(), seconds: 1500.0, expected_s: 900.0 }];
        }
        assert!(matches!(&changes_of(&outcomes)[..], [ReviewChange::Stage(stage)] if stage.stop == "Close"));
    }

    #[test]
    fn no_more_than_three_are_told() {
        let stations = ["a", "b", "c", "d", "e"];
        let all: Vec<JobOutcome> = stations.iter().flat_map(|name| (0..6).map(|_| job(name, 1.3))).collect();
        assert_eq!(changes_of(&all).len(), 3);
    }
}
