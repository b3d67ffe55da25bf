//! What if: the present plan with one thing changed, beside it, kept by name.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::planning::change::Change;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::plan::Plan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::what_if::{WhatIfChange, changes};
use mend_core::shop::Stop;
use mend_core::units::Scale;
use mend_core::watch::Watch;
use mend_formats::comparison::feed;
use mend_formats::shop::read_inputs;
use mend_store::{NewVariant, VariantRow};
use serde::Deserialize;

use super::super::{JobPath, number};
use super::comparison_view::release;
use super::elsewhere::others;
use crate::App;
use crate::computing::Stand;
use crate::extract::Form;
use crate::job::{Job, Planned};
use crate::methods::{choose, varying};
use crate::pages::{Frame, JobHead, window_word};
use crate::planner::{Ordered, written};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{Words, damaged, of_samples};

/// A job keeps so many; more are no help to choose from.
const MOST: usize = 8;
/// Longest name, characters.
const LONGEST: usize = 80;

/// A plan in a column.
struct Column {
    id: Option<i64>,
    name: String,
    /// None while it is computed, with how far it is.
    view: Option<VariantView>,
    percent: u32,
}

struct VariantView {
    window: &'static str,
    chance: String,
    release: String,
    tightest: String,
    margin: String,
    /// Against the present plan: better, worse or alike, with the figures.
    against: String,
    better: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/variants.html")]
pub(crate) struct VariantsPart {
    columns: Vec<Column>,
    running: bool,
    job: i64,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/method/what_if.html")]
struct WhatIfPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    changes: Vec<ChangeOption>,
    full: bool,
    /// The shop's other stations.
    elsewhere: Vec<String>,
    columns: Vec<Column>,
    running: bool,
}

/// A change to choose: as it is sent, and in words.
struct ChangeOption {
    value: String,
    words: String,
}

impl ChangeOption {
    fn from_change(change: &Change, visitor: Visitor) -> Result<Self, Refusal> {
        Ok(Self { value: serde_json::to_string(change)?, words: visitor.words().change(change) })
    }
}

/// The present plan, or a refusal.
pub(super) fn present(job: &Job) -> Result<&Planned, Refusal> {
    job.current_plan().ok_or(Refusal::NotYet("There is no heat plan to change yet"))
}

async fn changes_of(app: &App, job: &Job) -> Result<Vec<WhatIfChange>, Refusal> {
    let bundle = Ordered::load(app, job, &present(job)?.inputs).await?.bundle;
    Ok(changes(&bundle.subject(), &bundle.order(&Watch::new())))
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let VariantsPart { columns, running, .. } = columns(&app, visitor, &job).await?;
    let page = WhatIfPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/what-if", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Heat), app.now().date()),
        oob: false,
        job: job.row.id,
        changes: changes_of(&app, &job)
            .await?
            .iter()
            .map(|change| ChangeOption::from_change(&change.what, visitor))
            .collect::<Result<_, _>>()?,
        elsewhere: others(&app, &job).await?,
        full: columns.len() > MOST,
        columns,
        running,
    };
    Ok(page.into_response())
}

pub(crate) async fn poll(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<VariantsPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    columns(&app, visitor, &job).await
}

async fn columns(app: &App, visitor: Visitor, job: &Job) -> Result<VariantsPart, Refusal> {
    let plan = &present(job)?.plan;
    let now = VariantView::from_plan(plan, None, visitor.scale);
    let mut columns = vec![Column { id: None, name: "As it is planned".to_owned(), view: Some(now), percent: 100 }];
    let id = job.row.id;
    let rows = app.reading(move |read| read.variants(id)).await?;
    // All at once: a page does not wait for one variant after the other.
    let column = |row: VariantRow| async move {
        let VariantRow { id, name, inputs } = row;
        let stand = match read_inputs(&inputs) {
            Some(inputs) => Some(varying(app, job, id, &inputs).await?),
            None => None,
        };
        let (view, percent) = match stand {
            Some(Stand::Ended(Ok(variant))) => (Some(VariantView::from_plan(&variant, Some(plan), visitor.scale)), 100),
            Some(Stand::Running(share)) => (None, ((share * 100.0) as u32).min(99)),
            Some(Stand::Ended(Err(_))) | None => (None, 100),
        };
        Ok::<_, Refusal>(Column { id: Some(id), name, view, percent })
    };
    columns.extend(futures_util::future::try_join_all(rows.into_iter().map(column)).await?);
    let running = columns.iter().any(|column| column.view.is_none() && column.percent < 100);
    Ok(VariantsPart { columns, running, job: job.row.id })
}

/// The tightest margin of what is kept intact, joints aside, K.
fn tightest(plan: &Plan) -> Option<(String, f64)> {
    let live = plan.margins.iter().filter(|m| m.kind != MarginKind::Joints && !m.expendable);
    live.min_by(|a, b| a.headroom_k.total_cmp(&b.headroom_k)).map(|m| (damaged(&m.damaged()), m.headroom_k))
}

impl VariantView {
    fn from_plan(plan: &Plan, before: Option<&Plan>, scale: Scale) -> Self {
        let degrees = |k: f64| Words { scale }.apart(k);
        let tight = tightest(plan);
        let (against, better) = before.map_or((String::new(), ""), |before| against(plan, before, &degrees));
        Self {
            window: window_word(plan.window),
            chance: of_samples(plan.works_in()),
            release: release(&plan.release, plan.recipe.seconds_before()),
            tightest: tight.as_ref().map_or("nothing".to_owned(), |(name, _)| name.clone()),
            margin: tight.map_or(String::new(), |(_, k)| degrees(k)),
            against,
            better,
        }
    }
}

fn against(plan: &Plan, before: &Plan, degrees: &dyn Fn(f64) -> String) -> (String, &'static str) {
    let chance = plan.chance - before.chance;
    let headroom = tightest(plan).zip(tightest(before)).map_or(0.0, |((_, is), (_, was))| is - was);
    let sooner = plan.release.mid_s.zip(before.release.mid_s).map(|(is, was)| was - is);
    let mut words = Vec::new();
    if chance.abs() >= 0.05 {
        words.push(format!(
            "works in {:.0} of {} {}",
            chance.abs() * plan.samples as f64,
            plan.samples,
            if chance > 0.0 { "more" } else { "fewer" }
        ));
    }
    if headroom.abs() >= 1.0 {
        words.push(format!("{} {} headroom", degrees(headroom.abs()), if headroom > 0.0 { "more" } else { "less" }));
    }
    if let Some(s) = sooner.filter(|s| s.abs() >= 1.0) {
        words.push(format!("{:.0} s {}", s.abs(), if s > 0.0 { "sooner" } else { "later" }));
    }
    let better = match (chance, headroom) {
        (c, _) if c >= 0.05 => "better",
        (c, _) if c <= -0.05 => "worse",
        (_, r) if r >= 1.0 => "better",
        (_, r) if r <= -1.0 => "worse",
        _ => "alike",
    };
    (if words.is_empty() { "no difference".to_owned() } else { words.join(", ") }, better)
}

#[derive(Deserialize)]
pub(crate) struct New {
    change: String,
    #[serde(default)]
    name: String,
}

/// A change is kept as a variant.
pub(crate) async fn add(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<New>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let unknown =
        || Refusal::field("change", format!("“{}” is none of the changes", sent.change), "choose one of the list");
    let wanted: Change = serde_json::from_str(&sent.change).map_err(|_| unknown())?;
    let change = changes_of(&app, &job).await?.into_iter().find(|change| change.what == wanted).ok_or_else(unknown)?;
    let called = sent.name.trim();
    let name = if called.is_empty() { visitor.words().change(&change.what) } else { called.to_owned() };
    if name.chars().count() > LONGEST {
        return Err(Refusal::field("name", "is too long", "up to 80 letters"));
    }
    let inputs =
        PlanInputs { feed: feed(&change.composition), settings: change.recipe, ..present(&job)?.inputs.clone() };
    keep_variant(&app, job.row.id, name, &inputs).await
}

/// Keeps some inputs as a variant of a job, and goes back to the page.
pub(super) async fn keep_variant(app: &App, id: i64, name: String, inputs: &PlanInputs) -> Result<Redirect, Refusal> {
    let (text, now) = (written(inputs)?, app.now_ms());
    let kept = app
        .writing(move |w| {
            let full = w.read().variants(id)?.len() >= MOST;
            if full { Ok(None) } else { w.add_variant(id, NewVariant { name: &name, inputs: &text, made_ms: now }) }
        })
        .await?;
    let taken =
        || Refusal::field("name", "is taken, or the job has eight variants", "take another name, or remove one first");
    kept.ok_or_else(taken)?;
    Ok(Redirect::to(&format!("/jobs/{id}/what-if")))
}

type VariantPath = Path<(String, i64)>;

/// A variant becomes the plan.
pub(crate) async fn take(State(app): State<App>, Path((job, id)): VariantPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&Path(job))?).await?;
    let number = job.row.id;
    let row = app.reading(move |read| read.variant(number, id)).await?.ok_or(Refusal::NotFound("variant"))?;
    let inputs = read_inputs(&row.inputs).ok_or(Refusal::NotFound("variant"))?;
    choose(&app, &job, &inputs).await?;
    Ok(Redirect::to(&format!("/jobs/{number}/heat")))
}

pub(crate) async fn remove(State(app): State<App>, Path((job, id)): VariantPath) -> Result<Redirect, Refusal> {
    let job = number(&Path(job))?;
    if !app.writing(move |w| w.remove_variant(job, id)).await? {
        return Err(Refusal::NotFound("variant"));
    }
    Ok(Redirect::to(&format!("/jobs/{job}/what-if")))
}
