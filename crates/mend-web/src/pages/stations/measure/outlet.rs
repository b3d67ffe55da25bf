//! What leaves the nozzle against what is set: a thermocouple below it, three set temperatures at two flows.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::calibration::outlet::{BELOW_MM, OutletMeasured, OutletReading, OutletSpot, measured};
use mend_core::finding::Finding;
use mend_core::heat::nozzle_air::NozzleAir;
use mend_core::units::{Flow, Length, Scale, Temperature, Unit};
use mend_formats::bundle::USUAL_AMBIENT_C;
use mend_formats::station::StationFile;

use super::super::super::Frame;
use super::super::super::number::degrees;
use super::super::edit::StationPath;
use super::taken::{Measurement, SoFar};
use super::{Measuring, Taught, TypedValue, scale_key, within};
use crate::App;
use crate::extract::Form;
use crate::known::NOZZLE_AIR;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

pub(super) const KIND: &str = "outlet";
/// Set temperatures, and flows at each.
const SETS: usize = 3;
const FLOWS: usize = 2;
/// What is set at first, °C, within what the station takes.
const USUAL_SETS_C: [f64; SETS] = [200.0, 300.0, 400.0];
/// What a bead in a jet can come to, °C.
const POSSIBLE_C: (f64, f64) = (0.0, 700.0);

/// A row of the form: a set temperature, and what was read at each flow.
struct OutletRow {
    number: usize,
    set: String,
    read: [String; FLOWS],
}

/// What the entries come to.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/outlet_found.html")]
pub(crate) struct OutletFound {
    id: i64,
    kind: &'static str,
    findings: Vec<FindingView>,
    verdict: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/outlet.html")]
pub(crate) struct OutletPage {
    frame: Frame,
    id: i64,
    name: String,
    unit: &'static str,
    scale: &'static str,
    below_mm: f64,
    nozzles: Vec<(String, bool)>,
    flows: [String; FLOWS],
    rows: Vec<OutletRow>,
    found: OutletFound,
}

fn nozzle(kept: &Measuring) -> f64 {
    let widest = kept.file.nozzles_mm.iter().copied().fold(0.0, f64::max);
    let chosen = kept.get("nozzle").parse::<f64>().ok();
    chosen.filter(|mm| kept.file.nozzles_mm.contains(mm)).unwrap_or(widest)
}

fn flows(kept: &Measuring) -> [String; FLOWS] {
    let [low, high] = kept.file.flow_lpm;
    let usual = [f64::midpoint(low, high).round(), high];
    std::array::from_fn(|k| kept.or(&format!("flow-{}", k + 1), &usual[k].to_string()))
}

fn rows(kept: &Measuring, scale: Scale) -> Vec<OutletRow> {
    let usual = |k: usize| Temperature::celsius(USUAL_SETS_C[k].clamp(kept.file.set_c[0], kept.file.set_c[1]));
    let row = |k: usize| OutletRow {
        number: k + 1,
        set: kept.or(&format!("set-{}", k + 1), &degrees(usual(k), scale)),
        read: std::array::from_fn(|flow| kept.get(&format!("read-{}-{}", k + 1, flow + 1)).to_owned()),
    };
    (0..SETS).map(row).collect()
}

/// What was read so far; none while nothing was.
fn read(kept: &Measuring, visitor: Visitor) -> Result<Option<OutletMeasured>, Vec<Finding>> {
    let station = kept.file.clone().into_station()?;
    let (mut bad, mut readings) = (Vec::new(), Vec::new());
    let scale = kept.scale(visitor);
    let [low, high] = [POSSIBLE_C.0, POSSIBLE_C.1].map(|celsius| scale.of(Temperature::celsius(celsius)));
    let unit = Unit::from(scale);
    let flows = flows(kept);
    for row in rows(kept, scale) {
        for (typed, flow) in row.read.iter().zip(&flows).filter(|(typed, _)| !typed.is_empty()) {
            let place = format!("row {}", row.number);
            let set = scale.read(within(&place, TypedValue { typed: &row.set, unit }, (low, high), &mut bad));
            let flow = Flow::litres_per_minute(within(
                "flow",
                TypedValue { typed: flow, unit: Unit::LitresPerMinute },
                (1.0, 500.0),
                &mut bad,
            ));
            let read = scale.read(within(&place, TypedValue { typed, unit }, (low, high), &mut bad));
            readings.push(OutletReading { set, flow, read });
        }
    }
    let ambient = Temperature::celsius(USUAL_AMBIENT_C);
    let found = measured(&OutletSpot { station: &station, nozzle: Length::mm(nozzle(kept)), ambient }, &readings);
    if bad.is_empty() { Ok(found) } else { Err(bad) }
}

fn found(kept: &Measuring, visitor: Visitor) -> OutletFound {
    let (findings, verdict) = match read(kept, visitor) {
        Err(findings) => (visitor.words().findings(&findings), String::new()),
        Ok(found) => (Vec::new(), found.map_or(String::new(), |found| verdict(&found, visitor))),
    };
    OutletFound { id: kept.id, kind: KIND, findings, verdict }
}

fn verdict(found: &OutletMeasured, visitor: Visitor) -> String {
    let words = visitor.words();
    let within = format!("the readings agree within {}", words.apart(found.spread_k.max(1.0)));
    let off = match found.off_k {
        off if off.abs() < 2.0 => "as expected".to_owned(),
        off => format!("{} {} than expected", words.apart(off.abs()), if off < 0.0 { "cooler" } else { "hotter" }),
    };
    let Some(NozzleAir { share, loss }) = found.air else {
        return format!("What leaves the nozzle is {off}; {within}.");
    };
    let rest = if found.off_k.abs() < 2.0 { String::new() } else { format!(" What leaves it is {off} then.") };
    format!("{:.0} % of what is set arrives, and the nozzle loses {loss:.3} W/K; {within}.{rest}", 100.0 * share)
}

/// What it comes to: efficiency and loss, where it tells them, are the station's own from now on.
pub(super) fn taken(kept: &Measuring, visitor: Visitor) -> SoFar {
    let Some(found) = read(kept, visitor)? else { return Ok(None) };
    let kind = if found.air.is_some() { NOZZLE_AIR } else { KIND };
    let taught = Taught { kind, on: None, figures: verdict(&found, visitor), says: found.says };
    let nozzle_air = found.air.map_or(kept.file.nozzle_air, as_written);
    Ok(Some(Measurement { file: StationFile { nozzle_air, ..kept.file.clone() }, taught }))
}

/// As far as its figures say anything.
fn as_written(air: NozzleAir) -> NozzleAir {
    let rounded = |value: f64, to: f64| (value * to).round() / to;
    NozzleAir { share: rounded(air.share, 1e3), loss: rounded(air.loss, 1e4) }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<OutletPage, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let chosen = nozzle(&kept);
    let title = format!("Air of {}", kept.file.name);
    Ok(OutletPage {
        frame: Frame::new(title, visitor.scale, "stations", format!("/stations/{}/outlet", kept.id)),
        id: kept.id,
        name: kept.file.name.clone(),
        unit: kept.scale(visitor).symbol(),
        scale: scale_key(kept.scale(visitor)),
        below_mm: BELOW_MM,
        nozzles: kept.file.nozzles_mm.iter().map(|mm| (mm.to_string(), *mm == chosen)).collect(),
        flows: flows(&kept),
        rows: rows(&kept, kept.scale(visitor)),
        found: found(&kept, visitor),
    })
}

pub(crate) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<OutletFound, Refusal> {
    Ok(found(&Measuring::entered(&app, &path, KIND, sent).await?, visitor))
}

pub(crate) async fn done(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    let nothing = || Refusal::field("read", "nothing has been read yet", "enter what the thermocouple came to");
    taken(&kept, visitor)?.ok_or_else(nothing)?.keep(&app, &kept).await
}
