//! The practice bench: what is open, whose it is, who may come in over a WebSocket.

use axum::body::Body;
use axum::http::{Request, StatusCode};

use mend_web::transfer;

use crate::fixture::{ask, demo, filled, get, post, shop};

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

#[tokio::test]
async fn a_board_of_the_shop_is_practised_on_for_whatever_is_done_on_it() {
    let shop = shop();
    filled(&shop).await;
    let lume = demo("boards/vennick-lume-3.json");
    transfer::import_file(&shop.app, "lume", lume.as_bytes()).await.unwrap();
    let begin = |board: u32, goal: &str| post("/practice", &format!("board={board}&station=Gull, bench 1&goal={goal}"));
    let goals = [
        ("remove", "Take the part off", "Free practice<"),
        ("fit", "Solder the new part", "Free practice: solder the new part"),
        ("clear-holes", "Empty every hole", "Free practice: empty the holes"),
        ("clean-up", "Take off what was fed", "Free practice: clean up what was fed"),
    ];
    for (k, (goal, told, title)) in goals.into_iter().enumerate() {
        assert_eq!(ask(&shop, begin(1, goal)).await.0, StatusCode::SEE_OTHER, "{goal}");
        let (_, page) = ask(&shop, get(&format!("/practice/{}", k + 1))).await;
        assert!(page.contains(told) && page.contains(title), "{goal}: {page}");
    }
    let (status, page) = ask(&shop, begin(2, "clear-holes")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("no plated hole"), "{page}");
    assert!(ask(&shop, begin(1, "juggle")).await.0.is_client_error());
    // A job's own feed is cleaned up; a job without any has nothing to clean.
    assert_eq!(ask(&shop, post("/jobs/1/rehearse", "goal=clean-up")).await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/practice")).await;
    assert!(page.contains("Rehearsal of job 1: clean up what was fed"), "{page}");
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/2/board", "board=1")).await;
    let (status, page) = ask(&shop, post("/jobs/2/rehearse", "goal=clean-up")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("nothing is fed"), "{page}");
}
