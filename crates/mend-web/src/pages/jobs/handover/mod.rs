//! The customer's sheet: found, done, measured, parts, terms. Printable.
//!
//! - [`agreed`], [`done`], [`measured`]: its lines; [`closing`]: giving the job back

mod agreed;
pub(super) mod closing;
mod done;
mod line;
mod measured;

use agreed::{agreed, broken, extra, found, to_pay};
use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use done::{bench_times, done, parts, reworked};
use line::SheetLine;
use measured::{PinReadings, checked, measured, pin_readings};
use mend_core::method::JobKind;
use mend_core::shop::Stop;
use mend_formats::shop_settings::ShopSettings;
use mend_store::{JobPhotoRow, LogRow};

use super::lesson::LessonPart;
use super::{JobPath, number};
use crate::App;
use crate::job::{DECLINED, Job, REOPENED, WENT_BACK};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "jobs/handover.html")]
pub(crate) struct HandoverPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    taken_in: String,
    today: String,
    found: Vec<SheetLine>,
    done: Vec<SheetLine>,
    measured: Vec<SheetLine>,
    parts: Vec<SheetLine>,
    agreed: Vec<SheetLine>,
    readings: Vec<PinReadings>,
    /// Those that the sheet shows.
    photos: Vec<JobPhotoRow>,
    ready: bool,
    /// What it is for.
    kind: JobKind,
    /// Where to go while it is not ready.
    go_on: String,
    handed_over: Option<String>,
    /// What it taught, once it is given back.
    lesson: Option<LessonPart>,
    /// Handed over and reopened before, in words.
    log: Vec<String>,
    /// The shop as its sheets name it.
    shop: ShopSettings,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<HandoverPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let day = |ms: i64| {
        let at = app.moment_of(ms);
        Some(at.strftime("%-d %B %Y, %H:%M").to_string())
    };
    let id = job.row.id;
    let (extras, photos) = app.reading(move |read| Ok((read.extras(id)?, read.job_photos(id)?))).await?;
    let shop = crate::pages::settings::load(&app).await?;
    Ok(HandoverPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/handover", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Handover), app.now().date()),
        oob: false,
        job: job.row.id,
        taken_in: day(job.row.taken_in_ms).unwrap_or_default(),
        today: app.now().strftime("%-d %B %Y").to_string(),
        found: found(&job).into_iter().chain(broken(&job)).chain(extras.iter().map(extra)).collect(),
        done: bench_times(&job, &day)
            .into_iter()
            .chain(done(&job, visitor))
            .chain(reworked(&job, app.now_ms()))
            .collect(),
        measured: measured(&job).into_iter().chain(checked(&job)).collect(),
        parts: parts(&job, visitor),
        agreed: agreed(&job).into_iter().chain(to_pay(&job, &extras, &shop.currency)).collect(),
        readings: pin_readings(&job),
        photos: photos.into_iter().filter(|photo| photo.on_sheet).collect(),
        ready: job.is_ready(),
        kind: job.kind(),
        go_on: format!("/jobs/{id}"),
        handed_over: job.row.handed_over_ms.and_then(day),
        lesson: if job.is_closed() { Some(LessonPart::load(&app, job.row.id).await?) } else { None },
        log: on_record(&job, &|ms| day(ms).unwrap_or_default()),
        shop,
    })
}

/// What is on record besides that it was handed over.
fn on_record(job: &Job, day: &dyn Fn(i64) -> String) -> Vec<String> {
    let plain = job.log.len() == 1 && job.log[0].what == "handed-over";
    if plain { Vec::new() } else { job.log.iter().map(|row| logged(row, day(row.at_ms))).collect() }
}

/// A line of the record.
fn logged(row: &LogRow, at: String) -> String {
    match row.what.as_str() {
        REOPENED => format!("Reopened {at} by {}: {}", row.who, row.reason),
        DECLINED => format!("Given back as it is {at} by {}: {}", row.who, row.reason),
        WENT_BACK => format!("Went back {at} by {}: {}", row.who, row.reason),
        _ => format!("Handed over {at}"),
    }
}
