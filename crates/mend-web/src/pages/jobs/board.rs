//! The job's board: chosen from the library, drawn on both faces.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::shop::Stop;
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::boards::{BoardFigures, Faces, Tile, tiles};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "jobs/board.html")]
pub(crate) struct JobBoardPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    chosen: Option<BoardForm>,
    tiles: Vec<Tile>,
}

/// The board that was chosen.
struct BoardForm {
    id: i64,
    model: i64,
    version: i64,
    /// A newer version, where there is one and no run has begun: its number in the store, and which it is.
    newer: Option<(i64, i64)>,
    figures: BoardFigures,
    faces: Faces,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<JobBoardPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let model = job.model.unwrap_or_default();
    let newest = app.reading(move |read| read.versions(model)).await?.into_iter().next();
    let newer = newest.filter(|row| row.version > job.version && !job.has_run).map(|row| (row.id, row.version));
    let chosen = match &job.board {
        Some((id, board)) => Some(BoardForm {
            id: *id,
            model,
            version: job.version,
            newer,
            figures: BoardFigures::from_board(board),
            faces: Faces::load(&app, *id, visitor).await?,
        }),
        None => None,
    };
    Ok(JobBoardPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/board", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Board), app.now().date()),
        oob: false,
        chosen,
        tiles: tiles(&app, visitor).await?,
    })
}

#[derive(Deserialize)]
pub(crate) struct BoardChoice {
    board: String,
}

pub(crate) async fn choose(
    State(app): State<App>,
    path: JobPath,
    Form(choice): Form<BoardChoice>,
) -> Result<Redirect, Refusal> {
    let id = number(&path)?;
    let unknown =
        || Refusal::field("board", format!("“{}” is no board of the library", choice.board), "choose a picture");
    let board: i64 = choice.board.parse().map_err(|_| unknown())?;
    app.reading(move |r| r.board(board)).await?.ok_or_else(unknown)?;
    let job = Job::load(&app, id).await?;
    if job.is_closed() {
        return Err(Refusal::Closed);
    }
    if job.has_run {
        return Err(Refusal::NotYet("A bench run has begun on this board: it stays with the job"));
    }
    app.changing(id, move |w| w.choose_board(id, board)).await?;
    Ok(Redirect::to(&format!("/jobs/{id}/board")))
}
