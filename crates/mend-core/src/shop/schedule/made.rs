//! A schedule that is made.

use super::cost::ScheduleCost;
use super::placed::PlacedTask;

/// All tasks in their places.
#[derive(Debug, Clone, PartialEq)]
pub struct BenchSchedule {
    /// By their beginning.
    pub placed: Vec<PlacedTask>,
    /// For each job, when its last task is done, min.
    pub done: Vec<i64>,
    /// What it costs.
    pub cost: ScheduleCost,
}

impl BenchSchedule {
    /// What somebody does next, not before a moment.
    pub fn next_of(&self, worker: usize, now: i64) -> Option<&PlacedTask> {
        self.placed.iter().find(|placed| placed.worker == Some(worker) && placed.until > now)
    }
}
