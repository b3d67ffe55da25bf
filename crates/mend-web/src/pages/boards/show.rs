//! One board of the library, a version of it on both faces, and its file.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use mend_core::finding::Finding;
use mend_store::VersionRow;

use super::taught::BoardTaught;
use super::{BoardFigures, Faces, SHOWN_RELEASES, outcomes};
use crate::App;
use crate::draw::agreement::Agreement;
use crate::pages::Frame;
use crate::pictures::{Pictured, pictured};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

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
    findings: Vec<FindingView>,
    summary: String,
    agreement: Option<Agreement>,
    taught: Option<BoardTaught>,
}

async fn versions(app: &App, model: &str) -> Result<Vec<VersionRow>, Refusal> {
    let model: i64 = model.parse().map_err(|_| Refusal::NotFound("board"))?;
    let rows = app.reading(move |read| read.versions(model)).await?;
    if rows.is_empty() { Err(Refusal::NotFound("board")) } else { Ok(rows) }
}

fn find<'r>(rows: &'r [VersionRow], version: &str) -> Result<&'r VersionRow, Refusal> {
    let version: i64 = version.parse().map_err(|_| Refusal::NotFound("revision of this board"))?;
    rows.iter().find(|row| row.version == version).ok_or(Refusal::NotFound("revision of this board"))
}

/// Which board of which model.
struct VersionRequest<'a> {
    model: &'a str,
    row: &'a VersionRow,
    rows: &'a [VersionRow],
}

async fn page(app: App, visitor: Visitor, wanted: VersionRequest<'_>) -> Result<BoardPage, Refusal> {
    let VersionRequest { row, rows, .. } = wanted;
    let model: i64 = wanted.model.parse().map_err(|_| Refusal::NotFound("board"))?;
    let read = move |read: mend_store::Read<'_>| Ok((read.model(model)?, read.releases(model, SHOWN_RELEASES)?));
    let (model_row, releases) = app.reading(read).await?;
    let (id, here) = (row.id, format!("/boards/{model}/revisions/{}", row.version));
    let Some(pictured) = pictured(&app, id).await? else { return Err(unreadable(&app, id).await) };
    Ok(BoardPage {
        frame: Frame::new(pictured.board.name.clone(), visitor.scale, "boards", here),
        id,
        model,
        version: row.version,
        versions: rows.iter().map(|row| row.version).collect(),
        figures: pictured.figures.clone(),
        faces: Faces::load(&app, id, visitor).await?,
        findings: visitor.words().findings(&pictured.findings),
        summary: model_row.map_or(String::new(), |row| outcomes::summary(&row)),
        agreement: outcomes::picture(&releases),
        taught: BoardTaught::load(&app, id, visitor).await?,
    })
}

/// Why a board can't be shown, and what to do.
async fn unreadable(app: &App, id: i64) -> Refusal {
    let row = match app.reading(move |read| read.board(id)).await {
        Ok(Some(row)) => row,
        Ok(None) => return Refusal::NotFound("board"),
        Err(refusal) => return refusal,
    };
    let mut findings = Pictured::read(&row).err().unwrap_or_default();
    let what = format!("“{}”, revision {}, can't be read as it is stored", row.name, row.version);
    let hint = "restore a backup; until then jobs on other boards go on as ever";
    findings.insert(0, Finding::written("board", row.name, what).hint(hint));
    Refusal::Bad(findings)
}

pub(super) async fn newest(
    State(app): State<App>,
    visitor: Visitor,
    Path(model): Path<String>,
) -> Result<BoardPage, Refusal> {
    let rows = versions(&app, &model).await?;
    page(app, visitor, VersionRequest { model: &model, row: &rows[0], rows: &rows }).await
}

pub(super) async fn version(
    State(app): State<App>,
    visitor: Visitor,
    Path((model, version)): Path<(String, String)>,
) -> Result<BoardPage, Refusal> {
    let rows = versions(&app, &model).await?;
    let row = find(&rows, &version)?;
    page(app, visitor, VersionRequest { model: &model, row, rows: &rows }).await
}

/// The version as a file of the open format.
pub(super) async fn file(
    State(app): State<App>,
    Path((model, version)): Path<(String, String)>,
) -> Result<Response, Refusal> {
    let id = find(&versions(&app, &model).await?, &version)?.id;
    let row = app.reading(move |read| read.board(id)).await?.ok_or(Refusal::NotFound("board"))?;
    let plain: String =
        row.name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let disposition = format!("attachment; filename=\"{plain}-{}.json\"", row.version);
    let headers = [(header::CONTENT_TYPE, "application/json".to_owned()), (header::CONTENT_DISPOSITION, disposition)];
    Ok((headers, row.file).into_response())
}
