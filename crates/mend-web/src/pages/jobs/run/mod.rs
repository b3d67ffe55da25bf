//! The bench run: full screen, one key to go on. Every press is kept with its moment; a reload shows the same second.
//!
//! - this file: the pages; [`view`]: the present step as it is laid out; [`twin`]: what is likely while the air is on, with the
//!   [`readings`] of a thermometer; [`readout`]: what the station says of itself; [`renew`]: when few of its runs agree with them; [`events`]: what is entered at the bench

pub(crate) mod events;
mod readings;
mod readout;
mod renew;
pub(crate) mod twin;
mod view;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::planning::margin::MarginKind;
use mend_core::planning::plan::Plan;
use mend_core::shop::Stop;
use mend_store::NewRun;
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::arrived::Arrived;
use crate::extract::Form;
use crate::jet_drift::drift_of;
use crate::job::{HeatWork, Job};
use crate::pages::{Frame, JobHead, window_word};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words;
use crate::words::practice::goal_choice;
pub(crate) use view::StepView;
pub(in crate::pages::jobs) use view::{in_words, stamp};

#[derive(Template, WebTemplate)]
#[template(path = "jobs/run.html")]
struct RunPage {
    frame: Frame,
    step: StepView,
}

/// Where the bench's thermometer may be taped.
struct TapePlace {
    /// The component; empty: beside the part.
    on: String,
    words: String,
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
    /// Where its heat is planned.
    plan_at: String,
    /// Does a new part go on after this heat?
    fits_after: bool,
    /// When the joints of the new part are liquid; none: its fit is not planned.
    fit: Option<String>,
    release: String,
    stop: String,
    window: &'static str,
    limited_by: String,
    /// Of the station's jet, if it is no longer what it was.
    drift: String,
    /// The bench's thermometer, and where it may be taped; empty where there is none.
    thermometer: String,
    places: Vec<TapePlace>,
    /// What a part is taken for and was not told from yet; empty: nothing.
    untold: String,
    /// What of it can be rehearsed: as a form sends it, and in words.
    rehearses: Vec<(String, &'static str)>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/run", job.row.id));
    match &job.bench {
        Some(bench) => {
            let step = StepView::from_run(&job, bench, &app.moment(), visitor);
            Ok(RunPage { frame, step }.into_response())
        }
        None => Ok(ready(&app, frame, visitor, &job).await?.into_response()),
    }
}

async fn ready(app: &App, frame: Frame, visitor: Visitor, job: &Job) -> Result<ReadyPage, Refusal> {
    let planned = job.bench_plan();
    let plan = planned.map(|p| &p.plan);
    let thermometer = app.reading(|read| read.bench_instrument("thermometer")).await?.map(|row| row.name);
    let drift = match planned {
        Some(planned) => drift_of(app, &planned.inputs).await.unwrap_or_default(),
        None => String::new(),
    };
    Ok(ReadyPage {
        frame,
        head: JobHead::from_job(job, Some(Stop::Run), app.now().date()),
        oob: false,
        job: job.row.id,
        planned: plan.is_some(),
        plan_at: job.bench_work().address(job.row.id),
        fits_after: job.kind().removes() && job.kind().fits(),
        fit: job.current_plan_of(HeatWork::Fit).map(|fit| words::release(&fit.plan.release)),
        release: plan.map_or("may not melt".to_owned(), |p| words::release(&p.release)),
        stop: plan.map_or(String::new(), |p| format!("{:.0} s", p.abort.at_s)),
        window: plan.map_or("", |p| window_word(p.window)),
        limited_by: plan.map_or(String::new(), |p| visitor.words().limited_by(&p.limited_by)),
        drift,
        rehearses: job.rehearsals().into_iter().map(goal_choice).collect(),
        untold: job.untold().unwrap_or_default(),
        places: thermometer.as_ref().map_or(Vec::new(), |_| tape_places(job, plan)),
        thermometer: thermometer.unwrap_or_default(),
    })
}

/// Beside the part, or onto a component, the one with the least room first.
fn tape_places(job: &Job, plan: Option<&Plan>) -> Vec<TapePlace> {
    let Ok((_, board)) = job.board() else { return Vec::new() };
    let nearest = plan.and_then(|plan| {
        let mut bodies =
            plan.margins.iter().filter(|margin| margin.kind == MarginKind::Component && !margin.expendable);
        bodies.find_map(|margin| board.components.iter().find(|part| part.name == margin.name))
    });
    let beside = TapePlace { on: String::new(), words: "beside the part".to_owned() };
    let on = |name: &str, more: &str| TapePlace { on: name.to_owned(), words: format!("on {name}{more}") };
    let first = nearest.map(|part| on(&part.name, ", nearest to its limit"));
    let rest = board.components.iter().filter(|part| nearest.is_none_or(|nearest| nearest.name != part.name));
    [beside].into_iter().chain(first).chain(rest.map(|part| on(&part.name, ""))).collect()
}

/// How a run is opened.
#[derive(Deserialize)]
pub(crate) struct Opening {
    /// What the bench's thermometer is taped onto; empty: beside the part.
    #[serde(default)]
    taped_on: String,
}

/// Opens a run on the present plan and stores its steps with it, unless one is under way.
pub(crate) async fn start(
    State(app): State<App>,
    Arrived(opened): Arrived,
    path: JobPath,
    Form(opening): Form<Opening>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let id = job.row.id;
    if job.has_run && job.bench.is_none() {
        return Err(Refusal::NotYet("This job's bench run can't be read: restore a backup before another is begun"));
    }
    if job.bench.as_ref().is_none_or(|bench| bench.is_done()) {
        if let Some(untold) = job.untold() {
            return Err(Refusal::Outdated(format!("{untold}. Check it on the job's Parts page before the heat")));
        }
        let planned = job.bench_plan().ok_or(Refusal::NotYet("There is no heat plan for this alloy yet"))?;
        let steps = planned.steps(&job.workplace()?, &planned.inputs.composition()?);
        let known = job.board()?.1.components.iter().any(|part| part.name == opening.taped_on);
        let taped_on = if known { opening.taped_on } else { String::new() };
        let steps = Some(serde_json::to_string(&steps)?);
        let run = NewRun { job_id: id, plan_id: planned.id, opened, steps, taped_on };
        app.changing(id, move |w| w.add_run(&run)).await?;
        twin::prepare(&app, Job::load(&app, id).await?);
    }
    Ok(Redirect::to(&format!("/jobs/{id}/run")))
}
