//! The heat plan: settings on the left, what comes of them on the right. What is set is kept before it is computed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode};
use axum::response::{IntoResponse, Response};
use mend_core::heat::purpose::Purpose;
use mend_core::heat::station::Station;
use mend_core::planning::plan::Plan as CorePlan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::shop::Stop;

use super::heat_edit::EditContext;
use super::heat_form::{FormContext, Settings};
use super::heat_input::FormInput;
use super::heat_path::HeatPath;
use super::heat_view::{HeatView, ViewQuery};
use super::plan_view::{PlanView, plan_view};
use crate::App;
use crate::computing::{Key, Progress};
use crate::extract::{Form, Query};
use crate::jet_drift::drift_of;
use crate::job::{HeatWork, Job, Planned};
use crate::pages::{Frame, JobHead};
use crate::planner::{Ordered, inputs_or_first, keep_settings, planning, station_named, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// Where the plan is, or why there is none.
type PlanResult = Result<Progress<Box<PlanView>>, Vec<FindingView>>;

/// The part of the page that a change of settings replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_plan.html")]
struct HeatPlan {
    head: JobHead,
    oob: bool,
    plan: PlanResult,
    job: i64,
    /// What the addresses of this run of heat begin with.
    base: String,
    work: HeatWork,
    view: HeatView,
}

/// Form and plan: what a button that changes the form replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_all.html")]
struct HeatAll {
    head: JobHead,
    oob: bool,
    settings: Settings,
    solder: String,
    plan: PlanResult,
    job: i64,
    /// What the addresses of this run of heat begin with.
    base: String,
    work: HeatWork,
    view: HeatView,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat.html")]
struct HeatPage {
    frame: Frame,
    all: HeatAll,
}

/// Everything a handler of this page starts from.
struct JobHeat {
    app: App,
    visitor: Visitor,
    job: Job,
    stations: Vec<Station>,
    path: HeatPath,
    view: HeatView,
}

impl JobHeat {
    async fn enter(app: App, visitor: Visitor, path: HeatPath, view: HeatView) -> Result<Self, Refusal> {
        let job = Job::load(&app, path.job).await?;
        job.board()?;
        let mut stations = stations(&app).await?;
        // The station that the job is set to is offered as well, retired or renamed as it may be.
        let set = job.inputs_of(path.work).map(|inputs| inputs.station);
        if let Some(name) = set.filter(|name| stations.iter().all(|station| station.name != *name))
            && let Ok(named) = station_named(&app, &name).await
            && !stations.contains(&named.station)
        {
            stations.push(named.station);
        }
        Ok(Self { app, visitor, job, stations, path, view })
    }

    /// What the form says, with what other rooms say: what the joints hold, and the method.
    fn completed(&self, inputs: PlanInputs) -> PlanInputs {
        let method = self.job.inputs_of(self.path.work).and_then(|inputs| inputs.method);
        // The address says which of the two runs is set, whatever a form says.
        let purpose = match self.path.work {
            HeatWork::Removal => Purpose::Remove,
            HeatWork::Fit if inputs.purpose.fits() => inputs.purpose,
            HeatWork::Fit => Purpose::Fit,
        };
        self.job.of_its_kind(PlanInputs { method, purpose, ..inputs.with(&self.job.composition_entry()) })
    }

    fn inputs(&self) -> Result<PlanInputs, Refusal> {
        inputs_or_first(&self.job, self.path.work, &self.stations)
    }

    async fn plan(&self, inputs: &PlanInputs) -> Result<PlanResult, Refusal> {
        let board = &self.job.board()?.1;
        let drift = drift_of(&self.app, inputs).await.unwrap_or_default();
        let shown = planning(&self.app, &self.job, inputs).await.and_then(|stand| {
            let station = self.stations.iter().find(|s| s.name == inputs.station);
            let view = |planned: &Planned| PlanView { drift, ..plan_view(board, station, planned, self.visitor.scale) };
            stand.shown(|planned| Box::new(view(&planned)))
        });
        self.or_findings(shown)
    }

    async fn plan_key(&self) -> Result<Key<CorePlan>, Refusal> {
        Ordered::load(&self.app, &self.job, &self.inputs()?).await?.plan_key()
    }

    /// The head as it is after what has just been kept.
    async fn head(&self) -> Result<JobHead, Refusal> {
        let job = Job::load(&self.app, self.job.row.id).await?;
        Ok(JobHead::from_job(&job, Some(Stop::Heat), self.app.now().date()))
    }

    /// Keeps what was set, and plans it; what can't be planned is not kept.
    async fn keep_and_plan(&self, inputs: &PlanInputs) -> Result<PlanResult, Refusal> {
        match self.or_findings(keep_settings(&self.app, &self.job, inputs).await)? {
            Err(findings) => Ok(Err(findings)),
            Ok(()) => self.plan(inputs).await,
        }
    }

    async fn all(&self, inputs: &PlanInputs, plan: PlanResult) -> Result<HeatAll, Refusal> {
        let (board, scale) = (&self.job.board()?.1, self.visitor.scale);
        let shop = FormContext { stations: &self.stations, board, scale, kind: self.job.kind() };
        let settings = Settings::from_inputs(inputs, &shop);
        Ok(HeatAll {
            head: self.head().await?,
            oob: true,
            settings,
            solder: solder(inputs),
            plan,
            job: self.job.row.id,
            base: self.path.address(),
            work: self.path.work,
            view: self.view,
        })
    }

    /// Findings about what was set are shown in place of the plan; any other refusal is a page of its own.
    fn or_findings<T>(&self, result: Result<T, Refusal>) -> Result<Result<T, Vec<FindingView>>, Refusal> {
        match result {
            Err(Refusal::Bad(findings)) => Ok(Err(self.visitor.words().findings(&findings))),
            other => other.map(Ok),
        }
    }

    /// The plan of the present settings, or how far it is.
    async fn present_plan(&self) -> Result<Response, Refusal> {
        let plan = self.plan(&self.inputs()?).await?;
        self.only_plan(plan).await
    }

    async fn only_plan(&self, plan: PlanResult) -> Result<Response, Refusal> {
        let status = if plan.is_err() { StatusCode::UNPROCESSABLE_ENTITY } else { StatusCode::OK };
        let (head, job, base, work) = (self.head().await?, self.job.row.id, self.path.address(), self.path.work);
        Ok((status, HeatPlan { head, oob: true, plan, job, base, work, view: self.view }).into_response())
    }
}

/// What the joints hold, in a line.
fn solder(inputs: &PlanInputs) -> String {
    if inputs.purpose.fits() {
        return format!("{} and what cleaning leaves", inputs.refit.as_ref().unwrap_or(&inputs.alloy));
    }
    match inputs.feed.as_ref().filter(|feed| feed.is_used()) {
        Some(feed) => format!("{}, fed {:.0} % {}", inputs.alloy, feed.mixing_fraction * 100.0, feed.alloy),
        None => inputs.alloy.clone(),
    }
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Query(asked): Query<ViewQuery>,
) -> Result<Response, Refusal> {
    let job_heat = JobHeat::enter(app, visitor, path, asked.view()).await?;
    let inputs = job_heat.inputs()?;
    let all = HeatAll { oob: false, ..job_heat.all(&inputs, job_heat.plan(&inputs).await?).await? };
    let here = job_heat.view.address(&job_heat.path.address());
    let frame = Frame::new(job_heat.job.device(), job_heat.visitor.scale, "bench", here);
    Ok(HeatPage { frame, all }.into_response())
}

/// A field was changed.
pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Form(fields): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let job_heat = JobHeat::enter(app, visitor, path, HeatView::from_form(&fields)).await?;
    let plan = match FormInput::new(fields, job_heat.visitor.scale).inputs() {
        Err(findings) => Err(job_heat.visitor.words().findings(&findings)),
        Ok(inputs) => job_heat.keep_and_plan(&job_heat.completed(inputs)).await?,
    };
    job_heat.only_plan(plan).await
}

/// A button was pressed that changes what there is to set.
pub(crate) async fn edit(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Form(fields): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let job_heat = JobHeat::enter(app, visitor, path, HeatView::from_form(&fields)).await?;
    let sent = FormInput::new(fields, job_heat.visitor.scale);
    let act = sent.act().unwrap_or_default().to_owned();
    let mut inputs = match sent.inputs() {
        Ok(inputs) => job_heat.completed(inputs),
        Err(findings) => {
            // The form stays as it was typed; only what can't be read is said.
            let findings = job_heat.visitor.words().findings(&findings);
            let refused = job_heat.only_plan(Err(findings)).await?;
            return Ok(([(HeaderName::from_static("hx-retarget"), "#plan")], refused).into_response());
        }
    };
    let bench = EditContext {
        board: &job_heat.job.board()?.1,
        station: job_heat.stations.iter().find(|s| s.name == inputs.station),
        plan: job_heat.job.newest_plan_of(job_heat.path.work).map(|planned| &planned.plan),
    };
    bench.edit(&mut inputs.settings, &act);
    let plan = job_heat.keep_and_plan(&inputs).await?;
    Ok(job_heat.all(&inputs, plan).await?.into_response())
}

/// How far is it?
pub(crate) async fn poll(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Query(asked): Query<ViewQuery>,
) -> Result<Response, Refusal> {
    JobHeat::enter(app, visitor, path, asked.view()).await?.present_plan().await
}

/// Nobody wants it any more.
pub(crate) async fn cancel(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Query(asked): Query<ViewQuery>,
) -> Result<Response, Refusal> {
    let job_heat = JobHeat::enter(app, visitor, path, asked.view()).await?;
    job_heat.app.computing.cancel(&job_heat.plan_key().await?);
    job_heat.only_plan(Ok(Progress::Cancelled)).await
}

/// Now it is wanted after all.
pub(crate) async fn again(
    State(app): State<App>,
    visitor: Visitor,
    path: HeatPath,
    Query(asked): Query<ViewQuery>,
) -> Result<Response, Refusal> {
    let job_heat = JobHeat::enter(app, visitor, path, asked.view()).await?;
    job_heat.app.computing.forget(&job_heat.plan_key().await?);
    job_heat.present_plan().await
}
