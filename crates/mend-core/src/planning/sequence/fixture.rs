//! What the steps' tests are written from: the example's bench, planned, with a method and its techniques.
#![cfg(test)]
#![allow(clippy::expect_used)]

use super::script::Script;
use super::step::Step;
use crate::board::KeepIntact;
use crate::example::Bench;
use crate::method::equipment::Sucker;
use crate::method::techniques::{Question, Techniques};
use crate::method::{MethodChoice, MethodFamily};
use crate::planning::make_plan::plan_alone;
use crate::planning::plan::Plan;
use crate::solder::{CompositionEntry, FeedEntry};

/// A job that is about to be done.
pub(super) struct Job {
    pub(super) bench: Bench,
    pub(super) plan: Plan,
    pub(super) choice: MethodChoice,
    pub(super) keep_intact: KeepIntact,
    pub(super) sucker: Sucker,
}

/// Air from below by the recommended techniques, on a customer's board.
pub(super) fn job() -> Job {
    let bench = Bench::try_new().expect("the example");
    let plan = plan_alone(&bench.order()).expect("it can be computed");
    let choice = MethodChoice { family: MethodFamily::FromBelow, techniques: Techniques::default() };
    Job { bench, plan, choice, keep_intact: KeepIntact::Board, sucker: Sucker::Pump }
}

impl Job {
    pub(super) fn script(&self) -> Script<'_> {
        let plain = Script::plain(&self.bench.board, &self.plan, &self.bench.composition);
        let (choice, keep_intact, sucker) = (Some(&self.choice), self.keep_intact, self.sucker);
        Script { choice, keep_intact, sucker, bath: true, ..plain }
    }

    /// By another technique.
    pub(super) fn by(mut self, question: &Question, technique: &str) -> Self {
        self.choice.techniques = self.choice.techniques.with(question, technique);
        self
    }

    /// With low-melt fed to the anchors.
    pub(super) fn fed(mut self) -> Self {
        let feed = FeedEntry {
            alloy: "Sn42Bi58".to_owned(),
            mixing_fraction: 0.4,
            wire_mm: 0.5,
            flux_share: 0.02,
            rows: vec!["anchors".to_owned()],
        };
        let entry = CompositionEntry { alloy: "SAC305".to_owned(), feed: Some(feed), ..CompositionEntry::default() };
        self.bench.composition = entry.composition().expect("alloys of the table");
        self
    }
}

/// Does a step say this line?
pub(super) fn says(step: &Step, line: impl Into<super::line::Line>) -> bool {
    step.lines().contains(&line.into())
}
