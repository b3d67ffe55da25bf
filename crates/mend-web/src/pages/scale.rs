//! The °C/°F switch.

use axum::Router;
use axum::response::Redirect;
use axum::routing::post;
use axum_extra::extract::CookieJar;
use axum_extra::extract::cookie::{Cookie, SameSite};
use serde::Deserialize;

use crate::App;
use crate::extract::Form;
use crate::visitor::SCALE_COOKIE;

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/scale", post(switch))
}

#[derive(Deserialize)]
struct ScaleForm {
    scale: String,
    #[serde(default)]
    back: String,
}

async fn switch(jar: CookieJar, Form(choice): Form<ScaleForm>) -> (CookieJar, Redirect) {
    let scale = if choice.scale == "F" { "F" } else { "C" };
    let cookie = Cookie::build((SCALE_COOKIE, scale)).path("/").same_site(SameSite::Lax).permanent().http_only(true);
    (jar.add(cookie.build()), Redirect::to(if is_own_path(&choice.back) { &choice.back } else { "/" }))
}

/// Only a path of our own, never to another site. A tab or a line break is no part of a path: browsers leave them out, so that
/// `/` tab `/elsewhere` would go elsewhere.
pub(super) fn is_own_path(back: &str) -> bool {
    back.starts_with('/') && !back.starts_with("//") && back.chars().all(|c| c != '\\' && c.is_ascii_graphic())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_switch_comes_back_to_a_page_of_ours_only() {
        assert!(is_own_path("/") && is_own_path("/boards/drafts/3?show=part"));
        for back in ["", "boards", "//elsewhere", "/\t/elsewhere", "/a\nb", "/\\elsewhere", "https://x", "/a b"] {
            assert!(!is_own_path(back), "{back:?}");
        }
    }
}
