//! What is known of a station and what taught it: lessons, each of which can be left out with a reason.

use axum::extract::{Path, State};
use axum::response::Redirect;
use jiff::Timestamp;
use mend_core::calibration::lesson::{Lesson, known_at};
use mend_core::heat::known::{Belief, Teachable, TeachableValues};
use mend_core::units::Length;
use mend_formats::station::StationFile;
use mend_store::LessonRow;
use serde::Deserialize;

use super::super::scale::is_own_path;
use super::edit::{list_open_jobs, load};
use crate::App;
use crate::extract::Form;
use crate::known::{Setup, counted};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{capital, teachable};

/// A spread that is narrower than this part of another was taught.
const TAUGHT: f64 = 0.95;
/// Longest reason, characters.
const LONGEST_REASON: usize = 200;

/// A thing that is known, more or less.
pub(super) struct KnownRow {
    pub(super) what: String,
    /// Its middle and what eight in ten lie within, in words.
    pub(super) value: String,
    /// Where it is from.
    pub(super) from: String,
}

/// A lesson in the list.
pub(super) struct LessonView {
    pub(super) id: i64,
    pub(super) when: String,
    pub(super) kind: &'static str,
    pub(super) figures: String,
    pub(super) left_out: Option<String>,
}

/// All of it.
pub(super) struct KnownView {
    pub(super) rows: Vec<KnownRow>,
    pub(super) lessons: Vec<LessonView>,
}

impl KnownView {
    pub(super) async fn load(app: &App, (id, file): (i64, &StationFile), visitor: Visitor) -> Result<Self, Refusal> {
        let rows = app.reading(move |read| read.lessons_of_station(id)).await?;
        let now_s = app.now_ms() as f64 / 1000.0;
        let blind = blind(file);
        let believed = |nozzle: Option<f64>| {
            let counting: Vec<Lesson> = {
                let setup = Setup { station: id, board: None, nozzle: nozzle.map(Length::mm) };
                rows.iter().filter_map(|row| counted(row, setup)).collect()
            };
            blind.taught(&known_at(&counting, now_s, &blind))
        };
        let widest = file.nozzles_mm.iter().copied().fold(0.0, f64::max);
        let mut nozzles: Vec<f64> = rows.iter().filter_map(|row| row.lesson.nozzle_mm).collect();
        nozzles.push(widest);
        nozzles.sort_by(f64::total_cmp);
        nozzles.dedup();
        let of = |what, nozzle: Option<f64>| row((what, nozzle), (&believed(nozzle), &blind), visitor);
        let jets = nozzles.into_iter().map(|nozzle| of(Teachable::Jet, Some(nozzle)));
        let known = [of(Teachable::Flow, None), of(Teachable::Outlet, None)].into_iter().chain(jets).collect();
        let zone = app.now().time_zone().clone();
        let when = |ms: i64| {
            let at = Timestamp::from_millisecond(ms).ok();
            at.map_or(String::new(), |at| zone.to_datetime(at).strftime("%-d %b %Y").to_string())
        };
        let lesson = |row: &LessonRow| LessonView {
            id: row.id,
            when: when(row.taught_ms),
            kind: kind(&row.lesson.kind),
            figures: row.lesson.figures.clone(),
            left_out: row.left_out.clone(),
        };
        Ok(Self { rows: known, lessons: rows.iter().rev().map(lesson).collect() })
    }
}

fn kind(key: &str) -> &'static str {
    match key {
        "flow" => "Flow, by a bag",
        "outlet" => "Air, by a thermocouple",
        "job" => "A job",
        _ => "Probe",
    }
}

/// What is guessed of a station as its file has it.
fn blind(file: &StationFile) -> Belief {
    let mut spreads = TeachableValues::repeat(0.2);
    spreads[Teachable::Jet as usize] = file.jet_spread;
    spreads[Teachable::Flow as usize] = file.flow_spread;
    spreads[Teachable::Outlet as usize] = file.outlet_spread_k;
    Belief::from_spreads(&spreads)
}

/// Of a station that nobody has measured.
const fn guessed(what: Teachable) -> f64 {
    match what {
        Teachable::Outlet => 15.0,
        Teachable::Flow => 0.15,
        _ => 0.25,
    }
}

fn row((what, nozzle): (Teachable, Option<f64>), (belief, blind): (&Belief, &Belief), visitor: Visitor) -> KnownRow {
    let said = |belief: &Belief| visitor.words().believed(what, belief.band(what));
    KnownRow {
        what: match nozzle {
            Some(mm) => format!("{}, {mm} mm nozzle", capital(teachable(what))),
            None => capital(teachable(what)),
        },
        value: said(belief),
        from: match () {
            () if belief.spread(what) < TAUGHT * blind.spread(what) => {
                format!("before it was measured: {}", said(blind))
            }
            () if blind.spread(what) < TAUGHT * guessed(what) => "as its file has it".to_owned(),
            () => "a guess: nobody has measured it".to_owned(),
        },
    }
}

/// Why a lesson does not count; empty: it counts again.
#[derive(Deserialize)]
pub(super) struct LeftOut {
    #[serde(default)]
    why: String,
    #[serde(default)]
    counts: String,
    /// The page that it was said on; else the station's.
    #[serde(default)]
    back: String,
}

pub(super) async fn leave_out(
    State(app): State<App>,
    Path((id, number)): Path<(String, String)>,
    Form(sent): Form<LeftOut>,
) -> Result<Redirect, Refusal> {
    let station = load(&app, &Path(id)).await?;
    let number: i64 = number.parse().map_err(|_| Refusal::NotFound("lesson"))?;
    let row = app.reading(move |read| read.lesson(number)).await?;
    row.filter(|row| row.lesson.station_id == station.id).ok_or(Refusal::NotFound("lesson"))?;
    let why = sent.why.trim().to_owned();
    if sent.counts.is_empty() && !(1..=LONGEST_REASON).contains(&why.chars().count()) {
        let hint = format!("say why in up to {LONGEST_REASON} characters, like “the bag leaked”");
        return Err(Refusal::field("why", "a lesson is left out for a reason", &hint));
    }
    let why = sent.counts.is_empty().then_some(why);
    app.writing(move |write| write.leave_lesson_out(number, why.as_deref())).await?;
    list_open_jobs(&app).await?;
    if is_own_path(&sent.back) {
        return Ok(Redirect::to(&sent.back));
    }
    Ok(Redirect::to(&format!("/stations/{}#known", station.id)))
}
