//! What has happened at the bench: a state folded from the events that were stored. One key is enough to go on.
//!
//! Events are ordered by their sequence alone. Their times are milliseconds since the run was opened, measured by a clock that
//! nobody sets; a wall clock has no part in the fold.

mod marks;
mod moves;
#[cfg(test)]
mod tests;

pub use marks::{Cue, RunPhase, Stamp};

use super::bench_event::{Event, Happening};
use super::ledger::Entry;
use crate::planning::sequence::step::{Step, StepKind};

/// The state of a run.
#[derive(Debug, Clone, PartialEq)]
pub struct BenchRun {
    /// The present step; as many as there are steps: all done.
    pub at: usize,
    /// Its phase.
    pub phase: RunPhase,
    /// Every "it moved" so far.
    pub stamps: Vec<Stamp>,
    /// How often the abort time came first.
    pub stopped: usize,
    /// How often the air went on.
    pub attempts: usize,
    /// How often of these in the present step.
    pub attempts_here: usize,
    /// Rows that were seen to shine.
    pub cues: Vec<Cue>,
    /// When it last went off, ms since the run was opened.
    pub air_off_ms: Option<i64>,
    /// How long the air was on, all in all, ms.
    pub air_on_ms: i64,
    /// The cleaning ledger's entries, in order.
    pub entries: Vec<Entry>,
    /// Can anything be taken back?
    pub undoable: bool,
}

impl BenchRun {
    /// The state after these events, in their sequence. What changes nothing is as if it had not been; "undo" takes back the
    /// last that did.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::planning::bench_event::{Event, Happening};
    /// use mend_core::planning::bench_run::BenchRun;
    /// use mend_core::planning::make_plan::plan;
    /// use mend_core::planning::sequence::{script::Script, sequence};
    /// let made = plan(&bench.order()).expect("it can be computed");
    /// let steps = sequence(&Script::plain(&bench.board, &made, &bench.composition));
    /// let go = |at_ms| Event { what: Happening::Go, at_ms };
    /// let undo = Event { what: Happening::Undo, at_ms: 3_000 };
    /// assert_eq!(BenchRun::after(&steps, &[go(1_000), go(2_000)]).at, 2);
    /// assert_eq!(BenchRun::after(&steps, &[go(1_000), go(2_000), undo]).at, 1);
    /// ```
    pub fn after(steps: &[Step], events: &[Event]) -> Self {
        let mut past: Vec<Self> = Vec::new();
        let mut now = Self::opened(steps);
        for event in events {
            if event.what == Happening::Undo {
                now = past.pop().unwrap_or(now);
            } else if let Some(next) = now.next(steps, event) {
                past.push(std::mem::replace(&mut now, next));
            }
        }
        Self { undoable: !past.is_empty(), ..now }
    }

    fn opened(steps: &[Step]) -> Self {
        let (stamps, entries) = (Vec::new(), Vec::new());
        let run = Self {
            at: 0,
            phase: RunPhase::Ready,
            stamps,
            stopped: 0,
            attempts: 0,
            attempts_here: 0,
            cues: Vec::new(),
            air_off_ms: None,
            air_on_ms: 0,
            entries,
            undoable: false,
        };
        run.entered(steps, 0, 0)
    }

    /// All steps done?
    pub fn is_done(&self, steps: &[Step]) -> bool {
        self.at >= steps.len()
    }

    /// The release that the plan predicted: that of a first attempt on a cold board.
    pub fn release(&self) -> Option<&Stamp> {
        self.stamps.iter().find(|stamp| stamp.from_cold())
    }

    /// When the air went on that is on now, ms since the run was opened.
    pub fn begun_ms(&self) -> Option<i64> {
        match self.phase {
            RunPhase::Running { since_ms } => Some(since_ms),
            _ => None,
        }
    }

    /// What has been seen since then.
    pub fn cues_now(&self) -> impl Iterator<Item = &Cue> {
        self.cues.iter().filter(|cue| Some(cue.begun_ms) == self.begun_ms())
    }

    /// Is the heating under way the one that a plan has: the first of its step, of a removal on a board that no air was on before?
    pub fn is_as_planned(&self, steps: &[Step]) -> bool {
        let first = self.attempts_here == 1 && matches!(self.phase, RunPhase::Running { .. });
        first
            && match steps.get(self.at).map(|step| &step.kind) {
                Some(StepKind::Heat { .. }) => self.air_off_ms.is_none(),
                Some(StepKind::Set { fit }) => fit.is_some(),
                _ => false,
            }
    }
}
