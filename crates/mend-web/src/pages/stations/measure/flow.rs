//! Flow by a bag: three values on the display, each timed twice.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::calibration::flow_by_bag::{Filling, FlowMeasured, USUAL_BAG_L, measured};
use mend_core::finding::Finding;
use mend_core::heat::display::Shows;
use mend_core::units::Unit;
use mend_formats::station::StationFile;

use super::super::super::Frame;
use super::super::edit::StationPath;
use super::taken::{Measurement, SoFar};
use super::{Measuring, Taught, TypedValue, within};
use crate::App;
use crate::extract::Form;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

pub(super) const KIND: &str = "flow";
/// Values on the display, and how often each is timed.
const ROWS: usize = 3;
const TIMES: usize = 2;

/// A row of the form.
struct FlowRow {
    number: usize,
    shown: String,
    seconds: [String; TIMES],
}

/// What the entries come to.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/flow_found.html")]
pub(crate) struct FlowFound {
    id: i64,
    kind: &'static str,
    findings: Vec<FindingView>,
    /// Shown, and real L/min.
    table: Vec<(String, String)>,
    /// In a sentence.
    verdict: String,
    shows: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/flow.html")]
pub(crate) struct FlowPage {
    frame: Frame,
    id: i64,
    name: String,
    shows: &'static str,
    bag: String,
    rows: Vec<FlowRow>,
    found: FlowFound,
}

/// The values that the display shows at least flow, in between and at most.
fn usual_shown(file: &StationFile) -> [String; ROWS] {
    let (low, high) = match (file.display.first(), file.display.last()) {
        (Some(first), Some(last)) if file.shows != Shows::Flow => (first[0], last[0]),
        _ => (file.flow_lpm[0], file.flow_lpm[1]),
    };
    [low, f64::midpoint(low, high).round(), high].map(|value| value.to_string())
}

fn rows(kept: &Measuring) -> Vec<FlowRow> {
    let row = |(k, usual): (usize, String)| FlowRow {
        number: k + 1,
        shown: kept.or(&format!("shown-{}", k + 1), &usual),
        seconds: std::array::from_fn(|time| kept.get(&format!("seconds-{}-{}", k + 1, time + 1)).to_owned()),
    };
    usual_shown(&kept.file).into_iter().enumerate().map(row).collect()
}

/// What was timed so far; none while it is too little.
fn read(kept: &Measuring) -> Result<Option<FlowMeasured>, Vec<Finding>> {
    let mut bad = Vec::new();
    let bag = within(
        "bag",
        TypedValue { typed: &kept.or("bag", &USUAL_BAG_L.to_string()), unit: Unit::One },
        (0.5, 300.0),
        &mut bad,
    );
    let mut fillings = Vec::new();
    for row in rows(kept) {
        for typed in row.seconds.iter().filter(|typed| !typed.is_empty()) {
            let place = format!("row {}", row.number);
            let shown = within(&place, TypedValue { typed: &row.shown, unit: Unit::One }, (0.1, 1000.0), &mut bad);
            let seconds = within(&place, TypedValue { typed, unit: Unit::Seconds }, (1.0, 3600.0), &mut bad);
            fillings.push(Filling { shown, seconds });
        }
    }
    if bad.is_empty() { Ok(measured(kept.file.shows, bag, &fillings)) } else { Err(bad) }
}

fn found(kept: &Measuring, visitor: Visitor) -> FlowFound {
    let shows = kept.file.shows.name();
    let empty =
        |findings| FlowFound { id: kept.id, kind: KIND, findings, table: Vec::new(), verdict: String::new(), shows };
    match read(kept) {
        Err(findings) => empty(visitor.words().findings(&findings)),
        Ok(None) => empty(Vec::new()),
        Ok(Some(found)) => FlowFound {
            table: found
                .table
                .iter()
                .map(|(shown, flow)| (shown.to_string(), format!("{:.1}", flow.in_litres_per_minute())))
                .collect(),
            verdict: verdict(&found, kept.file.shows),
            ..empty(Vec::new())
        },
    }
}

fn verdict(found: &FlowMeasured, shows: Shows) -> String {
    let agree = format!("the fillings agree within {:.0} %", (100.0 * found.spread).max(1.0));
    let off = 100.0 * (found.ratio - 1.0);
    match shows {
        Shows::Percent | Shows::Dial => format!("This table becomes the display's own; {agree}."),
        Shows::Flow if off.abs() < 1.5 => format!("It gives what it shows; {agree}."),
        Shows::Flow => {
            format!("It gives {:.0} % {} than it shows; {agree}.", off.abs(), if off < 0.0 { "less" } else { "more" })
        }
    }
}

/// What it comes to: of a display that is none of L/min the table is its own from now on.
pub(super) fn taken(kept: &Measuring) -> SoFar {
    let Some(found) = read(kept)? else { return Ok(None) };
    let table = || found.table.iter().map(|(shown, flow)| [*shown, flow.in_litres_per_minute()]).collect();
    let display = if kept.file.shows == Shows::Flow { kept.file.display.clone() } else { table() };
    let taught = Taught { kind: KIND, on: None, figures: verdict(&found, kept.file.shows), says: found.says };
    Ok(Some(Measurement { file: StationFile { display, ..kept.file.clone() }, taught }))
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<FlowPage, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    Ok(FlowPage {
        frame: Frame::new(
            format!("Flow of {}", kept.file.name),
            visitor.scale,
            "stations",
            format!("/stations/{}/flow", kept.id),
        ),
        id: kept.id,
        name: kept.file.name.clone(),
        shows: kept.file.shows.name(),
        bag: kept.or("bag", &USUAL_BAG_L.to_string()),
        rows: rows(&kept),
        found: found(&kept, visitor),
    })
}

pub(crate) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<FlowFound, Refusal> {
    Ok(found(&Measuring::entered(&app, &path, KIND, sent).await?, visitor))
}

pub(crate) async fn done(
    State(app): State<App>,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    let too_little = || {
        Refusal::field("seconds", "two values on the display have not been timed yet", "time the bag at two at least")
    };
    taken(&kept)?.ok_or_else(too_little)?.keep(&app, &kept).await
}
