//! The moment at which a request arrived, taken before anything else is done with it.

use std::convert::Infallible;

use axum::extract::{FromRequestParts, Request, State};
use axum::http::request::Parts;
use axum::middleware::Next;
use axum::response::Response;
use mend_store::Moment;

use crate::App;

/// When a request arrived.
#[derive(Debug, Clone)]
pub(crate) struct Arrived(pub(crate) Moment);

/// The outermost layer: stamps every request as it comes in.
pub(crate) async fn stamp(State(app): State<App>, mut request: Request, next: Next) -> Response {
    request.extensions_mut().insert(Arrived(app.moment()));
    next.run(request).await
}

impl FromRequestParts<App> for Arrived {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        Ok(parts.extensions.get::<Self>().cloned().unwrap_or_else(|| Self(app.moment())))
    }
}
