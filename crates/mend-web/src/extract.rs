//! Forms and addresses read so that a refusal is our page: axum's own extractors answer plain text.

use axum::extract::{FromRequest, FromRequestParts, Request};
use axum::http::request::Parts;
use serde::de::DeserializeOwned;

use crate::App;
use crate::refusal::Refusal;

/// A value as it stands in an address's query.
pub(crate) fn escaped(value: &str) -> String {
    form_urlencoded::byte_serialize(value.as_bytes()).collect()
}

/// A form.
pub(crate) struct Form<T>(pub(crate) T);

/// The query of an address.
pub(crate) struct Query<T>(pub(crate) T);

/// A JSON body.
pub(crate) struct Json<T>(pub(crate) T);

impl<T: DeserializeOwned> FromRequest<App> for Form<T> {
    type Rejection = Refusal;

    async fn from_request(request: Request, app: &App) -> Result<Self, Refusal> {
        let read = axum::Form::<T>::from_request(request, app).await;
        read.map(|form| Self(form.0)).map_err(|error| Refusal::sent("form", error.status(), error.body_text()))
    }
}

impl<T: DeserializeOwned> FromRequest<App> for Json<T> {
    type Rejection = Refusal;

    async fn from_request(request: Request, app: &App) -> Result<Self, Refusal> {
        let read = axum::Json::<T>::from_request(request, app).await;
        read.map(|json| Self(json.0)).map_err(|error| Refusal::sent("act", error.status(), error.body_text()))
    }
}

impl<T: DeserializeOwned> FromRequestParts<App> for Query<T> {
    type Rejection = Refusal;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Refusal> {
        let read = axum::extract::Query::<T>::from_request_parts(parts, app).await;
        read.map(|query| Self(query.0)).map_err(|error| Refusal::sent("address", error.status(), error.body_text()))
    }
}
