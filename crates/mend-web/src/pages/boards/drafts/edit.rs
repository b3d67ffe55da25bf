//! Acts on a draft, and taking them back.

use axum::Json;
use axum::extract::rejection::JsonRejection;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::draft::{Draft, Edit};
use mend_core::finding::Finding;
use serde::Deserialize;

use super::live::Kept;
use super::trace::LiveOnly;
use super::{keep_step, number};
use crate::App;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// An act as it is sent: with the panel that is looked at, and a token that makes a second sending the same act.
#[derive(Deserialize)]
pub(super) struct Act {
    token: String,
    #[serde(default)]
    show: String,
    edit: Edit,
}

/// A step back or forward.
#[derive(Deserialize)]
pub(super) struct Way {
    token: String,
    #[serde(default)]
    show: String,
}

pub(super) async fn edit(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    act: Result<Json<Act>, JsonRejection>,
) -> Result<Response, Refusal> {
    let Json(act) = act.map_err(|error| Refusal::field("edit", error.body_text(), "send an act as the page does"))?;
    let kept = Kept::load(&app, (number(&id)?, &act.show)).await?;
    if kept.row.last_token == act.token {
        return Ok(LiveOnly::of(&kept, (&shown_after(&kept.draft, &act), visitor), vec![]).into_response());
    }
    match kept.draft.after(&act.edit, visitor.scale) {
        Ok(draft) => {
            keep_step(&app, kept.row.id, (&draft, &act.token)).await?;
            let kept = Kept::load(&app, (kept.row.id, &act.show)).await?;
            Ok(LiveOnly::of(&kept, (&shown_after(&kept.draft, &act), visitor), vec![]).into_response())
        }
        Err(finding) => Ok(refused(&kept, (&act.show, visitor), finding)),
    }
}

fn refused(kept: &Kept, shown: (&str, Visitor), finding: Finding) -> Response {
    (StatusCode::UNPROCESSABLE_ENTITY, LiveOnly::of(kept, shown, vec![finding])).into_response()
}

/// A new thing is looked at; of one that is gone, the list.
fn shown_after(draft: &Draft, act: &Act) -> String {
    let newest = draft.neighbours.len().saturating_sub(1);
    match &act.edit {
        Edit::Add { .. } | Edit::Copy { .. } => format!("neighbour-{newest}"),
        Edit::Remove { .. } if act.show.starts_with("neighbour") => "neighbours".to_owned(),
        _ => act.show.clone(),
    }
}

pub(super) async fn undo(
    app: State<App>,
    visitor: Visitor,
    id: Path<String>,
    way: Json<Way>,
) -> Result<LiveOnly, Refusal> {
    step((app.0, visitor), &id, (-1, way.0)).await
}

pub(super) async fn redo(
    app: State<App>,
    visitor: Visitor,
    id: Path<String>,
    way: Json<Way>,
) -> Result<LiveOnly, Refusal> {
    step((app.0, visitor), &id, (1, way.0)).await
}

async fn step((app, visitor): (App, Visitor), id: &str, (by, way): (i64, Way)) -> Result<LiveOnly, Refusal> {
    let id = number(id)?;
    let kept = Kept::load(&app, (id, &way.show)).await?;
    if kept.row.last_token != way.token {
        let (token, now) = (way.token.clone(), app.now_ms());
        app.writing(move |write| write.move_draft(id, (by, &token), now)).await?;
    }
    let kept = Kept::load(&app, (id, &way.show)).await?;
    Ok(LiveOnly::of(&kept, (&way.show, visitor), vec![]))
}
