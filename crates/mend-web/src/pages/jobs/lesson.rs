//! What a job that was given back has taught: a line, which can be left out with a reason.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;

use super::{JobPath, number};
use crate::App;
use crate::job::Job;
use crate::refusal::Refusal;

/// Its lesson, if it has one.
struct JobLessonView {
    id: i64,
    station: i64,
    figures: String,
    left_out: Option<String>,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/lesson.html")]
pub(crate) struct LessonPart {
    job: i64,
    /// It is still being computed.
    waits: bool,
    lesson: Option<JobLessonView>,
}

impl LessonPart {
    pub(super) async fn load(app: &App, job: i64) -> Result<Self, Refusal> {
        let (waits, row) = app.reading(move |read| Ok((read.is_to_learn(job)?, read.lesson_of_job(job)?))).await?;
        let lesson = row.map(|row| JobLessonView {
            id: row.id,
            station: row.lesson.station_id,
            figures: row.lesson.figures,
            left_out: row.left_out,
        });
        Ok(Self { job, waits, lesson })
    }
}

pub(crate) async fn show(State(app): State<App>, path: JobPath) -> Result<LessonPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    LessonPart::load(&app, job.row.id).await
}
