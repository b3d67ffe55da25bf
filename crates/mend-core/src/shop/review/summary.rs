//! What the outcomes of jobs say, all together.

use std::collections::BTreeMap;

use rayon::prelude::*;

use super::groups::{GroupedBy, OutcomeGroup, OutcomeTally};
use super::interval::Share;
use super::outcome::JobOutcome;
use super::reliability::{Reliability, reliability};
use super::times::{StageSummary, WaitSummary, stages, waits};

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
    use crate::shop::review::{PROBED, UNPROBED, WaitCause};

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
