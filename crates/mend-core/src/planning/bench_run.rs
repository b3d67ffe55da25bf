//! What has happened at the bench: a state folded from the presses that were stored. One key is enough to go on.

use super::sequence::{Step, StepKind};

/// A press, as stored.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Press {
    /// On: starts the air, stamps "it moved", ends a step.
    Go,
    /// Back to the step before, or out of the present phase.
    Back,
    /// The stop line came first: air away, cool, try again.
    Stopped,
}

impl Press {
    /// As it is stored.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Go => "go",
            Self::Back => "back",
            Self::Stopped => "stopped",
        }
    }

    /// Read back.
    pub fn named(name: &str) -> Option<Self> {
        [Self::Go, Self::Back, Self::Stopped].into_iter().find(|press| press.name() == name)
    }
}

/// A press with its moment, in ms since the epoch.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Event {
    /// What was pressed.
    pub press: Press,
    /// When.
    pub at_ms: i64,
}

/// Where in its course a step is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Phase {
    /// Waiting for the hand.
    Ready,
    /// Its clock runs since then.
    Running {
        /// ms since the epoch.
        since_ms: i64,
    },
    /// Air off: it took so long.
    Moved {
        /// Air on, ms since the epoch.
        since_ms: i64,
        /// It moved, ms since the epoch.
        at_ms: i64,
    },
}

/// The real release of a heat step.
#[derive(Debug, Clone, PartialEq)]
pub struct Stamp {
    /// The step's title.
    pub step: String,
    /// Air on until it moved, s.
    pub seconds: f64,
}

/// The state of a run.
#[derive(Debug, Clone, PartialEq)]
pub struct BenchRun {
    /// The present step; as many as there are steps: all done.
    pub at: usize,
    /// Its phase.
    pub phase: Phase,
    /// Every "it moved" so far.
    pub stamps: Vec<Stamp>,
    /// How often the stop line came first.
    pub stopped: usize,
}

impl BenchRun {
    /// The state after these presses. `started_ms` is when the run was opened.
    pub fn after(steps: &[Step], started_ms: i64, events: &[Event]) -> Self {
        let mut run = Self { at: 0, phase: Phase::Ready, stamps: Vec::new(), stopped: 0 };
        run.enter(steps, 0, started_ms);
        for event in events {
            match event.press {
                Press::Go => run.go(steps, event.at_ms),
                Press::Back => run.back(steps, event.at_ms),
                Press::Stopped => run.stop(steps),
            }
        }
        run
    }

    /// All steps done?
    pub fn is_done(&self, steps: &[Step]) -> bool {
        self.at >= steps.len()
    }

    /// The first release, the one that the plan predicted.
    pub fn release(&self) -> Option<&Stamp> {
        self.stamps.first()
    }

    /// Clocks of windows and holds start with the step: the air has just gone off.
    fn enter(&mut self, steps: &[Step], at: usize, now_ms: i64) {
        self.at = at;
        self.phase = match steps.get(at).map(|s| &s.kind) {
            Some(StepKind::WhileWarm { .. } | StepKind::Hold { .. }) => {
                Phase::Running { since_ms: self.air_off(now_ms) }
            }
            _ => Phase::Ready,
        };
    }

    /// The window and the hold count from "it moved", not from the press that left that step.
    fn air_off(&self, now_ms: i64) -> i64 {
        match self.phase {
            Phase::Moved { at_ms, .. } => at_ms,
            _ => now_ms,
        }
    }

    fn go(&mut self, steps: &[Step], now_ms: i64) {
        let Some(step) = steps.get(self.at) else { return };
        match (&step.kind, self.phase) {
            (StepKind::Heat { .. } | StepKind::Soak { .. }, Phase::Ready) => {
                self.phase = Phase::Running { since_ms: now_ms }
            }
            (StepKind::Heat { .. }, Phase::Running { since_ms }) => {
                self.stamps.push(Stamp { step: step.title.clone(), seconds: (now_ms - since_ms) as f64 / 1000.0 });
                self.phase = Phase::Moved { since_ms, at_ms: now_ms };
            }
            _ => self.enter(steps, self.at + 1, now_ms),
        }
    }

    fn back(&mut self, steps: &[Step], now_ms: i64) {
        match (steps.get(self.at).map(|s| &s.kind), self.phase) {
            (Some(StepKind::Heat { .. }), Phase::Moved { since_ms, .. }) => {
                self.stamps.pop();
                self.phase = Phase::Running { since_ms };
            }
            (Some(StepKind::Heat { .. } | StepKind::Soak { .. }), Phase::Running { .. }) => self.phase = Phase::Ready,
            _ => self.enter(steps, self.at.saturating_sub(1), now_ms),
        }
    }

    fn stop(&mut self, steps: &[Step]) {
        let heating = matches!(steps.get(self.at).map(|s| &s.kind), Some(StepKind::Heat { .. }));
        if heating && matches!(self.phase, Phase::Running { .. }) {
            self.stopped += 1;
            self.phase = Phase::Ready;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::planning::band::TimeBand;
    use crate::planning::sequence::Duty;

    fn step(title: &str, kind: StepKind) -> Step {
        Step {
            title: title.to_owned(),
            lines: vec![],
            cue: String::new(),
            cautions: vec![],
            kind,
            duty: Duty::None,
            why: String::new(),
            otherwise: vec![],
            map: false,
        }
    }

    fn steps() -> Vec<Step> {
        let release = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
        vec![
            step("Flux", StepKind::Do),
            step("Heat", StepKind::Heat { release, stop_s: 60.0 }),
            step("Lift", StepKind::Do),
            step("Wick", StepKind::WhileWarm { window_s: None }),
        ]
    }

    fn presses(list: &[(Press, i64)]) -> BenchRun {
        let events: Vec<Event> = list.iter().map(|(press, at_ms)| Event { press: *press, at_ms: *at_ms }).collect();
        BenchRun::after(&steps(), 0, &events)
    }

    #[test]
    fn one_key_runs_the_whole_job() {
        let run = presses(&[
            (Press::Go, 1000),
            (Press::Go, 5000),
            (Press::Go, 45_500),
            (Press::Go, 47_000),
            (Press::Go, 50_000),
        ]);
        assert_eq!(run.release().map(|s| s.seconds), Some(40.5));
        assert_eq!((run.at, run.phase), (3, Phase::Running { since_ms: 50_000 }));
        assert!(!run.is_done(&steps()));
    }

    #[test]
    fn a_soak_is_begun_and_ended_by_a_press_and_stamps_nothing() {
        let mut soaked = steps();
        soaked.insert(1, step("Soak", StepKind::Soak { lasts_s: 45.0, tools: vec![] }));
        let events = [(Press::Go, 0), (Press::Go, 1000), (Press::Go, 46_000)];
        let events = events.map(|(press, at_ms)| Event { press, at_ms });
        let run = BenchRun::after(&soaked, 0, &events[..2]);
        assert_eq!((run.at, run.phase), (1, Phase::Running { since_ms: 1000 }));
        let run = BenchRun::after(&soaked, 0, &events);
        assert_eq!((run.at, run.phase, run.stamps.len()), (2, Phase::Ready, 0));
    }

    #[test]
    fn a_wrong_press_is_taken_back() {
        let run = presses(&[(Press::Go, 0), (Press::Go, 5000), (Press::Go, 9000), (Press::Back, 9500)]);
        assert_eq!(run.phase, Phase::Running { since_ms: 5000 }, "the clock goes on as if nothing had been pressed");
        assert!(run.stamps.is_empty());
        assert_eq!(presses(&[(Press::Back, 10)]).at, 0);
    }

    #[test]
    fn stopping_at_the_line_waits_for_another_try() {
        let run = presses(&[(Press::Go, 0), (Press::Go, 5000), (Press::Stopped, 65_000)]);
        assert_eq!((run.at, run.phase, run.stopped), (1, Phase::Ready, 1));
        assert_eq!(presses(&[(Press::Stopped, 5)]).stopped, 0, "there is no air to stop");
    }

    #[test]
    fn presses_after_the_end_change_nothing() {
        let many: Vec<(Press, i64)> = (0..20).map(|t| (Press::Go, t)).collect();
        assert_eq!(presses(&many).at, 4);
    }
}
