//! One job, stop by stop.

pub(crate) mod alloy;
mod alloy_form;
pub(crate) mod alloy_view;
pub(crate) mod board;
pub(crate) mod handover;
pub(crate) mod heat;
mod heat_edit;
mod heat_form;
mod heat_input;
mod heat_replay;
mod heat_view;
mod heat_window;
pub(crate) mod intake;
mod ledger_view;
pub(crate) mod method;
pub(crate) mod pins;
pub(crate) mod plan_view;
mod recipe_lines;
pub(crate) mod run;

use axum::Router;
use axum::extract::{Path, State};
use axum::response::Redirect;
use axum::routing::{get, post};
use mend_core::shop::{self, Stop};

use crate::App;
use crate::job::Job;
use crate::refusal::Refusal;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/jobs", get(super::finished::show).post(open))
        .route("/jobs/{id}", get(next_stop))
        .route("/jobs/{id}/intake", get(intake::show).post(intake::keep))
        .route("/jobs/{id}/board", get(board::show).post(board::choose))
        .route("/jobs/{id}/alloy", get(alloy::show).post(alloy::change))
        .route("/jobs/{id}/method", get(method::show))
        .route("/jobs/{id}/method/live", post(method::live))
        .route("/jobs/{id}/method/choose", post(method::take))
        .route("/jobs/{id}/method/lanes", get(method::poll).post(method::again))
        .route("/jobs/{id}/method/lanes/cancel", post(method::cancel))
        .route("/jobs/{id}/method/{family}", get(method::family::show))
        .route("/jobs/{id}/method/{family}/search", get(method::family::poll).post(method::family::again))
        .route("/jobs/{id}/method/{family}/search/cancel", post(method::family::cancel))
        .route("/jobs/{id}/card", get(method::card::show))
        .route("/jobs/{id}/what-if", get(method::what_if::show).post(method::what_if::add))
        .route("/jobs/{id}/what-if/columns", get(method::what_if::poll))
        .route("/jobs/{id}/what-if/{variant}/take", post(method::what_if::take))
        .route("/jobs/{id}/what-if/{variant}/remove", post(method::what_if::remove))
        .route("/jobs/{id}/heat", get(heat::show).post(heat::change))
        .route("/jobs/{id}/heat/edit", post(heat::edit))
        .route("/jobs/{id}/heat/plan", get(heat::poll).post(heat::again))
        .route("/jobs/{id}/heat/cancel", post(heat::cancel))
        .route("/jobs/{id}/heat/window", get(heat_window::show).post(heat_window::again))
        .route("/jobs/{id}/heat/window/cancel", post(heat_window::cancel))
        .route("/jobs/{id}/heat/replay", get(heat_replay::show).post(heat_replay::again))
        .route("/jobs/{id}/heat/replay/cancel", post(heat_replay::cancel))
        .route("/jobs/{id}/heat/replay/frames", get(heat_replay::frames))
        .route("/jobs/{id}/heat/replay/point", get(heat_replay::point))
        .route("/jobs/{id}/heat/curves.csv", get(heat_replay::curves))
        .route("/jobs/{id}/run", get(run::show).post(run::start))
        .route("/jobs/{id}/run/events", post(run::events::enter))
        .route("/jobs/{id}/pins", get(pins::show).post(pins::mark))
        .route("/jobs/{id}/handover", get(handover::show).post(handover::close))
        .route("/jobs/{id}/handover/reopen", post(handover::reopen))
}

/// A job's number in an address.
pub(crate) type JobPath = Path<String>;

/// The number, or "no such job".
pub(crate) fn number(Path(id): &JobPath) -> Result<i64, Refusal> {
    id.parse().map_err(|_| Refusal::NotFound("job"))
}

async fn open(State(app): State<App>) -> Result<Redirect, Refusal> {
    let now = app.now_ms();
    let id = app
        .writing(move |write| {
            let id = write.add_job(now)?;
            let terms = write.read().shop()?.and_then(|file| mend_formats::shop_settings::parse(file.as_bytes()).ok());
            if let Some(terms) = terms.map(|shop| shop.terms).filter(|terms| !terms.is_empty()) {
                write.set_intake(id, ("terms", &terms), now)?;
            }
            Job::list(write, id)?;
            Ok(id)
        })
        .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/intake")))
}

async fn next_stop(State(app): State<App>, path: JobPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let stop = shop::next(&job.facts()).unwrap_or(Stop::Handover);
    Ok(Redirect::to(&format!("/jobs/{}/{}", job.row.id, stop.path())))
}
