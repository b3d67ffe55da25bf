//! Outcomes by group.

use std::collections::BTreeMap;

use super::interval::Share;
use super::outcome::JobOutcome;

/// By what jobs are taken together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum GroupedBy {
    /// How it was done.
    Method,
    /// What was replaced.
    Connector,
    /// What it was heated with.
    Station,
    /// On which board.
    Board,
    /// By whom: for themselves and the owner alone.
    Person,
}

/// How far off predictions are.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bias {
    /// Releases with a prediction.
    pub n: usize,
    /// Mean of the logarithm of actual over predicted: 0.1 is a tenth later.
    pub mean: f64,
    /// Ends of its 95 % interval.
    pub low: f64,
    /// The upper end.
    pub high: f64,
}

/// A group of jobs.
#[derive(Debug, Clone, PartialEq)]
pub struct OutcomeGroup {
    /// What they share.
    pub name: String,
    /// Mended at the first go.
    pub first_time_right: Share,
    /// Went back to an earlier stop.
    pub reworked: Share,
    /// Something was damaged.
    pub damaged: Share,
    /// Came back under warranty.
    pub returned: Share,
    /// Came within the predicted band.
    pub inside: Share,
    /// How far off.
    pub bias: Option<Bias>,
}

/// Of jobs whose plan gave a chance between two figures, how many came through without damage.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reliability {
    /// The mean of the chances that were given.
    pub stated: f64,
    /// What came of them.
    pub came: Share,
}

/// A stop's time against its estimate.
#[derive(Debug, Clone, PartialEq)]
pub struct StageSummary {
    /// The stop's name.
    pub stop: String,
    /// Jobs.
    pub n: usize,
    /// Together, s.
    pub seconds: f64,
    /// How many times the estimate, by the median.
    pub factor: f64,
}

/// Everything.
#[derive(Debug, Clone, PartialEq)]
pub struct Review {
    /// All jobs as one group.
    pub all: OutcomeGroup,
    /// Against what plans promised.
    pub reliability: Vec<Reliability>,
    /// Where the time went, the most first.
    pub stages: Vec<StageSummary>,
    /// What was damaged, the most often first.
    pub damage: Vec<(String, usize)>,
    /// Jobs that went on against the ledger, and of them those that came back or were reworked.
    pub overrides: Share,
}

/// Ends of the classes of stated chances.
const CHANCES: [f64; 5] = [0.5, 0.8, 0.9, 0.97, 1.0];

impl JobOutcome {
    fn key(&self, by: GroupedBy) -> &str {
        match by {
            GroupedBy::Method => &self.method,
            GroupedBy::Connector => &self.connector,
            GroupedBy::Station => &self.station,
            GroupedBy::Board => &self.board,
            GroupedBy::Person => &self.person,
        }
    }
}

impl Bias {
    /// None below two: one alone has no spread.
    pub fn of(outcomes: &[&JobOutcome]) -> Option<Self> {
        let late: Vec<f64> = outcomes.iter().filter_map(|outcome| outcome.lateness()).collect();
        let n = late.len();
        if n < 2 {
            return None;
        }
        let mean = late.iter().sum::<f64>() / n as f64;
        let variance = late.iter().map(|l| (l - mean) * (l - mean)).sum::<f64>() / (n - 1) as f64;
        // The normal quantile, widened for few as Student's is: 2.78 at four degrees of freedom, 2.26 at nine.
        let half = (1.96 + 2.4 / (n - 1) as f64 + 2.5 / ((n - 1) * (n - 1)) as f64) * (variance / n as f64).sqrt();
        Some(Self { n, mean, low: mean - half, high: mean + half })
    }
}

impl OutcomeGroup {
    /// Jobs that share a name.
    pub fn new(name: &str, outcomes: &[&JobOutcome]) -> Self {
        let mended: Vec<&&JobOutcome> = outcomes.iter().filter(|outcome| !outcome.declined).collect();
        let share = |of: fn(&JobOutcome) -> bool| Share::new(mended.iter().filter(|o| of(o)).count(), mended.len());
        let banded: Vec<bool> = outcomes.iter().filter_map(|outcome| outcome.within()).collect();
        Self {
            name: name.to_owned(),
            first_time_right: share(JobOutcome::first_time_right),
            reworked: share(|outcome| outcome.reworks > 0),
            damaged: share(|outcome| !outcome.damaged.is_empty()),
            returned: share(|outcome| outcome.returned),
            inside: Share::new(banded.iter().filter(|inside| **inside).count(), banded.len()),
            bias: Bias::of(outcomes),
        }
    }

    /// Jobs taken together by what they share, in the order of its name: never a ranking.
    pub fn by(outcomes: &[JobOutcome], by: GroupedBy) -> Vec<Self> {
        let mut groups: BTreeMap<&str, Vec<&JobOutcome>> = BTreeMap::new();
        for outcome in outcomes.iter().filter(|outcome| !outcome.key(by).is_empty()) {
            groups.entry(outcome.key(by)).or_default().push(outcome);
        }
        groups.into_iter().map(|(name, of)| Self::new(name, &of)).collect()
    }
}

impl Review {
    /// What outcomes say.
    ///
    /// ```
    /// use mend_core::shop::review::{JobOutcome, Review};
    /// let one = JobOutcome { predicted_s: [Some(40.0), Some(50.0), Some(70.0)], actual_s: Some(55.0), ..JobOutcome::default() };
    /// let review = Review::new(&[one]);
    /// assert_eq!((review.all.inside.of, review.all.inside.n), (1, 1));
    /// assert!(review.all.inside.is_few());
    /// ```
    pub fn new(outcomes: &[JobOutcome]) -> Self {
        let all: Vec<&JobOutcome> = outcomes.iter().collect();
        let over: Vec<&JobOutcome> = outcomes.iter().filter(|outcome| outcome.overridden).collect();
        let bad = over.iter().filter(|outcome| outcome.returned || outcome.reworks > 0).count();
        Self {
            all: OutcomeGroup::new("all", &all),
            reliability: reliability(outcomes),
            stages: stages(outcomes),
            damage: damage(outcomes),
            overrides: Share::new(bad, over.len()),
        }
    }
}

fn reliability(outcomes: &[JobOutcome]) -> Vec<Reliability> {
    let mut low = 0.0;
    let mut classes = Vec::new();
    for high in CHANCES {
        let of = |chance: f64| chance > low && chance <= high || (low == 0.0 && chance == 0.0);
        let class: Vec<(f64, bool)> = outcomes
            .iter()
            .filter(|outcome| !outcome.declined)
            .filter_map(|outcome| Some((outcome.chance.filter(|chance| of(*chance))?, outcome.damaged.is_empty())))
            .collect();
        if !class.is_empty() {
            let stated = class.iter().map(|(chance, _)| chance).sum::<f64>() / class.len() as f64;
            let came = Share::new(class.iter().filter(|(_, whole)| *whole).count(), class.len());
            classes.push(Reliability { stated, came });
        }
        low = high;
    }
    classes
}

fn stages(outcomes: &[JobOutcome]) -> Vec<StageSummary> {
    let mut by: BTreeMap<&str, Vec<(f64, f64)>> = BTreeMap::new();
    for stage in outcomes.iter().flat_map(|outcome| &outcome.stages).filter(|stage| stage.expected_s > 0.0) {
        by.entry(&stage.stop).or_default().push((stage.seconds, stage.seconds / stage.expected_s));
    }
    let summary = |(stop, mut times): (&str, Vec<(f64, f64)>)| {
        times.sort_by(|a, b| a.1.total_cmp(&b.1));
        let seconds = times.iter().map(|(seconds, _)| seconds).sum();
        StageSummary { stop: stop.to_owned(), n: times.len(), seconds, factor: times[times.len() / 2].1 }
    };
    let mut stages: Vec<StageSummary> = by.into_iter().map(summary).collect();
    stages.sort_by(|a, b| b.seconds.total_cmp(&a.seconds));
    stages
}

fn damage(outcomes: &[JobOutcome]) -> Vec<(String, usize)> {
    let mut by: BTreeMap<&str, usize> = BTreeMap::new();
    outcomes.iter().flat_map(|outcome| &outcome.damaged).for_each(|what| *by.entry(what).or_default() += 1);
    let mut all: Vec<(String, usize)> = by.into_iter().map(|(what, times)| (what.to_owned(), times)).collect();
    all.sort_by(|a, b| b.1.cmp(&a.1).then(a.0.cmp(&b.0)));
    all
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;

    pub(crate) fn job(station: &str, late: f64) -> JobOutcome {
        JobOutcome {
            station: station.to_owned(),
            method: "from below".to_owned(),
            predicted_s: [Some(40.0), Some(50.0), Some(65.0)],
            actual_s: Some(50.0 * late),
            chance: Some(0.95),
            ..JobOutcome::default()
        }
    }

    #[test]
    fn a_station_that_is_late_is_seen_with_its_interval() {
        let mut outcomes: Vec<JobOutcome> = (0..8).map(|k| job("Gull", 1.2 + 0.01 * f64::from(k))).collect();
        outcomes.extend((0..8).map(|k| job("Tern", 0.96 + 0.01 * f64::from(k))));
        let groups = OutcomeGroup::by(&outcomes, GroupedBy::Station);
        let bias = groups[0].bias.expect("eight of them");
        assert!(groups[0].name == "Gull" && bias.low > 0.15 && bias.mean < 0.25, "{bias:?}");
        let tern = groups[1].bias.expect("eight of them");
        assert!(tern.low < 0.0 && tern.high > -0.05, "{tern:?}");
        assert_eq!(groups[1].inside.of, 8);
    }

    #[test]
    fn what_was_declined_is_neither_right_nor_wrong() {
        let declined = JobOutcome { declined: true, ..job("Gull", 1.0) };
        let damaged = JobOutcome { damaged: vec!["C88".to_owned()], ..job("Gull", 1.0) };
        let review = Review::new(&[declined, damaged, job("Gull", 1.0)]);
        assert_eq!((review.all.first_time_right.of, review.all.first_time_right.n), (1, 2));
        assert_eq!(review.damage, [("C88".to_owned(), 1)]);
        assert_eq!((review.reliability.len(), review.reliability[0].came.n), (1, 2));
    }

    #[test]
    fn a_share_of_nothing_says_so() {
        let review = Review::new(&[]);
        assert!(review.all.inside.is_few() && review.stages.is_empty() && review.all.bias.is_none());
    }
}
