//! Everything that is before the benches, with its schedule.

use std::collections::BTreeMap;

use mend_core::shop::schedule::BenchSchedule;
use mend_core::shop::schedule::workload::Workload;
use mend_store::{PersonRow, TaskPinRow};

use super::hours::Hours;
use super::tasks::TaskKind;

/// A job of the schedule.
#[derive(Debug, Clone)]
pub(crate) struct PlannedJob {
    pub(crate) id: i64,
    pub(crate) device: String,
    /// Of each task of the workload what it is; none: it cools by itself.
    pub(crate) kinds: Vec<Option<TaskKind>>,
    /// When it is due, min from now; less than nothing: that was before today.
    pub(crate) due: Option<i64>,
    /// The day on which it is due, in words; empty: none.
    pub(crate) due_day: String,
    /// The spread of its hands' times: of their logarithm.
    pub(crate) spread: f64,
}

/// A job that can't be scheduled: nobody knows until when it waits.
#[derive(Debug, Clone)]
pub(crate) struct WaitingJob {
    pub(crate) id: i64,
    pub(crate) device: String,
    pub(crate) waits_for: String,
}

/// Everything that is before the benches.
#[derive(Debug)]
pub(crate) struct BenchPlan {
    pub(crate) hours: Hours,
    /// Who works, by number; none: the bench, where nobody has a name.
    pub(crate) people: Vec<Option<PersonRow>>,
    pub(crate) jobs: Vec<PlannedJob>,
    pub(crate) waiting: Vec<WaitingJob>,
    pub(crate) workload: Workload,
    pub(crate) schedule: BenchSchedule,
    pub(crate) pins: Vec<TaskPinRow>,
}

impl BenchPlan {
    /// What somebody does next, worker by worker: place of the worker, job, task.
    pub(crate) fn next_tasks(&self) -> BTreeMap<usize, (usize, usize)> {
        let next = |worker: usize| self.schedule.next_of(worker, 0).map(|placed| (worker, (placed.job, placed.task)));
        (0..self.people.len()).filter_map(next).collect()
    }

    /// What a task is called.
    pub(crate) fn task_name(&self, job: usize, task: usize) -> &str {
        &self.workload.jobs[job].tasks[task].name
    }

    /// Where a job stands in it.
    pub(crate) fn place_of(&self, job: i64) -> Option<usize> {
        self.jobs.iter().position(|scheduled| scheduled.id == job)
    }
}
