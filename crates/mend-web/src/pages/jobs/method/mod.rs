//! The method stop: the families side by side, one recommended, any to be chosen.
//!
//! - this file: the page with its lanes; [`said`]: their table; [`family`]: one of them with its search; [`what_if`]: a plan with one thing changed; [`card`]: the steps to print

pub(crate) mod card;
pub(crate) mod comparison_view;
pub(crate) mod elsewhere;
pub(crate) mod family;
pub(crate) mod what_if;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::board::KeepIntact;
use mend_core::method::techniques::Techniques;
use mend_core::method::{MethodChoice, MethodFamily};
use mend_core::planning::compare::Comparison;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::shop::Stop;
use serde::Deserialize;

use self::comparison_view::{ComparisonOfJob, ComparisonView};
use super::{JobPath, number};
use crate::App;
use crate::computing::Progress;
use crate::extract::Form;
use crate::job::Job;
use crate::methods::{MethodInputs, choose, comparing};
use crate::pages::{Frame, JobHead};
use crate::planner::keep_settings;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The part that is computed.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/lanes.html")]
pub(crate) struct LanesPart {
    part: Progress<Box<ComparisonView>>,
    job: i64,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/page.html")]
struct MethodPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    keep_intact: KeepIntact,
    /// Is that a choice in this kind of job?
    keeps_what_is_chosen: bool,
    part: Progress<Box<ComparisonView>>,
    equipment: String,
}

async fn lanes(
    app: &App,
    visitor: Visitor,
    job: &Job,
    weighed: &MethodInputs,
) -> Result<Progress<Box<ComparisonView>>, Refusal> {
    let stand = comparing(app, job, weighed).await;
    let chosen = weighed.inputs.method.as_ref().map(|choice| choice.family);
    stand.shown(|comparison| {
        let of = ComparisonOfJob { job, subject: &weighed.subject(), comparison: &comparison, chosen };
        Box::new(ComparisonView::from_comparison(of, visitor.words()))
    })
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let weighed = MethodInputs::load(&app, &job).await?;
    let part = lanes(&app, visitor, &job, &weighed).await?;
    let page = MethodPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/method", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Method), app.now().date()),
        oob: false,
        job: job.row.id,
        keep_intact: weighed.inputs.keep_intact,
        keeps_what_is_chosen: job.kind().keep_intact().is_none(),
        part,
        equipment: crate::pages::equipment::summary(&job.equipment),
    };
    Ok(page.into_response())
}

/// How far is it?
pub(crate) async fn poll(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<LanesPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let weighed = MethodInputs::load(&app, &job).await?;
    Ok(LanesPart { part: lanes(&app, visitor, &job, &weighed).await?, job: job.row.id })
}

pub(crate) async fn cancel(State(app): State<App>, path: JobPath) -> Result<LanesPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    app.computing.cancel(&MethodInputs::load(&app, &job).await?.comparison_key());
    Ok(LanesPart { part: Progress::Cancelled, job: job.row.id })
}

/// Now it is wanted after all.
pub(crate) async fn again(state: State<App>, visitor: Visitor, path: JobPath) -> Result<LanesPart, Refusal> {
    let job = Job::load(&state.0, number(&path)?).await?;
    state.0.computing.forget(&MethodInputs::load(&state.0, &job).await?.comparison_key());
    poll(state, visitor, path).await
}

#[derive(Deserialize)]
pub(crate) struct KeepIntactForm {
    keep_intact: String,
}

/// What is to be kept intact was chosen: limits, recommendation and steps follow.
pub(crate) async fn live(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<KeepIntactForm>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let unknown = || {
        Refusal::field("keep_intact", format!("“{}” is none of the answers", sent.keep_intact), "board, part or both")
    };
    let keep_intact = KeepIntact::named(&sent.keep_intact).ok_or_else(unknown)?;
    let mut inputs = MethodInputs::load(&app, &job).await?.inputs;
    inputs.keep_intact = keep_intact;
    keep_settings(&app, &job, &inputs).await?;
    Ok(Redirect::to(&format!("/jobs/{}/method", job.row.id)))
}

/// A family was chosen: its settings become the heat plan's, its feed the alloy stop's. `settings` is `search` for those of
/// its thorough search, else they are its lane's; questions on which techniques differ are answered by their keys.
pub(crate) async fn take(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let get = |name: &str| sent.iter().find(|(field, _)| field == name).map(|(_, value)| value.as_str());
    let job = Job::load(&app, number(&path)?).await?;
    let named = get("family").unwrap_or_default();
    let unknown = || Refusal::field("family", format!("“{named}” is no family of methods"), "choose a lane");
    let family = MethodFamily::named(named).ok_or_else(unknown)?;
    let weighed = MethodInputs::load(&app, &job).await?;
    let choice = MethodChoice { family, techniques: Techniques::read(get) };
    let inputs = match get("settings") {
        Some("search") => family::found(&app, &job, &weighed, &choice).await?,
        _ => of_lane(&app, &job, &weighed, &choice).await?,
    };
    choose(&app, &job, &inputs).await?;
    Ok(Redirect::to(&format!("/jobs/{}/heat", job.row.id)))
}

async fn of_lane(app: &App, job: &Job, weighed: &MethodInputs, choice: &MethodChoice) -> Result<PlanInputs, Refusal> {
    let Progress::Ready(comparison) = comparing(app, job, weighed).await.shown(|comparison| comparison)? else {
        return Err(Refusal::NotYet("The methods are still being compared"));
    };
    let lane = comparison.lane(choice.family).ok_or(Refusal::NotYet("This family does not apply here"))?;
    Ok(weighed.inputs_of(choice, &lane.composition, &lane.plan.recipe))
}

/// What a comparison says of one family.
fn reasons(comparison: &Comparison, family: MethodFamily) -> Option<&mend_core::method::fit::Fit> {
    let lane = comparison.lane(family).map(|lane| &lane.fit);
    lane.or(comparison.ruled_out.iter().find(|ruled| ruled.family == family).map(|ruled| &ruled.fit))
}
