//! When a job can be promised: the schedule drawn again and again with times that may be longer or shorter.

use statrs::distribution::{ContinuousCDF, Normal};

use super::made::BenchSchedule;
use super::placed::Unplaceable;
use super::serial::Prepared;
use super::workload::{Doing, Workload};

/// So many times it is drawn.
const DRAWS: u32 = 500;
/// In so many of ten the promise holds.
const HOLDS: f64 = 0.8;
/// Of the low-discrepancy sequence, so that the same workload gives the same promise.
const SCRAMBLE: u32 = 16;
/// The sequence has no more dimensions; tasks beyond share them.
const DIMENSIONS: usize = 1024;
/// No draw is farther out than three standard deviations.
const FARTHEST: f64 = 3.0;

/// When a job is done, drawn.
#[derive(Debug, Clone, PartialEq)]
pub struct Promise {
    /// In five of ten done by then, min from now.
    pub usual: i64,
    /// In eight of ten done by then.
    pub holds: i64,
    /// How many draws stand behind it.
    pub draws: usize,
}

/// When `job` of a workload is done. `spread`: the standard deviation of the logarithm of hands' times. What runs by itself takes
/// what it takes. Tasks keep the order of `planned`: nobody plans anew at every slip.
///
/// ```
/// use mend_core::method::equipment::SkillLevel;
/// use mend_core::shop::schedule::promise::promise;
/// use mend_core::shop::schedule::schedule;
/// use mend_core::shop::schedule::workload::*;
/// let task = BenchTask { name: "port".to_owned(), minutes: 60, doing: Doing::Hands(SkillLevel::Trained), needs: vec![],
///     nozzle_mm: None, at_once: false, pinned: Pinned::default(), begun: None };
/// let job = BenchJob { name: "1".to_owned(), due: None, weight: 1.0, ready: 0, tasks: vec![task] };
/// let tam = Worker { name: "Tam".to_owned(), level: SkillLevel::Trained, shifts: vec![WorkShift { from: 0, until: 480 }] };
/// let workload = Workload { workers: vec![tam], resources: vec![], jobs: vec![job] };
/// let planned = schedule(&workload).expect("it fits");
/// let promise = promise(&workload, &planned, 0, 0.3).expect("it fits");
/// assert!(promise.usual >= 55 && promise.usual < promise.holds && promise.holds < 90);
/// ```
pub fn promise(workload: &Workload, planned: &BenchSchedule, job: usize, spread: f64) -> Result<Promise, Unplaceable> {
    let order: Vec<usize> = order_of(workload, planned);
    let bell = Normal::standard();
    let (mut done, mut fault) = (Vec::new(), Unplaceable { job, task: 0 });
    for draw in 0..DRAWS {
        match Prepared::new(&drawn(workload, draw, spread, &bell)).schedule(&order) {
            Ok(made) => done.push(made.done[job]),
            // No day is long enough for so slow a draw: it is done on none.
            Err(unplaceable) => fault = unplaceable,
        }
    }
    done.sort_unstable();
    let at = |share: f64| done.get((f64::from(DRAWS) * share).ceil() as usize - 1).copied();
    let (usual, holds) = at(0.5).zip(at(HOLDS)).ok_or(fault)?;
    Ok(Promise { usual, holds, draws: DRAWS as usize })
}

/// The jobs in the order in which their stretches are placed.
fn order_of(workload: &Workload, planned: &BenchSchedule) -> Vec<usize> {
    let firsts: Vec<Vec<usize>> =
        workload.jobs.iter().map(|job| job.stretches().iter().map(|stretch| stretch.first).collect()).collect();
    planned.placed.iter().filter(|placed| firsts[placed.job].contains(&placed.task)).map(|placed| placed.job).collect()
}

fn drawn(workload: &Workload, draw: u32, spread: f64, bell: &Normal) -> Workload {
    let mut drawn = workload.clone();
    let tasks = drawn.jobs.iter_mut().flat_map(|job| &mut job.tasks);
    for (k, task) in tasks.enumerate() {
        if matches!(task.doing, Doing::Hands(_)) {
            let at = f64::from(sobol_burley::sample(draw, (k % DIMENSIONS) as u32, SCRAMBLE));
            let far = bell.inverse_cdf(at.clamp(1e-6, 1.0 - 1e-6)).clamp(-FARTHEST, FARTHEST);
            task.minutes = ((task.minutes as f64 * (spread * far).exp()).round() as i64).max(1);
        }
    }
    drawn
}

#[cfg(test)]
mod tests {
    use super::super::schedule;
    use super::super::workload::{BenchJob, BenchTask, Pinned, WorkShift, Worker};
    use super::*;
    use crate::method::equipment::SkillLevel;

    fn workload(jobs: usize, day: i64) -> Workload {
        let task = |doing: Doing, minutes: i64| {
            let (name, pinned) = (String::new(), Pinned::default());
            BenchTask { name, minutes, doing, needs: vec![], nozzle_mm: None, at_once: false, pinned, begun: None }
        };
        let hands = Doing::Hands(SkillLevel::Trained);
        let tasks = vec![task(hands, 60), task(Doing::Passive, 20), task(hands, 30)];
        let job = BenchJob { name: String::new(), due: None, weight: 1.0, ready: 0, tasks };
        let shifts = (0..5).map(|k| WorkShift { from: 1440 * k, until: 1440 * k + day }).collect();
        let tam = Worker { name: "Tam".to_owned(), level: SkillLevel::Trained, shifts };
        Workload { workers: vec![tam], resources: vec![], jobs: vec![job; jobs] }
    }

    fn promised(workload: &Workload, spread: f64) -> Result<Promise, Unplaceable> {
        promise(workload, &schedule(workload).expect("it fits"), workload.jobs.len() - 1, spread)
    }

    #[test]
    fn sure_times_promise_the_plan_and_unsure_ones_no_earlier_day() {
        let four = workload(4, 480);
        let planned = schedule(&four).expect("it fits").done[3];
        let sure = promised(&four, 0.0).expect("it fits");
        assert_eq!((sure.usual, sure.holds), (planned, planned));
        let [less, more] = [0.2, 0.5].map(|spread| promised(&four, spread).expect("it fits").holds);
        assert!(planned <= less && less <= more, "{planned} {less} {more}");
        assert_eq!(promised(&four, 0.5), promised(&four, 0.5), "the same workload, the same promise");
    }

    #[test]
    fn what_fits_into_no_day_is_not_promised() {
        // An hour and a half fits; half as long again does not, and that comes in more than two of ten draws.
        assert!(promised(&workload(1, 62), 0.5).is_err());
    }
}
