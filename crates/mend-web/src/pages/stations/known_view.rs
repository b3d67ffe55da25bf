//! What is known of a station and what taught it: lessons, each of which can be left out with a reason.

use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_core::calibration::lesson::known_at;
use mend_core::heat::known::{Belief, Knowledge, Teachable};
use mend_core::heat::nozzle_air::NozzleAir;
use mend_core::units::{Length, TempDelta};
use mend_formats::lesson;
use mend_formats::station::{self, StationFile};
use mend_store::{LessonRow, NewLesson};
use serde::Deserialize;

use super::super::scale::is_own_path;
use super::edit::{StationPath, list_open_jobs, load};
use crate::App;
use crate::draw::known_line::{KnownLine, KnownPoint};
use crate::extract::Form;
use crate::jet_drift::{day, guessed_of, jet_drift};
use crate::known::{IRON, NEW_HEATER, NEW_NOZZLE, NOZZLE_AIR, Setup, counting};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{capital, iron_heater, nozzle_air, teachable};

/// A spread that is narrower than this part of another was taught.
const TAUGHT: f64 = 0.95;
/// A lesson that changes a spread by less than this, of its logarithm, said nothing of a thing.
const SAID: f64 = 0.01;
/// Longest reason, characters.
const LONGEST_REASON: usize = 200;

/// A thing that is known, more or less.
pub(super) struct KnownRow {
    pub(super) what: String,
    /// Its middle and what eight in ten lie within, in words.
    pub(super) value: String,
    /// Where it is from.
    pub(super) from: String,
    /// How it became known.
    pub(super) line: Option<KnownLine>,
}

/// A lesson in the list.
pub(super) struct LessonView {
    pub(super) id: i64,
    pub(super) when: String,
    pub(super) kind: String,
    pub(super) job: Option<i64>,
    pub(super) figures: String,
    pub(super) left_out: Option<String>,
    /// Did it set what stands in the station's form? Then it is changed there, not left out.
    pub(super) in_form: bool,
}

/// All of it.
pub(super) struct KnownView {
    pub(super) rows: Vec<KnownRow>,
    pub(super) lessons: Vec<LessonView>,
    /// All its nozzles.
    pub(super) nozzles: Vec<f64>,
    /// Jets that are no longer what they were, in words.
    pub(super) drifts: Vec<String>,
}

/// A thing of a station, with the nozzle where it matters.
#[derive(Clone, Copy)]
struct KnownThing {
    what: Teachable,
    nozzle: Option<f64>,
}

impl KnownThing {
    fn name(self) -> String {
        match self.nozzle {
            Some(mm) => format!("{}, {mm} mm nozzle", capital(teachable(self.what))),
            None => capital(teachable(self.what)),
        }
    }
}

/// A station's lessons, and what is guessed of it without any.
struct TaughtStation<'a> {
    id: i64,
    rows: &'a [LessonRow],
    blind: Belief,
    visitor: Visitor,
}

impl TaughtStation<'_> {
    fn setup(&self, nozzle: Option<f64>) -> Setup {
        Setup { station: self.id, board: None, nozzle: nozzle.map(Length::mm) }
    }

    /// What is believed at a moment after the first so many lessons.
    fn believed(&self, thing: KnownThing, lessons: usize, at_s: f64) -> Belief {
        let counting = counting(&self.rows[..lessons], self.setup(thing.nozzle));
        self.blind.taught(&known_at(&counting, at_s, &self.blind))
    }

    fn row(&self, thing: KnownThing, now_s: f64, when: &dyn Fn(i64) -> String) -> KnownRow {
        let believed = self.believed(thing, self.rows.len(), now_s);
        let row = row(thing, &believed, &self.blind, self.visitor);
        KnownRow {
            line: KnownLine::new(&self.course(thing, when), &thing.name(), unit(thing.what, self.visitor)),
            ..row
        }
    }

    /// After each lesson that had something to say of it.
    fn course(&self, thing: KnownThing, when: &dyn Fn(i64) -> String) -> Vec<KnownPoint> {
        let mut course: Vec<KnownPoint> = Vec::new();
        for (k, row) in self.rows.iter().enumerate() {
            let now_s = row.taught_ms as f64 / 1000.0;
            let [was, is] = [k, k + 1].map(|lessons| self.believed(thing, lessons, now_s));
            if (was.spread(thing.what) / is.spread(thing.what)).ln().abs() < SAID {
                continue;
            }
            let band = is.band(thing.what).map(|at| shown(thing.what, at, self.visitor));
            let day = when(row.taught_ms);
            let taught = format!("{}, {day}", kind(&row.lesson.kind));
            course.push(KnownPoint { at_ms: row.taught_ms, band, taught, day });
        }
        course
    }
}

impl KnownView {
    pub(super) async fn load(app: &App, id: i64, file: &StationFile, visitor: Visitor) -> Result<Self, Refusal> {
        let rows = app.reading(move |read| read.lessons_of_station(id)).await?;
        let zone = app.now().time_zone().clone();
        let when = |ms: i64| day(ms, &zone);
        let nozzles = nozzles(file, &rows);
        let taught = TaughtStation { id, rows: &rows, blind: guessed_of(file), visitor };
        let things = [Teachable::Flow, Teachable::Outlet].map(|what| KnownThing { what, nozzle: None });
        let jets = nozzles.iter().map(|mm| KnownThing { what: Teachable::Jet, nozzle: Some(*mm) });
        let now_s = app.now_ms() as f64 / 1000.0;
        let known = things.into_iter().chain(jets).map(|thing| taught.row(thing, now_s, &when));
        let known = known.chain(in_file(file)).collect();
        let drift = |nozzle: &f64| jet_drift(&rows, taught.setup(Some(*nozzle)), &taught.blind, &zone);
        let drifts = nozzles.iter().filter_map(drift).collect();
        let lesson = |row: &LessonRow| LessonView {
            id: row.id,
            when: when(row.taught_ms),
            kind: row.lesson.job_id.map_or_else(|| kind(&row.lesson.kind).to_owned(), |job| format!("Job {job}")),
            job: row.lesson.job_id,
            figures: row.lesson.figures.clone(),
            left_out: row.left_out.clone(),
            in_form: row.lesson.kind == IRON,
        };
        let lessons = rows.iter().rev().map(lesson).collect();
        Ok(Self { rows: known, lessons, nozzles: file.nozzles_mm.clone(), drifts })
    }
}

/// The nozzles that were measured or used, and the widest.
fn nozzles(file: &StationFile, rows: &[LessonRow]) -> Vec<f64> {
    let mut nozzles: Vec<f64> = rows.iter().filter_map(|row| row.lesson.nozzle_mm).collect();
    nozzles.push(file.nozzles_mm.iter().copied().fold(0.0, f64::max));
    nozzles.sort_by(f64::total_cmp);
    nozzles.dedup();
    nozzles
}

/// A believed value as an axis has it: per cent, or the visitor's degrees.
fn shown(what: Teachable, at: f64, visitor: Visitor) -> f64 {
    match what {
        Teachable::Outlet => visitor.scale.of_delta(TempDelta::kelvin(at)),
        _ => 100.0 * (at.exp() - 1.0),
    }
}

fn unit(what: Teachable, visitor: Visitor) -> &'static str {
    if what == Teachable::Outlet { visitor.words().apart_unit() } else { "%" }
}

fn kind(key: &str) -> &'static str {
    match key {
        "flow" => "Flow, by a bag",
        "outlet" | NOZZLE_AIR => "Air, by a thermocouple",
        IRON => "Iron, on a block of copper",
        "job" => "A job",
        NEW_HEATER => "New heater",
        NEW_NOZZLE => "New nozzle",
        _ => "Probe",
    }
}

/// What a measurement has put into the station's own file.
fn in_file(file: &StationFile) -> [KnownRow; 2] {
    let row = |what: &str, value: String, usual: bool| KnownRow {
        what: what.to_owned(),
        value,
        from: if usual { "a guess: nobody has measured it" } else { "as its file has it" }.to_owned(),
        line: None,
    };
    [
        row("Air at the nozzle", nozzle_air(&file.nozzle_air), file.nozzle_air.is_usual()),
        row("Iron beside it", iron_heater(&file.iron), file.iron.is_usual()),
    ]
}

/// Of a station that nobody has measured.
const fn guessed(what: Teachable) -> f64 {
    match what {
        Teachable::Outlet => 15.0,
        Teachable::Flow => 0.15,
        _ => 0.25,
    }
}

fn row(thing: KnownThing, belief: &Belief, blind: &Belief, visitor: Visitor) -> KnownRow {
    let what = thing.what;
    let said = |belief: &Belief| visitor.words().believed(what, belief.band(what));
    KnownRow {
        what: thing.name(),
        line: None,
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

/// What was changed.
#[derive(Deserialize)]
pub(super) struct ChangedPart {
    /// Empty: the heater; else the nozzle of so many mm.
    #[serde(default)]
    nozzle: String,
}

/// A new heater, or a new nozzle in place of the old one: what was learnt of it is learnt of another thing.
pub(super) async fn changed(
    State(app): State<App>,
    path: StationPath,
    Form(sent): Form<ChangedPart>,
) -> Result<Redirect, Refusal> {
    let row = load(&app, &path).await?;
    let file = station::read(row.file.as_bytes())?;
    let (kind, nozzle_mm) = match sent.nozzle.trim() {
        "" => (NEW_HEATER, None),
        typed => {
            let own = typed.parse().ok().filter(|mm| file.nozzles_mm.contains(mm));
            let unknown = || Refusal::field("nozzle", format!("“{typed}” is no nozzle of it"), "choose one of its own");
            (NEW_NOZZLE, Some(own.ok_or_else(unknown)?))
        }
    };
    let lesson = NewLesson {
        kind: kind.to_owned(),
        station_id: row.id,
        nozzle_mm,
        board_id: None,
        job_id: None,
        says: lesson::write(&Knowledge::NOTHING)?,
        entered: "{}".to_owned(),
        figures: "What was learnt of it before counts no longer.".to_owned(),
    };
    // Efficiency and loss of its air were another heater's.
    let file = if nozzle_mm.is_none() { StationFile { nozzle_air: NozzleAir::USUAL, ..file } } else { file };
    let (id, now, name, text) = (row.id, app.now_ms(), file.name.clone(), station::write(&file)?);
    app.writing(move |write| {
        write.set_station(id, &name, &text)?;
        write.add_lesson(&lesson, now)
    })
    .await?;
    list_open_jobs(&app).await?;
    Ok(Redirect::to(&format!("/stations/{}#known", row.id)))
}
