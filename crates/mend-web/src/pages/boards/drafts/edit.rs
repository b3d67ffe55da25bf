//! Acts on a draft, and taking them back.

use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::draft::{Draft, Edit};
use mend_core::finding::Finding;
use mend_store::DraftAct;
use serde::Deserialize;

use super::live::StoredDraft;
use super::trace::LiveOnly;
use super::{change, number, step};
use crate::App;
use crate::extract::Json;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// An act as it is sent: with the panel that is looked at, and a token that makes a second sending the same act.
#[derive(Deserialize)]
pub(super) struct EditRequest {
    token: String,
    /// The page that sends it, and the revision that it shows: an act on what somebody else has changed is refused.
    client: String,
    on: i64,
    #[serde(default)]
    show: String,
    edit: Edit,
}

impl EditRequest {
    fn by(&self) -> DraftAct {
        DraftAct { token: self.token.clone(), client: self.client.clone(), on: Some(self.on) }
    }
}

/// A step back or forward.
#[derive(Deserialize)]
pub(super) struct HistoryRequest {
    token: String,
    client: String,
    on: i64,
    #[serde(default)]
    show: String,
}

pub(super) async fn edit(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    Json(act): Json<EditRequest>,
) -> Result<Response, Refusal> {
    let id = number(&id)?;
    let (edit, scale) = (act.edit.clone(), visitor.scale);
    let done = change(&app, id, act.by(), move |draft| draft.after(&edit, scale).map_err(|f| vec![f])).await?;
    let kept = StoredDraft::load(&app, id, &act.show).await?;
    match done {
        Ok(()) => Ok(LiveOnly::from_stored(&kept, &shown_after(&kept.draft, &act), visitor, &[]).into_response()),
        Err(findings) => Ok(refused(&kept, &act.show, visitor, &findings)),
    }
}

fn refused(kept: &StoredDraft, show: &str, visitor: Visitor, findings: &[Finding]) -> Response {
    (StatusCode::UNPROCESSABLE_ENTITY, LiveOnly::from_stored(kept, show, visitor, findings)).into_response()
}

/// A new thing is looked at; of one that is gone, the list.
fn shown_after(draft: &Draft, act: &EditRequest) -> String {
    let newest = draft.components.len().saturating_sub(1);
    match &act.edit {
        Edit::Add { .. } | Edit::Copy { .. } => format!("component-{newest}"),
        Edit::Remove { .. } if act.show.starts_with("component") => "components".to_owned(),
        _ => act.show.clone(),
    }
}

pub(super) async fn undo(
    app: State<App>,
    visitor: Visitor,
    id: Path<String>,
    Json(way): Json<HistoryRequest>,
) -> Result<LiveOnly, Refusal> {
    moved(&app, number(&id)?, -1, &way).await?;
    shown(&app, number(&id)?, &way.show, visitor).await
}

pub(super) async fn redo(
    app: State<App>,
    visitor: Visitor,
    id: Path<String>,
    Json(way): Json<HistoryRequest>,
) -> Result<LiveOnly, Refusal> {
    moved(&app, number(&id)?, 1, &way).await?;
    shown(&app, number(&id)?, &way.show, visitor).await
}

async fn moved(app: &App, id: i64, by: i64, way: &HistoryRequest) -> Result<(), Refusal> {
    let act = DraftAct { token: way.token.clone(), client: way.client.clone(), on: Some(way.on) };
    step(app, id, act, by).await
}

/// The draft as it is now.
async fn shown(app: &App, id: i64, show: &str, visitor: Visitor) -> Result<LiveOnly, Refusal> {
    let kept = StoredDraft::load(app, id, show).await?;
    Ok(LiveOnly::from_stored(&kept, show, visitor, &[]))
}
