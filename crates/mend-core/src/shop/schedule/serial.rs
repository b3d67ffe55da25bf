//! Serial schedule generation: stretches of tasks in some order, each put where it fits first. Of hands that are free as soon the
//! least practised are taken, so that the others stay free for what wants them.

use super::calendar::{Calendar, within_shift};
use super::cost::ScheduleCost;
use super::made::BenchSchedule;
use super::placed::{PlacedTask, Unplaceable};
use super::workload::{BenchTask, Doing, Stretch, Workload};
use crate::method::equipment::SkillLevel;

/// What is read of a workload once, for all orders.
pub(super) struct Prepared<'a> {
    pub(super) workload: &'a Workload,
    /// Each job's stretches.
    pub(super) stretches: Vec<Vec<Stretch>>,
}

/// A stretch with what it wants.
struct WantedStretch<'a> {
    job: usize,
    stretch: Stretch,
    tasks: &'a [BenchTask],
    minutes: i64,
    /// None: it runs by itself.
    level: Option<SkillLevel>,
    needs: Vec<usize>,
}

/// Where something fits.
#[derive(Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
struct FirstFit {
    from: i64,
    level: Option<SkillLevel>,
    worker: Option<usize>,
}

/// A schedule that grows.
struct Growing<'a> {
    prepared: &'a Prepared<'a>,
    hands: Vec<Calendar>,
    resources: Vec<Calendar>,
    /// For each job, how many of its stretches are placed, and when the last of them ends.
    next: Vec<usize>,
    ends: Vec<i64>,
    placed: Vec<PlacedTask>,
}

impl<'a> Prepared<'a> {
    pub(super) fn new(workload: &'a Workload) -> Self {
        Self { workload, stretches: workload.jobs.iter().map(|job| job.stretches()).collect() }
    }

    /// The schedule of an order: each job stands in it as often as it has stretches.
    pub(super) fn schedule(&self, order: &[usize]) -> Result<BenchSchedule, Unplaceable> {
        let mut growing = Growing::new(self);
        growing.put_what_has_begun();
        for job in order {
            growing.place(*job)?;
        }
        Ok(growing.grown())
    }

    fn wanted(&self, job: usize, k: usize) -> WantedStretch<'a> {
        let stretch = self.stretches[job][k];
        let tasks = &self.workload.jobs[job].tasks[stretch.first..=stretch.last];
        let level = tasks.iter().filter_map(|task| match task.doing {
            Doing::Hands(level) => Some(level),
            Doing::Passive => None,
        });
        let mut needs: Vec<usize> = tasks.iter().flat_map(|task| task.needs.iter().copied()).collect();
        needs.sort_unstable();
        needs.dedup();
        let minutes = tasks.iter().map(|task| task.minutes).sum();
        WantedStretch { job, stretch, tasks, minutes, level: level.max(), needs }
    }
}

impl<'a> Growing<'a> {
    fn new(prepared: &'a Prepared<'a>) -> Self {
        let Workload { workers, resources, jobs } = prepared.workload;
        Self {
            prepared,
            hands: vec![Calendar::default(); workers.len()],
            resources: vec![Calendar::default(); resources.len()],
            next: vec![0; jobs.len()],
            ends: jobs.iter().map(|job| job.ready.max(0)).collect(),
            placed: Vec::new(),
        }
    }

    /// What is under way has its hands and resources before anything else.
    fn put_what_has_begun(&mut self) {
        let jobs = &self.prepared.workload.jobs;
        let all = jobs.iter().enumerate().flat_map(|(job, of)| of.tasks.iter().map(move |task| (job, task)));
        let under_way: Vec<(usize, &BenchTask)> = all.filter(|(_, task)| task.begun.is_some()).collect();
        for (_, task) in under_way {
            let Some(begun) = task.begun else { continue };
            let (from, until) = (begun.from, begun.from + task.minutes);
            begun.worker.into_iter().for_each(|worker| self.hands[worker].take(from, until));
            task.needs.iter().for_each(|resource| self.resources[*resource].take(from, until));
        }
    }

    fn place(&mut self, job: usize) -> Result<(), Unplaceable> {
        let wanted = self.prepared.wanted(job, self.next[job]);
        self.next[job] += 1;
        let first = &wanted.tasks[0];
        if let Some(begun) = first.begun {
            self.put(&wanted, FirstFit { from: begun.from, level: None, worker: begun.worker }, false);
            return Ok(());
        }
        let fit = self.first_fit(&wanted).ok_or(Unplaceable { job, task: wanted.stretch.first })?;
        self.put(&wanted, fit, true);
        Ok(())
    }

    /// Where it fits first; of hands that are free as soon, the least practised.
    fn first_fit(&self, wanted: &WantedStretch<'_>) -> Option<FirstFit> {
        let pinned = wanted.tasks.iter().map(|task| task.pinned);
        let not_before = pinned.clone().filter_map(|pinned| pinned.not_before).max().unwrap_or(0);
        let from = self.ends[wanted.job].max(not_before);
        let Some(level) = wanted.level else {
            return Some(FirstFit { from: self.resources_free(wanted, from), level: None, worker: None });
        };
        let to = pinned.filter_map(|pinned| pinned.worker).next();
        let workers = self.prepared.workload.workers.iter().enumerate();
        let able = workers.filter(|(k, worker)| to.map_or(worker.level >= level, |to| *k == to));
        let fits = able.filter_map(|(k, worker)| {
            let from = self.hands_free(wanted, k, from)?;
            Some(FirstFit { from, level: Some(worker.level), worker: Some(k) })
        });
        fits.min()
    }

    fn resources_free(&self, wanted: &WantedStretch<'_>, mut from: i64) -> i64 {
        loop {
            let free = |at: i64, resource: &usize| self.resources[*resource].free_from(at, wanted.minutes);
            let at = wanted.needs.iter().fold(from, free);
            if at == from {
                return at;
            }
            from = at;
        }
    }

    /// The first moment at which somebody's hours, hands and all resources are free together.
    fn hands_free(&self, wanted: &WantedStretch<'_>, worker: usize, mut from: i64) -> Option<i64> {
        let shifts = &self.prepared.workload.workers[worker].shifts;
        loop {
            let at = within_shift(shifts, from, wanted.minutes)?;
            let at = self.hands[worker].free_from(at, wanted.minutes);
            let at = self.resources_free(wanted, at);
            if at == from {
                return Some(at);
            }
            from = at;
        }
    }

    fn put(&mut self, wanted: &WantedStretch<'_>, fit: FirstFit, takes: bool) {
        let until = fit.from + wanted.minutes;
        if takes {
            fit.worker.into_iter().for_each(|worker| self.hands[worker].take(fit.from, until));
            wanted.needs.iter().for_each(|resource| self.resources[*resource].take(fit.from, until));
        }
        let mut at = fit.from;
        for (k, task) in wanted.tasks.iter().enumerate() {
            let (job, of_job) = (wanted.job, wanted.stretch.first + k);
            self.placed.push(PlacedTask { job, task: of_job, worker: fit.worker, from: at, until: at + task.minutes });
            at += task.minutes;
        }
        self.ends[wanted.job] = self.ends[wanted.job].max(until);
    }

    fn grown(mut self) -> BenchSchedule {
        self.placed.sort_by_key(|placed| (placed.from, placed.job, placed.task));
        let cost = ScheduleCost::of(self.prepared.workload, &self.placed, &self.ends, &self.hands);
        BenchSchedule { placed: self.placed, done: self.ends, cost }
    }
}
