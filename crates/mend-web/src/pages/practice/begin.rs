//! An attempt is begun: a task of the course, a board of the shop, or the board of a job before anybody touches it.

use axum::extract::State;
use axum::response::Redirect;
use mend_core::board::Board;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::practice::course::{is_open, task};
use mend_core::practice::goal::{PracticeGoal, low_melt};
use mend_core::solder::FeedEntry;
use mend_formats::practice::{self, PracticeFile, ShopSceneFile};
use mend_formats::station;
use mend_store::NewAttempt;
use serde::Deserialize;

use super::course::place_of;
use crate::App;
use crate::extract::Form;
use crate::job::{HeatWork, Job, first_fit};
use crate::pages::jobs::{JobPath, number};
use crate::people::Visit;
use crate::planner::{first_inputs, inputs_or_first, station_named, stations};
use crate::practice::record::passed;
use crate::refusal::Refusal;
use crate::words::practice::goal_obstacle;

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
    /// What is done on a board of the shop.
    #[serde(default)]
    goal: PracticeGoal,
}

/// What of a job is rehearsed.
#[derive(Deserialize)]
pub(crate) struct RehearseForm {
    #[serde(default)]
    goal: PracticeGoal,
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
    put(&app, task.key, None, &file).await
}

async fn free(app: &App, sent: &BeginForm) -> Result<Redirect, Refusal> {
    let id: i64 = sent.board.parse().map_err(|_| Refusal::field("board", "none is chosen", "choose one"))?;
    let row = app.reading(move |read| read.board(id)).await?.ok_or(Refusal::NotFound("board"))?;
    let board = mend_formats::board::parse(row.file.as_bytes())?;
    let named = station_named(app, &sent.station).await?;
    let first = first_inputs(&board, std::slice::from_ref(&named.station)).ok_or(Refusal::NoStation)?;
    let inputs = match sent.goal {
        PracticeGoal::Remove | PracticeGoal::ClearHoles => first,
        PracticeGoal::Fit => first_fit(first, &board),
        PracticeGoal::CleanUp => PlanInputs { feed: low_melt(&board).as_ref().map(FeedEntry::from), ..first },
    };
    expect_possible(sent.goal, &board, &inputs)?;
    let scene = ShopSceneFile { board: id, station: station::read(named.file.as_bytes())?, inputs, goal: sent.goal };
    put(app, "", None, &PracticeFile::of_shop(scene, seed(app))).await
}

/// The board of a job, with what its joints hold and what its plan lays on.
pub(crate) async fn rehearse(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<RehearseForm>,
) -> Result<Redirect, Refusal> {
    let (job, goal) = (Job::load(&app, number(&path)?).await?, sent.goal);
    let (id, board) = job.board()?;
    let inputs = inputs_or_first(&job, HeatWork::from(goal.purpose()), &stations(&app).await?)?;
    expect_possible(goal, board, &inputs)?;
    let named = station_named(&app, &inputs.station).await?;
    let scene = ShopSceneFile { board: *id, station: station::read(named.file.as_bytes())?, inputs, goal };
    put(&app, "", Some(job.row.id), &PracticeFile::of_shop(scene, seed(&app))).await
}

/// A refusal where there is nothing of it to be done on a board.
fn expect_possible(goal: PracticeGoal, board: &Board, inputs: &PlanInputs) -> Result<(), Refusal> {
    let Some(obstacle) = goal.obstacle(board, &inputs.composition()?) else { return Ok(()) };
    let (why, hint) = goal_obstacle(obstacle);
    Err(Refusal::field("goal", why, hint))
}

async fn put(app: &App, task: &'static str, job: Option<i64>, file: &PracticeFile) -> Result<Redirect, Refusal> {
    let (of, now) = (practice::write(file)?, app.now_ms());
    let id = app.writing(move |write| write.begin_attempt(NewAttempt { task, job, of: &of, at_ms: now })).await?;
    Ok(Redirect::to(&format!("/practice/{id}")))
}

/// Which of the truths is true: by the millisecond, which nobody chooses.
#[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "the remainder is small")]
fn seed(app: &App) -> u32 {
    (app.now_ms().rem_euclid(1_000_003) * 7919 % 65_536) as u32
}
