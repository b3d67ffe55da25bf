//! The page on which a board is described.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::board::draft::Draft;
use mend_core::finding::Finding;
use serde::Deserialize;

use super::live::{LiveView, StoredDraft};
use super::{begin as begin_draft, number};
use crate::App;
use crate::extract::{Form, Query};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "boards/drafts/trace.html")]
pub(super) struct TracePage {
    frame: Frame,
    id: i64,
    name: String,
    live: LiveView,
}

/// Which panel is looked at.
#[derive(Deserialize)]
pub(super) struct PanelQuery {
    #[serde(default)]
    show: String,
}

impl TracePage {
    fn new(kept: &StoredDraft, show: &str, visitor: Visitor, refusals: &[Finding]) -> Self {
        let id = kept.row.id;
        let name = if kept.draft.name.is_empty() { "New board".to_owned() } else { kept.draft.name.clone() };
        let frame = Frame::new(name.clone(), visitor.scale, "boards", format!("/boards/drafts/{id}"));
        Self { frame, id, name, live: LiveView::from_stored(kept, show, visitor, refusals) }
    }
}

pub(super) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    Query(shown): Query<PanelQuery>,
) -> Result<TracePage, Refusal> {
    let kept = StoredDraft::load(&app, number(&id)?, &shown.show).await?;
    Ok(TracePage::new(&kept, &shown.show, visitor, &[]))
}

/// A draft, and what of it is shown.
pub(super) struct DraftPlace<'a> {
    pub(super) id: i64,
    pub(super) show: &'a str,
}

/// The page again with what was refused.
pub(super) async fn refused(
    app: &App,
    visitor: Visitor,
    DraftPlace { id, show }: DraftPlace<'_>,
    findings: &[Finding],
) -> Result<Response, Refusal> {
    let kept = StoredDraft::load(app, id, show).await?;
    Ok((StatusCode::UNPROCESSABLE_ENTITY, TracePage::new(&kept, show, visitor, findings)).into_response())
}

#[derive(Template, WebTemplate)]
#[template(source = "{{ live|safe }}", ext = "html")]
pub(super) struct LiveOnly {
    live: LiveView,
}

impl LiveOnly {
    pub(super) fn from_stored(kept: &StoredDraft, show: &str, visitor: Visitor, refusals: &[Finding]) -> Self {
        Self { live: LiveView::from_stored(kept, show, visitor, refusals) }
    }
}

/// Another panel of the same draft.
pub(super) async fn live(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    Query(shown): Query<PanelQuery>,
) -> Result<LiveOnly, Refusal> {
    let kept = StoredDraft::load(&app, number(&id)?, &shown.show).await?;
    Ok(LiveOnly::from_stored(&kept, &shown.show, visitor, &[]))
}

/// What a draft begins with: nothing, or a version of the library.
#[derive(Deserialize)]
pub(super) struct From {
    /// A version's number.
    #[serde(default)]
    board: String,
    /// `yes`: a board of its own, not the next version.
    #[serde(default)]
    variant: String,
    /// The job whose board it is.
    #[serde(default)]
    job: String,
}

pub(super) async fn begin(State(app): State<App>, Form(from): Form<From>) -> Result<Redirect, Refusal> {
    let job: Option<i64> =
        if from.job.is_empty() { None } else { Some(from.job.parse().map_err(|_| Refusal::NotFound("job"))?) };
    if let Some(job) = job {
        app.reading(move |read| read.job(job)).await?.ok_or(Refusal::NotFound("job"))?;
    }
    let (model, draft) = if from.board.is_empty() { (None, Draft::new("")) } else { from_version(&app, &from).await? };
    let id = begin_draft(&app, model, job, &draft).await?;
    Ok(Redirect::to(&format!("/boards/drafts/{id}")))
}

/// The draft of a version, and the model that it will be a version of.
async fn from_version(app: &App, from: &From) -> Result<(Option<i64>, Draft), Refusal> {
    let board: i64 = from.board.parse().map_err(|_| Refusal::NotFound("board"))?;
    let row = app.reading(move |read| read.board(board)).await?.ok_or(Refusal::NotFound("board"))?;
    let described = row.draft.as_deref().and_then(|draft| mend_formats::draft::parse(draft.as_bytes()).ok());
    let draft = match described {
        Some(draft) => draft,
        None => Draft::from_board(&mend_formats::board::parse(row.file.as_bytes())?),
    };
    if from.variant == "yes" {
        let draft = Draft { name: format!("{} variant", draft.name), ..draft };
        return Ok((None, draft));
    }
    Ok((Some(row.model_id), draft))
}
