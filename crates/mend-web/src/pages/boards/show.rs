//! One board of the library, both faces.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};

use super::{BoardFigures, Faces};
use crate::App;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "boards/show.html")]
pub(super) struct BoardPage {
    frame: Frame,
    figures: BoardFigures,
    faces: Faces,
}

pub(super) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
) -> Result<BoardPage, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("board"))?;
    let row = app.reading(move |r| r.board(id)).await?.ok_or(Refusal::NotFound("board"))?;
    let board = mend_formats::board::parse(row.file.as_bytes())?;
    let frame = Frame::new(board.name.clone(), visitor.scale, "boards", format!("/boards/{id}"));
    Ok(BoardPage { frame, figures: BoardFigures::of(&board), faces: Faces::of(&board, visitor) })
}
