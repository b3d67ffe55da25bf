//! What the benches have before them: open jobs as tasks, people with their hours, and the schedule that comes of both.
//!
//! - `past`: what stops took, and how long they will; `hours`: minutes from now and moments; `tasks`: a job as a chain of tasks
//! - [`BenchPlan`]: all of it with its schedule; `making`: from what is stored to it; `kept`: until something changes

mod hours;
mod kept;
mod making;
mod past;
mod plan;
mod tasks;

pub(crate) use hours::{Hours, OpenDay};
pub(crate) use kept::{KeptBenchPlan, bench_plan};
pub(crate) use past::Past;
pub(crate) use plan::{BenchPlan, PlannedJob, WaitingJob};
pub(crate) use tasks::TaskKind;
