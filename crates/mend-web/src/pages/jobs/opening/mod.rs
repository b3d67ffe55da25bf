//! Opening: the device model's map, made while the first one is opened and followed for every one after; counted out and in.
//!
//! - this file: the page, the map that a job goes by, and taps; [`view`]: the part that every tap replaces; [`edits`]: what is
//!   changed on a map

pub(super) mod edits;
mod view;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::opening::map::OpeningMap;
use mend_core::opening::order::{comes_before, waits_for};
use mend_core::shop::Stop;
use mend_formats::opening::{self, OpeningFile};
use mend_store::OpeningRow;
use serde::Deserialize;

use super::look::CheckForm;
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{Job, JobOpening, OPENING, SKIPPED};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
pub(super) use view::OpeningPart;

/// Before a map is chosen.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/opening_choose.html")]
struct ChoosePage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    device: String,
    maps: Vec<OpeningRow>,
    skipped: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/opening.html")]
struct OpeningPage {
    frame: Frame,
    part: OpeningPart,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/opening", job.row.id));
    if let Some(part) = OpeningPart::of(&app, &job, visitor, Stop::Opening) {
        return Ok(OpeningPage { frame, part }.into_response());
    }
    let page = ChoosePage {
        frame,
        head: JobHead::from_job(&job, Some(Stop::Opening), app.now().date()),
        oob: false,
        job: job.row.id,
        device: job.intake("device").to_owned(),
        maps: app.reading(|read| read.openings()).await?,
        skipped: job.has_skipped(Stop::Opening),
    };
    Ok(page.into_response())
}

/// The map that a job is to go by: one of the shop's, or a new one for a device.
#[derive(Deserialize)]
pub(crate) struct MapChoice {
    #[serde(default)]
    map: String,
    #[serde(default)]
    device: String,
    /// Pressed to skip the stop.
    #[serde(default)]
    skip: String,
}

/// Longest name of a device, characters.
const LONGEST: usize = 80;

pub(crate) async fn choose(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<MapChoice>,
) -> Result<Redirect, Refusal> {
    let (id, now) = (Job::load(&app, number(&path)?).await?.row.id, app.now_ms());
    if !sent.skip.is_empty() {
        let form = CheckForm {
            list: SKIPPED.to_owned(),
            name: "opening".to_owned(),
            value: sent.skip,
            token: format!("skip-{now}"),
        };
        let value = if form.value == "yes" { "skipped" } else { "" };
        let entry = form.entry(value.to_owned(), now)?;
        app.changing(id, move |w| w.enter_check(id, &entry)).await?;
        return Ok(Redirect::to(&format!("/jobs/{id}/opening")));
    }
    let maps = app.reading(|read| read.openings()).await?;
    let chosen = sent.map.parse::<i64>().ok();
    if let Some(row) = maps.iter().find(|row| Some(row.id) == chosen) {
        let map = row.id;
        app.changing(id, move |w| w.choose_opening(id, map)).await?;
        return Ok(Redirect::to(&format!("/jobs/{id}/opening")));
    }
    let device = sent.device.trim().to_owned();
    if !(1..=LONGEST).contains(&device.chars().count()) {
        return Err(Refusal::field("device", "a new map needs its device model's name", "1 to 80 characters"));
    }
    if maps.iter().any(|row| row.name == device) {
        return Err(Refusal::field("device", format!("there is a map of “{device}” already"), "choose it in the list"));
    }
    let text = opening::write(&OpeningFile::new(&device, OpeningMap::empty()))?;
    app.changing(id, move |w| {
        let map = w.add_opening(&device, &text, now)?;
        w.choose_opening(id, map)
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/opening")))
}

/// The map that the job goes by, or a refusal.
fn opening(job: &Job) -> Result<&JobOpening, Refusal> {
    job.opening.as_ref().ok_or(Refusal::NotYet("No map is chosen yet"))
}

/// A tap, as it is to be kept: against the order of the cell it is refused.
fn tapped(job: &Job, sent: &CheckForm) -> Result<String, Refusal> {
    let JobOpening { map, taps, .. } = opening(job)?;
    if sent.value == "undo" {
        return Ok(sent.value.clone());
    }
    let item = sent.name.parse::<u32>().ok().and_then(|id| map.item(id)).filter(|item| item.what.comes_out());
    let item = item.ok_or_else(|| {
        Refusal::field("item", format!("“{}” is nothing that comes out", sent.name), "choose one on the map")
    })?;
    match sent.value.as_str() {
        "out" if waits_for(map, taps, item.id).is_some() => {
            Err(Refusal::NotYet("The cell is still connected: its cable is opened before any other"))
        }
        "back" if !comes_before(map, taps, item.id).is_empty() => {
            Err(Refusal::NotYet("Other connectors are open: the cell is connected last"))
        }
        "out" | "back" => Ok(sent.value.clone()),
        other => Err(Refusal::field("value", format!("“{other}” is no tap"), "out, back or undo")),
    }
}

pub(crate) async fn tap(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<OpeningPart, Refusal> {
    let id = number(&path)?;
    keep_tap(&app, id, sent).await?;
    part(&app, id, visitor, Stop::Opening).await
}

/// Keeps a tap of a job.
pub(super) async fn keep_tap(app: &App, id: i64, sent: CheckForm) -> Result<(), Refusal> {
    let job = Job::load(app, id).await?;
    let value = tapped(&job, &sent)?;
    let sent = CheckForm { list: OPENING.to_owned(), ..sent };
    let entry = sent.entry(value, app.now_ms())?;
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    Ok(())
}

/// The page on which everything goes back in; none without a map.
pub(super) fn back_in(app: &App, job: &Job, visitor: Visitor) -> Option<impl IntoResponse> {
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/close", job.row.id));
    let part = OpeningPart::of(app, job, visitor, Stop::Close)?;
    Some(OpeningPage { frame, part })
}

/// The part as it is now.
pub(super) async fn part(app: &App, id: i64, visitor: Visitor, stop: Stop) -> Result<OpeningPart, Refusal> {
    let job = Job::load(app, id).await?;
    OpeningPart::of(app, &job, visitor, stop)
        .map(OpeningPart::beside_head)
        .ok_or(Refusal::NotYet("No map is chosen yet"))
}

/// The map as a file.
pub(crate) async fn file(State(app): State<App>, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let row = &opening(&job)?.row;
    let mut file = opening::parse(row.map.as_bytes())?;
    // A photograph is of this shop: its number says nothing elsewhere.
    file.pages.iter_mut().for_each(|page| page.photo = None);
    let text = opening::write(&file)?;
    let headers = [
        (header::CONTENT_TYPE, "application/json".to_owned()),
        (header::CONTENT_DISPOSITION, format!("attachment; filename=\"opening-{}.json\"", row.id)),
    ];
    Ok((headers, text).into_response())
}
