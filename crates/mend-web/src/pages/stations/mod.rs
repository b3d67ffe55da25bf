//! The shop's hot-air stations: added from a template, edited, duplicated, retired.
//!
//! - this file: the list; [`templates`]: what a new one starts from; [`edit`]: one station and its form; [`known_view`]: what is known
//!   of it; [`measure`]: the pages that measure it

mod edit;
mod known_view;
mod measure;
mod templates;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::response::Redirect;
use axum::routing::{get, post};
use mend_core::heat::station::Station;
use mend_core::heat::tool::Blower;
use mend_formats::station;
use mend_store::StationRow;
use serde::Deserialize;

use super::Frame;
use super::number::degrees;
use crate::App;
use crate::extract::Form;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use templates::{TEMPLATES, Template as Start};

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/stations", get(show).post(add))
        .route("/stations/{id}", get(edit::show).post(edit::save))
        .route("/stations/{id}/duplicate", post(duplicate))
        .route("/stations/{id}/retire", post(retire))
        .route("/stations/{id}/bring-back", post(bring_back))
        .route("/stations/{id}/lessons/{lesson}", post(known_view::leave_out))
        .route("/stations/{id}/changed", post(known_view::changed))
        .merge(measure::routes())
}

/// A station as the list shows it.
struct StationLine {
    id: i64,
    name: String,
    /// What it is, in words; none where it can't be read.
    figures: Option<[String; 4]>,
}

#[derive(Template, WebTemplate)]
#[template(path = "stations/list.html")]
struct ListPage {
    frame: Frame,
    in_use: Vec<StationLine>,
    retired: Vec<StationLine>,
    templates: &'static [Start],
}

fn line(row: &StationRow, taught: bool, visitor: Visitor) -> StationLine {
    let station = station::parse(row.file.as_bytes()).ok();
    let figures = station.map(|station| figures(&station, taught, visitor));
    StationLine { id: row.id, name: row.name.clone(), figures }
}

/// What moves its air, what it takes, what it gives, how well it is known.
fn figures(station: &Station, taught: bool, visitor: Visitor) -> [String; 4] {
    let blower = if station.blower == Blower::Fan { "fan" } else { "pump" };
    let (set, flow) = (station.set_range, station.flow_range);
    let known = if taught || station.is_measured() { "measured" } else { "not measured yet: plans show wide bands" };
    [
        format!("{blower}, {} nozzles", station.nozzles.len()),
        format!("{}–{} {}", degrees(set.0, visitor.scale), degrees(set.1, visitor.scale), visitor.scale.symbol()),
        format!(
            "{}–{} L/min, shows {}",
            flow.0.in_litres_per_minute(),
            flow.1.in_litres_per_minute(),
            station.display.shows().name()
        ),
        known.to_owned(),
    ]
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<ListPage, Refusal> {
    let (rows, taught) = app.reading(|read| Ok((read.stations()?, read.taught_stations()?))).await?;
    let lines = |retired: bool| {
        let own = rows.iter().filter(|row| row.retired_ms.is_some() == retired);
        own.map(|row| line(row, taught.contains(&row.id), visitor)).collect()
    };
    let frame = Frame::new("Stations", visitor.scale, "stations", "/stations".to_owned());
    Ok(ListPage { frame, in_use: lines(false), retired: lines(true), templates: TEMPLATES })
}

#[derive(Deserialize)]
struct Added {
    template: String,
}

async fn add(State(app): State<App>, Form(added): Form<Added>) -> Result<Redirect, Refusal> {
    let unknown = || {
        let keys = TEMPLATES.iter().map(|start| start.key).collect::<Vec<_>>().join(", ");
        Refusal::field("template", format!("“{}” is no template", added.template), &keys)
    };
    let start = TEMPLATES.iter().find(|start| start.key == added.template).ok_or_else(unknown)?;
    let id = add_named(&app, start.file()).await?;
    Ok(Redirect::to(&format!("/stations/{id}")))
}

/// Keeps a new station by its name, or by that with the first number that is free.
async fn add_named(app: &App, file: station::StationFile) -> Result<i64, Refusal> {
    let base = file.name.clone();
    for k in 1..1000 {
        let name = if k == 1 { base.clone() } else { format!("{base} {k}") };
        let text = station::write(&station::StationFile { name: name.clone(), ..file.clone() })?;
        if let Some(id) = app.writing(move |w| w.add_station(&name, &text)).await? {
            return Ok(id);
        }
    }
    Err(Refusal::field("name", format!("“{base}” and a thousand like it are taken"), "rename one of them"))
}

async fn duplicate(State(app): State<App>, path: edit::StationPath) -> Result<Redirect, Refusal> {
    let row = edit::load(&app, &path).await?;
    let file = station::read(row.file.as_bytes())?;
    let id = add_named(&app, file).await?;
    Ok(Redirect::to(&format!("/stations/{id}")))
}

async fn retire(State(app): State<App>, path: edit::StationPath) -> Result<Redirect, Refusal> {
    let (row, now) = (edit::load(&app, &path).await?, app.now_ms());
    app.writing(move |w| w.retire_station(row.id, Some(now))).await?;
    Ok(Redirect::to("/stations"))
}

async fn bring_back(State(app): State<App>, path: edit::StationPath) -> Result<Redirect, Refusal> {
    let row = edit::load(&app, &path).await?;
    app.writing(move |w| w.retire_station(row.id, None)).await?;
    Ok(Redirect::to("/stations"))
}
