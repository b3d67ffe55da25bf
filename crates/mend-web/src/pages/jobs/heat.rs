//! The heat plan: settings on the left, what comes of them on the right. What is set is kept before it is computed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::{HeaderName, StatusCode};
use axum::response::{IntoResponse, Response};
use mend_core::finding::Finding;
use mend_core::heat::tool::Station;
use mend_core::planning::plan::Plan as CorePlan;
use mend_core::shop::Stop;
use mend_formats::shop::PlanInputs;

use super::heat_edit::Bench;
use super::heat_form::{Sent, Settings, Shop};
use super::heat_said::{Said, said};
use super::{JobPath, number};
use crate::App;
use crate::computing::{Key, Part};
use crate::extract::Form;
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::planner::{Ordered, first_inputs, keep_settings, planning, station_named, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Where the plan is, or why there is none.
type Plan = Result<Part<Box<Said>>, Vec<Finding>>;

/// The part of the page that a change of settings replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_plan.html")]
struct HeatPlan {
    head: JobHead,
    oob: bool,
    plan: Plan,
    job: i64,
}

/// Form and plan: what a button that changes the form replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_all.html")]
struct HeatAll {
    head: JobHead,
    oob: bool,
    settings: Settings,
    solder: String,
    plan: Plan,
    job: i64,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat.html")]
struct HeatPage {
    frame: Frame,
    all: HeatAll,
}

/// Everything a handler of this page starts from.
struct Room {
    app: App,
    visitor: Visitor,
    job: Job,
    stations: Vec<Station>,
}

impl Room {
    async fn enter((app, visitor): (App, Visitor), path: &JobPath) -> Result<Self, Refusal> {
        let job = Job::load(&app, number(path)?).await?;
        job.board()?;
        let mut stations = stations(&app).await?;
        // The station that the job is set to is offered as well, retired or renamed as it may be.
        let set = job.inputs().map(|inputs| inputs.station);
        if let Some(name) = set.filter(|name| stations.iter().all(|station| station.name != *name))
            && let Ok(named) = station_named(&app, &name).await
            && !stations.contains(&named.station)
        {
            stations.push(named.station);
        }
        Ok(Self { app, visitor, job, stations })
    }

    /// What the form says, with what other rooms say: what the joints hold, and the method.
    fn completed(&self, inputs: PlanInputs) -> PlanInputs {
        let method = self.job.inputs().and_then(|inputs| inputs.method);
        PlanInputs { method, ..inputs.with(&self.job.charge_file()) }
    }

    /// As entered or planned, else a first setting.
    fn inputs(&self) -> Result<PlanInputs, Refusal> {
        let first = || Some(first_inputs(&self.job.board().ok()?.1, &self.stations)?.with(&self.job.charge_file()));
        self.job.inputs().or_else(first).ok_or(Refusal::NoStation)
    }

    async fn plan(&self, inputs: &PlanInputs) -> Result<Plan, Refusal> {
        let board = &self.job.board()?.1;
        let shown = planning(&self.app, &self.job, inputs).await.and_then(|stand| {
            let station = self.stations.iter().find(|s| s.name == inputs.station);
            stand.shown(|planned| Box::new(said((board, station), &planned, self.visitor.scale)))
        });
        or_objections(shown)
    }

    async fn plan_key(&self) -> Result<Key<CorePlan>, Refusal> {
        Ordered::of(&self.app, &self.job, &self.inputs()?).await?.plan_key()
    }

    /// The head as it is after what has just been kept.
    async fn head(&self) -> Result<JobHead, Refusal> {
        let job = Job::load(&self.app, self.job.row.id).await?;
        Ok(JobHead::of(&job, Some(Stop::Heat), self.app.now().date()))
    }

    /// Keeps what was set, and plans it; what can't be planned is not kept.
    async fn keep_and_plan(&self, inputs: &PlanInputs) -> Result<Plan, Refusal> {
        match or_objections(keep_settings(&self.app, &self.job, inputs).await)? {
            Err(findings) => Ok(Err(findings)),
            Ok(()) => self.plan(inputs).await,
        }
    }

    async fn all(&self, inputs: &PlanInputs, plan: Plan) -> Result<HeatAll, Refusal> {
        let shop = Shop { stations: &self.stations, board: &self.job.board()?.1, scale: self.visitor.scale };
        let settings = Settings::of(inputs, &shop);
        Ok(HeatAll {
            head: self.head().await?,
            oob: true,
            settings,
            solder: solder(inputs),
            plan,
            job: self.job.row.id,
        })
    }

    async fn only_plan(&self, plan: Plan) -> Result<Response, Refusal> {
        let status = if plan.is_err() { StatusCode::UNPROCESSABLE_ENTITY } else { StatusCode::OK };
        Ok((status, HeatPlan { head: self.head().await?, oob: true, plan, job: self.job.row.id }).into_response())
    }
}

/// Objections to what was set are shown in place of the plan; any other refusal is a page of its own.
fn or_objections<T>(result: Result<T, Refusal>) -> Result<Result<T, Vec<Finding>>, Refusal> {
    match result {
        Err(Refusal::Bad(findings)) => Ok(Err(findings)),
        other => other.map(Ok),
    }
}

/// What the joints hold, in a line.
fn solder(inputs: &PlanInputs) -> String {
    match inputs.feed.as_ref().filter(|feed| feed.is_used()) {
        Some(feed) => format!("{}, fed {:.0} % {}", inputs.alloy, feed.share * 100.0, feed.alloy),
        None => inputs.alloy.clone(),
    }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    let inputs = room.inputs()?;
    let all = HeatAll { oob: false, ..room.all(&inputs, room.plan(&inputs).await?).await? };
    let here = format!("/jobs/{}/heat", room.job.row.id);
    let frame = Frame::new(room.job.device(), room.visitor.scale, "bench", here);
    Ok(HeatPage { frame, all }.into_response())
}

/// A field was changed.
pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(fields): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    let plan = match Sent::new(fields, room.visitor.scale).inputs() {
        Err(findings) => Err(findings),
        Ok(inputs) => room.keep_and_plan(&room.completed(inputs)).await?,
    };
    room.only_plan(plan).await
}

/// A button was pressed that changes what there is to set.
pub(crate) async fn edit(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(fields): Form<Vec<(String, String)>>,
) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    let sent = Sent::new(fields, room.visitor.scale);
    let act = sent.act().unwrap_or_default().to_owned();
    let mut inputs = match sent.inputs() {
        Ok(inputs) => room.completed(inputs),
        Err(findings) => {
            // The form stays as it was typed; only what can't be read is said.
            let refused = room.only_plan(Err(findings)).await?;
            return Ok(([(HeaderName::from_static("hx-retarget"), "#plan")], refused).into_response());
        }
    };
    let bench = Bench {
        board: &room.job.board()?.1,
        station: room.stations.iter().find(|s| s.name == inputs.station),
        plan: room.job.planned.as_ref().map(|planned| &planned.plan),
    };
    bench.edit(&mut inputs.settings, &act);
    let plan = room.keep_and_plan(&inputs).await?;
    Ok(room.all(&inputs, plan).await?.into_response())
}

/// How far is it?
pub(crate) async fn poll(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    let plan = room.plan(&room.inputs()?).await?;
    room.only_plan(plan).await
}

/// Nobody wants it any more.
pub(crate) async fn cancel(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    room.app.computing.cancel(&room.plan_key().await?);
    room.only_plan(Ok(Part::Cancelled)).await
}

/// Now it is wanted after all.
pub(crate) async fn again(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let room = Room::enter((app, visitor), &path).await?;
    room.app.computing.forget(&room.plan_key().await?);
    let plan = room.plan(&room.inputs()?).await?;
    room.only_plan(plan).await
}
