//! The schedule: a lane a person and one for what runs by itself, on an axis that has open hours only.

use askama::Template;

use super::n;
use crate::scheduling::{BenchPlan, Hours};

/// Left edge of the lanes and their width; a lane's height; the height above them.
const LEFT: f64 = 150.0;
const WIDTH: f64 = 1050.0;
const PITCH: f64 = 58.0;
const TOP: f64 = 46.0;
/// So many open days are drawn.
const DAYS: usize = 3;
/// A letter's width: what has no room is cut.
const LETTER: f64 = 7.4;

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

/// A job that is due.
pub(crate) struct DueShape {
    pub(crate) job: i64,
    pub(crate) x: String,
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

/// The axis: open minutes only.
pub(crate) struct OpenAxis<'a> {
    hours: &'a Hours,
    scale: f64,
}

impl<'a> OpenAxis<'a> {
    pub(crate) fn new(hours: &'a Hours) -> Self {
        let open: i64 = hours.days.iter().take(DAYS).map(|day| day.closes - day.opens).sum();
        #[allow(clippy::cast_precision_loss, reason = "minutes of three days")]
        let scale = WIDTH / open.max(1) as f64;
        Self { hours, scale }
    }

    /// Where a minute stands; what is outside open hours stands at their edge.
    #[allow(clippy::cast_precision_loss, reason = "minutes of four weeks")]
    fn x(&self, minute: i64) -> f64 {
        let before = |day: &crate::scheduling::OpenDay| (minute.clamp(day.opens, day.closes) - day.opens) as f64;
        LEFT + self.scale * self.hours.days.iter().take(DAYS).map(before).sum::<f64>()
    }

    /// The minute that stands there.
    #[allow(clippy::cast_possible_truncation, reason = "minutes of three days")]
    pub(crate) fn minute(&self, x: f64) -> i64 {
        let mut left = ((x - LEFT).max(0.0) / self.scale).round() as i64;
        let days = &self.hours.days[..self.hours.days.len().min(DAYS)];
        for day in days {
            if left <= day.closes - day.opens {
                return day.opens + left;
            }
            left -= day.closes - day.opens;
        }
        days.last().map_or(0, |day| day.closes)
    }

    /// The last minute that is drawn.
    fn end(&self) -> i64 {
        self.hours.days.iter().take(DAYS).last().map_or(0, |day| day.closes)
    }
}

impl BenchLanes {
    /// The picture of a schedule.
    pub(crate) fn new(plan: &BenchPlan) -> Self {
        let axis = OpenAxis::new(&plan.hours);
        let lanes = plan.workload.workers.iter().map(|worker| worker.name.clone()).chain(["by itself".to_owned()]);
        let lanes: Vec<BenchLaneShape> =
            lanes.enumerate().map(|(k, name)| BenchLaneShape { name, y: n(y_of(k)) }).collect();
        let tasks = (0..plan.schedule.placed.len()).filter_map(|k| task(plan, &axis, k)).collect();
        let bottom = TOP + lanes.len() as f64 * PITCH;
        let due = plan.jobs.iter().enumerate().filter_map(|(k, job)| {
            let due = job.due.filter(|due| (0..=axis.end()).contains(due))?;
            Some(DueShape { job: job.id, x: n(axis.x(due)), late: plan.schedule.done[k] > due })
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

/// Marks at the same moment become one that names the first, so that none is printed over another.
fn spread(marks: Vec<DueShape>) -> Vec<DueShape> {
    let mut kept: Vec<DueShape> = Vec::new();
    for mark in marks {
        match kept.iter_mut().find(|known| known.x == mark.x) {
            Some(known) => known.late |= mark.late,
            None => kept.push(mark),
        }
    }
    kept
}

fn days(axis: &OpenAxis<'_>) -> Vec<DayShape> {
    let hour = |day: &crate::scheduling::OpenDay| {
        let first = day.opens.div_euclid(60) * 60 + day.opens.rem_euclid(60);
        let hours = (0..24).map(move |k| first + 120 * k).filter(|minute| *minute < day.closes);
        hours.map(|minute| (n(axis.x(minute)), axis.hours.moment(minute).strftime("%H:%M").to_string())).collect()
    };
    let shape = |day: &crate::scheduling::OpenDay| DayShape {
        name: day.date.strftime("%A %-d %B").to_string(),
        x: n(axis.x(day.opens)),
        ticks: hour(day),
    };
    axis.hours.days.iter().take(DAYS).map(shape).collect()
}

fn task(plan: &BenchPlan, axis: &OpenAxis<'_>, k: usize) -> Option<TaskShape> {
    let placed = &plan.schedule.placed[k];
    if placed.from >= axis.end() {
        return None;
    }
    let job = &plan.jobs[placed.job];
    let (left, right) = (axis.x(placed.from), axis.x(placed.until));
    let width = (right - left - 2.0).max(3.0);
    let kind = job.kinds[placed.task];
    let (name, key) = (plan.task_name(placed.job, placed.task), kind.map_or("", |kind| kind.key));
    let lane = placed.worker.unwrap_or(plan.people.len());
    let times = format!("{} to {}", plan.hours.in_words(placed.from), plan.hours.in_words(placed.until));
    let last = plan.jobs[placed.job].kinds.len() - 1 == placed.task;
    Some(TaskShape {
        job: job.id,
        task: key,
        title: format!("{name}, {}, job {}: {times}", job.device, job.id),
        class: match kind {
            None => "itself",
            Some(kind) if kind.is_heat() => "heat",
            Some(_) => "hands",
        },
        x: n(left + 1.0),
        y: n(y_of(lane) + 5.0),
        width: n(width),
        words: fitting(&format!("{} {name}", job.id), width),
        below: fitting(&job.device, width),
        late: last && job.due.is_some_and(|due| placed.until > due),
        pinned: plan.pins.iter().any(|pin| pin.job == job.id && pin.task == key),
        lane,
        from: placed.from,
    })
}

/// As much of a word as has room.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "letters in a box")]
fn fitting(words: &str, width: f64) -> String {
    let room = ((width - 8.0) / LETTER).max(0.0) as usize;
    if words.chars().count() <= room {
        return words.to_owned();
    }
    if room < 4 { String::new() } else { words.chars().take(room - 1).chain(['…']).collect() }
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
        assert_eq!(fitting("7 At the bench", 60.0), "7 At t…");
        assert_eq!(fitting("7 At the bench", 12.0), "");
    }
}
