//! The practice bench: what is open, whose it is, who may come in over a WebSocket.

use axum::body::Body;
use axum::http::{Request, StatusCode};

use crate::fixture::{ask, get, post, shop};

/// The request by which a browser opens the way, from a page of some site.
fn upgrade(origin: Option<&str>) -> Request<Body> {
    let mut request = Request::get("/practice/1/bench").header("host", "localhost:7340");
    for (name, value) in [
        ("connection", "upgrade"),
        ("upgrade", "websocket"),
        ("sec-websocket-version", "13"),
        ("sec-websocket-key", "dGhlIHNhbXBsZSBub25jZQ=="),
    ] {
        request = request.header(name, value);
    }
    origin.into_iter().fold(request, |request, origin| request.header("origin", origin)).body(Body::empty()).unwrap()
}

#[tokio::test]
async fn tasks_open_one_after_the_other_and_what_is_none_is_refused_in_words() {
    let shop = shop();
    let (_, page) = ask(&shop, get("/practice")).await;
    assert_eq!(page.matches("opens after the one before").count(), 7, "{page}");
    let (status, page) = ask(&shop, post("/practice", "task=ten-layers")).await;
    assert!(status == StatusCode::CONFLICT && page.contains("opens once the one before"), "{status}: {page}");
    assert_eq!(ask(&shop, post("/practice", "task=juggling")).await.0, StatusCode::NOT_FOUND);
    let (status, page) = ask(&shop, post("/practice", "board=&station=")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("none is chosen"), "{page}");
    assert_eq!(ask(&shop, post("/practice", "task=thin-shell")).await.0, StatusCode::SEE_OTHER);
    let (status, page) = ask(&shop, get("/practice/1")).await;
    assert!(status == StatusCode::OK && page.contains("Take the part off"), "{page}");
    assert!(!page.contains("lets_go") && !page.contains("truth"), "what is hidden is not in the page");
    for path in ["/practice/2", "/practice/one", "/practice/2/debrief", "/practice/2/window"] {
        assert_eq!(ask(&shop, get(path)).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    assert_eq!(ask(&shop, get("/practice/1/debrief")).await.0, StatusCode::SEE_OTHER, "it is not over");
}

#[tokio::test]
async fn only_a_page_of_ours_opens_the_way_to_an_attempt() {
    let shop = shop();
    ask(&shop, post("/practice", "task=thin-shell")).await;
    for origin in [None, Some("https://elsewhere.example"), Some("http://localhost:9"), Some("null")] {
        let (status, page) = ask(&shop, upgrade(origin)).await;
        assert!(status == StatusCode::FORBIDDEN && page.contains("Another site"), "{origin:?}: {status} {page}");
    }
    // Ours is let in, as far as it goes without a connection that could be upgraded.
    let (status, _) = ask(&shop, upgrade(Some("http://localhost:7340"))).await;
    assert_eq!(status, StatusCode::UPGRADE_REQUIRED);
}
