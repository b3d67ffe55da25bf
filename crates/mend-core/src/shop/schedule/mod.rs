//! The bench schedule: jobs are chains of tasks, done by hands or by themselves, with resources that only one job has at a time.
//!
//! - [`workload`]: what there is to do, by whom and with what; `calendar`: when something is free; `placed`, `made`: what comes of it
//! - `serial`: one task after the other is placed where it fits first, in some order; [`cost`]: what is better
//! - `orders`: the orders that are tried: by several rules, then by taking a task out and putting it in elsewhere
//! - [`promise`]: when a job can be promised, drawn again and again
//!
//! All times are whole minutes from the moment of planning. There is no clock: how long is searched is a number of schedules, so the
//! same workload gives the same schedule. Tasks under way stay where they are.
//!
//! Does not compute: how long a task takes; who wants it first. It splits no task over two shifts.

mod calendar;
pub mod cost;
mod made;
mod orders;
mod placed;
pub mod promise;
mod serial;
pub mod workload;

use workload::Workload;

pub use made::BenchSchedule;
pub use placed::{PlacedTask, Unplaceable};

/// The best schedule that the search comes to: never worse than the jobs in the order of their due dates.
///
/// ```
/// use mend_core::shop::schedule::{schedule, workload::Workload};
/// let nothing = schedule(&Workload::default()).expect("nothing to do");
/// assert!(nothing.placed.is_empty() && nothing.cost.late == 0.0);
/// ```
pub fn schedule(workload: &Workload) -> Result<BenchSchedule, Unplaceable> {
    orders::best(workload)
}

/// The jobs one after the other in the order of their due dates, each task where it fits first: what anybody would do.
///
/// ```
/// use mend_core::shop::schedule::{by_due_date, workload::Workload};
/// assert!(by_due_date(&Workload::default()).expect("nothing to do").done.is_empty());
/// ```
pub fn by_due_date(workload: &Workload) -> Result<BenchSchedule, Unplaceable> {
    orders::by_due_date(workload)
}
