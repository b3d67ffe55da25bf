//! All routes, and what is put round every answer.

use std::sync::Arc;

use axum::Router;
use axum::body::Body;
use axum::http::{HeaderName, HeaderValue, header};
use axum::middleware::{from_fn, from_fn_with_state, map_response};
use axum::routing::get;
use tower::ServiceBuilder;
use tower_http::catch_panic::CatchPanicLayer;
use tower_http::compression::CompressionLayer;
use tower_http::compression::predicate::{DefaultPredicate, NotForContentType, Predicate};
use tower_http::csrf::CsrfLayer;
use tower_http::map_request_body::MapRequestBodyLayer;
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::timeout::RequestBodyTimeoutLayer;
use tower_http::trace::TraceLayer;

use crate::door::{self, Door};
use crate::{App, arrived, assets, pages, people, refusal};

/// No inline script or style, nothing from elsewhere.
const CONTENT_SECURITY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; \
    font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

/// The whole application. From the outside in: the moment of arrival, headers, compression, who asks, one page for
/// every refusal, who is let in, panics caught, the body's pace.
pub fn router(app: App, door: Door) -> Router {
    let compressed = DefaultPredicate::new().and(NotForContentType::const_new("font/"));
    let body_pace = ServiceBuilder::new()
        .layer(RequestBodyTimeoutLayer::new(door::BODY_PAUSE))
        .layer(MapRequestBodyLayer::new(Body::new));
    Router::new()
        .merge(pages::bench::routes())
        .merge(pages::jobs::routes())
        .merge(pages::boards::routes())
        .merge(pages::stations::routes())
        .merge(pages::equipment::routes())
        .merge(pages::settings::routes())
        .merge(pages::instruments::routes())
        .merge(pages::people::routes())
        .merge(pages::stock::routes())
        .merge(pages::review::routes())
        .merge(pages::customers::routes())
        .merge(pages::schedule::routes())
        .merge(pages::practice::routes())
        .merge(pages::label::routes())
        .merge(pages::alloys::routes())
        .merge(pages::help::routes())
        .merge(pages::scale::routes())
        .route("/assets/{*name}", get(assets::serve))
        .fallback(refusal::no_page)
        .method_not_allowed_fallback(refusal::wrong_method)
        .with_state(app.clone())
        .layer(body_pace)
        .layer(CatchPanicLayer::custom(door::panicked))
        .layer(from_fn(people::permit))
        .layer(CsrfLayer::new())
        .layer(from_fn_with_state(Arc::new(door), door::guard))
        .layer(map_response(door::in_our_words))
        .layer(from_fn_with_state(app.clone(), refusal::worded))
        .layer(from_fn_with_state(app.clone(), people::identify))
        .layer(header_layer(header::CONTENT_SECURITY_POLICY, CONTENT_SECURITY))
        .layer(header_layer(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(header_layer(header::REFERRER_POLICY, "same-origin"))
        .layer(CompressionLayer::new().compress_when(compressed))
        .layer(TraceLayer::new_for_http())
        .layer(from_fn_with_state(app, arrived::stamp))
}

fn header_layer(name: HeaderName, value: &'static str) -> SetResponseHeaderLayer<HeaderValue> {
    SetResponseHeaderLayer::overriding(name, HeaderValue::from_static(value))
}
