//! The heat plan: settings on the left, the margin strip, the board's heat at release.

use askama::Template;
use askama_web::WebTemplate;
use axum::Form;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::{Board, Face};
use mend_core::finding::Finding;
use mend_core::heat::tool::{HotAir, Motion, Station};
use mend_core::planning::band::Band;
use mend_core::planning::plan::Plan;
use mend_core::shop::Stop;
use mend_core::units::{Duration, Flow, Length, Scale};
use mend_formats::shop::PlanInputs;
use serde::Deserialize;

use super::JobPath;
use crate::App;
use crate::draw::board_map::{BoardMap, Drawing, Window};
use crate::draw::heat_map::{Range, isotherms};
use crate::draw::margin_strip::{Strip, strip};
use crate::job::{Job, Planned};
use crate::pages::number::number;
use crate::pages::{Frame, JobHead, window_word};
use crate::planner::{first_inputs, plan_job, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The settings as they stand in the form.
struct Settings {
    set: String,
    set_low: String,
    set_high: String,
    unit: &'static str,
    flow: String,
    nozzle: String,
    distance: String,
    longest: String,
    face_is_top: bool,
    sweeping: bool,
    must_live: bool,
    station: String,
    nozzles: Vec<String>,
    stations: Vec<String>,
    flow_low: f64,
    flow_high: f64,
}

/// What the plan says, ready to lay out.
struct Said {
    window: &'static str,
    chance: String,
    binds: String,
    release: String,
    release_mid: String,
    share: String,
    stop: String,
    stop_why: String,
    hold: String,
    warm: String,
    melts_at: String,
    findings: Vec<Finding>,
    strip: Strip,
    top: BoardMap,
    bottom: BoardMap,
    scale_labels: [String; 3],
    melt_place: String,
    samples: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat.html")]
struct HeatPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    settings: Settings,
    solder: String,
    said: Result<Said, Vec<Finding>>,
    job: i64,
}

/// The part of the page that a change of settings replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_plan.html")]
struct HeatPlan {
    head: JobHead,
    oob: bool,
    said: Result<Said, Vec<Finding>>,
    job: i64,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, super::number(&path)?).await?;
    let board = job.board()?.1.clone();
    let stations = stations(&app).await?;
    let inputs = match &job.planned {
        Some(planned) => planned.inputs.clone(),
        None => first_inputs(&board, &stations).ok_or(Refusal::NotYet("This shop has no station yet"))?,
    };
    let inputs = inputs.with(&job.charge_file());
    let said = match plan_job(&app, &job, &inputs).await {
        Ok(planned) => Ok(said(&board, &planned, visitor.scale)),
        Err(Refusal::Bad(findings)) => Err(findings),
        Err(other) => return Err(other),
    };
    let job = Job::load(&app, job.row.id).await?;
    let page = HeatPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/heat", job.row.id)),
        head: JobHead::of(&job, Some(Stop::Heat), app.now().date()),
        oob: false,
        settings: settings(&inputs, &stations, visitor.scale),
        solder: solder(&inputs),
        said,
        job: job.row.id,
    };
    Ok(page.into_response())
}

/// What the joints hold, in a line.
fn solder(inputs: &PlanInputs) -> String {
    match inputs.feed.as_ref().filter(|feed| feed.is_used()) {
        Some(feed) => format!("{}, fed {:.0} % {}", inputs.alloy, feed.share * 100.0, feed.alloy),
        None => inputs.alloy.clone(),
    }
}

fn settings(inputs: &PlanInputs, stations: &[Station], scale: Scale) -> Settings {
    let air = &inputs.settings;
    let station = stations.iter().find(|s| s.name == inputs.station);
    let range = station.map(|s| s.set_range).unwrap_or((air.set, air.set));
    let flows = station.map(|s| s.flow_range).unwrap_or((air.flow, air.flow));
    // The outlets of every station: one that this station lacks is planned on, and said to be missing.
    let mut nozzles: Vec<f64> = stations.iter().flat_map(|s| &s.nozzles).map(|n| n.in_mm()).collect();
    nozzles.push(air.nozzle.in_mm());
    nozzles.sort_by(|a, b| b.total_cmp(a));
    nozzles.dedup();
    Settings {
        set: format!("{:.0}", scale.of(air.set)),
        set_low: format!("{:.0}", scale.of(range.0)),
        set_high: format!("{:.0}", scale.of(range.1)),
        unit: scale.symbol(),
        flow: format!("{}", air.flow.in_litres_per_minute()),
        nozzle: format!("{}", air.nozzle.in_mm()),
        distance: format!("{}", air.distance.in_mm()),
        longest: format!("{}", air.longest.in_seconds()),
        face_is_top: air.face == Face::Top,
        sweeping: air.motion == Motion::Sweeping,
        must_live: inputs.part_must_live,
        station: inputs.station.clone(),
        nozzles: nozzles.iter().map(|n| format!("{n}")).collect(),
        stations: stations.iter().map(|s| s.name.clone()).collect(),
        flow_low: flows.0.in_litres_per_minute(),
        flow_high: flows.1.in_litres_per_minute(),
    }
}

/// The form, sent at every change.
#[derive(Deserialize)]
pub(crate) struct Sent {
    station: String,
    set: String,
    flow: String,
    nozzle: String,
    distance: String,
    longest: String,
    face: Face,
    motion: Motion,
    #[serde(default)]
    must_live: Option<String>,
}

impl Sent {
    /// The inputs but for what the joints hold, or every field that is no number.
    fn inputs(&self, scale: Scale) -> Result<PlanInputs, Vec<Finding>> {
        let mut bad = Vec::new();
        let mut number = |place: &str, text: &str| number(("settings", place), text, &mut bad);
        let settings = HotAir {
            set: scale.read(number("set_c", &self.set)),
            flow: Flow::litres_per_minute(number("flow_lpm", &self.flow)),
            nozzle: Length::mm(number("nozzle_mm", &self.nozzle)),
            distance: Length::mm(number("distance_mm", &self.distance)),
            longest: Duration::seconds(number("longest_s", &self.longest)),
            face: self.face,
            motion: self.motion,
        };
        let (station, part_must_live) = (self.station.clone(), self.must_live.is_some());
        let inputs = PlanInputs { station, alloy: String::new(), feed: None, refit: None, part_must_live, settings };
        if bad.is_empty() { Ok(inputs) } else { Err(bad) }
    }
}

pub(crate) async fn change(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<Sent>,
) -> Result<Response, Refusal> {
    let job = Job::load(&app, super::number(&path)?).await?;
    let board = job.board()?.1.clone();
    let planned = match sent.inputs(visitor.scale) {
        Ok(inputs) => plan_job(&app, &job, &inputs.with(&job.charge_file())).await,
        Err(findings) => Err(findings.into()),
    };
    let (status, said) = match planned {
        Ok(planned) => (StatusCode::OK, Ok(said(&board, &planned, visitor.scale))),
        Err(Refusal::Bad(findings)) => (StatusCode::UNPROCESSABLE_ENTITY, Err(findings)),
        Err(other) => return Err(other),
    };
    let job = Job::load(&app, job.row.id).await?;
    let head = JobHead::of(&job, Some(Stop::Heat), app.now().date());
    Ok((status, HeatPlan { head, oob: true, said, job: job.row.id }).into_response())
}

/// A band of seconds in words.
pub(crate) fn seconds(band: Option<Band>) -> String {
    band.map_or("not reached".to_owned(), |b| format!("{:.0}–{:.0} s", b.low, b.high))
}

fn said(board: &Board, planned: &Planned, scale: Scale) -> Said {
    let plan = &planned.plan;
    let drawing =
        |face| Drawing { board, face, window: Window::Near(16.0), margins: &plan.margins, scale, lettering: 3.6 };
    let range = Range::within(&drawing(Face::Top).frame(), &plan.map);
    let draw = |face| drawing(face).draw(Some(isotherms(&plan.map, face, (range, plan.melts_at_c))));
    let time = |t: Option<f64>| t.map_or("may not melt".to_owned(), |t| format!("{t:.0} s"));
    Said {
        window: window_word(plan.window),
        chance: format!("{:.0} in {}", plan.chance * plan.samples as f64, plan.samples),
        binds: plan.binds.clone(),
        release: release_in_words(plan),
        release_mid: time(plan.release.mid_s),
        share: format!("{:.0} of {}", plan.release.share * plan.samples as f64, plan.samples),
        stop: format!("{:.0} s", plan.stop.at_s),
        stop_why: plan.stop.spares.as_ref().map_or("longest heating".to_owned(), |s| format!("spares {s}")),
        hold: seconds(plan.hold_s),
        warm: seconds(plan.warm_s),
        melts_at: format!(
            "{:.0} {}",
            scale.of(mend_core::units::Temperature::celsius(plan.melts_at_c)),
            scale.symbol()
        ),
        findings: plan.findings.clone(),
        strip: strip(plan, scale),
        top: draw(Face::Top),
        bottom: draw(Face::Bottom),
        scale_labels: range.labels(scale),
        melt_place: format!("{:.1}", 320.0 * range.place(plan.melts_at_c)),
        samples: plan.samples,
    }
}

fn release_in_words(plan: &Plan) -> String {
    match (plan.release.low_s, plan.release.high_s) {
        (Some(low), Some(high)) => format!("{low:.0}–{high:.0} s"),
        (Some(low), None) => format!("{low:.0} s, or never"),
        _ => "may not melt".to_owned(),
    }
}
