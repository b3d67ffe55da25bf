//! The practice bench: the course, an attempt, its debrief.
//!
//! - `course`: what can be practised, and somebody's record; `begin`: an attempt is begun; `attempt`: the page; `socket`: what goes to and
//!   fro meanwhile; `debrief`: what came of it

mod attempt;
mod begin;
mod course;
mod debrief;
mod path;
mod socket;

use axum::Router;
use axum::extract::Path;
use axum::routing::{get, post};
use mend_core::shop::people::Permission;
use mend_store::AttemptRow;

use crate::App;
use crate::people::Visit;
use crate::refusal::Refusal;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/practice", get(course::show).post(begin::begin))
        .route("/practice/{id}", get(attempt::show))
        .route("/practice/{id}/bench", get(socket::open))
        .route("/practice/{id}/debrief", get(debrief::show))
        .route("/practice/{id}/window", get(path::poll))
        .route("/jobs/{id}/rehearse", post(begin::rehearse))
}

/// The attempt of an address: one's own, or for the owner anybody's.
async fn attempt_at(app: &App, Path(id): &Path<String>) -> Result<AttemptRow, Refusal> {
    let id: i64 = id.parse().map_err(|_| Refusal::NotFound("attempt"))?;
    let row = app.reading(move |read| read.attempt(id)).await?.ok_or(Refusal::NotFound("attempt"))?;
    let visit = Visit::current();
    let own = row.person == visit.person().map(|person| person.id);
    if own || visit.may(Permission::Shop) { Ok(row) } else { Err(Refusal::NotFound("attempt")) }
}
