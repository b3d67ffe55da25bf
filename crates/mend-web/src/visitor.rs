//! What a visitor prefers, kept in a cookie: °C or °F.

use std::convert::Infallible;

use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use axum_extra::extract::CookieJar;
use mend_core::units::Scale;

/// The cookie's name.
pub(crate) const SCALE_COOKIE: &str = "scale";

/// The visitor's scale of temperature.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Visitor {
    pub(crate) scale: Scale,
}

impl<S: Sync> FromRequestParts<S> for Visitor {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self, Infallible> {
        let jar = CookieJar::from_headers(&parts.headers);
        let fahrenheit = jar.get(SCALE_COOKIE).is_some_and(|cookie| cookie.value() == "F");
        Ok(Self { scale: if fahrenheit { Scale::Fahrenheit } else { Scale::Celsius } })
    }
}
