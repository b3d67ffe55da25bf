//! The course with somebody's record, boards of the shop, and what was tried last. The owner sees everybody's record.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::practice::course::{PracticeTask, course, is_open, level};
use mend_core::practice::goal::PracticeGoal;
use mend_core::shop::people::Permission;
use mend_formats::practice::{parse, read_harms};
use mend_store::{AttemptRow, PracticeRecordRow};
use serde::Deserialize;

use crate::App;
use crate::extract::Query;
use crate::pages::Frame;
use crate::people::Visit;
use crate::practice::record::{count, passed};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::practice::{goal_choice, harmed_kind, subject_words, task_words};

/// So many attempts are shown.
const RECENT: usize = 12;

/// A task as it stands for somebody.
struct TaskView {
    key: &'static str,
    number: usize,
    name: &'static str,
    about: &'static str,
    open: bool,
    /// How often it was passed, and tried.
    passed: u32,
    tried: u32,
    /// The first that is open and was not passed.
    next: bool,
}

/// An attempt in the list.
struct AttemptView {
    id: i64,
    what: String,
    when: String,
    /// `passed`, `not passed` or `goes on`.
    came: &'static str,
    class: &'static str,
    ended: bool,
}

/// Whose record is asked for; left out: one's own.
#[derive(Deserialize)]
pub(crate) struct Whose {
    person: Option<i64>,
}

#[derive(Template, WebTemplate)]
#[template(path = "practice/course.html")]
pub(crate) struct CoursePage {
    frame: Frame,
    tasks: Vec<TaskView>,
    /// Trained by it?
    trained: bool,
    /// What can be practised on a board of the shop: as a form sends it, and in words.
    goals: [(String, &'static str); 4],
    boards: Vec<(i64, String)>,
    stations: Vec<String>,
    attempts: Vec<AttemptView>,
    /// What was harmed, the most often first.
    harms: Vec<(&'static str, usize)>,
    /// Whose record it is where the owner looks at another's; empty: one's own.
    of: String,
    /// Everybody who has tried anything, for the owner; by name, never by what they came to.
    people: Vec<PracticeRecordRow>,
}

/// Where a task stands in the course.
pub(super) fn place_of(key: &str) -> usize {
    course().iter().position(|task| task.key == key).unwrap_or_default()
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Query(whose): Query<Whose>,
) -> Result<CoursePage, Refusal> {
    let visit = Visit::current();
    let (own, owner) = (visit.person().map(|person| person.id), visit.may(Permission::Shop));
    let other = whose.person.filter(|id| Some(*id) != own);
    if other.is_some() && !owner {
        return Err(Refusal::NotFound("record"));
    }
    let person = other.or(own);
    let attempts = app.reading(move |read| read.attempts_of(person)).await?;
    let people = if owner { app.reading(|read| read.practice_records()).await? } else { Vec::new() };
    let named = |id: i64| people.iter().find(|row| row.person == id).map(|row| row.name.clone());
    let of = other.map(|id| named(id).ok_or(Refusal::NotFound("record"))).transpose()?.unwrap_or_default();
    let (boards, stations) = app.reading(|read| Ok((read.boards()?, read.stations()?))).await?;
    let passed = passed(&attempts);
    let view = |(place, task): (usize, &PracticeTask)| {
        let (name, about) = task_words(task.key);
        let tried = count(&attempts, task.key, |attempt| attempt.ended_ms.is_some());
        let open = is_open(place, &passed);
        let (number, next) = (place + 1, open && passed[place] == 0);
        TaskView { key: task.key, number, name, about, open, passed: passed[place], tried, next }
    };
    Ok(CoursePage {
        frame: Frame::new("Practice", visitor.scale, "practice", "/practice".to_owned()),
        tasks: course().iter().enumerate().map(view).collect(),
        trained: level(&passed).is_some(),
        goals: PracticeGoal::ALL.map(goal_choice),
        boards: boards.into_iter().map(|row| (row.id, row.name)).collect(),
        stations: stations.into_iter().filter(|row| row.retired_ms.is_none()).map(|row| row.name).collect(),
        harms: harms(&attempts),
        attempts: attempts.iter().take(RECENT).map(|row| attempt_view(&app, row)).collect(),
        people,
        of,
    })
}

fn attempt_view(app: &App, row: &AttemptRow) -> AttemptView {
    let goal = parse(&row.of).map(|file| file.goal()).unwrap_or_default();
    let what = subject_words(&row.task, row.job, goal);
    let (came, class) = match (row.ended_ms, row.passed) {
        (None, _) => ("goes on", ""),
        (Some(_), true) => ("● passed", "inside"),
        (Some(_), false) => ("✕ not passed", "past"),
    };
    let when = app.moment_of(row.begun_ms).strftime("%-d %B, %H:%M").to_string();
    AttemptView { id: row.id, what, when, came, class, ended: row.ended_ms.is_some() }
}

/// What was harmed in all of them, by kind.
fn harms(attempts: &[AttemptRow]) -> Vec<(&'static str, usize)> {
    let mut by: Vec<(&'static str, usize)> = Vec::new();
    for harm in attempts.iter().flat_map(|row| read_harms(&row.harms)) {
        let kind = harmed_kind(&harm.what);
        match by.iter_mut().find(|(known, _)| *known == kind) {
            Some((_, times)) => *times += 1,
            None => by.push((kind, 1)),
        }
    }
    by.sort_by_key(|(_, times)| std::cmp::Reverse(*times));
    by
}
