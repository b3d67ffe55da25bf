//! What a run holds of its heatings: where a step is in its course, releases, rows that shone.

use serde::{Deserialize, Serialize};

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
