//! Styles, scripts, font and icons out of the binary. Linked with their hash, so a browser may keep them for ever.

use axum::body::Body;
use axum::extract::Path;
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/assets"]
struct Assets;

/// The address of an asset, its hash in it.
pub(crate) fn asset(name: &str) -> String {
    let hash = Assets::get(name).map(|file| file.metadata.sha256_hash());
    let short: String = hash.iter().flatten().take(6).map(|byte| format!("{byte:02x}")).collect();
    format!("/assets/{name}?v={short}")
}

/// Serves an asset: for ever when it was asked for with its hash, else with a tag to ask again by.
pub(crate) async fn serve(Path(name): Path<String>, query: axum::extract::RawQuery, headers: HeaderMap) -> Response {
    let Some(file) = Assets::get(&name) else { return StatusCode::NOT_FOUND.into_response() };
    let tag: String = file.metadata.sha256_hash().iter().take(8).map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("\"{tag}\"");
    if headers.get(header::IF_NONE_MATCH).is_some_and(|asked| asked.as_bytes() == tag.as_bytes()) {
        return StatusCode::NOT_MODIFIED.into_response();
    }
    let hashed = query.0.is_some_and(|q| q.starts_with("v="));
    let keep = if hashed { "public, max-age=31536000, immutable" } else { "no-cache" };
    let kind = file.metadata.mimetype().to_owned();
    let headers = [(header::CONTENT_TYPE, kind), (header::CACHE_CONTROL, keep.to_owned()), (header::ETAG, tag)];
    (headers, Body::from(file.data)).into_response()
}
