//! The bench run: full screen, one key to go on. Every press is kept with its moment; a reload shows the same second.

use askama::Template;
use askama_web::WebTemplate;
use axum::Form;
use axum::extract::State;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::planning::bench_run::{Phase, Press};
use mend_core::planning::ledger::Act;
use mend_core::planning::sequence::passes::tools;
use mend_core::planning::sequence::{HotTool, StepKind};
use mend_core::units::{Scale, Temperature};
use mend_store::{LedgerRow, PressRow};
use serde::Deserialize;

use super::heat_said::seconds;
use super::ledger_view::LedgerView;
use super::recipe_said::shield_maps;
use super::{JobPath, number};
use crate::App;
use crate::draw::board_map::BoardMap;
use crate::draw::time_bar::{TimeBar, time_bar};
use crate::job::{Bench, Job};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// A press may be kept back by a lost network for this long, ms.
const LONGEST_DELAY_MS: i64 = 24 * 3600 * 1000;

/// The present step, ready to lay out.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/run_step.html")]
pub(crate) struct StepView {
    job: i64,
    device: String,
    at: usize,
    of: usize,
    title: String,
    lines: Vec<String>,
    cue: String,
    cautions: Vec<Caution>,
    deference: &'static str,
    air: String,
    /// `ready`, `running`, `moved` or `done`.
    phase: &'static str,
    since_ms: i64,
    now_ms: i64,
    /// The clock stands at this, s.
    stands_s: Option<String>,
    clock_label: String,
    bar: Option<TimeBar>,
    go: String,
    /// The next step is closed by the cleaning ledger.
    shut: bool,
    heating: bool,
    done: bool,
    stamps: Vec<(String, String)>,
    ledger: Option<LedgerView>,
    titles: Vec<String>,
    stopped: usize,
    why: String,
    /// What to do if it does not come.
    otherwise: Vec<String>,
    /// Where the shields go.
    maps: Vec<BoardMap>,
}

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
    head: crate::pages::JobHead,
    oob: bool,
    job: i64,
    planned: bool,
    release: String,
    stop: String,
    window: &'static str,
    binds: String,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/run", job.row.id));
    match &job.bench {
        Some(bench) => Ok(RunPage { frame, step: StepView::of(&job, bench, (app.now_ms(), visitor)) }.into_response()),
        None => Ok(ready(&app, frame, &job).into_response()),
    }
}

fn ready(app: &App, frame: Frame, job: &Job) -> ReadyPage {
    let plan = job.current_plan().map(|p| &p.plan);
    let release = plan.and_then(|p| p.release.low_s.map(|low| (low, p.release.high_s)));
    ReadyPage {
        frame,
        head: crate::pages::JobHead::of(job, Some(mend_core::shop::Stop::Run), app.now().date()),
        oob: false,
        job: job.row.id,
        planned: plan.is_some(),
        release: release.map_or("may not melt".to_owned(), |(low, high)| {
            high.map_or(format!("{low:.0} s, or never"), |high| format!("{low:.0}–{high:.0} s"))
        }),
        stop: plan.map_or(String::new(), |p| format!("{:.0} s", p.stop.at_s)),
        window: plan.map_or("", |p| crate::pages::window_word(p.window)),
        binds: plan.map_or(String::new(), |p| p.binds.clone()),
    }
}

pub(crate) async fn start(State(app): State<App>, path: JobPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let again = job.bench.as_ref().is_none_or(|b| b.state.is_done(&b.steps));
    if again {
        let planned = job.current_plan().ok_or(Refusal::NotYet("There is no heat plan for this alloy yet"))?;
        let (id, plan, now) = (job.row.id, planned.id, app.now_ms());
        app.writing(move |w| w.add_run(id, plan, now)).await?;
    }
    Ok(Redirect::to(&format!("/jobs/{}/run", job.row.id)))
}

/// A press as the browser sends it.
#[derive(Deserialize)]
pub(crate) struct Sent {
    press: String,
    /// Made by the browser: the same press sent again has the same one.
    token: String,
    /// How long ago it was pressed, ms: the shop's clock rules, the browser's only measures.
    #[serde(default)]
    ago_ms: i64,
}

/// When something sent so late happened; refuses what carries no usable token.
fn moment(app: &App, (token, ago_ms): (&str, i64)) -> Result<i64, Refusal> {
    if token.is_empty() || token.len() > 64 {
        return Err(Refusal::field("token", "must have 1 to 64 characters", "reload the page"));
    }
    Ok(app.now_ms() - ago_ms.clamp(0, LONGEST_DELAY_MS))
}

pub(crate) async fn press(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<Sent>,
) -> Result<StepView, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let run = job.bench()?.run.id;
    let unknown = || Refusal::field("press", format!("“{}” is no press", sent.press), "go, back or stopped");
    let press = Press::named(&sent.press).ok_or_else(unknown)?;
    if press == Press::Go && job.bench()?.is_shut() {
        // Said by the step itself; the press is not kept, so nothing is undone when the ledger opens.
        return Ok(StepView::of(&job, job.bench()?, (app.now_ms(), visitor)));
    }
    let at_ms = moment(&app, (&sent.token, sent.ago_ms))?;
    let row = PressRow { press: press.name().to_owned(), at_ms };
    app.writing(move |w| w.add_press(run, &row, &sent.token)).await?;
    let job = Job::load(&app, job.row.id).await?;
    Ok(StepView::of(&job, job.bench()?, (app.now_ms(), visitor)))
}

/// An entry of the cleaning ledger as the browser sends it.
#[derive(Deserialize)]
pub(crate) struct Entered {
    act: String,
    /// A row of the connector; empty: all of them.
    #[serde(default)]
    row: String,
    #[serde(default)]
    reason: String,
    token: String,
    #[serde(default)]
    ago_ms: i64,
}

/// Longest reason, characters.
const LONGEST_REASON: usize = 300;

pub(crate) async fn enter(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<Entered>,
) -> Result<StepView, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let bench = job.bench()?;
    let hint = "fed, flooded, wicked or overridden";
    let act = Act::named(&sent.act)
        .ok_or_else(|| Refusal::field("act", format!("“{}” is no entry of the ledger", sent.act), hint))?;
    if !sent.row.is_empty() && bench.ledger.groups.iter().all(|group| group.name != sent.row) {
        return Err(Refusal::field("row", format!("“{}” is no row here", sent.row), "name a row of the connector"));
    }
    let reason = sent.reason.trim();
    if act == Act::Overridden && (reason.is_empty() || reason.chars().count() > LONGEST_REASON) {
        return Err(Refusal::field("reason", "is not given", "say in a sentence why the part is fitted all the same"));
    }
    let at_ms = moment(&app, (&sent.token, sent.ago_ms))?;
    let entry = LedgerRow { act: act.name().to_owned(), row: sent.row.clone(), reason: reason.to_owned(), at_ms };
    let run = bench.run.id;
    app.writing(move |w| w.add_ledger(run, &entry, &sent.token)).await?;
    let job = Job::load(&app, job.row.id).await?;
    Ok(StepView::of(&job, job.bench()?, (app.now_ms(), visitor)))
}

impl StepView {
    fn of(job: &Job, bench: &Bench, (now_ms, visitor): (i64, Visitor)) -> Self {
        let state = &bench.state;
        let step = bench.steps.get(state.at);
        let kind = step.map_or(&StepKind::Do, |s| &s.kind);
        let heating = matches!(kind, StepKind::Heat { .. });
        let recipe = &bench.planned.inputs.settings;
        let hot = match kind {
            StepKind::Heat { .. } => tools(recipe.air.as_ref(), &recipe.with),
            StepKind::Soak { tools, .. } => tools.clone(),
            _ => Vec::new(),
        };
        let (phase, since_ms, stands_s) = match state.phase {
            Phase::Ready => ("ready", 0, None),
            Phase::Running { since_ms } => ("running", since_ms, None),
            Phase::Moved { since_ms, at_ms } => {
                ("moved", since_ms, Some(format!("{:.1}", (at_ms - since_ms) as f64 / 1000.0)))
            }
        };
        let done = step.is_none();
        Self {
            job: job.row.id,
            device: job.device().to_owned(),
            at: (state.at + 1).min(bench.steps.len()),
            of: bench.steps.len(),
            title: step.map_or("All steps done".to_owned(), |s| s.title.clone()),
            lines: step.map_or(vec!["On to the pin walk.".to_owned()], |s| s.lines.clone()),
            cue: step.map_or(String::new(), |s| s.cue.clone()),
            cautions: step.map_or(vec![], |s| s.cautions.clone()),
            deference: DEFERENCE,
            air: in_words(&hot, visitor.scale),
            phase: if done { "done" } else { phase },
            since_ms,
            now_ms,
            stands_s,
            clock_label: clock_label(kind, state.phase),
            bar: match kind {
                StepKind::Heat { release, stop_s } => Some(time_bar(release, *stop_s)),
                _ => None,
            },
            go: if bench.is_shut() { "Fit is closed".to_owned() } else { go_label(kind, state.phase, done) },
            shut: bench.is_shut(),
            heating: heating && phase == "running",
            done,
            stamps: state.stamps.iter().map(|s| (s.step.clone(), format!("{:.1} s", s.seconds))).collect(),
            ledger: step.and_then(|step| LedgerView::of(bench, step.duty)),
            titles: bench.steps.iter().map(|s| s.title.clone()).collect(),
            stopped: state.stopped,
            why: step.map_or(String::new(), |s| s.why.clone()),
            otherwise: step.map_or(vec![], |s| s.otherwise.clone()),
            maps: step
                .filter(|s| s.map)
                .zip(job.board.as_ref())
                .map_or(vec![], |(_, (_, board))| shield_maps((board, None), recipe, visitor.scale)),
        }
    }
}

/// `400 °C`, or each tool by its name where it is not the air alone.
pub(in crate::pages::jobs) fn in_words(hot: &[HotTool], scale: Scale) -> String {
    let degrees = |tool: &HotTool| format!("{:.0} {}", scale.of(Temperature::celsius(tool.set_c)), scale.symbol());
    match hot {
        [air] if air.what == "air" => degrees(air),
        all => all.iter().map(|tool| format!("{} {}", tool.what, degrees(tool))).collect::<Vec<_>>().join(" · "),
    }
}

fn clock_label(kind: &StepKind, phase: Phase) -> String {
    match (kind, phase) {
        (StepKind::Heat { .. }, Phase::Ready) => "press when the air is on it".to_owned(),
        (StepKind::Heat { .. }, Phase::Running { .. }) => "air on".to_owned(),
        (StepKind::Heat { .. }, Phase::Moved { .. }) => "it moved".to_owned(),
        (StepKind::Soak { .. }, Phase::Ready) => "press when it is on".to_owned(),
        (StepKind::Soak { lasts_s, .. }, _) => format!("of {lasts_s:.0} s"),
        (StepKind::WhileWarm { window_s }, _) => format!("since air off; warm enough for {}", seconds(*window_s)),
        (StepKind::Hold { until_s }, _) => format!("since air off; solid after {}", seconds(*until_s)),
        (StepKind::Do, _) => String::new(),
    }
}

fn go_label(kind: &StepKind, phase: Phase, done: bool) -> String {
    match (kind, phase) {
        _ if done => "To the pin walk",
        (StepKind::Heat { .. }, Phase::Ready) => "Air on",
        (StepKind::Heat { .. }, Phase::Running { .. }) => "It moved",
        (StepKind::Soak { .. }, Phase::Ready) => "It is on",
        (StepKind::Soak { .. }, _) => "On to the next tool",
        (StepKind::Hold { .. }, _) => "It is solid",
        _ => "Done, go on",
    }
    .to_owned()
}
