//! Jobs taken together by what they share, and what came of each group.

use std::collections::{BTreeMap, HashMap};

use super::bias::{Bias, LatenessSums};
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
pub(super) struct OutcomeTally {
    mended: usize,
    right: usize,
    reworked: usize,
    damaged: usize,
    returned: usize,
    banded: usize,
    inside: usize,
    late: LatenessSums,
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

    pub(super) fn of<'a>(outcomes: impl IntoIterator<Item = &'a JobOutcome>) -> Self {
        let mut tally = Self::default();
        outcomes.into_iter().for_each(|outcome| tally.add(outcome));
        tally
    }

    pub(super) fn group(&self, name: &str) -> OutcomeGroup {
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
    pub(super) fn by(outcomes: &[JobOutcome], by: GroupedBy) -> Vec<Self> {
        let mut groups: HashMap<&str, OutcomeTally> = HashMap::new();
        for outcome in outcomes.iter().filter(|outcome| !outcome.key(by).is_empty()) {
            groups.entry(outcome.key(by)).or_default().add(outcome);
        }
        let groups: BTreeMap<&str, OutcomeTally> = groups.into_iter().collect();
        groups.into_iter().map(|(name, of)| of.group(name)).collect()
    }
}
