//! What goes out of the lists, what comes back, and what is begun anew.

use axum::http::StatusCode;

use crate::fixture::{ask, filled, get, post, shop};

#[tokio::test]
async fn a_retired_station_plans_nothing_new_and_comes_back() {
    let shop = shop();
    filled(&shop).await;
    assert_eq!(ask(&shop, post("/stations/1/duplicate", "")).await.0, StatusCode::SEE_OTHER);
    let (_, copy) = ask(&shop, get("/stations/2")).await;
    assert!(copy.contains("Gull, bench 1") && copy.contains("22, 12, 8, 5"), "all that it gives: {copy}");
    for retired in ["/stations/2/retire", "/stations/1/retire"] {
        assert_eq!(ask(&shop, post(retired, "")).await.0, StatusCode::SEE_OTHER);
    }
    let (_, list) = ask(&shop, get("/stations")).await;
    assert_eq!(list.matches("/bring-back").count(), 2, "{list}");
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/2/board", "board=1")).await;
    let (status, page) = ask(&shop, get("/jobs/2/heat")).await;
    assert!(status.is_client_error() && page.contains("station"), "none is left to plan on: {status} {page}");
    let (status, sheet) = ask(&shop, get("/jobs/1/handover")).await;
    assert!(status == StatusCode::OK && sheet.contains("Gull, bench 1"), "what was done with it stays: {sheet}");
    assert_eq!(ask(&shop, post("/stations/1/bring-back", "")).await.0, StatusCode::SEE_OTHER);
    let (status, page) = ask(&shop, get("/jobs/2/heat")).await;
    assert!(status == StatusCode::OK && page.contains("Gull, bench 1"), "{page}");
    assert_eq!(ask(&shop, post("/stations/9/retire", "")).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn what_was_entered_of_a_measurement_is_thrown_away_at_a_press() {
    let shop = shop();
    filled(&shop).await;
    for (kind, field, typed) in
        [("flow", "bag=31", "31"), ("outlet", "read-1-1=187", "187"), ("iron", "lowest-1=231", "231")]
    {
        let (status, said) = ask(&shop, post(&format!("/stations/1/{kind}"), field)).await;
        assert_eq!(status, StatusCode::OK, "{said}");
        let kept = format!("value=\"{typed}\"");
        let page = format!("/stations/1/{kind}");
        assert!(ask(&shop, get(&page)).await.1.contains(&kept), "{kind}: it is kept");
        assert_eq!(ask(&shop, post(&format!("/stations/1/measure/{kind}/clear"), "")).await.0, StatusCode::SEE_OTHER);
        assert!(!ask(&shop, get(&page)).await.1.contains(&kept), "{kind}: it is gone");
    }
    assert_eq!(ask(&shop, post("/stations/1/measure/hum/clear", "")).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn an_instrument_is_changed_tried_where_it_is_typed_and_removed() {
    let shop = shop();
    let add = |name: &str| post("/instruments", &format!("kind=thermometer&name={name}&address=10.0.0.9&at_bench=yes"));
    for name in ["Logger", "Spare"] {
        assert_eq!(ask(&shop, add(name)).await.0, StatusCode::SEE_OTHER);
    }
    let (status, page) = ask(&shop, post("/instruments/2", "name=Logger&address=10.0.0.8")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("another instrument is called"), "{page}");
    assert_eq!(ask(&shop, post("/instruments/2", "name=Reserve&address=10.0.0.8:99")).await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/instruments")).await;
    assert!(page.contains("10.0.0.8:99") && page.contains("10.0.0.9:5025"), "{page}");
    for (address, why) in [("the attic", "is no address"), ("8.8.8.8", "is not in the shop's own network")] {
        let (status, page) = ask(&shop, post("/instruments/2/test", &format!("address={address}"))).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(why), "{page}");
    }
    let (status, said) = ask(&shop, post("/instruments/2/test", "address=127.0.0.1:1")).await;
    assert!(status == StatusCode::OK && said.contains("nothing answers at its address"), "{said}");
    assert_eq!(ask(&shop, post("/instruments/2/remove", "")).await.0, StatusCode::SEE_OTHER);
    assert!(!ask(&shop, get("/instruments")).await.1.contains("Reserve"));
    assert_eq!(ask(&shop, post("/instruments/2/test", "address=127.0.0.1")).await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_retired_item_is_neither_listed_nor_ordered_and_jobs_keep_what_they_had() {
    let shop = shop();
    filled(&shop).await;
    ask(&shop, post("/stock", "name=Jack&keep=yes")).await;
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/2/parts", "item=1&quantity=1")).await;
    assert!(ask(&shop, get("/stock")).await.1.contains("To order today"));
    let (status, page) = ask(&shop, post("/stock/1/retire", "")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("job 2 waits for Jack"), "{page}");
    ask(&shop, post("/stock/1/move", "kind=received&quantity=1")).await;
    assert_eq!(ask(&shop, post("/stock/1/retire", "")).await.0, StatusCode::SEE_OTHER, "it lies ready for that job");
    let (_, list) = ask(&shop, get("/stock")).await;
    assert!(!list.contains(">Jack<"), "{list}");
    let (status, page) = ask(&shop, get("/jobs/2/parts")).await;
    assert!(status == StatusCode::OK && page.contains("Jack"), "{page}");
    ask(&shop, post("/jobs", "")).await;
    let (status, _) = ask(&shop, post("/jobs/3/parts", "item=1&quantity=1")).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "no other job gets it");
    let (_, csv) = ask(&shop, get("/stock/order.csv")).await;
    assert!(!csv.contains("Jack"), "{csv}");
}
