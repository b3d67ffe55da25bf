//! What is better: less that is late, by its weight; then hands that wait less; then nozzles that are changed less.

use std::cmp::Ordering;

use super::calendar::Calendar;
use super::placed::PlacedTask;
use super::workload::{BenchJob, WorkShift, Workload};

/// What a schedule costs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ScheduleCost {
    /// Minutes late by their jobs' weights.
    pub late: f64,
    /// Minutes within hours in which hands wait, up to each worker's last task.
    pub idle: i64,
    /// How often a station gets another nozzle.
    pub changeovers: usize,
}

impl ScheduleCost {
    /// Which is better, the smaller.
    pub fn order(&self, other: &Self) -> Ordering {
        let rest = || (self.idle, self.changeovers).cmp(&(other.idle, other.changeovers));
        self.late.total_cmp(&other.late).then_with(rest)
    }

    pub(super) fn of(workload: &Workload, placed: &[PlacedTask], done: &[i64], hands: &[Calendar]) -> Self {
        let late = |(job, done): (&BenchJob, &i64)| job.weight * (done - job.due.unwrap_or(i64::MAX)).max(0) as f64;
        Self {
            late: workload.jobs.iter().zip(done).map(late).sum(),
            idle: workload.workers.iter().zip(hands).map(|(worker, hands)| idle(&worker.shifts, hands)).sum(),
            changeovers: changeovers(workload, placed),
        }
    }
}

/// Of somebody's hours up to their last task, minutes without one.
fn idle(shifts: &[WorkShift], hands: &Calendar) -> i64 {
    let Some(last) = hands.last() else { return 0 };
    let there: i64 =
        shifts.iter().map(|shift| shift.until.min(last) - shift.from.max(0).min(last)).filter(|m| *m > 0).sum();
    (there - hands.taken_until(last)).max(0)
}

fn changeovers(workload: &Workload, placed: &[PlacedTask]) -> usize {
    let mut wears: Vec<Option<f64>> = vec![None; workload.resources.len()];
    let mut changed = 0;
    for task in placed {
        let task = &workload.jobs[task.job].tasks[task.task];
        let Some(nozzle) = task.nozzle_mm else { continue };
        for resource in &task.needs {
            let before = wears[*resource].replace(nozzle);
            changed += usize::from(before.is_some_and(|before| before != nozzle));
        }
    }
    changed
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lateness_comes_first_then_idle_hands_then_nozzles() {
        let of = |late, idle, changeovers| ScheduleCost { late, idle, changeovers };
        assert_eq!(of(0.0, 90, 9).order(&of(1.0, 0, 0)), Ordering::Less);
        assert_eq!(of(1.0, 10, 9).order(&of(1.0, 20, 0)), Ordering::Less);
        assert_eq!(of(1.0, 10, 1).order(&of(1.0, 10, 0)), Ordering::Greater);
        assert_eq!(of(3.0, 0, 0).order(&of(3.0, 0, 0)), Ordering::Equal);
    }
}
