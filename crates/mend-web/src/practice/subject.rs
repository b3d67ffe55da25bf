//! What an attempt is of: a task of the course, or a board of the shop.

use mend_core::practice::course::task;
use mend_core::practice::scene::PracticeScene;
use mend_formats::{board, practice};
use mend_store::AttemptRow;

use crate::App;
use crate::refusal::Refusal;

const UNREAD: &str = "What this attempt began with can't be read";

/// The scene of an attempt.
pub(crate) async fn scene(app: &App, row: &AttemptRow) -> Result<PracticeScene, Refusal> {
    let file = practice::parse(&row.of).ok_or(Refusal::NotYet(UNREAD))?;
    let seed = file.seed;
    if let Some(key) = &file.task {
        return task(key).and_then(|task| task.scene(seed)).ok_or(Refusal::NotYet(UNREAD));
    }
    let shop = file.shop.ok_or(Refusal::NotYet(UNREAD))?;
    let id = shop.board;
    let row = app.reading(move |read| read.board(id)).await?.ok_or(Refusal::NotFound("board"))?;
    let board = board::parse(row.file.as_bytes())?;
    shop.scene(board, seed).ok_or(Refusal::NotYet(UNREAD))
}
