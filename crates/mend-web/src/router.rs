//! All routes, and what is put round every answer.

use axum::Router;
use axum::http::{HeaderName, HeaderValue, header};
use axum::routing::get;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::compression::predicate::{DefaultPredicate, NotForContentType, Predicate};
use tower_http::csrf::CsrfLayer;
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::trace::TraceLayer;

use crate::{App, assets, pages, refusal};

/// No inline script or style, nothing from elsewhere.
const CONTENT_SECURITY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; \
    font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

/// The whole application.
pub fn router(app: App) -> Router {
    let compressed = DefaultPredicate::new().and(NotForContentType::const_new("font/"));
    Router::new()
        .merge(pages::bench::routes())
        .merge(pages::jobs::routes())
        .merge(pages::boards::routes())
        .merge(pages::alloys::routes())
        .merge(pages::scale::routes())
        .route("/assets/{*name}", get(assets::serve))
        .fallback(refusal::no_page)
        .method_not_allowed_fallback(refusal::wrong_method)
        .with_state(app)
        .layer(header_layer(header::CONTENT_SECURITY_POLICY, CONTENT_SECURITY))
        .layer(header_layer(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(header_layer(header::REFERRER_POLICY, "same-origin"))
        .layer(CsrfLayer::new())
        .layer(CompressionLayer::new().compress_when(compressed))
        .layer(CatchPanicLayer::custom(|_| -> axum::response::Response {
            use axum::response::IntoResponse;
            refusal::Refusal::Broken("a handler panicked".to_owned()).into_response()
        }))
        .layer(TraceLayer::new_for_http())
}

fn header_layer(name: HeaderName, value: &'static str) -> SetResponseHeaderLayer<HeaderValue> {
    SetResponseHeaderLayer::overriding(name, HeaderValue::from_static(value))
}
