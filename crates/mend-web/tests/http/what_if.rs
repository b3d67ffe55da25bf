//! One thing of a plan changed, beside it: kept by name, taken, removed, done elsewhere.

use axum::http::StatusCode;

use crate::fixture::{Shop, as_read, ask, demo, filled, get, post, shop};

const NOTHING_FED: &str = "change=%7B%22change%22%3A%22feed-nothing%22%7D";

/// A job that is open again, with its plan.
async fn planned() -> Shop {
    let shop = shop();
    filled(&shop).await;
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
    shop
}

/// The columns once all are computed.
async fn columns(shop: &Shop) -> String {
    loop {
        let (status, page) = ask(shop, get("/jobs/1/what-if/columns")).await;
        assert_eq!(status, StatusCode::OK, "{page}");
        if !page.contains("aria-busy") {
            return as_read(&page);
        }
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_variant_is_compared_with_the_plan_and_becomes_it() {
    let shop = planned().await;
    let settings = async || shop.store.read(|r| r.settings(1)).await.unwrap();
    let before = settings().await;
    let (status, page) = ask(&shop, post("/jobs/1/what-if", &format!("name=Nothing+fed&{NOTHING_FED}"))).await;
    assert!(status.is_redirection(), "{page}");
    let page = columns(&shop).await;
    assert!(page.contains("As it is planned") && page.contains("Nothing fed"), "{page}");
    // Without low-melt the joints melt later: fewer of the weighted runs work, or the release is later.
    assert!(page.contains("fewer") || page.contains("later") || page.contains("less headroom"), "{page}");
    assert_eq!(settings().await, before, "the plan is as it was");
    assert!(ask(&shop, post("/jobs/1/what-if/1/take", "")).await.0.is_redirection());
    assert_ne!(settings().await, before, "the plan is the variant's now");
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_no_change_a_name_that_is_taken_and_a_ninth_are_refused() {
    let shop = planned().await;
    let add = |name: &str| post("/jobs/1/what-if", &format!("name={name}&{NOTHING_FED}"));
    for (form, says) in [
        ("name=x&change=melt", "none of the changes"),
        ("name=x&change=%7B%22change%22%3A%22another-planet%22%7D", "none of the changes"),
        ("change=", "none of the changes"),
    ] {
        let (status, page) = ask(&shop, post("/jobs/1/what-if", form)).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {page}");
    }
    let (status, page) = ask(&shop, add(&"x".repeat(81))).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("up to 80 letters"), "{page}");
    for k in 0..8 {
        assert!(ask(&shop, add(&format!("v{k}"))).await.0.is_redirection());
    }
    let (status, page) = ask(&shop, add("v8")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("eight variants"), "{page}");
    assert!(ask(&shop, post("/jobs/1/what-if/3/remove", "")).await.0.is_redirection());
    assert_eq!(ask(&shop, post("/jobs/1/what-if/3/remove", "")).await.0, StatusCode::NOT_FOUND);
    let (status, page) = ask(&shop, add("v1")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("is taken"), "{page}");
    assert!(ask(&shop, add("v8")).await.0.is_redirection(), "there is room again");
}

#[tokio::test(flavor = "multi_thread")]
async fn a_plan_is_tried_with_another_station_of_the_shop() {
    let shop = planned().await;
    let (_, page) = ask(&shop, get("/jobs/1/what-if")).await;
    assert!(!page.contains("what-if/station"), "the shop has one station alone: {page}");
    let other = demo("stations/1-gull.json").replace("Gull, bench 1", "Gull, bench 2");
    mend_web::transfer::import_file(&shop.app, "gull-2", other.as_bytes()).await.unwrap();
    let (_, page) = ask(&shop, get("/jobs/1/what-if")).await;
    assert!(page.contains("what-if/station") && page.contains("Gull, bench 2"), "{page}");
    let (status, page) = ask(&shop, post("/jobs/1/what-if/station", "station=Gull%2C+bench+2")).await;
    assert!(status.is_redirection(), "{status} {page}");
    let page = columns(&shop).await;
    assert!(page.contains("Gull, bench 2"), "{page}");
    let (status, page) = ask(&shop, post("/jobs/1/what-if/station", "station=Heron")).await;
    assert!(status.is_client_error() && page.contains("Heron"), "{status} {page}");
}
