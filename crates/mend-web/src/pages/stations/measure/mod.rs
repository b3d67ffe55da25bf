//! Measuring a station: kept field by field as it is entered, shown at once, and taken as a lesson at a press.
//!
//! - this file: what all have in common; [`taken`]: what a measurement changes once it is taken, and what that does to a plan
//! - [`flow`]: a bag; [`outlet`]: a thermocouple in the jet; [`iron`]: a tip on a block of copper; [`probe`]: a warm-up of a board,
//!   which [`record`] takes off a logger of the shop and [`file`] out of a logger's file

pub(super) mod file;
pub(super) mod flow;
pub(super) mod iron;
pub(super) mod outlet;
pub(super) mod probe;
pub(super) mod record;
pub(super) mod taken;

use mend_store::{MeasuringKey, TypedField};
use std::collections::BTreeMap;

use axum::Router;
use axum::extract::{Path, State};
use axum::response::Redirect;
use axum::routing::{get, post};
use mend_core::finding::Finding;
use mend_core::finding::problem::ValueProblem;
use mend_core::heat::known::Knowledge;
use mend_core::units::{Scale, Unit};
use mend_formats::station::{self, StationFile};

use super::super::number::number;
use super::edit::{StationPath, load};
use crate::App;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

const RULE: &str = "measure";
/// All kinds of measurements, as their addresses have them.
const KINDS: [&str; 4] = [flow::KIND, outlet::KIND, iron::KIND, probe::KIND];
/// Longest value of a field: two minutes of readings, ten a second.
const LONGEST_VALUE: usize = 200_000;

pub(super) fn routes() -> Router<App> {
    Router::new()
        .route("/stations/{id}/flow", get(flow::show).post(flow::keep))
        .route("/stations/{id}/flow/done", post(flow::done))
        .route("/stations/{id}/outlet", get(outlet::show).post(outlet::keep))
        .route("/stations/{id}/outlet/done", post(outlet::done))
        .route("/stations/{id}/iron", get(iron::show).post(iron::keep))
        .route("/stations/{id}/iron/done", post(iron::done))
        .route("/stations/{id}/probe", get(probe::show).post(probe::keep))
        .route("/stations/{id}/probe/board", post(probe::choose))
        .route("/stations/{id}/probe/file", post(file::upload))
        .route("/stations/{id}/probe/columns", post(file::pick))
        .route("/stations/{id}/probe/found", get(probe::found))
        .route("/stations/{id}/probe/record", get(record::show).post(record::start))
        .route("/stations/{id}/probe/record/stop", post(record::stop))
        .route("/stations/{id}/probe/done", post(probe::done))
        .route("/stations/{id}/measure/{kind}/plan", get(taken::plan))
        .route("/stations/{id}/measure/{kind}/clear", post(clear))
}

/// A measurement that is under way: the station, and what has been entered.
pub(super) struct Measuring {
    pub(super) id: i64,
    pub(super) file: StationFile,
    /// Which measurement.
    kind: &'static str,
    fields: BTreeMap<String, String>,
}

/// What a measurement taught.
pub(super) struct Taught {
    /// Of which kind its lesson is.
    pub(super) kind: &'static str,
    /// What it was done with, where that matters.
    pub(super) on: Option<ProbedWith>,
    pub(super) says: Knowledge,
    /// What came of it, in words.
    pub(super) figures: String,
}

/// What a probe was done with.
#[derive(Clone, Copy)]
pub(super) struct ProbedWith {
    pub(super) nozzle_mm: f64,
    pub(super) board_id: i64,
}

/// Longest name of a field, characters.
const LONGEST_FIELD: usize = 20;

impl Measuring {
    /// As it is kept.
    pub(super) async fn load(app: &App, path: &StationPath, kind: &'static str) -> Result<Self, Refusal> {
        let row = load(app, path).await?;
        let (id, file) = (row.id, station::read(row.file.as_bytes())?);
        let fields = app.reading(move |read| read.measuring(id, kind)).await?;
        Ok(Self { id, file, kind, fields })
    }

    /// As it is kept once this has been entered too.
    pub(super) async fn entered(
        app: &App,
        path: &StationPath,
        kind: &'static str,
        sent: Vec<(String, String)>,
    ) -> Result<Self, Refusal> {
        let id = load(app, path).await?.id;
        let now = app.now_ms();
        if let Some((field, value)) = sent.iter().find(|(_, value)| value.len() > LONGEST_VALUE) {
            let message = format!("{} characters are too many", value.len());
            return Err(Refusal::field(field, message, "cut out the two minutes of the probe"));
        }
        app.writing(move |write| {
            let known = sent.iter().filter(|(field, _)| field.len() <= LONGEST_FIELD);
            known.into_iter().try_for_each(|(field, value)| {
                write.set_measuring(MeasuringKey { station: id, kind }, TypedField::new(field, value.trim()), now)
            })
        })
        .await?;
        Self::load(app, path, kind).await
    }

    /// What was entered; empty where nothing was.
    pub(super) fn get(&self, field: &str) -> &str {
        self.fields.get(field).map_or("", String::as_str)
    }

    /// What was entered, or what is usual.
    pub(super) fn or(&self, field: &str, usual: &str) -> String {
        if self.fields.contains_key(field) { self.get(field).to_owned() } else { usual.to_owned() }
    }

    /// The scale that its temperatures were begun on: it stays, whatever the page is switched to meanwhile.
    pub(super) fn scale(&self, visitor: Visitor) -> Scale {
        match self.get("scale") {
            "F" => Scale::Fahrenheit,
            "C" => Scale::Celsius,
            _ => visitor.scale,
        }
    }
}

/// A number as it was typed, in a unit.
#[derive(Clone, Copy)]
pub(super) struct TypedValue<'a> {
    pub(super) typed: &'a str,
    pub(super) unit: Unit,
}

/// A typed number within what it can be; zero, and an objection, where it is none or beyond.
pub(super) fn within(place: &str, value: TypedValue<'_>, range: (f64, f64), bad: &mut Vec<Finding>) -> f64 {
    let TypedValue { typed, unit } = value;
    let before = bad.len();
    let value = number(RULE, place, typed, bad);
    if bad.len() == before {
        let outside = ValueProblem::outside(value, range, unit);
        bad.extend(outside.map(|problem| Finding::blocking(RULE, place, problem)));
    }
    value
}

/// A scale as the form sends it back.
pub(super) const fn scale_key(scale: Scale) -> &'static str {
    match scale {
        Scale::Celsius => "C",
        Scale::Fahrenheit => "F",
    }
}

/// What was entered of a measurement is thrown away.
async fn clear(State(app): State<App>, Path((id, kind)): Path<(String, String)>) -> Result<Redirect, Refusal> {
    let row = load(&app, &Path(id)).await?;
    if !KINDS.contains(&kind.as_str()) {
        return Err(Refusal::NotFound("measurement"));
    }
    let to = format!("/stations/{}/{kind}", row.id);
    app.writing(move |write| write.end_measuring(row.id, &kind)).await?;
    Ok(Redirect::to(&to))
}
