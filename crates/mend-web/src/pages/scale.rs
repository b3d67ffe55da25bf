//! The °C/°F switch.

use axum::Form;
use axum::Router;
use axum::response::Redirect;
use axum::routing::post;
use axum_extra::extract::CookieJar;
use axum_extra::extract::cookie::{Cookie, SameSite};
use serde::Deserialize;

use crate::App;
use crate::visitor::SCALE_COOKIE;

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/scale", post(switch))
}

#[derive(Deserialize)]
struct Choice {
    scale: String,
    #[serde(default)]
    back: String,
}

async fn switch(jar: CookieJar, Form(choice): Form<Choice>) -> (CookieJar, Redirect) {
    let scale = if choice.scale == "F" { "F" } else { "C" };
    let cookie = Cookie::build((SCALE_COOKIE, scale)).path("/").same_site(SameSite::Lax).permanent().http_only(true);
    // Only a path of our own: never to another site.
    let own = choice.back.starts_with('/') && !choice.back.starts_with("//") && !choice.back.contains('\\');
    (jar.add(cookie.build()), Redirect::to(if own { &choice.back } else { "/" }))
}
