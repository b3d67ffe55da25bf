//! The replay of a job's heat plan: both faces over time, what is tightest at each moment, and every curve as a file.

use std::fmt::Write as _;
use std::sync::Arc;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Json, Response};
use mend_core::board::{Board, Face};
use mend_core::planning::sequence::step::StepKind;
use mend_core::planning::watched::JudgedReplay;
use mend_core::units::{Scale, TempDelta};
use mend_formats::live;
use mend_store::StateRow;
use serde::{Deserialize, Serialize};

use super::heat_path::HeatPath;
use super::heat_window::ordered;
use crate::App;
use crate::computing::{self, Progress, Stand};
use crate::draw::board_map::{BoardMap, Drawing, MapExtent};
use crate::draw::curves::{CurvePaper, Curves, LEFT, WIDTH, curves as draw_curves};
use crate::draw::watched_course::{WatchedCourse, WatchedHeating};
use crate::extract::Query;
use crate::job::{HeatWork, Job, Planned};
use crate::pages::saved::{CSV, saved};
use crate::planner::Ordered;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::damaged;

/// The player, before its frames are there.
struct Ready {
    top: BoardMap,
    bottom: BoardMap,
    curves: Curves,
    seconds: usize,
    /// Where it opens: when all goes off.
    at: usize,
    /// How it went at the bench, where it was watched there.
    watched: Option<WatchedCourse>,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_replay.html")]
pub(crate) struct ReplayPart {
    part: Progress<Ready>,
    base: String,
}

/// Everything a handler here starts from.
struct Showing {
    board: Board,
    planned: Planned,
    stand: Stand<JudgedReplay>,
    job: i64,
}

impl Showing {
    async fn load(app: &App, path: HeatPath) -> Result<Self, Refusal> {
        let job = Job::load(app, path.job).await?;
        let planned =
            job.current_plan_of(path.work).ok_or(Refusal::NotYet("There is no heat plan for these settings yet"))?;
        let order = Ordered::load(app, &job, &planned.inputs).await?;
        let stand = order.replay(app, computing::Viewer::heat(path.work, path.job)).await?;
        Ok(Self { board: job.board()?.1.clone(), planned: planned.clone(), stand, job: job.row.id })
    }

    /// The replay, waited for.
    fn ready(self) -> Result<(Arc<JudgedReplay>, Board), Refusal> {
        match self.stand.shown(|replay| (replay, self.board))? {
            Progress::Ready(ready) => Ok(ready),
            _ => Err(Refusal::NotYet("The replay is not computed yet")),
        }
    }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: HeatPath) -> Result<ReplayPart, Refusal> {
    // A page that asks for the replay of settings that have just been changed waits for their plan.
    let (base, work) = (path.address(), path.work);
    let showing = match Showing::load(&app, path).await {
        Err(Refusal::NotYet(_)) => return Ok(ReplayPart { part: Progress::Computing(0), base }),
        other => other?,
    };
    let watched = watched(&app, showing.job, work).await?;
    let Showing { board, planned, stand, .. } = showing;
    let ready = |replay: Arc<JudgedReplay>| Ready::from_replay(&replay, &board, &planned, visitor.scale);
    let part = stand.shown(|replay| Ready { watched, ..ready(replay) })?;
    Ok(ReplayPart { part, base })
}

pub(crate) async fn cancel(State(app): State<App>, path: HeatPath) -> Result<ReplayPart, Refusal> {
    if let Some(order) = ordered(&app, path).await? {
        app.computing.cancel(&order.replay_key()?);
    }
    Ok(ReplayPart { part: Progress::Cancelled, base: path.address() })
}

pub(crate) async fn again(state: State<App>, visitor: Visitor, path: HeatPath) -> Result<ReplayPart, Refusal> {
    if let Some(order) = ordered(&state.0, path).await? {
        state.0.computing.forget(&order.replay_key()?);
    }
    show(state, visitor, path).await
}

impl Ready {
    fn from_replay(replay: &JudgedReplay, board: &Board, planned: &Planned, scale: Scale) -> Self {
        let margins = &planned.plan.margins;
        let window = MapExtent::Near(16.0);
        let draw = |face| {
            Drawing { board, face, window, margins, photos: &[], scale, lettering: 3.6, overlay: None }
                .draw(None)
                .seen_through()
        };
        Self {
            top: draw(Face::Top),
            bottom: draw(Face::Bottom),
            curves: draw_curves(replay, board, &planned.plan, scale),
            seconds: replay.recording.traces.len() - 1,
            at: replay.recording.off as usize,
            watched: None,
        }
    }
}

/// The newest heating of a job's run that was watched.
async fn watched(app: &App, id: i64, work: HeatWork) -> Result<Option<WatchedCourse>, Refusal> {
    let job = Job::load(app, id).await?;
    let Some(bench) = &job.bench else { return Ok(None) };
    let run = bench.run.id;
    let rows = app.reading(move |read| read.run_states(run)).await?;
    let of_work = |row: &&StateRow| match bench.steps.get(row.step as usize).map(|step| &step.kind) {
        Some(StepKind::Heat { .. }) => !work.is_fit(),
        Some(StepKind::Set { .. }) => work.is_fit(),
        _ => false,
    };
    // The one that came to its end; else the last.
    let stamp = bench.state.stamps.iter().rfind(|_| !work.is_fit());
    let last = rows.iter().rfind(of_work).map(|row| row.begun_ms);
    let Some(begun_ms) = stamp.map(|stamp| stamp.begun_ms).or(last) else { return Ok(None) };
    let same = rows.iter().filter(|row| row.begun_ms == begun_ms);
    let cues = bench.state.cues.iter().filter(|cue| cue.begun_ms == begun_ms);
    let inputs = if work.is_fit() { job.inputs_of(work) } else { Some(bench.planned.inputs.clone()) };
    Ok(WatchedCourse::new(&WatchedHeating {
        said: same.filter_map(|row| Some((row.at_s as f64, live::read(&row.says)?))).collect(),
        from_s: inputs.map_or(0.0, |inputs| inputs.settings.seconds_before() as f64),
        cues: cues.map(|cue| (cue.row.clone(), cue.seconds)).collect(),
        moved_s: stamp.map(|stamp| stamp.seconds),
    }))
}

/// What the player is told before the frames.
#[derive(Serialize)]
struct Header<'a> {
    x_mm: &'a [f64],
    y_mm: &'a [f64],
    /// A digit per column: 1 is board.
    inside: String,
    every_s: usize,
    frames: usize,
    seconds: usize,
    off_s: f64,
    released: bool,
    /// Joints with their moments, null where it never came.
    joints: Vec<(&'a str, Option<f64>)>,
    names: Vec<String>,
    /// At each second: place among the names, and how far off its limit, in the visitor's degrees.
    tightest: Vec<(usize, i64)>,
    unit: &'static str,
    chart: [f64; 2],
}

/// `length of the header, u32 little endian | header, JSON | frames`. A frame is a byte per column, top then bottom, in 255
/// even steps over all of the replay, each the difference to the frame before.
pub(crate) async fn frames(State(app): State<App>, visitor: Visitor, path: HeatPath) -> Result<Response, Refusal> {
    // The settings may have been changed since the player was drawn: it is about to be drawn anew.
    let (replay, board) = match Showing::load(&app, path).await.and_then(Showing::ready) {
        Err(Refusal::NotYet(_)) => return Ok(StatusCode::NO_CONTENT.into_response()),
        other => other?,
    };
    let recording = &replay.recording;
    let degrees = |k: f64| visitor.scale.of_delta(TempDelta::kelvin(k)).round() as i64;
    let joints = board.connector.joints.iter().map(|j| j.name.as_str()).zip(recording.melted.iter().copied());
    let header = Header {
        x_mm: &recording.x_mm,
        y_mm: &recording.y_mm,
        inside: recording.inside.iter().map(|inside| if *inside { '1' } else { '0' }).collect(),
        every_s: recording.every_s,
        frames: recording.frames.len(),
        seconds: recording.traces.len() - 1,
        off_s: recording.off,
        released: recording.released,
        joints: joints.collect(),
        names: replay.limits.iter().map(damaged).collect(),
        tightest: replay.tightest.iter().map(|(k, headroom)| (*k, degrees(*headroom))).collect(),
        unit: visitor.words().apart_unit(),
        chart: [LEFT, WIDTH],
    };
    let header = serde_json::to_vec(&header).map_err(|error| Refusal::Broken(error.to_string()))?;
    let mut body = (header.len() as u32).to_le_bytes().to_vec();
    body.extend(header);
    body.extend(stepped(&recording.frames));
    Ok(([(header::CONTENT_TYPE, "application/vnd.urgent-mend.replay")], body).into_response())
}

fn stepped(frames: &[[Vec<f32>; 2]]) -> Vec<u8> {
    let all = || frames.iter().flatten().flatten().copied();
    let (low, high) = all().fold((f32::MAX, f32::MIN), |(low, high), t| (low.min(t), high.max(t)));
    let step = ((high - low) / 255.0).max(1e-3);
    let cells = frames.first().map_or(0, |frame| frame[0].len() + frame[1].len());
    let mut before = vec![0_u8; cells];
    let mut bytes = Vec::with_capacity(frames.len() * cells);
    for frame in frames {
        for (was, t) in before.iter_mut().zip(frame.iter().flatten()) {
            let is = ((t - low) / step).round() as u8;
            bytes.push(is.wrapping_sub(*was));
            *was = is;
        }
    }
    bytes
}

/// A place that is to be watched.
#[derive(Deserialize)]
pub(crate) struct ReplayPlace {
    face: Face,
    x: f64,
    y: f64,
}

/// Its curve, as the chart draws it.
#[derive(Serialize)]
pub(crate) struct WatchedCurve {
    name: String,
    points: String,
}

pub(crate) async fn point(
    State(app): State<App>,
    path: HeatPath,
    Query(place): Query<ReplayPlace>,
) -> Result<Json<WatchedCurve>, Refusal> {
    let (replay, _) = Showing::load(&app, path).await?.ready()?;
    let recording = &replay.recording;
    let cell = |borders: &[f64], at: f64| borders.windows(2).position(|w| (w[0]..=w[1]).contains(&at));
    let columns = recording.x_mm.len() - 1;
    let column = cell(&recording.x_mm, place.x).zip(cell(&recording.y_mm, place.y)).map(|(i, j)| j * columns + i);
    let column = column.filter(|column| recording.inside[*column]).ok_or_else(|| {
        Refusal::field("x, y", format!("({:.1}, {:.1}) mm is off the board", place.x, place.y), "point at the board")
    })?;
    let curve = recording.frames.iter().map(|frame| frame[place.face as usize][column]);
    let points = CurvePaper::from_replay(&replay).points(curve, recording.every_s);
    Ok(Json(WatchedCurve { name: format!("{} ({:.1}, {:.1}) mm", place.face.name(), place.x, place.y), points }))
}

/// Every curve at every second, °C.
pub(crate) async fn curves(State(app): State<App>, path: HeatPath) -> Result<Response, Refusal> {
    let showing = Showing::load(&app, path).await?;
    let name = format!("job-{}-curves.csv", showing.job);
    let (replay, board) = showing.ready()?;
    let traces = &replay.recording.traces;
    let quoted = |name: &str, what: &str| format!("\"{} {what} (°C)\"", name.replace('"', "\"\""));
    let joints = board.connector.joints.iter().map(|j| quoted(&j.name, "joint"));
    let bodies = board.components.iter().map(|n| quoted(&n.name, "body"));
    let own = board.components.iter().map(|n| quoted(&n.name, "own joints"));
    let rest =
        ["part's body (°C)", "board at the joints (°C)", "laminate hottest (°C)"].map(|name| format!("\"{name}\""));
    let head: Vec<String> =
        std::iter::once("\"time (s)\"".to_owned()).chain(joints).chain(bodies).chain(own).chain(rest).collect();
    let columns = traces.joints.iter().chain(&traces.components).chain(&traces.own_joints);
    let columns: Vec<&Vec<f32>> = columns.chain([&traces.body, &traces.pads, &traces.laminate]).collect();
    let mut text = head.join(",") + "\r\n";
    for second in 0..traces.len() {
        let _ = write!(text, "{second}");
        columns.iter().for_each(|curve| {
            let _ = write!(text, ",{:.1}", curve[second]);
        });
        text += "\r\n";
    }
    Ok(saved(CSV, &name, text))
}

#[cfg(test)]
mod tests {
    use super::stepped;

    #[test]
    fn frames_are_differences_over_even_steps() {
        let bytes = stepped(&[[vec![0.0, 100.0], vec![255.0, 0.0]], [vec![1.0, 99.0], vec![255.0, 255.0]]]);
        assert_eq!(bytes, [0, 100, 255, 0, 1, 255, 0, 255]);
    }
}
