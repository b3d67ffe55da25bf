//! Styles, scripts, font and icons out of the binary. Linked with their hash, so a browser may keep them for ever.

use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::LazyLock;

use axum::body::Body;
use axum::extract::Path;
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

#[derive(RustEmbed)]
#[folder = "$CARGO_MANIFEST_DIR/assets"]
struct Assets;

/// What all assets together hash to. It stands before the names in an address, not behind, so that scripts which import each
/// other do it under the same hash: kept by the browser, they are there without a network too.
static DIGEST: LazyLock<String> = LazyLock::new(|| {
    let mut names: Vec<_> = Assets::iter().collect();
    names.sort();
    let mut all = DefaultHasher::new();
    for file in names.iter().filter_map(|name| Assets::get(name)) {
        file.metadata.sha256_hash().hash(&mut all);
    }
    format!("{:016x}", all.finish())
});

/// The address of an asset, the hash in it.
pub(crate) fn asset(name: &str) -> String {
    format!("/assets/{}/{name}", *DIGEST)
}

/// Serves an asset: for ever when it was asked for with its hash, else with a tag to ask again by.
pub(crate) async fn serve(Path(path): Path<String>, headers: HeaderMap) -> Response {
    let hashed = path.strip_prefix(DIGEST.as_str()).and_then(|rest| rest.strip_prefix('/'));
    let Some(file) = Assets::get(hashed.unwrap_or(&path)) else { return StatusCode::NOT_FOUND.into_response() };
    let tag: String = file.metadata.sha256_hash().iter().take(8).map(|byte| format!("{byte:02x}")).collect();
    let tag = format!("\"{tag}\"");
    if headers.get(header::IF_NONE_MATCH).is_some_and(|asked| asked.as_bytes() == tag.as_bytes()) {
        return StatusCode::NOT_MODIFIED.into_response();
    }
    let keep = if hashed.is_some() { "public, max-age=31536000, immutable" } else { "no-cache" };
    let kind = file.metadata.mimetype().to_owned();
    let headers = [(header::CONTENT_TYPE, kind), (header::CACHE_CONTROL, keep.to_owned()), (header::ETAG, tag)];
    (headers, Body::from(file.data)).into_response()
}
