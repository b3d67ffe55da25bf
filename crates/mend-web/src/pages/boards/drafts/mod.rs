//! Describing a board: `/boards/drafts/{id}`. Every act is kept as it is done.
//!
//! [`trace`]: the page; [`live`]: what changes on it; [`panels`], [`copper`]: what stands beside the map; [`edit`]: acts, undo;
//! [`photo`], [`part`], [`placement`]: what is brought in; [`keep`]: the end of it

mod copper;
mod edit;
mod field;
mod keep;
mod live;
mod panels;
mod part;
mod photo;
mod placement;
mod trace;

use axum::Router;
use axum::extract::DefaultBodyLimit;
use axum::routing::{get, post};
use mend_core::board::draft::Draft;
use mend_core::finding::Finding;
use mend_store::{ActState, DoneAct, DraftAct, NewDraft, StoreError, Write};

use crate::App;
use crate::refusal::Refusal;

pub(crate) fn routes() -> Router<App> {
    // Pages that take files measure them themselves, so that they can answer in words.
    let own_limit = || DefaultBodyLimit::disable();
    Router::new()
        .route("/boards/drafts", post(trace::begin))
        .route("/boards/drafts/{id}", get(trace::show))
        .route("/boards/drafts/{id}/live", get(trace::live))
        .route("/boards/drafts/{id}/edit", post(edit::edit))
        .route("/boards/drafts/{id}/undo", post(edit::undo))
        .route("/boards/drafts/{id}/redo", post(edit::redo))
        .route("/boards/drafts/{id}/photos", post(photo::add).layer(own_limit()))
        .route("/boards/drafts/{id}/part", post(part::take))
        .route("/boards/drafts/{id}/placement", post(placement::add).layer(own_limit()))
        .route("/boards/drafts/{id}/keep", post(keep::keep))
        .route("/boards/drafts/{id}/connector", post(keep::keep_connector))
        .route("/boards/drafts/{id}/end", post(keep::end))
        .route("/boards/photos/{id}", get(photo::serve))
}

pub(super) fn number(id: &str) -> Result<i64, Refusal> {
    id.parse().map_err(|_| Refusal::NotFound("draft"))
}

/// Begins a draft of a model, for a job, or neither; answers its number.
pub(crate) async fn begin(
    app: &App,
    model_id: Option<i64>,
    job_id: Option<i64>,
    draft: &Draft,
) -> Result<i64, Refusal> {
    let (new, now) = (NewDraft { model_id, job_id, draft: mend_formats::draft::write(draft)? }, app.now_ms());
    app.writing(move |write| write.add_draft(&new, now)).await
}

/// An act that only adds to whatever there is: it is never outdated.
pub(super) fn adding(token: String) -> DraftAct {
    DraftAct { token, client: String::new(), on: None }
}

/// Said to whoever acts on a state that somebody else has changed.
const OUTDATED: &str = "Somebody else has changed this board since you looked at it";

/// Does an act on a draft as it is at that moment: read, changed and kept in one transaction, so that acts that come at the
/// same time are all kept. What the act objects to changes nothing.
pub(super) async fn change<F>(app: &App, id: i64, act: DraftAct, change: F) -> Result<Result<(), Vec<Finding>>, Refusal>
where
    F: FnOnce(&Draft) -> Result<Draft, Vec<Finding>> + Send + 'static,
{
    let now = app.now_ms();
    app.writing(move |write| {
        let draft = match fresh(write, id, &act)? {
            Ok(Some(draft)) => draft,
            Ok(None) => return Ok(Ok(Ok(()))),
            Err(refusal) => return Ok(Err(refusal)),
        };
        let text = match change(&draft) {
            Ok(changed) => mend_formats::draft::write(&changed),
            Err(findings) => return Ok(Ok(Err(findings))),
        };
        match text {
            Ok(text) => write.add_draft_step(id, &text, DoneAct { act: &act, at_ms: now }).map(|()| Ok(Ok(()))),
            Err(error) => Ok(Err(error.into())),
        }
    })
    .await?
}

/// The draft that an act is to be done on; none where it has been done already.
fn fresh(write: &Write<'_>, id: i64, act: &DraftAct) -> Result<Result<Option<Draft>, Refusal>, StoreError> {
    let Some(row) = write.read().draft(id)? else { return Ok(Err(Refusal::NotFound("draft"))) };
    Ok(match write.read().standing(id, act)? {
        ActState::Done => Ok(None),
        ActState::Outdated => Err(Refusal::Outdated(OUTDATED.to_owned())),
        ActState::Fresh => mend_formats::draft::parse(row.draft.as_bytes()).map(Some).map_err(Refusal::Bad),
    })
}

/// Takes a step back or forward; an act that has been done already, or on what somebody else has changed, takes none.
pub(super) async fn step(app: &App, id: i64, act: DraftAct, by: i64) -> Result<(), Refusal> {
    let now = app.now_ms();
    app.writing(move |write| {
        if write.read().draft(id)?.is_none() {
            return Ok(Err(Refusal::NotFound("draft")));
        }
        match write.read().standing(id, &act)? {
            ActState::Done => Ok(Ok(())),
            ActState::Outdated => Ok(Err(Refusal::Outdated(OUTDATED.to_owned()))),
            ActState::Fresh => write.move_draft(id, by, DoneAct { act: &act, at_ms: now }).map(Ok),
        }
    })
    .await?
}
