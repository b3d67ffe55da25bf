//! What an event makes of a run: where one press leads from each kind of step.

use super::{BenchRun, Cue, RunPhase, Stamp};
use crate::planning::bench_event::{Event, Happening};
use crate::planning::sequence::step::{Step, StepKind};

impl BenchRun {
    /// The state after one more event; none where it changes nothing.
    pub(super) fn next(&self, steps: &[Step], event: &Event) -> Option<Self> {
        match &event.what {
            Happening::Go => self.gone(steps, event.at_ms),
            Happening::Stopped => self.halted(steps, event.at_ms),
            Happening::Ledger(entry) => {
                let mut next = self.clone();
                next.entries.push(entry.clone());
                Some(next)
            }
            Happening::Shone { row } => self.seen(steps, row, event.at_ms),
            Happening::Undo => None,
        }
    }

    /// A row shines once in an attempt, while the air is on.
    fn seen(&self, steps: &[Step], row: &str, now_ms: i64) -> Option<Self> {
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

    /// Clocks of windows and holds count from when the air went off, through whatever was done since.
    pub(super) fn entered(&self, steps: &[Step], at: usize, now_ms: i64) -> Self {
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
                let mut next = Self { phase, air_off_ms: Some(now_ms), ..self.blown(kind, since_ms, now_ms) };
                next.stamps.extend(self.stamp(step, since_ms, now_ms));
                next
            }
            (kind @ StepKind::Soak { .. }, RunPhase::Running { since_ms }) => {
                self.blown(kind, since_ms, now_ms).entered(steps, self.at + 1, now_ms)
            }
            _ => self.entered(steps, self.at + 1, now_ms),
        })
    }

    fn halted(&self, steps: &[Step], now_ms: i64) -> Option<Self> {
        let RunPhase::Running { since_ms } = self.phase else { return None };
        let (stopped, kind) = (self.stopped + 1, &steps.get(self.at)?.kind);
        kind.is_heating().then(|| Self {
            stopped,
            phase: RunPhase::Ready,
            air_off_ms: Some(now_ms),
            ..self.blown(kind, since_ms, now_ms)
        })
    }

    /// A clock has run from then until then: with the air on, where its step blows.
    fn blown(&self, kind: &StepKind, since_ms: i64, until_ms: i64) -> Self {
        let on_ms = if kind.blows() { (until_ms - since_ms).max(0) } else { 0 };
        Self { air_on_ms: self.air_on_ms + on_ms, ..self.clone() }
    }

    /// Only the removal is stamped: the fit has no prediction to stand against.
    fn stamp(&self, step: &Step, on_ms: i64, off_ms: i64) -> Option<Stamp> {
        let seconds = |from: i64, to: i64| (to - from) as f64 / 1000.0;
        matches!(step.kind, StepKind::Heat { .. }).then(|| Stamp {
            step: self.at,
            begun_ms: on_ms,
            seconds: seconds(on_ms, off_ms),
            attempt: self.attempts,
            since_off_s: self.air_off_ms.map(|off| seconds(off, on_ms)),
        })
    }
}
