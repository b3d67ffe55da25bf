//! The schedule: a lane a person and one for what runs by itself, on an axis that has open hours only.

use askama::Template;
use mend_core::shop::schedule::PlacedTask;

use super::n;
use crate::scheduling::{BenchPlan, Hours, OpenDay};

/// Left edge of the lanes and their width; a lane's height; the height above them.
const LEFT: f64 = 150.0;
const WIDTH: f64 = 1050.0;
const PITCH: f64 = 58.0;
const TOP: f64 = 46.0;
/// What runs by itself may run together: a low row each.
const ROW: f64 = 27.0;
/// So many open days are drawn: what is left of today, and the next.
const DAYS: usize = 2;
/// An hour this near before closing has no room for its word, min; nor has one this near to the picture's end, its units.
const CROWDED: i64 = 50;
const EDGE: f64 = 40.0;
/// A letter's width: what has no room is cut.
const LETTER: f64 = 8.0;

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

/// A day's share of the axis.
pub(crate) struct DayShape {
    pub(crate) name: String,
    pub(crate) x: String,
    pub(crate) ticks: Vec<(String, String)>,
}

/// Jobs that are due at a moment.
pub(crate) struct DueShape {
    pub(crate) jobs: String,
    pub(crate) x: String,
    /// At the right end, where its words go to the left.
    pub(crate) at_end: bool,
    pub(crate) late: bool,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/bench_lanes.svg", escape = "html")]
pub(crate) struct BenchLanes {
    pub(crate) lanes: Vec<BenchLaneShape>,
    pub(crate) days: Vec<DayShape>,
    pub(crate) tasks: Vec<TaskShape>,
    pub(crate) due: Vec<DueShape>,
    pub(crate) now: String,
    pub(crate) height: String,
    pub(crate) bottom: String,
}

/// The axis: open minutes only, from the hour that is now.
pub(crate) struct OpenAxis<'a> {
    hours: &'a Hours,
    days: Vec<OpenDay>,
    scale: f64,
}

impl<'a> OpenAxis<'a> {
    pub(crate) fn new(hours: &'a Hours) -> Self {
        // The hour in which now is; the first day begins with it where it is open already.
        let hour = -i64::from(hours.moment(0).minute());
        let cut = |day: &OpenDay| OpenDay { opens: day.opens.max(hour), ..day.clone() };
        let days: Vec<OpenDay> = hours.days.iter().take(DAYS).map(cut).collect();
        let open: i64 = days.iter().map(|day| day.closes - day.opens).sum();
        #[allow(clippy::cast_precision_loss, reason = "minutes of a few days")]
        let scale = WIDTH / open.max(1) as f64;
        Self { hours, days, scale }
    }

    /// Where a minute stands; what is outside open hours stands at their edge.
    #[allow(clippy::cast_precision_loss, reason = "minutes of four weeks")]
    fn x(&self, minute: i64) -> f64 {
        let before = |day: &OpenDay| (minute.clamp(day.opens, day.closes) - day.opens) as f64;
        LEFT + self.scale * self.days.iter().map(before).sum::<f64>()
    }

    /// The minute that stands there.
    #[allow(clippy::cast_possible_truncation, reason = "minutes of a few days")]
    pub(crate) fn minute(&self, x: f64) -> i64 {
        let mut left = ((x - LEFT).max(0.0) / self.scale).round() as i64;
        for day in &self.days {
            if left <= day.closes - day.opens {
                return day.opens + left;
            }
            left -= day.closes - day.opens;
        }
        self.end()
    }

    /// The last minute that is drawn.
    fn end(&self) -> i64 {
        self.days.last().map_or(0, |day| day.closes)
    }
}

impl BenchLanes {
    /// The picture of a schedule.
    pub(crate) fn new(plan: &BenchPlan) -> Self {
        let axis = OpenAxis::new(&plan.hours);
        let lanes = plan.workload.workers.iter().map(|worker| worker.name.clone()).chain(["by itself".to_owned()]);
        let lanes: Vec<BenchLaneShape> =
            lanes.enumerate().map(|(k, name)| BenchLaneShape { name, y: n(y_of(k)) }).collect();
        let blocks = blocks(plan);
        let rows = rows(&blocks);
        let tasks = blocks.iter().zip(&rows).filter_map(|(block, row)| task(plan, &axis, (block, *row))).collect();
        #[allow(clippy::cast_precision_loss, reason = "a handful of rows")]
        let own = (rows.iter().max().copied().unwrap_or(0) + 1) as f64 * ROW + 8.0;
        let bottom = y_of(lanes.len() - 1) + own.max(PITCH);
        let due = plan.jobs.iter().enumerate().filter_map(|(k, job)| {
            let due = job.due.filter(|due| (0..=axis.end()).contains(due))?;
            let x = axis.x(due);
            let at_end = x > LEFT + WIDTH - EDGE;
            Some(DueShape { jobs: job.id.to_string(), x: n(x), at_end, late: plan.schedule.done[k] > due })
        });
        Self {
            days: days(&axis),
            tasks,
            due: spread(due.collect()),
            now: n(axis.x(0)),
            height: n(bottom + 40.0),
            bottom: n(bottom),
            lanes,
        }
    }
}

#[allow(clippy::cast_precision_loss, reason = "a handful of lanes")]
fn y_of(lane: usize) -> f64 {
    TOP + lane as f64 * PITCH
}

/// Marks at the same moment become one that names them all, so that none is printed over another.
fn spread(marks: Vec<DueShape>) -> Vec<DueShape> {
    let mut kept: Vec<DueShape> = Vec::new();
    for mark in marks {
        match kept.iter_mut().find(|known| known.x == mark.x) {
            Some(known) => {
                known.late |= mark.late;
                known.jobs = format!("{}, {}", known.jobs, mark.jobs);
            }
            None => kept.push(mark),
        }
    }
    kept
}

fn days(axis: &OpenAxis<'_>) -> Vec<DayShape> {
    let hours = |day: &OpenDay| {
        let first = (0..60).map(|k| day.opens + k).find(|minute| axis.hours.moment(*minute).minute() == 0);
        let each = first.into_iter().flat_map(|first| (0..24).map(move |k| first + 60 * k));
        let shown = each.filter(|minute| minute + CROWDED < day.closes && axis.x(*minute) < LEFT + WIDTH - EDGE);
        shown.map(|minute| (n(axis.x(minute)), axis.hours.moment(minute).strftime("%H:%M").to_string())).collect()
    };
    let shape = |day: &OpenDay| DayShape {
        name: day.date.strftime("%A %-d %B").to_string(),
        x: n(axis.x(day.opens)),
        ticks: hours(day),
    };
    axis.days.iter().map(shape).collect()
}

/// Tasks of a job that somebody does one after the other: drawn as one.
struct TaskRun<'a> {
    first: &'a PlacedTask,
    last: &'a PlacedTask,
}

fn blocks(plan: &BenchPlan) -> Vec<TaskRun<'_>> {
    let mut blocks: Vec<TaskRun<'_>> = Vec::new();
    for placed in &plan.schedule.placed {
        let goes_on = |block: &&mut TaskRun<'_>| {
            let last = block.last;
            let same = last.job == placed.job && last.worker == placed.worker && placed.worker.is_some();
            same && last.until == placed.from && last.task + 1 == placed.task && !is_pinned(plan, placed)
        };
        match blocks.iter_mut().find(goes_on) {
            Some(block) => block.last = placed,
            None => blocks.push(TaskRun { first: placed, last: placed }),
        }
    }
    blocks
}

/// For each block that runs by itself the first row in which nothing else runs then; 0 for all others.
fn rows(blocks: &[TaskRun<'_>]) -> Vec<usize> {
    let mut ends: Vec<i64> = Vec::new();
    let row = |block: &TaskRun<'_>| {
        if block.first.worker.is_some() {
            return 0;
        }
        let free = ends.iter().position(|end| *end <= block.first.from);
        let row = free.unwrap_or_else(|| {
            ends.push(0);
            ends.len() - 1
        });
        ends[row] = block.last.until;
        row
    };
    blocks.iter().map(row).collect()
}

fn is_pinned(plan: &BenchPlan, placed: &PlacedTask) -> bool {
    let job = &plan.jobs[placed.job];
    let key = job.kinds[placed.task].map(|kind| kind.key);
    plan.pins.iter().any(|pin| pin.job == job.id && Some(pin.task.as_str()) == key)
}

#[allow(clippy::cast_precision_loss, reason = "a handful of rows")]
fn task(plan: &BenchPlan, axis: &OpenAxis<'_>, (block, row): (&TaskRun<'_>, usize)) -> Option<TaskShape> {
    let (first, last) = (block.first, block.last);
    let (by_itself, lane) = (first.worker.is_none(), first.worker.unwrap_or(plan.people.len()));
    if first.from >= axis.end() {
        return None;
    }
    let job = &plan.jobs[first.job];
    let (left, right) = (axis.x(first.from), axis.x(last.until));
    let width = (right - left - 2.0).max(3.0);
    let kinds = &job.kinds[first.task..=last.task];
    let names: Vec<&str> = (first.task..=last.task).map(|task| plan.task_name(first.job, task)).collect();
    let times = format!("{} to {}", plan.hours.in_words(first.from), plan.hours.in_words(last.until));
    let ends = last.task + 1 == job.kinds.len();
    let heats = kinds.iter().flatten().any(|kind| kind.is_heat());
    let late = ends && job.due.is_some_and(|due| last.until > due);
    // The cross before what is late wants two letters.
    let room = if late { width - 2.0 * LETTER } else { width };
    let [number, all] = [job.id.to_string(), format!("{} {}", job.id, names.join(", "))];
    Some(TaskShape {
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
        words: Some(fitting(&all, room)).filter(|words| !words.is_empty()).unwrap_or_else(|| fitting(&number, room)),
        below: if by_itself { String::new() } else { fitting(&job.device, width) },
        late,
        pinned: is_pinned(plan, first),
        lane,
        from: first.from,
    })
}

/// As much of a word as has room.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "letters in a box")]
fn fitting(words: &str, width: f64) -> String {
    let room = ((width - 8.0) / LETTER).max(0.0) as usize;
    if words.chars().count() <= room {
        return words.to_owned();
    }
    if room < 5 { String::new() } else { words.chars().take(room - 1).chain(['…']).collect() }
}

#[cfg(test)]
mod tests {
    use mend_formats::shop_settings::ShopSettings;

    use super::*;

    #[test]
    fn the_axis_has_open_hours_only_and_reads_back() {
        let hours = Hours::new(&ShopSettings::default(), "2026-11-27T15:00:00[UTC]".parse().expect("a moment"));
        let axis = OpenAxis::new(&hours);
        let monday = hours.days[1].opens;
        assert_eq!(axis.x(120), axis.x(monday), "Friday's closing is Monday's opening");
        for minute in [0, 60, monday + 30, monday + 300] {
            assert_eq!(axis.minute(axis.x(minute)), minute);
        }
        assert!(axis.x(-360) >= LEFT && axis.x(100_000) <= LEFT + WIDTH + 1e-9);
    }

    #[test]
    fn a_word_is_cut_to_its_box() {
        assert_eq!(fitting("7 At the bench", 200.0), "7 At the bench");
        assert_eq!(fitting("7 At the bench", 64.0), "7 At t…");
        assert_eq!((fitting("7 At the bench", 12.0), fitting("7", 16.0)), (String::new(), "7".to_owned()));
    }
}
