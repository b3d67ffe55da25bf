//! How the iron beside the station recovers: a tip on a block of copper, three touches.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::board::Board;
use mend_core::calibration::iron_recovery::{Block, IronMeasured, RECOVERED_K, Touch, USUAL_BLOCK_G, measured};
use mend_core::finding::Finding;
use mend_core::heat::iron_heater::IronHeater;
use mend_core::heat::known::Knowledge;
use mend_core::planning::tips::tips;
use mend_core::units::{Duration, Length, Scale, TempDelta, Temperature, Unit};
use mend_formats::bundle::USUAL_AMBIENT_C;
use mend_formats::station::StationFile;

use super::super::super::Frame;
use super::super::super::number::degrees;
use super::super::edit::StationPath;
use super::taken::{Measurement, SoFar};
use super::{Measuring, Taught, TypedValue, scale_key, within};
use crate::App;
use crate::extract::Form;
use crate::known::IRON;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{FindingView, iron_heater};

pub(super) const KIND: &str = IRON;
/// How often the block is touched.
const TOUCHES: usize = 3;
/// A tip of the usual width, mm.
const USUAL_TIP: &str = "3";
/// What a tip can read, °C.
const POSSIBLE_C: (f64, f64) = (0.0, 600.0);
/// Masses of blocks, g, and widths of tips, mm.
const BLOCK_G: (f64, f64) = (2.0, 200.0);
const TIP_MM: (f64, f64) = (0.5, 10.0);
/// How long a tip takes, s.
const RECOVERS_S: (f64, f64) = (1.0, 390.0);

/// What a change is shown on: the usual lead-free solder, on a cold board (D, 217-221 °C).
const LEAD_FREE_MELTS: Temperature = Temperature::celsius(219.0);

/// A row of the form.
struct TouchRow {
    number: usize,
    before: String,
    lowest: String,
    seconds: String,
}

/// What the entries come to.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/iron_found.html")]
pub(crate) struct IronFound {
    id: i64,
    kind: &'static str,
    findings: Vec<FindingView>,
    verdict: String,
    fits: bool,
    before: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/iron.html")]
pub(crate) struct IronPage {
    frame: Frame,
    id: i64,
    name: String,
    unit: &'static str,
    scale: &'static str,
    near: String,
    tip: String,
    block: String,
    begins: String,
    rows: Vec<TouchRow>,
    found: IronFound,
}

fn begins(kept: &Measuring, scale: Scale) -> String {
    kept.or("begins", &degrees(Temperature::celsius(USUAL_AMBIENT_C), scale))
}

fn rows(kept: &Measuring) -> Vec<TouchRow> {
    let row = |number: usize| {
        let get = |field: &str| kept.get(&format!("{field}-{number}")).to_owned();
        TouchRow { number, before: get("before"), lowest: get("lowest"), seconds: get("seconds") }
    };
    (1..=TOUCHES).map(row).collect()
}

/// What was read so far; none while no touch is whole.
fn read(kept: &Measuring, visitor: Visitor) -> Result<Option<IronMeasured>, Vec<Finding>> {
    let (mut bad, mut touches) = (Vec::new(), Vec::new());
    let scale = kept.scale(visitor);
    let unit = Unit::from(scale);
    let possible = <[f64; 2]>::from(POSSIBLE_C).map(|celsius| scale.of(Temperature::celsius(celsius))).into();
    let mass_g = within(
        "block",
        TypedValue { typed: &kept.or("block", &USUAL_BLOCK_G.to_string()), unit: Unit::Grams },
        BLOCK_G,
        &mut bad,
    );
    let tip = Length::mm(within(
        "tip",
        TypedValue { typed: &kept.or("tip", USUAL_TIP), unit: Unit::Millimetres },
        TIP_MM,
        &mut bad,
    ));
    let begins = scale.read(within("begins", TypedValue { typed: &begins(kept, scale), unit }, possible, &mut bad));
    for row in rows(kept) {
        if [&row.before, &row.lowest, &row.seconds].iter().any(|typed| typed.is_empty()) {
            continue;
        }
        let place = format!("touch {}", row.number);
        let before = scale.read(within(&place, TypedValue { typed: &row.before, unit }, possible, &mut bad));
        let lowest = scale.read(within(&place, TypedValue { typed: &row.lowest, unit }, possible, &mut bad));
        let recovered = Duration::seconds(within(
            &place,
            TypedValue { typed: &row.seconds, unit: Unit::Seconds },
            RECOVERS_S,
            &mut bad,
        ));
        if bad.is_empty() && (before - lowest).in_kelvin() < RECOVERED_K {
            let message = format!("the tip dips by less than {}", visitor.words().apart(RECOVERED_K));
            bad.push(Finding::written(super::RULE, place, message).hint("tin the block, so that the tip wets it"));
        }
        touches.push(Touch { before, lowest, recovered });
    }
    if bad.is_empty() { Ok(measured(&Block { mass_g, begins, tip }, &touches)) } else { Err(bad) }
}

fn verdict(found: &IronMeasured) -> String {
    let IronMeasured { heater: IronHeater { to_tip, most }, to_tip: [low, high], most: [least, greatest], fits } =
        found;
    if !fits {
        return "No iron on copper does that. Was the block cold, and the tip wetted?".to_owned();
    }
    format!("Heater to tip {to_tip:.1} K/W ({low:.1}–{high:.1}), at most {most:.0} W ({least:.0}–{greatest:.0}).")
}

fn found(kept: &Measuring, visitor: Visitor) -> IronFound {
    let (id, before) = (kept.id, iron_heater(&kept.file.iron));
    match read(kept, visitor) {
        Err(findings) => {
            let findings = visitor.words().findings(&findings);
            IronFound { id, kind: KIND, findings, verdict: String::new(), fits: false, before }
        }
        Ok(found) => IronFound {
            id,
            kind: KIND,
            findings: Vec::new(),
            verdict: found.as_ref().map_or(String::new(), verdict),
            fits: found.is_some_and(|found| found.fits),
            before,
        },
    }
}

/// Which tip the joint of a board that takes most wants, with the heater as it was and as it is.
pub(super) fn tip_change(board: &Board, heaters: [&IronHeater; 2]) -> String {
    let wants = |heater: &IronHeater| {
        let choices = tips(board, LEAD_FREE_MELTS, Temperature::celsius(USUAL_AMBIENT_C), *heater);
        choices.last().map_or(String::new(), |choice| match choice.tip_mm {
            Some(mm) => format!("{mm} mm"),
            None => "none on a cold board".to_owned(),
        })
    };
    let [was, is] = heaters.map(wants);
    if was == is {
        format!("the tip for its heaviest joint stays {is}")
    } else {
        format!("the tip for its heaviest joint was {was} and becomes {is}")
    }
}

/// What it comes to; nothing where no iron does what was read.
pub(super) fn taken(kept: &Measuring, visitor: Visitor) -> SoFar {
    let Some(found) = read(kept, visitor)?.filter(|found| found.fits) else { return Ok(None) };
    let rounded = |value: f64, to: f64| (value * to).round() / to;
    let iron = IronHeater { to_tip: rounded(found.heater.to_tip, 100.0), most: rounded(found.heater.most, 1.0) };
    let taught = Taught { kind: KIND, on: None, says: Knowledge::NOTHING, figures: verdict(&found) };
    Ok(Some(Measurement { file: StationFile { iron, ..kept.file.clone() }, taught }))
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<IronPage, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let scale = kept.scale(visitor);
    let title = format!("Iron beside {}", kept.file.name);
    Ok(IronPage {
        frame: Frame::new(title, visitor.scale, "stations", format!("/stations/{}/iron", kept.id)),
        id: kept.id,
        name: kept.file.name.clone(),
        unit: scale.symbol(),
        scale: scale_key(scale),
        near: format!("{:.0} {}", scale.of_delta(TempDelta::kelvin(RECOVERED_K)), scale.symbol()),
        tip: kept.or("tip", USUAL_TIP),
        block: kept.or("block", &USUAL_BLOCK_G.to_string()),
        begins: begins(&kept, scale),
        rows: rows(&kept),
        found: found(&kept, visitor),
    })
}

pub(crate) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<IronFound, Refusal> {
    Ok(found(&Measuring::entered(&app, &path, KIND, sent).await?, visitor))
}

pub(crate) async fn done(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<Vec<(String, String)>>,
) -> Result<Redirect, Refusal> {
    let kept = Measuring::entered(&app, &path, KIND, sent).await?;
    let nothing =
        || Refusal::field("touch", "there is no touch yet that an iron on copper would do", "touch the block");
    taken(&kept, visitor)?.ok_or_else(nothing)?.keep(&app, &kept).await
}
