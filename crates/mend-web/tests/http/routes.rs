//! Every route: what it answers when all is well, to a number that is nobody's, on a job whose record is closed, and on what is
//! another job's.

use axum::http::StatusCode;

use crate::fixture::{Shop, ask, demo, filled, get, post, shop};

/// Pages and parts of pages of the shop, and of its one job.
const PAGES: [&str; 42] = [
    "/",
    "/help",
    "/alloys",
    "/alloys?mix=SAC305%3D60%2CSn42Bi58%3D40",
    "/settings",
    "/equipment",
    "/stations",
    "/stations/1",
    "/jobs",
    "/jobs?q=tern",
    "/boards",
    "/boards/1",
    "/boards/1/revisions/1",
    "/boards/1/revisions/1/file",
    "/boards/1/compare",
    "/boards/import",
    "/boards/connectors",
    "/boards/drafts/1",
    "/boards/drafts/1?show=outline",
    "/boards/drafts/1/live?show=part",
    "/jobs/1/intake",
    "/jobs/1/board",
    "/jobs/1/alloy",
    "/jobs/1/method",
    "/jobs/1/method/lanes",
    "/jobs/1/method/from-below",
    "/jobs/1/method/from-below/search",
    "/jobs/1/card",
    "/jobs/1/what-if",
    "/jobs/1/what-if/columns",
    "/jobs/1/heat",
    "/jobs/1/heat?view=limits",
    "/jobs/1/heat/plan",
    "/jobs/1/heat/window",
    "/jobs/1/fit",
    "/jobs/1/fit?view=ways",
    "/jobs/1/fit/plan",
    "/jobs/1/fit/window",
    "/jobs/1/fit/ways",
    "/jobs/1/run",
    "/jobs/1/pins",
    "/jobs/1/handover",
];

/// What is sent to a job's routes, well formed.
const SENT: [(&str, &str); 28] = [
    ("intake", "field=serial&value=X1"),
    ("board", "board=1"),
    ("alloy", "alloy=Sn63Pb37&feed=&share=40&wire=0.5&flux=2"),
    ("method/live", "keep_intact=part"),
    ("method/choose", "family=from-below&settings=comparison"),
    ("method/lanes", ""),
    ("method/lanes/cancel", ""),
    ("method/from-below/search", ""),
    ("method/from-below/search/cancel", ""),
    ("what-if", "name=&change=%7B%22change%22%3A%22feed-nothing%22%7D"),
    (
        "heat",
        "station=Gull%2C+bench+1&set=440&flow=110&nozzle=22&distance=25&longest=240&face=bottom&motion=still&keep_intact=board",
    ),
    (
        "heat/edit",
        "act=add-pause&station=Gull%2C+bench+1&set=440&flow=110&nozzle=22&distance=25&longest=240&face=bottom&motion=still&keep_intact=board",
    ),
    ("heat/plan", ""),
    ("heat/cancel", ""),
    ("heat/window", ""),
    ("heat/window/cancel", ""),
    ("heat/replay", ""),
    (
        "fit",
        "purpose=set-on&begins-at=60&station=Gull%2C+bench+1&set=440&flow=110&nozzle=22&distance=25&longest=240&face=bottom&motion=still",
    ),
    (
        "fit/edit",
        "act=add-pause&purpose=fit&station=Gull%2C+bench+1&set=440&flow=110&nozzle=22&distance=25&longest=240&face=bottom&motion=still",
    ),
    ("fit/plan", ""),
    ("fit/cancel", ""),
    ("fit/window", ""),
    ("fit/ways", ""),
    ("fit/ways/cancel", ""),
    ("run", ""),
    ("run/events", "kind=go&run=1&step=0&token=t"),
    ("pins", "pin=plus&mark=firm&token=p"),
    ("handover", "who=Tam"),
];

/// A filled shop with a draft.
async fn with_draft() -> Shop {
    let shop = shop();
    filled(&shop).await;
    assert!(ask(&shop, post("/boards/drafts", "board=1")).await.0.is_redirection());
    shop
}

#[tokio::test(flavor = "multi_thread")]
async fn every_page_answers() {
    let shop = with_draft().await;
    for path in PAGES {
        let (status, page) = ask(&shop, get(path)).await;
        assert_eq!(status, StatusCode::OK, "{path}: {page}");
        assert!(!page.is_empty(), "{path}");
    }
    assert!(ask(&shop, get("/jobs/1")).await.0.is_redirection());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_number_that_is_nobodys_is_not_found_on_our_page() {
    let shop = with_draft().await;
    for path in PAGES.iter().filter(|path| path.contains("/1")) {
        for nobody in ["/999", "/x"] {
            let path = path.replacen("/1", nobody, 1);
            let (status, page) = ask(&shop, get(&path)).await;
            assert_eq!(status, StatusCode::NOT_FOUND, "{path}");
            assert!(page.contains("<h1>"), "{path}: {page}");
        }
    }
    for (path, form) in SENT {
        let path = format!("/jobs/999/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{path}: {page}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_sent_to_an_open_job_is_taken() {
    let shop = with_draft().await;
    assert!(ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await.0.is_redirection());
    for (path, form) in SENT {
        let path = format!("/jobs/1/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        let taken = status.is_success() || status.is_redirection();
        // Presses for a step that is past and pins of an unfinished walk are told so in words.
        let told = status == StatusCode::CONFLICT && page.contains("<p>");
        assert!(taken || told, "{path}: {status} {page}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_closed_record_takes_nothing() {
    let shop = with_draft().await;
    let computes = |path: &str| {
        path.contains("cancel") || path.ends_with("lanes") || path.ends_with("search") || path.ends_with("ways")
    };
    let draws = |path: &str| ["heat/plan", "heat/window", "heat/replay", "fit/plan", "fit/window"].contains(&path);
    // Nothing has been compared here, which is said first; handing over once more changes nothing.
    let chooses = |path: &str| ["method/choose", "handover"].contains(&path);
    for (path, form) in SENT.into_iter().filter(|(path, _)| !computes(path) && !draws(path) && !chooses(path)) {
        let path = format!("/jobs/1/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        assert_eq!(status, StatusCode::CONFLICT, "{path}: {page}");
        assert!(page.contains("record is closed"), "{path}: {page}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_another_jobs_is_not_found() {
    let shop = with_draft().await;
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
    let (status, page) =
        ask(&shop, post("/jobs/1/what-if", "name=one&change=%7B%22change%22%3A%22feed-nothing%22%7D")).await;
    assert!(status.is_success() || status.is_redirection(), "{status} {page}");
    assert!(ask(&shop, post("/jobs", "")).await.0.is_redirection());
    for act in ["take", "remove"] {
        let (status, page) = ask(&shop, post(&format!("/jobs/2/what-if/1/{act}"), "")).await;
        assert!(status.is_client_error(), "{act}: {status} {page}");
    }
    let (status, page) = ask(&shop, post("/jobs/2/run/events", "kind=go&run=1&step=0&token=z")).await;
    assert!(status.is_client_error(), "{status} {page}");
    let variants = shop.store.read(|r| r.variants(1)).await.unwrap();
    assert_eq!(variants.len(), 1, "it is still there");
}

#[tokio::test(flavor = "multi_thread")]
async fn stations_are_added_changed_retired_and_brought_back() {
    let shop = shop();
    let (status, _) = ask(&shop, post("/stations", "kind=fan-bench")).await;
    assert!(status.is_redirection() || status == StatusCode::UNPROCESSABLE_ENTITY, "{status}");
    let station = demo("stations/1-gull.json");
    mend_web::transfer::import_file(&shop.app, ("gull", station.as_bytes())).await.unwrap();
    let last = shop.store.read(|r| r.stations()).await.unwrap().last().unwrap().id;
    for act in ["duplicate", "retire", "bring-back"] {
        let (status, page) = ask(&shop, post(&format!("/stations/{last}/{act}"), "")).await;
        assert!(status.is_redirection(), "{act}: {status} {page}");
        assert_eq!(ask(&shop, post(&format!("/stations/999/{act}"), "")).await.0, StatusCode::NOT_FOUND);
    }
    let (status, page) = ask(&shop, post(&format!("/stations/{last}"), "name=&blower=fan")).await;
    assert!(status.is_client_error() && page.contains("is no number"), "{status} {page}");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_fit_is_set_apart_from_the_removal_and_a_way_must_be_one_that_can_be_done() {
    let shop = with_draft().await;
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
    let before = shop.store.read(|r| r.settings(1)).await.unwrap();
    let form = "purpose=set-on&begins-at=60&station=Gull%2C+bench+1&set=433&flow=110&nozzle=22&distance=25&longest=240&face=bottom&motion=still";
    assert_eq!(ask(&shop, post("/jobs/1/fit", form)).await.0, StatusCode::OK);
    let fit = shop.store.read(|r| r.fit_settings(1)).await.unwrap().expect("kept");
    assert!(fit.contains("\"set-on\"") && fit.contains("\"begins_at_c\":60") && fit.contains("433"), "{fit}");
    assert_eq!(shop.store.read(|r| r.settings(1)).await.unwrap(), before, "the removal is as it was");
    // The address says which run is set: a form can't cross over.
    ask(&shop, post("/jobs/1/heat", &form.replace("433", "431"))).await;
    let removal = shop.store.read(|r| r.settings(1)).await.unwrap().expect("kept");
    assert!(removal.contains("431") && !removal.contains("set-on"), "{removal}");
    ask(&shop, post("/jobs/1/fit", &form.replace("purpose=set-on", "purpose=remove"))).await;
    let fit = shop.store.read(|r| r.fit_settings(1)).await.unwrap().expect("kept");
    assert!(fit.contains("\"fit\"") && fit.contains("433"), "{fit}");
    ask(&shop, post("/jobs/1/fit", form)).await;
    let (_, page) = ask(&shop, get("/jobs/1/fit")).await;
    assert!(page.contains("value=\"set-on\" selected") && page.contains("what cleaning leaves"), "{page}");
    let (status, page) = ask(&shop, post("/jobs/1/fit", &form.replace("begins-at=60", "begins-at=900"))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(page.contains("900"), "{page}");
    let (status, page) = ask(&shop, post("/jobs/1/fit/ways/glue", "")).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{page}");
    assert!(page.contains("no way to fit"), "{page}");
}
