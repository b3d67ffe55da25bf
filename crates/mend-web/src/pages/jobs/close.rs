//! The close: everything that came out goes back in by the map, the cell's cable last; then it is tried once more.

use axum::extract::State;
use axum::response::{IntoResponse, Response};
use mend_core::shop::Stop;

use super::look::CheckForm;
use super::opening::{OpeningPart, back_in, keep_tap, part};
use super::test::{TestPart, entered, page};
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The way back by the map while something is out; the tests after that.
pub(super) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    match back_in(&app, &job, visitor) {
        Some(map) if job.missing() > 0 && !job.has_skipped(Stop::Close) => Ok(map.into_response()),
        _ => Ok(page(&app, visitor, &job, Stop::Close).into_response()),
    }
}

pub(super) async fn enter(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<TestPart, Refusal> {
    entered(&app, number(&path)?, Stop::Close, sent).await
}

/// A thing goes back in.
pub(super) async fn tap(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<OpeningPart, Refusal> {
    let id = number(&path)?;
    keep_tap(&app, id, sent).await?;
    part(&app, id, visitor, Stop::Close).await
}
