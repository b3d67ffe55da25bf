//! Photographs of a job, of whatever stop: brought in, said what is to be seen, shown on the customer's sheet where that is ticked.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, Request, State};
use axum::response::Redirect;
use mend_core::finding::Finding;
use mend_core::shop::{self, Stop};
use mend_store::{JobPhotoRow, PhotoWords};
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::photograph;
use crate::refusal::Refusal;
use crate::upload;
use crate::visitor::Visitor;

/// More than this of one job are a slip.
const MOST: usize = 60;
/// Longest words, characters.
const LONGEST: usize = 200;

/// A photograph in the list.
struct PhotoView {
    row: JobPhotoRow,
    stop: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/photos.html")]
pub(crate) struct PhotosPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    stops: Vec<(&'static str, &'static str, bool)>,
    photos: Vec<PhotoView>,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<PhotosPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let id = job.row.id;
    let rows = app.reading(move |read| read.job_photos(id)).await?;
    let now = shop::next(&job.facts()).unwrap_or(Stop::Handover);
    let view = |row: JobPhotoRow| PhotoView { stop: Stop::from_path(&row.stop).map_or("", Stop::name), row };
    Ok(PhotosPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{id}/photos")),
        head: JobHead::from_job(&job, None, app.now().date()),
        oob: false,
        job: id,
        stops: Stop::ALL.map(|stop| (stop.path(), stop.name(), stop == now)).into_iter().collect(),
        photos: rows.into_iter().map(view).collect(),
    })
}

pub(crate) async fn add(State(app): State<App>, path: JobPath, request: Request) -> Result<Redirect, Refusal> {
    let id = Job::load(&app, number(&path)?).await?.row.id;
    let mut sent = upload::read(request, &photograph::FILE).await??;
    expect_room(&app, id).await?;
    let (stop, words) = (sent.text("stop"), sent.text("words").trim().to_owned());
    let stop =
        Stop::from_path(&stop).ok_or_else(|| Refusal::field("stop", format!("“{stop}” is no stop"), "choose one"))?;
    let words = checked(&words)?;
    let photo = photograph::decode(sent.bytes("photo")).await??;
    let now = app.now_ms();
    app.changing(id, move |write| {
        let photo_id = write.add_photo(&photo, now)?;
        let stop = stop.path().to_owned();
        write.add_job_photo(id, &JobPhotoRow { id: 0, photo_id, stop, words, on_sheet: false, added_ms: now })
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/photos")))
}

/// One more photograph has room in this job.
pub(super) async fn expect_room(app: &App, job: i64) -> Result<(), Refusal> {
    let there = app.reading(move |read| read.job_photos(job)).await?.len();
    if there >= MOST {
        let full = Finding::written("photograph", "photograph", format!("there are {MOST} already"));
        return Err(vec![full.hint("remove one first")].into());
    }
    Ok(())
}

fn checked(words: &str) -> Result<String, Refusal> {
    if words.chars().count() > LONGEST {
        return Err(Refusal::field("words", "are too many", &format!("up to {LONGEST} characters")));
    }
    Ok(words.to_owned())
}

/// What is changed of one.
#[derive(Deserialize)]
pub(crate) struct PhotoForm {
    #[serde(default)]
    words: String,
    #[serde(default)]
    on_sheet: String,
    #[serde(default)]
    remove: String,
}

pub(crate) async fn change(
    State(app): State<App>,
    Path((id, photo)): Path<(String, String)>,
    Form(sent): Form<PhotoForm>,
) -> Result<Redirect, Refusal> {
    let id = number(&Path(id))?;
    let photo: i64 = photo.parse().map_err(|_| Refusal::NotFound("photograph"))?;
    Job::load(&app, id).await?;
    if !sent.remove.is_empty() {
        app.changing(id, move |write| write.remove_job_photo(id, photo)).await?;
        return Ok(Redirect::to(&format!("/jobs/{id}/photos")));
    }
    let (words, on_sheet) = (checked(sent.words.trim())?, !sent.on_sheet.is_empty());
    if !app.changing(id, move |write| write.set_job_photo(id, photo, PhotoWords { words: &words, on_sheet })).await? {
        return Err(Refusal::NotFound("photograph"));
    }
    Ok(Redirect::to(&format!("/jobs/{id}/photos")))
}
