//! The bench run: full screen, one key to go on. Every press is kept with its moment; a reload shows the same second.
//!
//! - this file: the pages; [`view`]: the present step as it is laid out; [`twin`]: what is likely while the air is on, with the
//!   [`readings`] of a thermometer;
//!   [`events`]: what is entered at the bench

pub(crate) mod events;
mod readings;
pub(crate) mod twin;
mod view;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::shop::Stop;
use mend_store::NewRun;

use super::{JobPath, number};
use crate::App;
use crate::arrived::Arrived;
use crate::job::{HeatWork, Job};
use crate::pages::{Frame, JobHead, window_word};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words;
pub(crate) use view::StepView;
pub(in crate::pages::jobs) use view::{in_words, stamp};

#[derive(Template, WebTemplate)]
#[template(path = "jobs/run.html")]
struct RunPage {
    frame: Frame,
    step: StepView,
}

/// Before the first press.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/run_ready.html")]
struct ReadyPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    planned: bool,
    /// When the joints of the new part are liquid; none: its fit is not planned.
    fit: Option<String>,
    release: String,
    stop: String,
    window: &'static str,
    limited_by: String,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/run", job.row.id));
    match &job.bench {
        Some(bench) => {
            let step = StepView::from_run((&job, bench), &app.moment(), visitor);
            Ok(RunPage { frame, step }.into_response())
        }
        None => Ok(ready(&app, (frame, visitor), &job).into_response()),
    }
}

fn ready(app: &App, (frame, visitor): (Frame, Visitor), job: &Job) -> ReadyPage {
    let plan = job.current_plan().map(|p| &p.plan);
    ReadyPage {
        frame,
        head: JobHead::from_job(job, Some(Stop::Run), app.now().date()),
        oob: false,
        job: job.row.id,
        planned: plan.is_some(),
        fit: job.current_plan_of(HeatWork::Fit).map(|fit| words::release(&fit.plan.release)),
        release: plan.map_or("may not melt".to_owned(), |p| words::release(&p.release)),
        stop: plan.map_or(String::new(), |p| format!("{:.0} s", p.abort.at_s)),
        window: plan.map_or("", |p| window_word(p.window)),
        limited_by: plan.map_or(String::new(), |p| visitor.words().limited_by(&p.limited_by)),
    }
}

/// Opens a run on the present plan and stores its steps with it, unless one is under way.
pub(crate) async fn start(
    State(app): State<App>,
    Arrived(opened): Arrived,
    path: JobPath,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let id = job.row.id;
    if job.has_run && job.bench.is_none() {
        return Err(Refusal::NotYet("This job's bench run can't be read: restore a backup before another is begun"));
    }
    if job.bench.as_ref().is_none_or(|bench| bench.is_done()) {
        let planned = job.current_plan().ok_or(Refusal::NotYet("There is no heat plan for this alloy yet"))?;
        let steps = planned.steps(&job.workplace()?, &planned.inputs.composition()?);
        let run = NewRun { job_id: id, plan_id: planned.id, opened, steps: Some(serde_json::to_string(&steps)?) };
        app.changing(id, move |w| w.add_run(&run)).await?;
        twin::prepare(&app, Job::load(&app, id).await?);
    }
    Ok(Redirect::to(&format!("/jobs/{id}/run")))
}
