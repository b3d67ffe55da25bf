//! The schedule: a lane a person and one for what runs by itself, on an axis that has open hours only.

mod axis;
mod due;
mod task_runs;
mod written;

use askama::Template;

use axis::{DAYS, days};
pub(crate) use axis::{DayShape, OpenAxis};
use due::{DUE, DueMark, DueShape, LINE, due_shapes, together};
use task_runs::{TaskRun, blocks, is_pinned, rows};
use written::{TaskWords, written};

use super::n;
use crate::scheduling::BenchPlan;

/// Left edge of the lanes and their width; a lane's height; the height above them.
const LEFT: f64 = 150.0;
const WIDTH: f64 = 1050.0;
const PITCH: f64 = 58.0;
const TOP: f64 = 46.0;
/// What runs by itself may run together: a low row each.
const ROW: f64 = 27.0;
/// What stands this near to the right end has no room for its words.
const EDGE: f64 = 40.0;

/// A piece of a lane.
pub(crate) struct TaskShape {
    pub(crate) job: i64,
    /// As in the address of its stop; empty: it can't be moved.
    pub(crate) task: &'static str,
    /// What it is, in full.
    pub(crate) title: String,
    pub(crate) class: &'static str,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
    pub(crate) words: String,
    pub(crate) below: String,
    pub(crate) late: bool,
    pub(crate) pinned: bool,
    /// The lane it is in and its beginning, for whoever moves it by keys.
    pub(crate) lane: usize,
    pub(crate) from: i64,
}

pub(crate) struct BenchLaneShape {
    pub(crate) name: String,
    pub(crate) y: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/bench_lanes.svg", escape = "html")]
pub(crate) struct BenchLanes {
    pub(crate) lanes: Vec<BenchLaneShape>,
    pub(crate) days: Vec<DayShape>,
    pub(crate) tasks: Vec<TaskShape>,
    pub(crate) due: Vec<DueShape>,
    /// Where now is; none: before what is drawn.
    pub(crate) now: Option<String>,
    /// The open day that is drawn first, for whoever moves a task.
    pub(crate) day: usize,
    /// Open days to which one may go from those that are drawn; none: there is nothing to be seen there.
    pub(crate) earlier: Option<usize>,
    pub(crate) later: Option<usize>,
    pub(crate) height: String,
    pub(crate) bottom: String,
    /// How far below the lanes the word of the now-line stands.
    pub(crate) below: String,
}

impl BenchLanes {
    /// The picture of a schedule, from an open day on.
    pub(crate) fn new(plan: &BenchPlan, day: usize) -> Self {
        let axis = OpenAxis::new(&plan.hours, day);
        let lanes = plan.workload.workers.iter().map(|worker| worker.name.clone()).chain(["by itself".to_owned()]);
        let lanes: Vec<BenchLaneShape> =
            lanes.enumerate().map(|(k, name)| BenchLaneShape { name, y: n(y_of(k)) }).collect();
        let goes_on = plan.schedule.placed.iter().any(|placed| placed.until > axis.end());
        let drawn =
            |block: &TaskRun<'_>| block.first.from < axis.end() && (day == 0 || block.last.until > axis.start());
        let blocks: Vec<TaskRun<'_>> = blocks(plan).into_iter().filter(drawn).collect();
        let rows = rows(&blocks);
        let tasks = blocks.iter().zip(&rows).map(|(block, row)| task(plan, &axis, block, *row)).collect();
        #[allow(clippy::cast_precision_loss, reason = "a handful of rows")]
        let own = (rows.iter().max().copied().unwrap_or(0) + 1) as f64 * ROW + 8.0;
        let bottom = y_of(lanes.len() - 1) + own.max(PITCH);
        // What is due while the shop is closed stands at the edge of today's.
        let from = if day == 0 { 0 } else { axis.start() };
        let due = plan.jobs.iter().enumerate().filter_map(|(k, job)| {
            let due = job.due.filter(|due| (from..=axis.end()).contains(due))?;
            Some(DueMark { jobs: vec![job.id], x: axis.x(due), late: plan.schedule.done[k] > due })
        });
        let (due, rows) = due_shapes(together(due.collect()));
        Self {
            days: days(&axis),
            tasks,
            due,
            now: (day == 0).then(|| n(axis.x(0))),
            day,
            earlier: (day > 0).then(|| day.saturating_sub(DAYS)),
            later: Some(day + DAYS).filter(|later| goes_on && *later < plan.hours.days.len()),
            height: n(bottom + DUE + rows * LINE + 6.0),
            below: n(DUE + rows * LINE),
            bottom: n(bottom),
            lanes,
        }
    }
}

#[allow(clippy::cast_precision_loss, reason = "a handful of lanes")]
fn y_of(lane: usize) -> f64 {
    TOP + lane as f64 * PITCH
}

#[allow(clippy::cast_precision_loss, reason = "a handful of rows")]
fn task(plan: &BenchPlan, axis: &OpenAxis<'_>, block: &TaskRun<'_>, row: usize) -> TaskShape {
    let (first, last) = (block.first, block.last);
    let (by_itself, lane) = (first.worker.is_none(), first.worker.unwrap_or(plan.people.len()));
    let job = &plan.jobs[first.job];
    let (left, right) = (axis.x(first.from), axis.x(last.until));
    let width = (right - left - 2.0).max(3.0);
    let kinds = &job.kinds[first.task..=last.task];
    let names: Vec<&str> = (first.task..=last.task).map(|task| plan.task_name(first.job, task)).collect();
    let times = format!("{} to {}", plan.hours.in_words(first.from), plan.hours.in_words(last.until));
    let ends = last.task + 1 == job.kinds.len();
    let heats = kinds.iter().flatten().any(|kind| kind.is_heat());
    let late = ends && job.due.is_some_and(|due| last.until > due);
    let words = format!("{} {}", job.id, names.join(", "));
    let (words, below) = written(TaskWords { number: job.id, words, device: &job.device, late, by_itself }, width);
    TaskShape {
        job: job.id,
        task: job.kinds[first.task].map_or("", |kind| kind.key),
        title: format!("{}, {}, job {}: {times}", names.join(", "), job.device, job.id),
        class: if first.worker.is_none() {
            "itself"
        } else if heats {
            "heat"
        } else {
            "hands"
        },
        x: n(left + 1.0),
        y: n(y_of(lane) + 5.0 + row as f64 * ROW),
        width: n(width),
        height: n(if by_itself { ROW - 4.0 } else { PITCH - 10.0 }),
        words,
        below,
        late,
        pinned: is_pinned(plan, first),
        lane,
        from: first.from,
    }
}
