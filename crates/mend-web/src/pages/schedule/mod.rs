//! The schedule: who does what when, moved by hand where somebody knows better, and a day of it as a calendar.
//!
//! - `lanes`: the page, and what is moved on it; `calendar`: one person's day for their own calendar

mod calendar;
mod lanes;

use axum::Router;
use axum::routing::{get, post};

use crate::App;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/schedule", get(lanes::show))
        .route("/schedule/pins", post(lanes::pin))
        .route("/schedule/{person}/calendar", get(calendar::show))
}
