//! The schedule's page.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_store::TaskPinRow;
use serde::Deserialize;

use crate::App;
use crate::draw::bench_lanes::{BenchLanes, OpenAxis};
use crate::extract::{Form, Query};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::scheduling::{BenchPlan, TaskKind, WaitingJob, bench_plan};
use crate::visitor::Visitor;

/// A task that somebody has put by hand.
struct PinView {
    job: i64,
    task: String,
    name: &'static str,
    says: String,
}

/// When a job is done, and when it is due.
struct DoneView {
    id: i64,
    device: String,
    done: String,
    due: String,
    late: bool,
}

/// A person with the address of their day.
struct PersonDayView {
    name: String,
    href: String,
    next: String,
    next_href: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "schedule/part.html")]
pub(crate) struct SchedulePart {
    picture: String,
    /// The open day that is drawn first.
    day: usize,
    /// Open days to which one may go from those that are drawn; none: there is nothing to be seen there.
    earlier: Option<usize>,
    later: Option<usize>,
    people: Vec<PersonDayView>,
    pins: Vec<PinView>,
    jobs: Vec<DoneView>,
    waiting: Vec<WaitingJob>,
    late: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "schedule/page.html")]
pub(crate) struct SchedulePage {
    frame: Frame,
    part: SchedulePart,
}

impl SchedulePart {
    fn new(plan: &BenchPlan, day: usize) -> Result<Self, Refusal> {
        let drawn = BenchLanes::new(plan, day);
        let picture = drawn.render().map_err(|error| Refusal::Broken(error.to_string()))?;
        let mut jobs: Vec<(i64, DoneView)> =
            plan.jobs.iter().zip(&plan.schedule.done).map(|(job, done)| (*done, done_view(plan, job, *done))).collect();
        jobs.sort_by_key(|(done, _)| *done);
        let jobs: Vec<DoneView> = jobs.into_iter().map(|(_, view)| view).collect();
        Ok(Self {
            picture,
            day,
            earlier: drawn.earlier,
            later: drawn.later,
            people: people(plan),
            pins: plan.pins.iter().filter_map(|pin| pin_view(plan, pin)).collect(),
            late: jobs.iter().filter(|job| job.late).count(),
            jobs,
            waiting: plan.waiting.clone(),
        })
    }
}

fn done_view(plan: &BenchPlan, job: &crate::scheduling::PlannedJob, done: i64) -> DoneView {
    DoneView {
        id: job.id,
        device: job.device.clone(),
        done: plan.hours.in_words(done),
        due: if job.due_day.is_empty() { "no day".to_owned() } else { job.due_day.clone() },
        late: job.due.is_some_and(|due| done > due),
    }
}

fn people(plan: &BenchPlan) -> Vec<PersonDayView> {
    let next = plan.next_tasks();
    let view = |(k, worker): (usize, &mend_core::shop::schedule::workload::Worker)| {
        let task = next.get(&k).map(|(job, task)| (&plan.jobs[*job], plan.task_name(*job, *task)));
        PersonDayView {
            name: worker.name.clone(),
            href: format!("/schedule/{}/calendar", plan.people[k].as_ref().map_or(0, |row| row.id)),
            next: task.map_or("nothing".to_owned(), |(job, name)| format!("{name}: {}, job {}", job.device, job.id)),
            next_href: task.map_or(String::new(), |(job, _)| format!("/jobs/{}", job.id)),
        }
    };
    plan.workload.workers.iter().enumerate().map(view).collect()
}

fn pin_view(plan: &BenchPlan, pin: &TaskPinRow) -> Option<PinView> {
    plan.place_of(pin.job)?;
    let who = plan.people.iter().flatten().find(|row| Some(row.id) == pin.person).map(|row| format!("to {}", row.name));
    let when = pin.not_before_ms.map(|ms| format!("not before {}", plan.hours.in_words(plan.hours.minute(ms))));
    let says = who.into_iter().chain(when).collect::<Vec<_>>().join(", ");
    Some(PinView { job: pin.job, task: pin.task.clone(), name: TaskKind::named(&pin.task)?.name, says })
}

/// From which open day on; left out: from now.
#[derive(Deserialize)]
pub(crate) struct FromDay {
    #[serde(default)]
    day: usize,
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Query(from): Query<FromDay>,
) -> Result<SchedulePage, Refusal> {
    let part = SchedulePart::new(&*bench_plan(&app).await?, from.day)?;
    Ok(SchedulePage { frame: Frame::new("Schedule", visitor.scale, "schedule", "/schedule".to_owned()), part })
}

/// Where a task was put: into a lane, and at a place of the axis or by so many minutes. Neither: it is free again.
#[derive(Deserialize)]
pub(crate) struct PinForm {
    job: i64,
    task: String,
    lane: Option<usize>,
    /// A place on the axis, in the picture's own units.
    x: Option<f64>,
    /// Not before, min from now.
    from: Option<i64>,
    /// The open day that is drawn first.
    #[serde(default)]
    day: usize,
}

pub(crate) async fn pin(State(app): State<App>, Form(sent): Form<PinForm>) -> Result<SchedulePart, Refusal> {
    let plan = bench_plan(&app).await?;
    plan.place_of(sent.job).ok_or(Refusal::NotFound("job on the schedule"))?;
    let kind = TaskKind::named(&sent.task).ok_or(Refusal::NotFound("task"))?;
    let from = sent.x.filter(|x| x.is_finite()).map(|x| OpenAxis::new(&plan.hours, sent.day).minute(x)).or(sent.from);
    // What is put before now is put to nobody's hour.
    let not_before_ms =
        from.filter(|minute| *minute > 0).map(|minute| plan.hours.moment(minute).timestamp().as_millisecond());
    let person = sent.lane.and_then(|lane| plan.people.get(lane)).and_then(|person| person.as_ref()).map(|row| row.id);
    let row = TaskPinRow { job: sent.job, task: kind.key.to_owned(), person, not_before_ms };
    app.writing(move |write| write.pin_task(&row)).await?;
    SchedulePart::new(&*bench_plan(&app).await?, sent.day)
}
