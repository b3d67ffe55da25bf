//! One board of the library, a version of it on both faces, and its file.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use mend_core::board::rules;
use mend_core::finding::Finding;
use mend_store::BoardRow;

use super::outcomes::outcomes;
use super::{BoardFigures, Faces, Pictured};
use crate::App;
use crate::draw::agreement::Agreement;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "boards/show.html")]
pub(super) struct BoardPage {
    frame: Frame,
    id: i64,
    model: i64,
    version: i64,
    versions: Vec<i64>,
    figures: BoardFigures,
    faces: Faces,
    findings: Vec<Finding>,
    said: String,
    agreement: Option<Agreement>,
}

async fn versions(app: &App, model: &str) -> Result<Vec<BoardRow>, Refusal> {
    let model: i64 = model.parse().map_err(|_| Refusal::NotFound("board"))?;
    let rows = app.reading(move |read| read.versions(model)).await?;
    if rows.is_empty() { Err(Refusal::NotFound("board")) } else { Ok(rows) }
}

fn find(rows: &[BoardRow], version: &str) -> Result<BoardRow, Refusal> {
    let version: i64 = version.parse().map_err(|_| Refusal::NotFound("version of this board"))?;
    rows.iter().find(|row| row.version == version).cloned().ok_or(Refusal::NotFound("version of this board"))
}

async fn page((app, visitor): (App, Visitor), (row, rows): (&BoardRow, &[BoardRow])) -> Result<BoardPage, Refusal> {
    let Pictured { board, photos } = Pictured::read(row)?;
    let outcome = outcomes(&app).await?.remove(&row.model_id).unwrap_or_default();
    let here = format!("/boards/{}/versions/{}", row.model_id, row.version);
    Ok(BoardPage {
        frame: Frame::new(board.name.clone(), visitor.scale, "boards", here),
        id: row.id,
        model: row.model_id,
        version: row.version,
        versions: rows.iter().map(|row| row.version).collect(),
        figures: BoardFigures::of(&board),
        faces: Faces::of(&board, &photos, visitor),
        findings: rules::check(&board),
        said: outcome.said(),
        agreement: outcome.picture(),
    })
}

pub(super) async fn newest(
    State(app): State<App>,
    visitor: Visitor,
    Path(model): Path<String>,
) -> Result<BoardPage, Refusal> {
    let rows = versions(&app, &model).await?;
    page((app, visitor), (&rows[0], &rows)).await
}

pub(super) async fn version(
    State(app): State<App>,
    visitor: Visitor,
    Path((model, version)): Path<(String, String)>,
) -> Result<BoardPage, Refusal> {
    let rows = versions(&app, &model).await?;
    let row = find(&rows, &version)?;
    page((app, visitor), (&row, &rows)).await
}

/// The version as a file of the open format.
pub(super) async fn file(
    State(app): State<App>,
    Path((model, version)): Path<(String, String)>,
) -> Result<Response, Refusal> {
    let row = find(&versions(&app, &model).await?, &version)?;
    let plain: String =
        row.name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let disposition = format!("attachment; filename=\"{plain}-{}.json\"", row.version);
    let headers = [(header::CONTENT_TYPE, "application/json".to_owned()), (header::CONTENT_DISPOSITION, disposition)];
    Ok((headers, row.file).into_response())
}
