//! What has happened at the bench: a state folded from the events that were stored. One key is enough to go on.
//!
//! Events are ordered by their sequence alone. Their times are milliseconds since the run was opened, measured by a clock that
//! nobody sets; a wall clock has no part in the fold.

use serde::{Deserialize, Serialize};

use super::bench_event::{Event, Happening};
use super::ledger::Entry;
use crate::planning::sequence::step::{Step, StepKind};

/// Where in its course a step is. Times are ms since the run was opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RunPhase {
    /// Waiting for the hand.
    Ready,
    /// Its clock runs since then.
    Running {
        /// Air on, or air off where a window or a hold is counted.
        since_ms: i64,
    },
    /// Air off: it took so long.
    Moved {
        /// Air on.
        since_ms: i64,
        /// It moved.
        at_ms: i64,
    },
}

impl RunPhase {
    /// Its name: `ready`, `running` or `moved`.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Ready => "ready",
            Self::Running { .. } => "running",
            Self::Moved { .. } => "moved",
        }
    }
}

/// The real release of a heat step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Stamp {
    /// Which step, by its place.
    pub step: usize,
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// Air on until it moved, s.
    pub seconds: f64,
    /// Which time the air went on in this run, from 1.
    pub attempt: usize,
    /// How long the air had been off before this attempt, s; none for the first, which begins on a cold board.
    pub since_off_s: Option<f64>,
}

impl Stamp {
    /// Did it begin on a cold board, as the plan has it?
    pub fn from_cold(&self) -> bool {
        self.since_off_s.is_none()
    }
}

/// A row that was seen to shine.
#[derive(Debug, Clone, PartialEq)]
pub struct Cue {
    /// In which step, by its place.
    pub step: usize,
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// Which row.
    pub row: String,
    /// Air on until it was seen, s.
    pub seconds: f64,
}

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

    /// The state after one more event; none where it changes nothing.
    fn next(&self, steps: &[Step], event: &Event) -> Option<Self> {
        match &event.what {
            Happening::Go => self.gone(steps, event.at_ms),
            Happening::Stopped => self.halted(steps, event.at_ms),
            Happening::Ledger(entry) => {
                let mut next = self.clone();
                next.entries.push(entry.clone());
                Some(next)
            }
            Happening::Shone { row } => self.seen(steps, (row, event.at_ms)),
            Happening::Undo => None,
        }
    }

    /// A row shines once in an attempt, while the air is on.
    fn seen(&self, steps: &[Step], (row, now_ms): (&str, i64)) -> Option<Self> {
        let RunPhase::Running { since_ms } = self.phase else { return None };
        let is_new = self.cues_now().all(|cue| cue.row != row);
        (is_new && steps.get(self.at)?.kind.is_heating()).then(|| {
            let seconds = (now_ms - since_ms) as f64 / 1000.0;
            let cue = Cue { step: self.at, begun_ms: since_ms, row: row.to_owned(), seconds };
            let mut next = self.clone();
            next.cues.push(cue);
            next
        })
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

    /// Clocks of windows and holds count from when the air went off, through whatever was done since.
    fn entered(&self, steps: &[Step], at: usize, now_ms: i64) -> Self {
        let phase = match steps.get(at).map(|s| &s.kind) {
            Some(StepKind::WhileWarm { .. } | StepKind::Hold { .. }) => {
                RunPhase::Running { since_ms: self.air_off_ms.unwrap_or(now_ms) }
            }
            _ => RunPhase::Ready,
        };
        Self { at, phase, attempts_here: 0, ..self.clone() }
    }

    fn gone(&self, steps: &[Step], now_ms: i64) -> Option<Self> {
        let step = steps.get(self.at)?;
        Some(match (&step.kind, self.phase) {
            (StepKind::Soak { .. }, RunPhase::Ready) => {
                Self { phase: RunPhase::Running { since_ms: now_ms }, ..self.clone() }
            }
            (kind, RunPhase::Ready) if kind.is_heating() => {
                let (attempts, attempts_here) = (self.attempts + 1, self.attempts_here + 1);
                Self { phase: RunPhase::Running { since_ms: now_ms }, attempts, attempts_here, ..self.clone() }
            }
            (kind, RunPhase::Running { since_ms }) if kind.is_heating() => {
                let phase = RunPhase::Moved { since_ms, at_ms: now_ms };
                let mut next = Self { phase, air_off_ms: Some(now_ms), ..self.blown(kind, (since_ms, now_ms)) };
                next.stamps.extend(self.stamp(step, (since_ms, now_ms)));
                next
            }
            (kind @ StepKind::Soak { .. }, RunPhase::Running { since_ms }) => {
                self.blown(kind, (since_ms, now_ms)).entered(steps, self.at + 1, now_ms)
            }
            _ => self.entered(steps, self.at + 1, now_ms),
        })
    }

    /// A clock has run from then until then: with the air on, where its step blows.
    fn blown(&self, kind: &StepKind, (since_ms, until_ms): (i64, i64)) -> Self {
        let on_ms = if kind.blows() { (until_ms - since_ms).max(0) } else { 0 };
        Self { air_on_ms: self.air_on_ms + on_ms, ..self.clone() }
    }

    /// Only the removal is stamped: the fit has no prediction to stand against.
    fn stamp(&self, step: &Step, (on_ms, off_ms): (i64, i64)) -> Option<Stamp> {
        let seconds = |from: i64, to: i64| (to - from) as f64 / 1000.0;
        matches!(step.kind, StepKind::Heat { .. }).then(|| Stamp {
            step: self.at,
            begun_ms: on_ms,
            seconds: seconds(on_ms, off_ms),
            attempt: self.attempts,
            since_off_s: self.air_off_ms.map(|off| seconds(off, on_ms)),
        })
    }

    fn halted(&self, steps: &[Step], now_ms: i64) -> Option<Self> {
        let RunPhase::Running { since_ms } = self.phase else { return None };
        let (stopped, kind) = (self.stopped + 1, &steps.get(self.at)?.kind);
        kind.is_heating().then(|| Self {
            stopped,
            phase: RunPhase::Ready,
            air_off_ms: Some(now_ms),
            ..self.blown(kind, (since_ms, now_ms))
        })
    }
}

#[cfg(test)]
mod tests {
    use super::super::bench_event::Happening::{Go, Stopped, Undo};
    use super::*;
    use crate::planning::band::TimeBand;
    use crate::planning::limited_by::LimitedBy;
    use crate::planning::sequence::step::{Duty, FitTimes, HotTool, HotToolKind, StepText};
    use crate::planning::sequence::task::Task;

    fn step(task: Task, kind: StepKind) -> Step {
        let text = StepText::Typed { task, lines: Vec::new() };
        Step { text, cautions: vec![], kind, duty: Duty::None, map: false }
    }

    fn steps() -> Vec<Step> {
        let release = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
        let heat = Task::Heat { family: None, limited_by: LimitedBy::Written(String::new()) };
        vec![
            step(Task::Flux, StepKind::Do),
            step(heat, StepKind::Heat { release, abort_s: 60.0 }),
            step(Task::Lift, StepKind::Do),
            step(Task::Wick, StepKind::WhileWarm { window_s: None }),
            step(Task::SetWithAir, StepKind::Set { fit: None }),
            step(Task::Hold, StepKind::Hold { until_s: None }),
        ]
    }

    fn run(list: &[(Happening, i64)]) -> BenchRun {
        let events: Vec<Event> = list.iter().map(|(what, at_ms)| Event { what: what.clone(), at_ms: *at_ms }).collect();
        BenchRun::after(&steps(), &events)
    }

    fn wicked() -> Happening {
        Happening::named("wicked", ("row A", "")).expect("an entry")
    }

    #[test]
    fn one_key_runs_the_whole_job() {
        let moved = [(Go, 1000), (Go, 5000), (Go, 45_500), (Go, 47_000), (Go, 50_000)];
        let now = run(&moved);
        assert_eq!(now.release().map(|s| (s.seconds, s.attempt)), Some((40.5, 1)));
        // Wicking counts from "it moved" through the lift between.
        assert_eq!((now.at, now.phase), (3, RunPhase::Running { since_ms: 45_500 }));
        assert!(!now.is_done(&steps()));
    }

    #[test]
    fn a_soak_is_begun_and_ended_by_a_press_and_stamps_nothing() {
        let mut soaked = steps();
        soaked.insert(1, step(Task::Soak { air: true }, StepKind::Soak { lasts_s: 45.0, tools: vec![] }));
        let events = [0, 1000, 46_000].map(|at_ms| Event { what: Go, at_ms });
        let now = BenchRun::after(&soaked, &events[..2]);
        assert_eq!((now.at, now.phase), (1, RunPhase::Running { since_ms: 1000 }));
        let now = BenchRun::after(&soaked, &events);
        assert_eq!((now.at, now.phase, now.stamps.len()), (2, RunPhase::Ready, 0));
    }

    #[test]
    fn the_airs_time_is_that_of_what_blows_stopped_or_not_and_never_the_irons() {
        assert_eq!(run(&[(Go, 0), (Go, 1000), (Stopped, 4000), (Go, 9000), (Go, 11_000)]).air_on_ms, 5000);
        let with = |what: HotToolKind| vec![HotTool { what, set_c: 350.0 }];
        let of = |kind: StepKind| {
            let steps = [step(Task::SetWithIron, kind)];
            BenchRun::after(&steps, &[0, 3000].map(|at_ms| Event { what: Go, at_ms })).air_on_ms
        };
        let liquid = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
        let fit = |what| Some(FitTimes { liquid, abort_s: 60.0, tools: with(what) });
        assert_eq!(of(StepKind::Set { fit: fit(HotToolKind::Iron) }), 0);
        assert_eq!(of(StepKind::Set { fit: fit(HotToolKind::Air) }), 3000);
        assert_eq!(of(StepKind::Soak { lasts_s: 3.0, tools: with(HotToolKind::Preheater) }), 0);
        assert_eq!(of(StepKind::Soak { lasts_s: 3.0, tools: with(HotToolKind::Air) }), 3000);
    }

    #[test]
    fn undo_takes_the_last_event_back_wherever_it_is_and_its_stamp_with_it() {
        let heated = [(Go, 0), (Go, 5000), (Go, 9000)];
        let back = run(&[&heated[..], &[(Undo, 9500)]].concat());
        assert_eq!(
            back.phase,
            RunPhase::Running { since_ms: 5000 },
            "the clock goes on as if nothing had been pressed"
        );
        assert!(back.stamps.is_empty() && back.undoable);
        let lifted = [&heated[..], &[(Go, 10_000), (Go, 11_000), (wicked(), 12_000), (Undo, 13_000)]].concat();
        let now = run(&lifted);
        assert!(now.at == 3 && now.entries.is_empty(), "an entry of the ledger is taken back as well");
        let to_the_heat = run(&[&lifted[..], &[(Undo, 14_000), (Undo, 15_000), (Undo, 16_000)]].concat());
        assert_eq!((to_the_heat.at, to_the_heat.stamps.len()), (1, 0));
        let first = run(&[(Undo, 10)]);
        assert!(first.at == 0 && !first.undoable);
    }

    #[test]
    fn only_a_first_attempt_on_a_cold_board_is_what_the_plan_predicted() {
        let stopped = [(Go, 0), (Go, 5000), (Stopped, 65_000)];
        let now = run(&stopped);
        assert_eq!((now.at, now.phase, now.stopped, now.attempts), (1, RunPhase::Ready, 1, 1));
        let again = run(&[&stopped[..], &[(Go, 95_000), (Go, 120_000)]].concat());
        let stamp = &again.stamps[0];
        assert_eq!((stamp.seconds, stamp.attempt, stamp.since_off_s), (25.0, 2, Some(30.0)));
        assert_eq!(again.release(), None, "a warm board is another question");
        assert_eq!(run(&[(Stopped, 5)]).stopped, 0, "there is no air to stop");
        let slip = run(&[(Go, 0), (Go, 5000), (Undo, 5500), (Go, 9000), (Go, 49_000)]);
        assert_eq!(slip.release().map(|s| s.seconds), Some(40.0), "an air-on that was taken back is none");
    }

    #[test]
    fn a_row_shines_once_in_an_attempt_and_only_under_air() {
        let shone = |row: &str| Happening::Shone { row: row.to_owned() };
        let heated = [(Go, 0), (shone("row A"), 2000), (Go, 5000), (shone("row A"), 35_000), (shone("row A"), 36_000)];
        let now = run(&heated);
        let cue = Cue { step: 1, begun_ms: 5000, row: "row A".to_owned(), seconds: 30.0 };
        assert_eq!((now.cues_now().collect::<Vec<_>>(), now.is_as_planned(&steps())), (vec![&cue], true));
        assert_eq!(run(&[&heated[..], &[(Undo, 37_000)]].concat()).cues, [], "taken back");
        let again = run(&[&heated[..], &[(Stopped, 40_000), (Go, 90_000), (shone("row B"), 99_000)]].concat());
        assert_eq!(again.cues_now().map(|cue| (cue.begun_ms, cue.seconds)).collect::<Vec<_>>(), [(90_000, 9.0)]);
        assert!(!again.is_as_planned(&steps()), "the board is warm");
    }

    #[test]
    fn the_new_part_is_set_without_a_stamp_and_held_from_air_off() {
        let now = run(&[0, 10, 20, 30, 40, 1000, 2000, 9000, 11_000].map(|t| (Go, t)));
        assert_eq!((now.at, now.phase), (5, RunPhase::Running { since_ms: 9000 }));
        assert_eq!(now.stamps.len(), 1);
    }

    #[test]
    fn presses_after_the_end_change_nothing_and_undo_still_takes_the_last_that_did() {
        let many: Vec<(Happening, i64)> = (0..20).map(|t| (Go, t)).collect();
        assert_eq!(run(&many).at, 6);
        assert_eq!(run(&[&many[..], &[(Undo, 30)]].concat()).at, 5);
    }
}
