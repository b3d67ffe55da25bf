//! From what the store has to a workload and its schedule.

use mend_core::method::equipment::SkillLevel;
use mend_core::planning::bath::BATH_MIN;
use mend_core::shop::schedule::cost::ScheduleCost;
use mend_core::shop::schedule::workload::{BenchJob, BenchTask, Doing, Pinned, TaskBegun, Worker, Workload};
use mend_core::shop::schedule::{BenchSchedule, schedule};
use mend_core::shop::{Facts, RunState};
use mend_store::{ListedJob, PersonRow, TaskPinRow, TimeRow};

use super::hours::Hours;
use super::past::Past;
use super::plan::{BenchPlan, PlannedJob, WaitingJob};
use super::tasks::{COOL_MIN, TaskKind, remaining};
use crate::job::Summary;
use crate::pages::word;
use crate::people::OwnHours;

/// No more jobs are scheduled at a time; the rest comes when these are done.
const MOST_JOBS: usize = 300;

/// What the store has for it.
pub(super) struct Stored {
    pub(super) jobs: Vec<ListedJob>,
    pub(super) people: Vec<PersonRow>,
    pub(super) pins: Vec<TaskPinRow>,
    pub(super) times: Vec<TimeRow>,
}

/// The schedule of all of it.
pub(super) fn make(stored: Stored, hours: Hours, shared: SharedTools) -> BenchPlan {
    let past = Past::from_rows(&stored.times);
    let people = hands(stored.people);
    let workers: Vec<Worker> = people.iter().map(|person| worker(person.as_ref(), &hours)).collect();
    let mut making = Making {
        hours,
        shared,
        past,
        people,
        pins: stored.pins,
        workload: Workload { workers, ..Workload::default() },
    };
    let (mut jobs, mut waiting) = (Vec::new(), Vec::new());
    for row in stored.jobs.iter().take(MOST_JOBS) {
        let Ok(summary) = Summary::parse(&row.summary) else { continue };
        let facts = summary.facts(making.hours.moment(0).date());
        if !facts.waits_for.is_empty() && summary.extent.part_comes.is_empty() {
            waiting.push(WaitingJob { id: row.job_id, device: summary.device, waits_for: facts.waits_for });
        } else {
            jobs.extend(making.job(row.job_id, &summary, &facts));
        }
    }
    let schedule = making.schedule(&mut jobs, &mut waiting);
    let Making { hours, people, pins, workload, .. } = making;
    BenchPlan { hours, people, jobs, waiting, workload, schedule, pins }
}

/// Everybody with hands; a shop without names has one bench.
fn hands(everybody: Vec<PersonRow>) -> Vec<Option<PersonRow>> {
    let works = |row: &PersonRow| row.left_ms.is_none() && row.role != "counter";
    let there: Vec<Option<PersonRow>> = everybody.into_iter().filter(works).map(Some).collect();
    if there.is_empty() { vec![None] } else { there }
}

fn worker(person: Option<&PersonRow>, hours: &Hours) -> Worker {
    let level = person.and_then(|row| SkillLevel::ALL.into_iter().find(|level| word(level) == row.level));
    let name = person.map_or("Bench".to_owned(), |row| row.name.clone());
    let own = person.map(|row| OwnHours::parse(&row.hours)).unwrap_or_default();
    Worker { name, level: level.unwrap_or(SkillLevel::Practised), shifts: hours.shifts(&own) }
}

/// What the shop has one of.
#[derive(Debug, Clone, Copy)]
pub(super) struct SharedTools {
    pub(super) bath: bool,
    pub(super) microscope: bool,
}

/// Their names among the resources.
const MICROSCOPE: &str = "microscope";
const BATH: &str = "ultrasonic bath";

/// A workload that grows.
struct Making {
    hours: Hours,
    shared: SharedTools,
    past: Past,
    people: Vec<Option<PersonRow>>,
    pins: Vec<TaskPinRow>,
    workload: Workload,
}

impl Making {
    /// Puts a job in; none where nothing is left to do.
    fn job(&mut self, id: i64, summary: &Summary, facts: &Facts) -> Option<PlannedJob> {
        let extent = &summary.extent;
        let times = remaining(facts, extent, &self.past);
        let highest = self.workload.workers.iter().map(|worker| worker.level).max()?;
        let (mut tasks, mut kinds) = (Vec::new(), Vec::new());
        for task in &times {
            let needs = self.needs(task.kind, &extent.station);
            #[allow(clippy::cast_possible_truncation, reason = "hours at most")]
            let minutes = ((task.time.usual_s / 60.0).round() as i64).clamp(1, self.longest());
            tasks.push(BenchTask {
                name: task.kind.name.to_owned(),
                minutes,
                // Where nobody is as practised as it wants, whoever is nearest does it.
                doing: Doing::Hands(task.kind.level(extent).min(highest)),
                needs,
                nozzle_mm: extent.nozzle_mm.filter(|_| task.kind.is_heat()),
                at_once: false,
                pinned: self.pinned(id, task.kind.key),
                begun: None,
            });
            kinds.push(Some(task.kind));
            if task.kind.is_heat() {
                let bath = if self.shared.bath && extent.bathes { self.resource(BATH) } else { None };
                let alone = bath.map(|bath| by_itself("Ultrasonic bath", BATH_MIN, vec![bath]));
                tasks.extend(alone.into_iter().chain([by_itself("Cool and dry", COOL_MIN, Vec::new())]));
                kinds.resize(tasks.len(), None);
            }
        }
        if let (RunState::AtStep(at, of), Some(first)) = (facts.run, tasks.first_mut()) {
            self.go_on(first, at, of);
        }
        let due = summary.due().map(|date| self.hours.closing(date));
        let ready = extent.part_comes.parse().map_or(0, |date| self.hours.opening(date));
        let spread = times.iter().map(|task| task.time.spread).fold(0.0, f64::max);
        if tasks.is_empty() {
            return None;
        }
        self.workload.jobs.push(BenchJob { name: id.to_string(), due, weight: 1.0, ready, tasks });
        let due_day = summary.due().map_or(String::new(), |date| date.strftime("%A %-d %B").to_string());
        Some(PlannedJob { id, device: summary.device.clone(), kinds, due, due_day, spread })
    }

    /// No task is longer than the longest day: it would fit nowhere.
    fn longest(&self) -> i64 {
        self.hours.days.iter().map(|day| day.closes - day.opens).max().unwrap_or(1).max(1)
    }

    /// A bench run that has begun goes on now, in the hands of the first who has none of his own.
    fn go_on(&self, task: &mut BenchTask, at: usize, of: usize) {
        let taken: Vec<usize> =
            self.workload.jobs.iter().flat_map(|job| &job.tasks).filter_map(|task| task.begun?.worker).collect();
        let free = (0..self.people.len()).find(|worker| !taken.contains(worker));
        let left = of.saturating_sub(at).max(1) as i64;
        task.minutes = (task.minutes * left / of.max(1) as i64).max(1);
        task.begun = free.map(|worker| TaskBegun { worker: Some(worker), from: 0 });
    }

    fn pinned(&self, job: i64, task: &str) -> Pinned {
        let pin = self.pins.iter().find(|pin| pin.job == job && pin.task == task);
        let place = |id: i64| self.people.iter().position(|person| person.as_ref().is_some_and(|row| row.id == id));
        Pinned {
            worker: pin.and_then(|pin| pin.person).and_then(place),
            not_before: pin.and_then(|pin| pin.not_before_ms).map(|ms| self.hours.minute(ms)),
        }
    }

    /// What a task has for itself all the while.
    fn needs(&mut self, task: TaskKind, station: &str) -> Vec<usize> {
        let microscope = self.shared.microscope && task.is_seen_closely();
        let wanted = [(task.is_heat(), station), (microscope, MICROSCOPE)];
        wanted.into_iter().filter(|(is_wanted, _)| *is_wanted).filter_map(|(_, name)| self.resource(name)).collect()
    }

    /// The place of a station, the microscope or the bath among the resources.
    fn resource(&mut self, station: &str) -> Option<usize> {
        if station.is_empty() {
            return None;
        }
        let known = self.workload.resources.iter().position(|name| name == station);
        Some(known.unwrap_or_else(|| {
            self.workload.resources.push(station.to_owned());
            self.workload.resources.len() - 1
        }))
    }

    /// The schedule; a job that fits nowhere waits, and the others are scheduled.
    fn schedule(&mut self, jobs: &mut Vec<PlannedJob>, waiting: &mut Vec<WaitingJob>) -> BenchSchedule {
        loop {
            match schedule(&self.workload) {
                Ok(made) => return made,
                Err(fault) if fault.job < jobs.len() => {
                    self.workload.jobs.remove(fault.job);
                    let PlannedJob { id, device, .. } = jobs.remove(fault.job);
                    waiting.push(WaitingJob { id, device, waits_for: "hours: no day is long enough".to_owned() });
                }
                Err(_) => return BenchSchedule { placed: vec![], done: vec![], cost: no_cost() },
            }
        }
    }
}

/// What nobody's hands are needed for.
fn by_itself(name: &str, minutes: i64, needs: Vec<usize>) -> BenchTask {
    let pinned = Pinned::default();
    BenchTask {
        name: name.to_owned(),
        minutes,
        doing: Doing::Passive,
        needs,
        nozzle_mm: None,
        at_once: false,
        pinned,
        begun: None,
    }
}

fn no_cost() -> ScheduleCost {
    ScheduleCost { late: 0.0, idle: 0, changeovers: 0 }
}

#[cfg(test)]
mod tests {
    use mend_core::shop::schedule::PlacedTask;
    use mend_formats::shop_settings::ShopSettings;

    use super::*;
    use crate::job::JobExtent;

    /// Two jobs that are new, at ten in the morning of a working day.
    fn two_jobs(shared: SharedTools, bathes: bool) -> BenchPlan {
        let new = Summary::of_extent(JobExtent { bathes, ..JobExtent::default() });
        let summary = serde_json::to_string(&new).expect("plain data");
        let job = |job_id| ListedJob { job_id, summary: summary.clone() };
        let person = |id, name: &str| PersonRow { id, name: name.to_owned(), ..PersonRow::default() };
        let people = vec![person(1, "Tam"), person(2, "Ova")];
        let stored = Stored { jobs: vec![job(1), job(2)], people, pins: vec![], times: vec![] };
        let now = "2026-11-26T10:00[Europe/London]".parse().expect("a moment");
        make(stored, Hours::new(&ShopSettings::default(), now), shared)
    }

    /// Tasks of a name, by when they begin.
    fn of<'a>(plan: &'a BenchPlan, name: &str) -> Vec<&'a PlacedTask> {
        let mut found: Vec<&PlacedTask> =
            plan.schedule.placed.iter().filter(|placed| plan.task_name(placed.job, placed.task) == name).collect();
        found.sort_by_key(|placed| placed.from);
        found
    }

    #[test]
    fn one_microscope_is_used_by_one_at_a_time_and_a_bench_with_its_own_waits_for_nobody() {
        let shared = two_jobs(SharedTools { bath: false, microscope: true }, true);
        let own = two_jobs(SharedTools { bath: false, microscope: false }, true);
        for name in ["Look and measure", "Pins"] {
            let [first, second] = of(&shared, name)[..] else { panic!("two of {name}") };
            assert!(first.until <= second.from, "{name}");
        }
        let [first, second] = of(&own, "Look and measure")[..] else { panic!("two") };
        assert_eq!(first.from, second.from, "side by side");
    }

    #[test]
    fn a_board_bathes_by_itself_where_there_is_a_bath_and_it_stands_it() {
        let with = SharedTools { bath: true, microscope: false };
        let plan = two_jobs(with, true);
        let [first, second] = of(&plan, "Ultrasonic bath")[..] else { panic!("one of each job") };
        assert!(first.until <= second.from && first.worker.is_none());
        assert!(of(&plan, "At the bench").iter().all(|run| run.until <= of(&plan, "Cool and dry")[1].from));
        assert!(of(&two_jobs(with, false), "Ultrasonic bath").is_empty());
        assert!(of(&two_jobs(SharedTools { bath: false, microscope: false }, true), "Ultrasonic bath").is_empty());
    }
}
