//! People: who works here and what they may; signing in, and the link by which somebody comes in first.
//!
//! - `list`: everybody, for the owner; `sign_in`: who is at this browser; `welcome`: one's own passphrase, by a link that works
//!   once; `me`: one's own passphrase and PIN, changed
//! - `words`: what can't be a secret, said

mod list;
mod me;
mod sign_in;
mod welcome;
mod words;

use axum::Router;
use axum::routing::{get, post};

use crate::App;

pub(crate) use welcome::first_owner_link;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/people", get(list::show).post(list::add))
        .route("/people/{id}", post(list::change))
        .route("/people/{id}/link", post(list::link))
        .route("/people/{id}/leave", post(list::leave))
        .route("/people/{id}/back", post(list::back))
        .route("/people/me", get(me::show).post(me::change))
        .route("/sign-in", get(sign_in::show).post(sign_in::enter))
        .route("/sign-out", post(sign_in::leave))
        .route("/welcome/{token}", get(welcome::show).post(welcome::enter))
}
