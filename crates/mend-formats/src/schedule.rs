//! What there is to do at the benches, `urgent-mend/schedule/1`, and when it is done, `urgent-mend/scheduled/1`.

use mend_core::finding::Finding;
use mend_core::method::equipment::SkillLevel;
use mend_core::shop::schedule::workload::{BenchJob, BenchTask, Doing, Pinned, TaskBegun, WorkShift, Worker, Workload};
use mend_core::shop::schedule::{BenchSchedule, Unplaceable};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/schedule/1";
/// What is written of it.
pub const SCHEDULED: &str = "urgent-mend/scheduled/1";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
const RULE: &str = "schedule_file";
/// Tasks longer than this, or times farther off, are a slip, min: ten weeks.
const MOST_MIN: i64 = 100_000;
const MOST_JOBS: usize = 2000;
const MOST_TASKS: usize = 40;
const WEIGHTS: (f64, f64) = (0.01, 1000.0);

/// The file as it is written. All times are minutes from now.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ScheduleFile {
    /// Always `urgent-mend/schedule/1`.
    pub format: String,
    /// Who works.
    pub workers: Vec<WorkerFile>,
    /// What only one job has at a time.
    #[serde(default)]
    pub resources: Vec<String>,
    /// What there is to do.
    pub jobs: Vec<BenchJobFile>,
}

/// Somebody with hands.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct WorkerFile {
    /// Name.
    pub name: String,
    /// `learning`, `trained` or `practised`.
    pub level: SkillLevel,
    /// Hours at a stretch, [from, until].
    pub shifts_min: Vec<[i64; 2]>,
}

/// A job.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BenchJobFile {
    /// Name.
    pub name: String,
    /// When it is due; left out: no day.
    #[serde(default)]
    pub due_min: Option<i64>,
    /// What a minute late of it weighs; 1 when left out.
    #[serde(default = "one")]
    pub weight: f64,
    /// Not before.
    #[serde(default)]
    pub ready_min: i64,
    /// In their order.
    pub tasks: Vec<BenchTaskFile>,
}

fn one() -> f64 {
    1.0
}

/// A task.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BenchTaskFile {
    /// Name.
    pub name: String,
    /// How long.
    pub minutes: i64,
    /// Whose hands at least; left out: it runs by itself.
    #[serde(default)]
    pub hands: Option<SkillLevel>,
    /// Resources by name.
    #[serde(default)]
    pub needs: Vec<String>,
    /// The nozzle that its station wears.
    #[serde(default)]
    pub nozzle_mm: Option<f64>,
    /// It follows the one before without a pause, by the same hands.
    #[serde(default)]
    pub at_once: bool,
    /// Given to somebody.
    #[serde(default)]
    pub worker: Option<String>,
    /// Not before.
    #[serde(default)]
    pub not_before_min: Option<i64>,
    /// Has begun.
    #[serde(default)]
    pub begun: Option<BegunFile>,
}

/// A task that has begun.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BegunFile {
    /// Who does it; left out: by itself.
    #[serde(default)]
    pub worker: Option<String>,
    /// When it began, zero or less.
    pub from_min: i64,
}

/// Reads a schedule file, or says everything that is wrong with it.
pub fn parse(bytes: &[u8]) -> Result<Workload, Vec<Finding>> {
    let file: ScheduleFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    let mut reader = Reader { file: &file, found: Vec::new() };
    reader.check_lists();
    let workers: Vec<Worker> = (0..file.workers.len()).map(|k| reader.worker(k)).collect();
    let jobs: Vec<BenchJob> = (0..file.jobs.len()).map(|k| reader.job(k)).collect();
    reader.check_begun(&jobs);
    let resources = file.resources.clone();
    if reader.found.is_empty() { Ok(Workload { workers, resources, jobs }) } else { Err(reader.found) }
}

struct Reader<'a> {
    file: &'a ScheduleFile,
    found: Vec<Finding>,
}

impl Reader<'_> {
    fn object(&mut self, place: String, what: String, hint: &str) {
        self.found.push(Finding::written(RULE, place, what).hint(hint));
    }

    fn within(&mut self, place: String, minutes: i64, low: i64) {
        if !(low..=MOST_MIN).contains(&minutes) {
            let hint = format!("{low} to {MOST_MIN} minutes");
            self.object(place, format!("{minutes} minutes"), &hint);
        }
    }

    fn check_lists(&mut self) {
        let file = self.file;
        let lists = [
            ("workers", file.workers.iter().map(|worker| &worker.name).collect::<Vec<_>>()),
            ("resources", file.resources.iter().collect()),
            ("jobs", file.jobs.iter().map(|job| &job.name).collect()),
        ];
        for (list, names) in lists {
            for (k, name) in names.iter().enumerate() {
                if name.trim().is_empty() || names[..k].contains(name) {
                    self.object(format!("{list}[{k}]"), format!("“{name}”"), "a name of its own");
                }
            }
        }
        if file.jobs.len() > MOST_JOBS {
            self.object("jobs".to_owned(), format!("{} of them", file.jobs.len()), "up to 2000");
        }
    }

    fn worker(&mut self, k: usize) -> Worker {
        let worker = &self.file.workers[k];
        let mut before = i64::MIN;
        for (s, [from, until]) in worker.shifts_min.iter().enumerate() {
            let far = [from, until].iter().any(|at| at.abs() > MOST_MIN);
            if from >= until || *from < before || far {
                let what = format!("[{from}, {until}]");
                self.object(
                    format!("workers[{k}].shifts_min[{s}]"),
                    what,
                    "in order, from before until, none over another",
                );
            }
            before = *until;
        }
        let shifts = worker.shifts_min.iter().map(|[from, until]| WorkShift { from: *from, until: *until });
        Worker { name: worker.name.clone(), level: worker.level, shifts: shifts.collect() }
    }

    fn job(&mut self, k: usize) -> BenchJob {
        let (job, at) = (&self.file.jobs[k], |field: &str| format!("jobs[{k}].{field}"));
        if !(WEIGHTS.0..=WEIGHTS.1).contains(&job.weight) {
            self.object(at("weight"), format!("{}", job.weight), "0.01 to 1000");
        }
        self.within(at("ready_min"), job.ready_min, -MOST_MIN);
        job.due_min.into_iter().for_each(|due| self.within(at("due_min"), due, -MOST_MIN));
        if job.tasks.len() > MOST_TASKS {
            self.object(at("tasks"), format!("{} of them", job.tasks.len()), "up to 40");
        }
        let tasks = (0..job.tasks.len()).map(|t| self.task(k, t)).collect();
        let (name, due, weight, ready) = (job.name.clone(), job.due_min, job.weight, job.ready_min);
        BenchJob { name, due, weight, ready, tasks }
    }

    /// A name's place in a list, or an objection.
    fn known(&mut self, place: String, name: &str, of: &[String]) -> usize {
        let found = of.iter().position(|known| known == name);
        found.unwrap_or_else(|| {
            self.object(place, format!("“{name}” is not named above"), &of.join(", "));
            0
        })
    }

    fn task(&mut self, job: usize, k: usize) -> BenchTask {
        let (file, at) = (self.file, |field: &str| format!("jobs[{job}].tasks[{k}].{field}"));
        let task = &file.jobs[job].tasks[k];
        let workers: Vec<String> = file.workers.iter().map(|worker| worker.name.clone()).collect();
        self.within(at("minutes"), task.minutes, 1);
        task.not_before_min.into_iter().for_each(|from| self.within(at("not_before_min"), from, -MOST_MIN));
        let needs = task.needs.iter().enumerate();
        let needs = needs.map(|(n, name)| self.known(at(&format!("needs[{n}]")), name, &file.resources)).collect();
        let worker = task.worker.as_ref().map(|name| self.known(at("worker"), name, &workers));
        let begun = task.begun.as_ref().map(|begun| {
            if !(-MOST_MIN..=0).contains(&begun.from_min) {
                self.object(at("begun.from_min"), format!("{}", begun.from_min), "zero or less: it has begun");
            }
            let worker = begun.worker.as_ref().map(|name| self.known(at("begun.worker"), name, &workers));
            TaskBegun { worker, from: begun.from_min }
        });
        BenchTask {
            name: task.name.clone(),
            minutes: task.minutes,
            doing: task.hands.map_or(Doing::Passive, Doing::Hands),
            needs,
            nozzle_mm: task.nozzle_mm,
            at_once: task.at_once,
            pinned: Pinned { worker, not_before: task.not_before_min },
            begun,
        }
    }

    /// Nobody has two things in hand.
    fn check_begun(&mut self, jobs: &[BenchJob]) {
        let mut busy = Vec::new();
        for (k, job) in jobs.iter().enumerate() {
            for task in &job.tasks {
                let Some(worker) = task.begun.and_then(|begun| begun.worker) else { continue };
                if busy.contains(&worker) {
                    let what = format!("{} has begun two tasks", self.file.workers[worker].name);
                    self.object(format!("jobs[{k}].tasks"), what, "one at a time");
                }
                busy.push(worker);
            }
        }
    }
}

/// A task that can't be placed, as an objection.
pub fn unplaceable(workload: &Workload, at: Unplaceable) -> Finding {
    let task = workload.jobs.get(at.job).and_then(|job| job.tasks.get(at.task));
    let name = task.map_or("", |task| task.name.as_str());
    let what = format!("nobody can do “{name}” within the hours that there are");
    Finding::written(RULE, format!("jobs[{}].tasks[{}]", at.job, at.task), what)
        .hint("more hours at a stretch, or hands of that level")
}

#[derive(Serialize)]
struct ScheduledFile<'a> {
    format: &'static str,
    late_min: f64,
    idle_min: i64,
    changeovers: usize,
    jobs: Vec<ScheduledJob<'a>>,
    tasks: Vec<ScheduledTask<'a>>,
}

#[derive(Serialize)]
struct ScheduledJob<'a> {
    name: &'a str,
    done_min: i64,
    late_min: i64,
}

#[derive(Serialize)]
struct ScheduledTask<'a> {
    job: &'a str,
    task: &'a str,
    #[serde(skip_serializing_if = "Option::is_none")]
    worker: Option<&'a str>,
    from_min: i64,
    until_min: i64,
}

/// The schedule as JSON.
pub fn write(workload: &Workload, schedule: &BenchSchedule) -> Result<String, serde_json::Error> {
    let job = |(job, done): (&'_ BenchJob, &i64)| (done - job.due.unwrap_or(i64::MAX)).max(0);
    let jobs = workload.jobs.iter().zip(&schedule.done);
    let jobs = jobs.map(|of| ScheduledJob { name: &of.0.name, done_min: *of.1, late_min: job(of) }).collect();
    let tasks = schedule.placed.iter().map(|placed| ScheduledTask {
        job: &workload.jobs[placed.job].name,
        task: &workload.jobs[placed.job].tasks[placed.task].name,
        worker: placed.worker.map(|worker| workload.workers[worker].name.as_str()),
        from_min: placed.from,
        until_min: placed.until,
    });
    let cost = schedule.cost;
    serde_json::to_string_pretty(&ScheduledFile {
        format: SCHEDULED,
        late_min: cost.late,
        idle_min: cost.idle,
        changeovers: cost.changeovers,
        jobs,
        tasks: tasks.collect(),
    })
}

#[cfg(test)]
mod tests {
    use mend_core::shop::schedule::schedule;

    use super::*;

    const DAY: &str = r#"{"format": "urgent-mend/schedule/1",
        "workers": [{"name": "Tam", "level": "practised", "shifts_min": [[0, 240], [300, 540]]}],
        "resources": ["Gull", "bath"],
        "jobs": [{"name": "job 4", "due_min": 120, "tasks": [
            {"name": "lift", "minutes": 20, "hands": "trained", "needs": ["Gull"], "nozzle_mm": 22},
            {"name": "wick", "minutes": 10, "hands": "trained", "at_once": true},
            {"name": "bath", "minutes": 8, "needs": ["bath"]},
            {"name": "test", "minutes": 15, "hands": "learning"}]}]}"#;

    #[test]
    fn a_day_is_read_scheduled_and_written() {
        let workload = parse(DAY.as_bytes()).expect("a day");
        let made = schedule(&workload).expect("it fits");
        let text = write(&workload, &made).expect("can be written");
        let read: serde_json::Value = serde_json::from_str(&text).expect("JSON");
        assert_eq!((&read["format"], &read["jobs"][0]["done_min"]), (&SCHEDULED.into(), &53.into()));
        assert_eq!(
            (&read["tasks"][1]["from_min"], &read["tasks"][2]["worker"]),
            (&20.into(), &serde_json::Value::Null)
        );
    }

    #[test]
    fn everything_wrong_is_said_at_once_with_its_place() {
        let wrong = DAY
            .replace(r#""minutes": 8"#, r#""minutes": 0"#)
            .replace(r#"["bath"]},"#, r#"["oven"]},"#)
            .replace("[0, 240], [300, 540]", "[0, 240], [200, 540]")
            .replace(r#""due_min": 120"#, r#""due_min": 120, "weight": 0"#);
        let found = parse(wrong.as_bytes()).expect_err("four things are wrong");
        let places: Vec<&str> = found.iter().map(|finding| finding.place.as_str()).collect();
        let wanted =
            ["workers[0].shifts_min[1]", "jobs[0].weight", "jobs[0].tasks[2].minutes", "jobs[0].tasks[2].needs[0]"];
        assert_eq!(places, wanted);
        assert!(parse(br#"{"format": "urgent-mend/schedule/1", "workers": [], "jobs": [], "benches": 3}"#).is_err());
    }
}
