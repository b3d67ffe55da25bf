//! Donors: devices and boards that parts come off. A harvest is a job of its own; what it brings goes onto the shelf.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_core::method::JobKind;
use mend_store::{DonorRow, TypedField};
use serde::Deserialize;

use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Longest name; longest list, characters.
const LONGEST: [usize; 2] = [80, 2000];

#[derive(Template, WebTemplate)]
#[template(path = "stock/donors.html")]
pub(crate) struct DonorsPage {
    frame: Frame,
    donors: Vec<DonorRow>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor) -> Result<DonorsPage, Refusal> {
    let donors = app.reading(|read| read.donors()).await?;
    let frame = Frame::new("Donors", visitor.scale, "stock", "/stock/donors".to_owned());
    Ok(DonorsPage { frame, donors })
}

#[derive(Deserialize)]
pub(crate) struct DonorForm {
    name: String,
    #[serde(default)]
    holds: String,
}

pub(crate) async fn add(State(app): State<App>, Form(sent): Form<DonorForm>) -> Result<Redirect, Refusal> {
    let (name, holds) = (sent.name.trim().to_owned(), sent.holds.trim().to_owned());
    if !(1..=LONGEST[0]).contains(&name.chars().count()) {
        return Err(Refusal::field("name", format!("“{name}” is no name"), "type 1 to 80 characters"));
    }
    if holds.chars().count() > LONGEST[1] {
        return Err(Refusal::field("what is on it", "is too long", "up to 2000 characters"));
    }
    let now_ms = app.now_ms();
    app.writing(move |write| write.add_donor(&name, &holds, now_ms)).await?;
    Ok(Redirect::to("/stock/donors"))
}

async fn load(app: &App, Path(id): &Path<String>) -> Result<DonorRow, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("donor"))?;
    let donors = app.reading(|read| read.donors()).await?;
    donors.into_iter().find(|row| row.id == id).ok_or(Refusal::NotFound("donor"))
}

/// Its harvest: a job of that kind with its name, begun once.
pub(crate) async fn harvest(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let (donor, now_ms) = (load(&app, &path).await?, app.now_ms());
    if let Some(job) = donor.job_id {
        return Ok(Redirect::to(&format!("/jobs/{job}/parts")));
    }
    let job = app.writing(move |write| {
        let job = write.add_job(now_ms)?;
        write.set_intake(job, TypedField::new("kind", JobKind::Harvest.name()), now_ms)?;
        write.set_intake(job, TypedField::new("device", &donor.name), now_ms)?;
        write.set_intake(job, TypedField::new("inside", &donor.holds), now_ms)?;
        write.harvest_donor(donor.id, job)?;
        Job::list(write, job)?;
        Ok(job)
    });
    Ok(Redirect::to(&format!("/jobs/{}/parts", job.await?)))
}

pub(crate) async fn discard(State(app): State<App>, path: Path<String>) -> Result<Redirect, Refusal> {
    let (id, now_ms) = (load(&app, &path).await?.id, app.now_ms());
    app.writing(move |write| write.discard_donor(id, now_ms)).await?;
    Ok(Redirect::to("/stock/donors"))
}
