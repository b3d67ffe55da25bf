//! The orders that are tried. First the jobs one after the other by several rules, then the best of these is changed: a stretch is
//! taken out and put in elsewhere, as long as that is better; where nothing is, a few are thrown about and it begins again.

use super::cost::ScheduleCost;
use super::made::BenchSchedule;
use super::placed::Unplaceable;
use super::serial::Prepared;
use super::workload::{BenchJob, Doing, Workload};

/// Schedules that are tried, by what one costs: stretches by stretches, within these bounds. 200 jobs of six stretches get 30
/// (measured: 50 ms on one core, the file read and the table printed), a dozen jobs of five thousands.
const WORK: usize = 30_000_000;
const TRIED: (usize, usize) = (30, 6000);
/// So many stretches are thrown about where nothing is better.
const THROWN: usize = 3;

/// A rule: jobs with the smallest figure first.
type OrderRule = fn(&BenchJob) -> f64;

fn due(job: &BenchJob) -> f64 {
    job.due.map_or(f64::INFINITY, |due| due as f64)
}

/// By due date; by due date and weight; by what is left until then; the shortest; the longest that runs by itself first.
const RULES: [OrderRule; 5] = [
    due,
    |job| due(job) / job.weight,
    |job| (due(job) - job.ready as f64 - job.minutes() as f64) / job.weight,
    |job| job.minutes() as f64 / job.weight,
    |job| {
        let passive = job.tasks.iter().filter(|task| task.doing == Doing::Passive);
        -(passive.map(|task| task.minutes).sum::<i64>() as f64)
    },
];

/// The jobs by a rule, each with all of its stretches.
fn by_rule(prepared: &Prepared<'_>, rule: OrderRule) -> Vec<usize> {
    let jobs = &prepared.workload.jobs;
    let mut order: Vec<usize> = (0..jobs.len()).collect();
    order.sort_by(|a, b| rule(&jobs[*a]).total_cmp(&rule(&jobs[*b])));
    order.into_iter().flat_map(|job| std::iter::repeat_n(job, prepared.stretches[job].len())).collect()
}

pub(super) fn by_due_date(workload: &Workload) -> Result<BenchSchedule, Unplaceable> {
    let prepared = Prepared::new(workload);
    prepared.schedule(&by_rule(&prepared, due))
}

pub(super) fn best(workload: &Workload) -> Result<BenchSchedule, Unplaceable> {
    let prepared = Prepared::new(workload);
    let mut search = Search { prepared: &prepared, left: tries(&prepared), thrown: 1, best: None };
    for rule in RULES {
        search.tried(&by_rule(&prepared, rule))?;
    }
    search.improve()?;
    let (_, best) = search.best.ok_or(Unplaceable { job: 0, task: 0 })?;
    Ok(best)
}

fn tries(prepared: &Prepared<'_>) -> usize {
    let stretches: usize = prepared.stretches.iter().map(Vec::len).sum();
    (WORK / (stretches * stretches).max(1)).clamp(TRIED.0, TRIED.1)
}

struct Search<'a> {
    prepared: &'a Prepared<'a>,
    /// Schedules that may still be tried.
    left: usize,
    /// Where the throwing stands: a row of numbers that is the same each time.
    thrown: u64,
    best: Option<(Vec<usize>, BenchSchedule)>,
}

impl Search<'_> {
    /// What an order costs; the best of all is kept.
    fn tried(&mut self, order: &[usize]) -> Result<ScheduleCost, Unplaceable> {
        self.left = self.left.saturating_sub(1);
        let made = self.prepared.schedule(order)?;
        let cost = made.cost;
        if self.best.as_ref().is_none_or(|(_, best)| cost.order(&best.cost).is_lt()) {
            self.best = Some((order.to_vec(), made));
        }
        Ok(cost)
    }

    fn improve(&mut self) -> Result<(), Unplaceable> {
        let Some((mut order, first)) = self.best.clone() else { return Ok(()) };
        let mut cost = first.cost;
        while self.left > 0 && order.len() > 1 {
            if !self.one_better(&mut order, &mut cost)? {
                // Nothing near is better: from the best of all, with a few thrown about.
                order = self.best.as_ref().map_or(order, |(order, _)| order.clone());
                (0..THROWN).for_each(|_| self.throw(&mut order));
                cost = self.tried(&order)?;
            }
        }
        Ok(())
    }

    /// Takes the first stretch out that is better elsewhere, and puts it there.
    fn one_better(&mut self, order: &mut Vec<usize>, cost: &mut ScheduleCost) -> Result<bool, Unplaceable> {
        for from in 0..order.len() {
            for to in (0..order.len()).filter(|to| *to != from) {
                // Past others of its own job it is the same order.
                if order[to] == order[from] {
                    continue;
                }
                if self.left == 0 {
                    return Ok(false);
                }
                let mut other = order.clone();
                let job = other.remove(from);
                other.insert(to, job);
                let found = self.tried(&other)?;
                if found.order(cost).is_lt() {
                    (*order, *cost) = (other, found);
                    return Ok(true);
                }
            }
        }
        Ok(false)
    }

    fn throw(&mut self, order: &mut Vec<usize>) {
        let mut place = |of: usize| {
            // Numerical Recipes' quick generator (T): what it is good for is that it is the same each time.
            self.thrown = self.thrown.wrapping_mul(1_664_525).wrapping_add(1_013_904_223) % (1 << 32);
            (self.thrown >> 8) as usize % of
        };
        let job = order.remove(place(order.len()));
        let to = place(order.len() + 1);
        order.insert(to, job);
    }
}
