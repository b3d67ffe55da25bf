//! Outcomes by group.

use std::collections::{BTreeMap, HashMap};

use rayon::prelude::*;

use super::interval::Share;
use super::outcome::{JobOutcome, WaitCause};

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
    /// Before and after its station was measured with a probe: [`PROBED`] and [`UNPROBED`].
    Probed,
    /// By whom: for themselves and the owner alone.
    Person,
}

/// Names of the two groups of [`GroupedBy::Probed`].
pub const PROBED: &str = "probed";
/// What was heated with a station that nobody had measured.
pub const UNPROBED: &str = "unprobed";

impl GroupedBy {
    /// All of them.
    pub const ALL: [Self; 6] = [Self::Method, Self::Connector, Self::Station, Self::Board, Self::Probed, Self::Person];
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

/// How long jobs stood still for a cause.
#[derive(Debug, Clone, PartialEq)]
pub struct WaitSummary {
    /// Why.
    pub cause: WaitCause,
    /// Jobs that did.
    pub n: usize,
    /// Together, s.
    pub seconds: f64,
    /// The median of those that did, s.
    pub median_s: f64,
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
    /// What jobs waited for, the longest first.
    pub waits: Vec<WaitSummary>,
    /// What was damaged, the most often first.
    pub damage: Vec<(String, usize)>,
    /// Jobs that went on against the ledger, and of them those that came back or were reworked.
    pub overrides: Share,
    /// In the order of [`GroupedBy::ALL`].
    groups: Vec<Vec<OutcomeGroup>>,
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
            GroupedBy::Probed if self.station.is_empty() => "",
            GroupedBy::Probed if self.probed => PROBED,
            GroupedBy::Probed => UNPROBED,
            GroupedBy::Person => &self.person,
        }
    }
}

/// What is counted of jobs in one pass over them: with a pass a figure, 100 000 took five times as long.
#[derive(Default)]
struct OutcomeTally {
    mended: usize,
    right: usize,
    reworked: usize,
    damaged: usize,
    returned: usize,
    banded: usize,
    inside: usize,
    late: LatenessSums,
}

/// Logarithms of actual over predicted: how many, their sum and the sum of their squares. They are of the order of one, so the
/// squares don't cancel.
#[derive(Default)]
struct LatenessSums {
    n: usize,
    sum: f64,
    squares: f64,
}

impl LatenessSums {
    fn add(&mut self, late: f64) {
        (self.n, self.sum, self.squares) = (self.n + 1, self.sum + late, self.squares + late * late);
    }

    /// None below two: one alone has no spread.
    fn bias(&self) -> Option<Bias> {
        let (n, count) = (self.n, self.n as f64);
        if n < 2 {
            return None;
        }
        let mean = self.sum / count;
        let free = (n - 1) as f64;
        let variance = (self.squares - count * mean * mean).max(0.0) / free;
        // The normal quantile, widened for few as Student's is: 2.78 at four degrees of freedom, 2.26 at nine.
        let half = (1.96 + 2.4 / free + 2.5 / (free * free)) * (variance / count).sqrt();
        Some(Bias { n, mean, low: mean - half, high: mean + half })
    }
}

impl OutcomeTally {
    fn add(&mut self, outcome: &JobOutcome) {
        if !outcome.declined {
            self.mended += 1;
            self.right += usize::from(outcome.first_time_right());
            self.reworked += usize::from(outcome.reworks > 0);
            self.damaged += usize::from(!outcome.damaged.is_empty());
            self.returned += usize::from(outcome.returned);
        }
        if let Some(inside) = outcome.within() {
            self.banded += 1;
            self.inside += usize::from(inside);
        }
        if let Some(late) = outcome.lateness() {
            self.late.add(late);
        }
    }

    fn of<'a>(outcomes: impl IntoIterator<Item = &'a JobOutcome>) -> Self {
        let mut tally = Self::default();
        outcomes.into_iter().for_each(|outcome| tally.add(outcome));
        tally
    }

    fn group(&self, name: &str) -> OutcomeGroup {
        let share = |of: usize| Share::new(of, self.mended);
        OutcomeGroup {
            name: name.to_owned(),
            first_time_right: share(self.right),
            reworked: share(self.reworked),
            damaged: share(self.damaged),
            returned: share(self.returned),
            inside: Share::new(self.inside, self.banded),
            bias: self.late.bias(),
        }
    }
}

impl OutcomeGroup {
    fn by(outcomes: &[JobOutcome], by: GroupedBy) -> Vec<Self> {
        let mut groups: HashMap<&str, OutcomeTally> = HashMap::new();
        for outcome in outcomes.iter().filter(|outcome| !outcome.key(by).is_empty()) {
            groups.entry(outcome.key(by)).or_default().add(outcome);
        }
        let groups: BTreeMap<&str, OutcomeTally> = groups.into_iter().collect();
        groups.into_iter().map(|(name, of)| of.group(name)).collect()
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
        let over: Vec<&JobOutcome> = outcomes.iter().filter(|outcome| outcome.overridden).collect();
        let bad = over.iter().filter(|outcome| outcome.returned || outcome.reworks > 0).count();
        let groups = || GroupedBy::ALL.par_iter().map(|by| OutcomeGroup::by(outcomes, *by)).collect();
        let (groups, stages) = rayon::join(groups, || stages(outcomes));
        Self {
            all: OutcomeTally::of(outcomes).group("all"),
            reliability: reliability(outcomes),
            stages,
            groups,
            waits: waits(outcomes),
            damage: damage(outcomes),
            overrides: Share::new(bad, over.len()),
        }
    }

    /// Jobs taken together by what they share, in the order of its name: never a ranking.
    pub fn grouped(&self, by: GroupedBy) -> &[OutcomeGroup] {
        let place = GroupedBy::ALL.iter().position(|known| *known == by).unwrap_or_default();
        &self.groups[place]
    }
}

/// Chances that plans gave, in classes, and what came of them.
fn reliability(outcomes: &[JobOutcome]) -> Vec<Reliability> {
    let mut classes = [(0.0, 0, 0); CHANCES.len()];
    for outcome in outcomes.iter().filter(|outcome| !outcome.declined) {
        let Some(chance) = outcome.chance else { continue };
        let Some(class) = CHANCES.iter().position(|high| chance <= *high) else { continue };
        let (sum, whole, n) = &mut classes[class];
        (*sum, *whole, *n) = (*sum + chance, *whole + usize::from(outcome.damaged.is_empty()), *n + 1);
    }
    let told = classes.into_iter().filter(|(.., n)| *n > 0);
    told.map(|(sum, whole, n)| Reliability { stated: sum / n as f64, came: Share::new(whole, n) }).collect()
}

fn stages(outcomes: &[JobOutcome]) -> Vec<StageSummary> {
    let mut by: HashMap<&str, Vec<(f64, f64)>> = HashMap::new();
    for stage in outcomes.iter().flat_map(|outcome| &outcome.stages).filter(|stage| stage.expected_s > 0.0) {
        by.entry(&stage.stop).or_default().push((stage.seconds, stage.seconds / stage.expected_s));
    }
    let summary = |(stop, mut times): (&str, Vec<(f64, f64)>)| {
        let (seconds, n) = (times.iter().map(|(seconds, _)| seconds).sum(), times.len());
        let (_, median, _) = times.select_nth_unstable_by(n / 2, |a, b| a.1.total_cmp(&b.1));
        StageSummary { stop: stop.to_owned(), n, seconds, factor: median.1 }
    };
    let mut stages: Vec<StageSummary> = by.into_iter().map(summary).collect();
    stages.sort_by(|a, b| b.seconds.total_cmp(&a.seconds).then_with(|| a.stop.cmp(&b.stop)));
    stages
}

fn waits(outcomes: &[JobOutcome]) -> Vec<WaitSummary> {
    let all = || outcomes.iter().flat_map(|outcome| &outcome.waited);
    let summary = |cause: WaitCause| {
        let mut waited: Vec<f64> = all().filter(|waited| waited.cause == cause).map(|waited| waited.seconds).collect();
        let (n, seconds) = (waited.len(), waited.iter().sum());
        let median_s = (n > 0).then(|| *waited.select_nth_unstable_by(n / 2, f64::total_cmp).1)?;
        Some(WaitSummary { cause, n, seconds, median_s })
    };
    let mut waits: Vec<WaitSummary> = WaitCause::ALL.into_iter().filter_map(summary).collect();
    waits.sort_by(|a, b| b.seconds.total_cmp(&a.seconds));
    waits
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
        let review = Review::new(&outcomes);
        let groups = review.grouped(GroupedBy::Station);
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
    fn waiting_is_added_by_its_cause_and_the_longest_comes_first() {
        let waited = |cause, hours: f64| JobOutcome {
            waited: vec![super::super::Waited { cause, seconds: 3600.0 * hours }],
            ..job("Gull", 1.0)
        };
        let outcomes = [
            waited(WaitCause::Word, 1.0),
            waited(WaitCause::Part, 40.0),
            waited(WaitCause::Word, 3.0),
            job("Gull", 1.0),
        ];
        let told: Vec<_> = Review::new(&outcomes).waits.iter().map(|wait| (wait.cause, wait.n, wait.seconds)).collect();
        assert_eq!(told, [(WaitCause::Part, 1, 144_000.0), (WaitCause::Word, 2, 14_400.0)]);
    }

    #[test]
    fn what_a_probe_changed_is_told_apart() {
        let after = |k: u32| JobOutcome { probed: true, ..job("Gull", 1.0 + 0.01 * f64::from(k)) };
        let before = |k: u32| job("Gull", 1.4 + 0.01 * f64::from(k));
        let outcomes: Vec<JobOutcome> = (0..6).map(after).chain((0..6).map(before)).collect();
        let review = Review::new(&outcomes);
        let names = review.grouped(GroupedBy::Probed).iter().map(|group| (group.name.as_str(), group.inside.of));
        assert_eq!(names.collect::<Vec<_>>(), [(PROBED, 6), (UNPROBED, 0)]);
    }

    #[test]
    fn a_share_of_nothing_says_so() {
        let review = Review::new(&[]);
        assert!(review.all.inside.is_few() && review.stages.is_empty() && review.all.bias.is_none());
    }
}
