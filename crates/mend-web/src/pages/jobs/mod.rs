//! One job, stop by stop.

pub(crate) mod alloy;
mod alloy_form;
pub(crate) mod alloy_view;
pub(crate) mod board;
mod close;
mod components;
mod decline;
mod fit_ways;
pub(crate) mod handover;
pub(crate) mod heat;
mod heat_edit;
mod heat_form;
mod heat_input;
pub(crate) mod heat_path;
mod heat_replay;
mod heat_view;
mod heat_window;
pub(crate) mod intake;
mod ledger_view;
pub(crate) mod lesson;
pub(crate) mod look;
pub(crate) mod method;
mod opening;
mod parts;
mod photos;
pub(crate) mod pins;
pub(crate) mod plan_view;
mod quote;
mod recipe_lines;
mod record;
pub(crate) mod run;
pub(crate) mod test;

use axum::Router;
use axum::extract::{DefaultBodyLimit, Path, State};
use axum::response::Redirect;
use axum::routing::{get, post};
use mend_core::shop::{self, Stop};
use mend_store::TypedField;

use crate::App;
use crate::job::Job;
use crate::pages::stop_href;
use crate::refusal::Refusal;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/jobs", get(super::finished::show).post(open))
        .route("/jobs/{id}", get(next_stop))
        .route("/jobs/{id}/intake", get(intake::show).post(intake::keep))
        .route("/jobs/{id}/board", get(board::show).post(board::choose))
        .route("/jobs/{id}/opening", get(opening::show).post(opening::tap))
        .route("/jobs/{id}/opening/map", post(opening::choose))
        .route("/jobs/{id}/opening/edits", post(opening::edits::change))
        .route("/jobs/{id}/opening/photo", post(opening::edits::photograph).layer(DefaultBodyLimit::disable()))
        .route("/jobs/{id}/opening/file", get(opening::file))
        .route("/jobs/{id}/look", get(look::show).post(look::enter))
        .route("/jobs/{id}/look/meter", get(look::meter::show))
        .route("/jobs/{id}/look/extras", post(look::extras::add).layer(DefaultBodyLimit::disable()))
        .route("/jobs/{id}/look/extras/{extra}", post(look::extras::answer))
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
        .route("/jobs/{id}/what-if/station", post(method::elsewhere::translate))
        .route("/jobs/{id}/what-if/columns", get(method::what_if::poll))
        .route("/jobs/{id}/what-if/{variant}/take", post(method::what_if::take))
        .route("/jobs/{id}/what-if/{variant}/remove", post(method::what_if::remove))
        .merge(heat_routes("heat"))
        .merge(heat_routes("fit"))
        .route("/jobs/{id}/fit/ways", get(fit_ways::show).post(fit_ways::again))
        .route("/jobs/{id}/fit/ways/cancel", post(fit_ways::cancel))
        .route("/jobs/{id}/fit/ways/{way}", post(fit_ways::take))
        .route("/jobs/{id}/run", get(run::show).post(run::start))
        .route("/jobs/{id}/run/events", post(run::events::enter))
        .route("/jobs/{id}/run/watch", post(run::twin::watch))
        .route("/jobs/{id}/lesson", get(lesson::show))
        .route("/jobs/{id}/pins", get(pins::show).post(pins::mark))
        .route("/jobs/{id}/components", get(components::show).post(components::enter))
        .route("/jobs/{id}/components/{place}/back", get(components::back::show).post(components::back::again))
        .route("/jobs/{id}/components/{place}/back/plan", get(components::back::poll))
        .route("/jobs/{id}/components/{place}/back/cancel", post(components::back::cancel))
        .route("/jobs/{id}/photos", get(photos::show).post(photos::add).layer(DefaultBodyLimit::disable()))
        .route("/jobs/{id}/photos/{photo}", post(photos::change))
        .route("/jobs/{id}/quote", get(quote::show).post(quote::make))
        .route("/jobs/{id}/quote/{quote}", get(quote::sheet))
        .route("/jobs/{id}/quote/{quote}/answer", post(quote::answer))
        .route("/jobs/{id}/parts", get(parts::show).post(parts::add))
        .route("/jobs/{id}/parts/{item}/remove", post(parts::remove))
        .route("/jobs/{id}/parts/{item}/told/{other}", post(parts::tell))
        .route("/jobs/{id}/record", get(record::show))
        .route("/jobs/{id}/test", get(test::show).post(test::enter))
        .route("/jobs/{id}/test/back", post(test::back))
        .route("/jobs/{id}/close", get(close::show).post(close::enter))
        .route("/jobs/{id}/close/taps", post(close::tap))
        .route("/jobs/{id}/handover", get(handover::show).post(handover::closing::close))
        .route("/jobs/{id}/handover/decline", post(decline::decline))
        .route("/jobs/{id}/handover/reopen", post(handover::closing::reopen))
}

/// The pages of one of a job's two runs of heat.
fn heat_routes(work: &str) -> Router<App> {
    let at = |rest: &str| format!("/jobs/{{id}}/{work}{rest}");
    Router::new()
        .route(&at(""), get(heat::show).post(heat::change))
        .route(&at("/edit"), post(heat::edit))
        .route(&at("/plan"), get(heat::poll).post(heat::again))
        .route(&at("/cancel"), post(heat::cancel))
        .route(&at("/window"), get(heat_window::show).post(heat_window::again))
        .route(&at("/window/cancel"), post(heat_window::cancel))
        .route(&at("/replay"), get(heat_replay::show).post(heat_replay::again))
        .route(&at("/replay/cancel"), post(heat_replay::cancel))
        .route(&at("/replay/frames"), get(heat_replay::frames))
        .route(&at("/replay/point"), get(heat_replay::point))
        .route(&at("/curves.csv"), get(heat_replay::curves))
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
                write.set_intake(id, TypedField::new("terms", &terms), now)?;
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
    let href = stop_href(job.row.id, shop::path_of(job.kind(), stop));
    Ok(Redirect::to(if href.is_empty() { format!("/jobs/{}/intake", job.row.id) } else { href }.as_str()))
}
