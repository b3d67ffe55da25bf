//! Tasks of a job that follow one another, and the rows of what runs by itself.

use mend_core::shop::schedule::PlacedTask;

use crate::scheduling::BenchPlan;

/// Tasks of a job that follow one another, by the same hands or by themselves: drawn as one.
pub(super) struct TaskRun<'a> {
    pub(super) first: &'a PlacedTask,
    pub(super) last: &'a PlacedTask,
}

pub(super) fn blocks(plan: &BenchPlan) -> Vec<TaskRun<'_>> {
    let mut blocks: Vec<TaskRun<'_>> = Vec::new();
    for placed in &plan.schedule.placed {
        let goes_on = |block: &&mut TaskRun<'_>| {
            let last = block.last;
            let same = last.job == placed.job && last.worker == placed.worker;
            same && last.until == placed.from && last.task + 1 == placed.task && !is_pinned(plan, placed)
        };
        match blocks.iter_mut().find(goes_on) {
            Some(block) => block.last = placed,
            None => blocks.push(TaskRun { first: placed, last: placed }),
        }
    }
    blocks
}

/// For each block that runs by itself the first row in which nothing else runs then; 0 for all others.
pub(super) fn rows(blocks: &[TaskRun<'_>]) -> Vec<usize> {
    let mut ends: Vec<i64> = Vec::new();
    let row = |block: &TaskRun<'_>| {
        if block.first.worker.is_some() {
            return 0;
        }
        let free = ends.iter().position(|end| *end <= block.first.from);
        let row = free.unwrap_or_else(|| {
            ends.push(0);
            ends.len() - 1
        });
        ends[row] = block.last.until;
        row
    };
    blocks.iter().map(row).collect()
}

pub(super) fn is_pinned(plan: &BenchPlan, placed: &PlacedTask) -> bool {
    let job = &plan.jobs[placed.job];
    let key = job.kinds[placed.task].map(|kind| kind.key);
    plan.pins.iter().any(|pin| pin.job == job.id && Some(pin.task.as_str()) == key)
}
