//! The probe: a board, a thermocouple on it, two minutes of readings; computed in the background, shown before and after.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::board::{Board, Face, Point};
use mend_core::calibration::probe::{ON_S, SET, place, recipe};
use mend_core::calibration::probed::{ProbeRequest, Probed, probed};
use mend_core::finding::Finding;
use mend_core::heat::case::Case;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::units::Unit;
use mend_core::watch::Watch;
use mend_formats::board;
use mend_formats::bundle::Bundle;
use mend_formats::readings::{self, Readings};

use super::super::super::Frame;
use super::super::edit::StationPath;
use super::file::ColumnPicker;
use super::record::{RecordPart, is_under_way};
use super::taken::Measurement;
use super::{Measuring, ProbedWith, Taught, TypedValue, scale_key, within};
use crate::App;
use crate::computing::{Key, Progress, Stand, Viewer};
use crate::draw::probe_picture::ProbePicture;
use crate::extract::Form;
use crate::planner::usual_bundle;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{FindingView, release_band};

pub(super) const KIND: &str = "probe";

/// What is known of the probe while it is under way.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/probe_found.html")]
pub(crate) struct ProbeFound {
    id: i64,
    findings: Vec<FindingView>,
    /// How many readings were understood, in words; empty: none entered.
    taken: String,
    part: Option<Progress<ProbeView>>,
}

/// What it taught, laid out.
pub(crate) struct ProbeView {
    picture: ProbePicture,
    verdict: String,
    release: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/probe.html")]
pub(crate) struct ProbePage {
    frame: Frame,
    id: i64,
    name: String,
    unit: &'static str,
    scale: &'static str,
    set: String,
    flow: String,
    nozzle: String,
    distance: String,
    from: &'static str,
    boards: Vec<(i64, String, bool)>,
    board: i64,
    begins: String,
    at: [String; 2],
    face: &'static str,
    readings: String,
    found: ProbeFound,
    record: RecordPart,
    columns: Option<ColumnPicker>,
}

/// The board that is probed, and the thermocouple on it.
struct ProbedBoard {
    board_id: i64,
    board: Board,
    taped: Thermocouple,
}

async fn rig(app: &App, kept: &Measuring) -> Result<(Vec<(i64, String, bool)>, Option<ProbedBoard>), Refusal> {
    let rows = app.reading(|read| read.boards()).await?;
    let chosen = kept.get("board").parse::<i64>().ok();
    let row = rows.iter().find(|row| Some(row.id) == chosen).or(rows.first());
    let (id, parsed) = match row {
        Some(row) => (row.id, Some(board::parse(row.file.as_bytes())?)),
        None => (0, None),
    };
    let listed = rows.iter().map(|row| (row.id, row.name.clone(), row.id == id)).collect();
    let rig = parsed.map(|board| {
        let usual = place(&board);
        // A place belongs to the board that it was typed for.
        let own = |field: &str, usual: f64| {
            let typed = kept.get(field).parse::<f64>().ok();
            typed.filter(|_| kept.get("board-of-place") == id.to_string()).unwrap_or(usual)
        };
        let bounds = board.outline.bounds();
        let at = Point {
            x: own("x", usual.at.x).clamp(bounds.left(), bounds.right()),
            y: own("y", usual.at.y).clamp(bounds.near(), bounds.far()),
        };
        ProbedBoard { board_id: id, taped: Thermocouple { at, ..usual }, board }
    });
    Ok((listed, rig))
}

/// The readings that were entered; none where there are none yet.
fn read(kept: &Measuring, visitor: Visitor) -> Result<Option<Readings>, Vec<Finding>> {
    let text = kept.get("readings");
    if text.trim().is_empty() {
        return Ok(None);
    }
    let begins = kept.or("begins", "0");
    let mut bad = Vec::new();
    let begins = within("begins", TypedValue { typed: &begins, unit: Unit::Seconds }, (0.0, 86_400.0), &mut bad);
    let found = readings::parse(text, kept.scale(visitor), None)?;
    let shifted: Vec<[f64; 2]> =
        found.readings.iter().map(|[at, celsius]| [at - begins, *celsius]).filter(|[at, _]| *at >= 0.0).collect();
    let last = shifted.last().map_or(0.0, |[at, _]| *at);
    if bad.is_empty() && last < ON_S {
        let object = Finding::written(super::RULE, "readings", format!("they end after {last:.0} s"));
        bad.push(object.hint("go on for a minute of air and a minute without: every 10 s is enough"));
    }
    if bad.is_empty() { Ok(Some(Readings { readings: shifted, ..found })) } else { Err(bad) }
}

/// What is computed, for whom.
struct ProbeQuestion {
    bundle: Bundle,
    rig: ProbedBoard,
    readings: Vec<[f64; 2]>,
    key: Key<Probed>,
}

impl ProbeQuestion {
    async fn load(app: &App, kept: &Measuring, visitor: Visitor) -> Result<Option<(Self, Readings)>, Refusal> {
        let Some(found) = read(kept, visitor)? else { return Ok(None) };
        let Some(rig) = rig(app, kept).await?.1 else { return Ok(None) };
        // Not what the lessons say: that ages from moment to moment.
        let (bundle, station) = usual_bundle(app, kept.id, &kept.file, (rig.board_id, rig.board.clone())).await?;
        let text = serde_json::to_string(&found.readings)?;
        let Point { x, y } = rig.taped.at;
        let key = Key::probe(format!("{station} {} {x} {y} {text}", rig.board_id));
        let readings = found.readings.clone();
        Ok(Some((Self { bundle, rig, readings, key }, found)))
    }

    async fn probed(&self, app: &App, station: i64) -> Stand<Probed> {
        let (bundle, taped, readings) = (self.bundle.clone(), self.rig.taped, self.readings.clone());
        let work = move |watch: &Watch| {
            let order = bundle.order(watch);
            let melting =
                order.composition.targets(order.board).map_err(mend_core::planning::order::Unplanned::from)?;
            let next = order.case(&melting);
            let (recipe, taped) = (recipe(&bundle.station, &bundle.board), [taped]);
            let case = Case { recipe: &recipe, thermocouples: &taped, ..next };
            let request = ProbeRequest { case: &case, readings: &readings, next: Some(&next) };
            Ok(probed(&request).map_err(mend_core::planning::order::Unplanned::from)?)
        };
        app.computing.compute(Viewer::Probe(station), &self.key, work).await
    }
}

fn view(found: &Probed, readings: &[[f64; 2]], visitor: Visitor) -> ProbeView {
    let release = found.release_s.filter(|_| found.fits()).map_or(String::new(), |[before, after]| {
        format!("A usual plan on this board: release {} became {}.", release_band(before), release_band(after))
    });
    ProbeView { picture: ProbePicture::new(found, readings, visitor.scale), verdict: verdict(found, visitor), release }
}

fn verdict(found: &Probed, visitor: Visitor) -> String {
    let off = visitor.words().apart(found.residual_k.max(0.1));
    if found.fits() {
        format!("Now the curve is met within {off}.")
    } else {
        format!(
            "They fit no station and board like these: the curve is missed by {off}. Has the bead come off, or is it elsewhere?"
        )
    }
}

async fn found_part(app: &App, kept: &Measuring, visitor: Visitor) -> Result<ProbeFound, Refusal> {
    let id = kept.id;
    let empty = |findings, taken| ProbeFound { id, findings, taken, part: None };
    if is_under_way(app, kept) {
        return Ok(empty(Vec::new(), String::new()));
    }
    let (question, readings) = match ProbeQuestion::load(app, kept, visitor).await {
        Ok(Some(loaded)) => loaded,
        Ok(None) => return Ok(empty(Vec::new(), String::new())),
        Err(Refusal::Bad(findings)) => return Ok(empty(visitor.words().findings(&findings), String::new())),
        Err(other) => return Err(other),
    };
    let gaps = if readings.left_out > 0 {
        format!(", {} lines without one left out", readings.left_out)
    } else {
        String::new()
    };
    let taken = format!("{} readings{gaps}", readings.readings.len());
    let part = question.probed(app, id).await.shown(|found| view(&found, &question.readings, visitor))?;
    Ok(ProbeFound { part: Some(part), ..empty(Vec::new(), taken) })
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<ProbePage, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let station = kept.file.clone().into_station()?;
    let (boards, rig) = rig(&app, &kept).await?;
    let at = rig.as_ref().map_or([0.0, 0.0], |rig| [rig.taped.at.x, rig.taped.at.y]);
    let air = rig.as_ref().and_then(|rig| recipe(&station, &rig.board).preheat.first()?.air);
    let face = |face: Face| if face == Face::Top { "top" } else { "bottom" };
    let words = visitor.words();
    Ok(ProbePage {
        frame: Frame::new(
            format!("Probe of {}", kept.file.name),
            visitor.scale,
            "stations",
            format!("/stations/{}/probe", kept.id),
        ),
        id: kept.id,
        name: kept.file.name.clone(),
        unit: kept.scale(visitor).symbol(),
        scale: scale_key(kept.scale(visitor)),
        set: words.temperature(air.map_or(SET, |air| air.set).in_celsius()),
        flow: shown_flow(&station, air.map_or(station.flow_range.1, |air| air.flow)),
        nozzle: station.widest_nozzle().in_mm().to_string(),
        distance: air.map_or(String::new(), |air| air.distance.in_mm().to_string()),
        from: air.map_or("bottom", |air| face(air.face)),
        board: rig.as_ref().map_or(0, |rig| rig.board_id),
        begins: kept.or("begins", "0"),
        boards,
        at: at.map(|mm| ((mm * 10.0).round() / 10.0).to_string()),
        face: rig.as_ref().map_or("top", |rig| face(rig.taped.face)),
        readings: kept.get("readings").to_owned(),
        record: RecordPart::load(&app, &kept, visitor).await?,
        columns: ColumnPicker::of(&kept),
        found: found_part(&app, &kept, visitor).await?,
    })
}

/// As the station's own display shows it.
fn shown_flow(station: &mend_core::heat::station::Station, flow: mend_core::units::Flow) -> String {
    let lpm = flow.in_litres_per_minute();
    station
        .display
        .value(flow)
        .map_or(format!("{lpm:.0} L/min"), |shown| format!("{shown:.0} on its display ({lpm:.0} L/min)"))
}

pub(crate) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<ProbeFound, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    found_part(&app, &kept, visitor).await
}

pub(crate) async fn found(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<ProbeFound, Refusal> {
    found_part(&app, &Measuring::load(&app, &path, KIND).await?, visitor).await
}

/// Another board is probed: where the bead goes is said anew.
pub(crate) async fn choose(
    State(app): State<App>,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    Ok(Redirect::to(&format!("/stations/{}/probe", kept.id)))
}

pub(crate) async fn done(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    let nothing = || Refusal::field("readings", "there are no readings yet", "enter them, or choose the logger's file");
    let (question, _) = ProbeQuestion::load(&app, &kept, visitor).await?.ok_or_else(nothing)?;
    let taken = question.probed(&app, kept.id).await.shown(|found| {
        let lines = view(&found, &question.readings, visitor);
        (found.fits().then_some(found.says), format!("{} {}", lines.verdict, lines.release))
    })?;
    let Progress::Ready((says, figures)) = taken else {
        return Err(Refusal::NotYet("The probe is not computed yet: wait until its result is shown"));
    };
    let says = says.ok_or_else(|| Refusal::field("readings", figures.clone(), "tape the bead flat and probe again"))?;
    let nozzle_mm = question.bundle.station.widest_nozzle().in_mm();
    let on = Some(ProbedWith { nozzle_mm, board_id: question.rig.board_id });
    Measurement { file: kept.file.clone(), taught: Taught { kind: KIND, on, says, figures } }.keep(&app, &kept).await
}
