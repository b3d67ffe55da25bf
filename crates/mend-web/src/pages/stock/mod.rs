//! Stock: what is on the shelf, what to order today, and what came of each piece.
//!
//! - `list`: all items and the order list; `item`: one, with its ledger; `form`: what is typed of one; `donors`: what parts come
//!   off

mod donors;
mod form;
mod item;
mod list;

use axum::Router;
use axum::routing::{get, post};

use crate::App;
use crate::job::Job;
use crate::refusal::Refusal;

pub(crate) use item::quantity;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/stock", get(list::show).post(list::add))
        .route("/stock/order.csv", get(list::csv))
        .route("/stock/donors", get(donors::show).post(donors::add))
        .route("/stock/donors/{id}/harvest", post(donors::harvest))
        .route("/stock/donors/{id}/discard", post(donors::discard))
        .route("/stock/{id}", get(item::show).post(item::change))
        .route("/stock/{id}/move", post(item::enter))
        .route("/stock/{id}/look-alike", post(item::look_alike))
        .route("/stock/{id}/retire", post(item::retire))
}

/// Promises what is free of an item to the jobs that wait for it, and puts them back on the bench; answers them.
pub(crate) async fn serve_waiting(app: &App, item: i64) -> Result<Vec<i64>, Refusal> {
    let now_ms = app.now_ms();
    app.writing(move |write| {
        let served = write.reserve_for_waiting(item, now_ms)?;
        // What the others wait for may have another day now.
        let waiting = write.read().open_needs(Some(item))?;
        waiting.iter().try_for_each(|need| Job::list(write, need.job))?;
        Ok(served)
    })
    .await
}
