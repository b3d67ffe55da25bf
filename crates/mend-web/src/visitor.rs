//! What a visitor prefers, kept in a cookie: °C or °F.

use std::convert::Infallible;

use axum::extract::FromRequestParts;
use axum::http::request::Parts;
use axum_extra::extract::CookieJar;
use axum_extra::extract::cookie::Cookie;
use mend_core::units::Scale;

use crate::App;
use crate::words::Words;

/// The cookie's name.
pub(crate) const SCALE_COOKIE: &str = "scale";

/// The visitor's scale of temperature.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Visitor {
    pub(crate) scale: Scale,
}

impl Visitor {
    /// Puts what the core found into words on this scale.
    pub(crate) fn words(self) -> Words {
        Words { scale: self.scale }
    }

    pub(crate) fn is_fahrenheit(self) -> bool {
        self.scale == Scale::Fahrenheit
    }
}

impl FromRequestParts<App> for Visitor {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        let jar = CookieJar::from_headers(&parts.headers);
        let scale = match jar.get(SCALE_COOKIE).map(Cookie::value) {
            Some("F") => Scale::Fahrenheit,
            Some("C") => Scale::Celsius,
            _ => app.usual_scale(),
        };
        Ok(Self { scale })
    }
}
