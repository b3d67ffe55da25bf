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
use mend_store::NewDraft;

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
    (model_id, job_id): (Option<i64>, Option<i64>),
    draft: &Draft,
) -> Result<i64, Refusal> {
    let (new, now) = (NewDraft { model_id, job_id, draft: mend_formats::draft::write(draft) }, app.now_ms());
    app.writing(move |write| write.add_draft(&new, now)).await
}

/// Keeps the draft after an act.
pub(super) async fn keep_step(app: &App, id: i64, (draft, token): (&Draft, &str)) -> Result<(), Refusal> {
    let (text, token, now) = (mend_formats::draft::write(draft), token.to_owned(), app.now_ms());
    app.writing(move |write| write.add_draft_step(id, (&text, &token), now)).await
}
