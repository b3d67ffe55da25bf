//! What there is to do, by whom and with what.

use crate::method::equipment::SkillLevel;

/// Hours at a stretch, min.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct WorkShift {
    /// From.
    pub from: i64,
    /// Until.
    pub until: i64,
}

/// Somebody with hands.
#[derive(Debug, Clone, PartialEq)]
pub struct Worker {
    /// Name.
    pub name: String,
    /// What they may do alone.
    pub level: SkillLevel,
    /// Their hours, in order, none overlapping.
    pub shifts: Vec<WorkShift>,
}

/// Who or what a task keeps busy.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Doing {
    /// Hands of at least this level, all the while.
    Hands(SkillLevel),
    /// It runs by itself, nights included: a bath, drying, cooling, waiting.
    Passive,
}

/// Where somebody has put a task by hand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Pinned {
    /// To whom, by their place.
    pub worker: Option<usize>,
    /// Not before, min.
    pub not_before: Option<i64>,
}

/// A task that has begun.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TaskBegun {
    /// Who does it, by their place; none: by itself.
    pub worker: Option<usize>,
    /// When it began, min: zero or less.
    pub from: i64,
}

/// A task of a job.
#[derive(Debug, Clone, PartialEq)]
pub struct BenchTask {
    /// Name.
    pub name: String,
    /// How long, min, over zero.
    pub minutes: i64,
    /// Hands, or by itself.
    pub doing: Doing,
    /// Resources, by their places: a station, the microscope, the bath. It has them all the while.
    pub needs: Vec<usize>,
    /// The nozzle that its station wears, mm.
    pub nozzle_mm: Option<f64>,
    /// It follows the one before without a pause, by the same hands: a heavy board that is still warm is not left.
    pub at_once: bool,
    /// Where somebody has put it.
    pub pinned: Pinned,
    /// Has it begun? Then it stays.
    pub begun: Option<TaskBegun>,
}

/// A job.
#[derive(Debug, Clone, PartialEq)]
pub struct BenchJob {
    /// Name.
    pub name: String,
    /// When it is due, min; none: no day.
    pub due: Option<i64>,
    /// What a minute late of it weighs against one of another, over zero.
    pub weight: f64,
    /// Not before, min: its part comes then.
    pub ready: i64,
    /// Its tasks, in their order.
    pub tasks: Vec<BenchTask>,
}

/// All of it.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Workload {
    /// Who works.
    pub workers: Vec<Worker>,
    /// What only one job has at a time, by name.
    pub resources: Vec<String>,
    /// What there is to do.
    pub jobs: Vec<BenchJob>,
}

/// Tasks of a job that are done at a stretch, from the first to the last of them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Stretch {
    pub(super) first: usize,
    pub(super) last: usize,
}

impl BenchJob {
    /// Its tasks in stretches: a task that follows at once belongs to the one before, where both want hands.
    pub(super) fn stretches(&self) -> Vec<Stretch> {
        let mut stretches: Vec<Stretch> = Vec::new();
        for (k, task) in self.tasks.iter().enumerate() {
            let by_hand = |task: &BenchTask| matches!(task.doing, Doing::Hands(_)) && task.begun.is_none();
            let joins = k > 0 && task.at_once && by_hand(task) && by_hand(&self.tasks[k - 1]);
            match stretches.last_mut() {
                Some(stretch) if joins => stretch.last = k,
                _ => stretches.push(Stretch { first: k, last: k }),
            }
        }
        stretches
    }

    /// Hands and what runs by itself, min.
    pub(super) fn minutes(&self) -> i64 {
        self.tasks.iter().map(|task| task.minutes).sum()
    }
}
