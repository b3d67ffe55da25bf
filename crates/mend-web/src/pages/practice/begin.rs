//! An attempt is begun: a task of the course, a board of the shop, or the board of a job before anybody touches it.

use axum::extract::State;
use axum::response::Redirect;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::practice::course::{is_open, task};
use mend_formats::practice::{self, PracticeFile, ShopSceneFile};
use mend_formats::station;
use serde::Deserialize;

use super::course::place_of;
use crate::App;
use crate::extract::Form;
use crate::job::{HeatWork, Job};
use crate::pages::jobs::{JobPath, number};
use crate::people::Visit;
use crate::planner::{first_inputs, inputs_or_first, station_named, stations};
use crate::practice::record::passed;
use crate::refusal::Refusal;

/// What is to be practised.
#[derive(Deserialize)]
pub(crate) struct BeginForm {
    /// A task of the course; empty: a board of the shop.
    #[serde(default)]
    task: String,
    #[serde(default)]
    board: String,
    #[serde(default)]
    station: String,
}

pub(crate) async fn begin(State(app): State<App>, Form(sent): Form<BeginForm>) -> Result<Redirect, Refusal> {
    if sent.task.is_empty() {
        return free(&app, &sent).await;
    }
    let task = task(&sent.task).ok_or(Refusal::NotFound("task"))?;
    let person = Visit::current().person().map(|person| person.id);
    let attempts = app.reading(move |read| read.attempts_of(person)).await?;
    if !is_open(place_of(task.key), &passed(&attempts)) {
        return Err(Refusal::NotYet("This task opens once the one before it has been passed"));
    }
    let file = PracticeFile::of_task(task.key, seed(&app));
    put(&app, (task.key, None), &file).await
}

async fn free(app: &App, sent: &BeginForm) -> Result<Redirect, Refusal> {
    let id: i64 = sent.board.parse().map_err(|_| Refusal::field("board", "none is chosen", "choose one"))?;
    let row = app.reading(move |read| read.board(id)).await?.ok_or(Refusal::NotFound("board"))?;
    let board = mend_formats::board::parse(row.file.as_bytes())?;
    let named = station_named(app, &sent.station).await?;
    let inputs = first_inputs(&board, std::slice::from_ref(&named.station)).ok_or(Refusal::NoStation)?;
    let file = of_shop(app, (id, &named.file), inputs)?;
    put(app, ("", None), &file).await
}

/// The board of a job, with what its joints hold and what its plan lays on.
pub(crate) async fn rehearse(State(app): State<App>, path: JobPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let (board, _) = job.board()?;
    let inputs = inputs_or_first(&job, HeatWork::Removal, &stations(&app).await?)?;
    let named = station_named(&app, &inputs.station).await?;
    let file = of_shop(&app, (*board, &named.file), inputs)?;
    put(&app, ("", Some(job.row.id)), &file).await
}

fn of_shop(app: &App, (board, file): (i64, &str), inputs: PlanInputs) -> Result<PracticeFile, Refusal> {
    let station = station::read(file.as_bytes())?;
    Ok(PracticeFile::of_shop(ShopSceneFile { board, station, inputs }, seed(app)))
}

async fn put(app: &App, (task, job): (&'static str, Option<i64>), file: &PracticeFile) -> Result<Redirect, Refusal> {
    let (of, now) = (practice::write(file)?, app.now_ms());
    let id = app.writing(move |write| write.begin_attempt((task, job), &of, now)).await?;
    Ok(Redirect::to(&format!("/practice/{id}")))
}

/// Which of the truths is true: by the millisecond, which nobody chooses.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "the remainder is small")]
fn seed(app: &App) -> u32 {
    (app.now_ms().rem_euclid(1_000_003) * 7919 % 65_536) as u32
}
