//! The debrief: everything that was hidden is shown, what was harmed and when it could have been seen, and what to change.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::practice::attempt::Attempt;
use mend_core::practice::course::course;
use mend_core::practice::debrief::debrief;
use mend_core::practice::goal::PracticeGoal;
use mend_core::practice::hands::Hands;
use mend_core::units::{Scale, Temperature};
use mend_formats::practice::parse;
use serde::Serialize;

use super::attempt::DrawnScene;
use super::attempt_at;
use super::course::place_of;
use crate::App;
use crate::computing::Progress;
use crate::draw::attempt_chart::AttemptChart;
use crate::job::{HeatWork, Job, Planned};
use crate::pages::{Frame, word};
use crate::practice::replayed;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::practice::{debrief_words, harmed, subject_words};
use crate::words::{self};

/// A moment of it.
struct MomentView {
    at: String,
    class: &'static str,
    says: String,
    seen: String,
}

/// A second, as the picture takes it.
#[derive(Serialize)]
struct SecondView {
    aim: [f64; 2],
    bottom: bool,
    blows: bool,
    distance_mm: f64,
    nozzle_mm: f64,
    pull_n: f64,
    /// Temperatures on the visitor's scale.
    joints: Vec<i32>,
    components: Vec<i32>,
    body: i32,
}

/// What was planned for the job that was rehearsed.
struct PlannedView {
    job: i64,
    release: String,
    abort_s: String,
}

/// What was practised on freely: it can be tried again.
struct FreeView {
    board: i64,
    station: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "practice/debrief.html")]
struct DebriefPage {
    frame: Frame,
    id: i64,
    title: String,
    passed: bool,
    reached: bool,
    seconds: String,
    points: Vec<String>,
    moments: Vec<MomentView>,
    chart: AttemptChart,
    scene: String,
    replay: String,
    lets_go: String,
    unit: &'static str,
    task: String,
    job: Option<i64>,
    goal: String,
    free: Option<FreeView>,
    next: Option<&'static str>,
    planned: Option<PlannedView>,
    /// Did air blow? Then there is a window to look at.
    window: Option<Progress<super::path::TriedWindow>>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: Path<String>) -> Result<Response, Refusal> {
    let row = attempt_at(&app, &path).await?;
    if row.ended_ms.is_none() {
        return Ok(Redirect::to(&format!("/practice/{}", row.id)).into_response());
    }
    let attempt = replayed(&app, &row).await?;
    let (place, rehearsed) = (place_of(&row.task), rehearsed(&app, row.job, attempt.scene.goal).await?);
    let next = (!row.task.is_empty() && attempt.passed()).then(|| course().get(place + 1)).flatten();
    let title = subject_words(&row.task, row.job, attempt.scene.goal);
    let lets_go = attempt.lets_go_c.iter().map(|t| visitor.scale.of(Temperature::celsius(*t)));
    let lets_go: Vec<f64> = lets_go.collect();
    let page = DebriefPage {
        frame: Frame::new(title.clone(), visitor.scale, "practice", format!("/practice/{}/debrief", row.id)),
        id: row.id,
        title,
        passed: attempt.passed(),
        reached: attempt.reached(),
        seconds: format!("{:.0} s", attempt.seconds()),
        points: debrief(&attempt).iter().map(debrief_words).collect(),
        moments: moments(&attempt),
        chart: AttemptChart::new(&attempt, rehearsed.as_ref().map(|planned| &planned.plan), visitor.scale),
        scene: serde_json::to_string(&DrawnScene::new(&attempt.scene))?,
        replay: serde_json::to_string(&seconds(&attempt, visitor.scale))?,
        lets_go: serde_json::to_string(&lets_go)?,
        unit: visitor.scale.symbol(),
        task: row.task.clone(),
        next: next.map(|task| task.key),
        planned: rehearsed.as_ref().zip(row.job).map(|(planned, job)| planned_view(planned, job)),
        job: row.job,
        goal: word(&attempt.scene.goal),
        free: if row.job.is_none() { free(&row.of) } else { None },
        window: super::path::air_of(&attempt).map(|_| Progress::Computing(0)),
    };
    Ok(page.into_response())
}

/// The board of the shop and the station that an attempt began with; none where it began with a task.
fn free(of: &str) -> Option<FreeView> {
    let shop = parse(of)?.shop?;
    Some(FreeView { board: shop.board, station: shop.inputs.station })
}

/// The plan of what was rehearsed; none where nothing is planned for it.
async fn rehearsed(app: &App, job: Option<i64>, goal: PracticeGoal) -> Result<Option<Planned>, Refusal> {
    let Some(id) = job else { return Ok(None) };
    let job = Job::load(app, id).await?;
    let planned = match goal {
        PracticeGoal::Remove => job.bench_plan(),
        PracticeGoal::Fit => job.newest_plan_of(HeatWork::Fit),
        PracticeGoal::ClearHoles | PracticeGoal::CleanUp => None,
    };
    Ok(planned.cloned())
}

fn planned_view(planned: &Planned, job: i64) -> PlannedView {
    let plan = &planned.plan;
    PlannedView { job, release: words::release(&plan.release), abort_s: format!("{:.0} s", plan.abort.at_s) }
}

fn moments(attempt: &Attempt) -> Vec<MomentView> {
    let at = |seconds: f64| format!("{seconds:.0} s");
    let plain = |seconds: f64, says: &str| {
        (seconds, MomentView { at: at(seconds), class: "", says: says.to_owned(), seen: String::new() })
    };
    let mut moments: Vec<(f64, MomentView)> =
        attempt.last_freed_s().map(|t| plain(t, "the last joint let go")).into_iter().collect();
    moments.extend(attempt.part_off_s.map(|t| plain(t, "the part came up")));
    moments.extend(attempt.harms.iter().map(|harm| {
        let seen = harm
            .seen_s
            .filter(|seen| *seen > 0.0 && *seen < harm.at_s)
            .map(|seen| format!("to be seen from {}, {:.0} s before", at(seen), harm.at_s - seen));
        let force = harm.force_n.map(|newton| format!(" at {newton:.1} N")).unwrap_or_default();
        let says = format!("{}{force}", harmed(&harm.what));
        (harm.at_s, MomentView { at: at(harm.at_s), class: "past", says, seen: seen.unwrap_or_default() })
    }));
    moments.sort_by(|a, b| a.0.total_cmp(&b.0));
    moments.into_iter().map(|(_, moment)| moment).collect()
}

fn seconds(attempt: &Attempt, scale: Scale) -> Vec<SecondView> {
    #[allow(clippy::cast_possible_truncation, reason = "degrees")]
    let degrees = |curve: &Vec<f32>, k: usize| {
        curve.get(k).map_or(0, |t| scale.of(Temperature::celsius(f64::from(*t))).round() as i32)
    };
    let (traces, bottom) = (&attempt.traces, mend_core::board::Face::Bottom);
    let second = |(k, hands): (usize, &Hands)| SecondView {
        aim: [hands.aim.x, hands.aim.y],
        bottom: hands.face == bottom,
        blows: hands.blows,
        distance_mm: hands.distance_mm,
        nozzle_mm: hands.nozzle_mm,
        pull_n: hands.pull_n,
        joints: traces.joints.iter().map(|curve| degrees(curve, k)).collect(),
        components: traces.components.iter().map(|curve| degrees(curve, k)).collect(),
        body: degrees(&traces.body, k),
    };
    attempt.held.iter().enumerate().map(second).collect()
}
