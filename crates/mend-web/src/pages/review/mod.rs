//! The review: what the past says, what to change, and where it went. People's own figures are for themselves and the owner.
//!
//! - `page`: the page; `tables`: what can be saved of it

mod page;
mod tables;

use axum::Router;
use axum::routing::get;
use mend_core::shop::review::JobOutcome;

use crate::App;
use crate::refusal::Refusal;

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/review", get(page::show)).route("/review/{table}", get(tables::csv))
}

/// What came of every job that was given back.
async fn outcomes(app: &App) -> Result<Vec<JobOutcome>, Refusal> {
    app.reading(|read| read.outcomes()).await
}
