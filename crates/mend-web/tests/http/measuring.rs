//! A station that is measured: what is typed, what it comes to, what it teaches, and how that is taken back.

use axum::http::StatusCode;

use crate::fixture::{Shop, as_read, ask, board_alone, get, post, shop};

async fn with_station() -> Shop {
    let shop = shop();
    board_alone(&shop).await;
    shop
}

async fn sent(shop: &Shop, path: &str, form: &str) -> (StatusCode, String) {
    let (status, page) = ask(shop, post(&format!("/stations/1/{path}"), form)).await;
    (status, as_read(&page))
}

#[tokio::test]
async fn a_bag_that_fills_slowly_says_how_much_less_it_gives_and_teaches_that() {
    let shop = with_station().await;
    let (status, page) = sent(&shop, "flow/done", "bag=20").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("have not been timed yet"), "{page}");
    for (form, says) in [("bag=9000", "9000"), ("seconds-1-1=soon", "“soon”"), ("seconds-1-1=0", "0")] {
        let (_, found) = sent(&shop, "flow", form).await;
        assert!(found.contains("class=\"blocking") && found.contains(says), "{form}: {found}");
        sent(&shop, "measure/flow/clear", "").await;
    }
    // 20 L in 15 s are 80 L/min where 100 are shown; 20 L in 30 s are 40 where 50 are.
    let timed = "bag=20&shown-1=50&seconds-1-1=30&seconds-1-2=30&shown-3=100&seconds-3-1=15&seconds-3-2=15";
    let (_, found) = sent(&shop, "flow", timed).await;
    assert!(found.contains("It gives 20 % less than it shows") && found.contains("80.0"), "{found}");
    let (status, page) = sent(&shop, "flow/done", "").await;
    assert_eq!(status, StatusCode::SEE_OTHER, "{page}");
    let (_, page) = ask(&shop, get("/stations/1")).await;
    assert!(as_read(&page).contains("It gives 20 % less than it shows"), "its lesson stands there: {page}");
    let (_, empty) = ask(&shop, get("/stations/1/flow")).await;
    assert!(!empty.contains("value=\"30\""), "the next one begins anew: {empty}");
}

#[tokio::test]
async fn a_lesson_is_left_out_for_a_reason_and_counts_again() {
    let shop = with_station().await;
    let timed = "bag=20&shown-1=50&seconds-1-1=30&seconds-1-2=30&shown-3=100&seconds-3-1=15&seconds-3-2=15";
    sent(&shop, "flow/done", timed).await;
    let (status, page) = sent(&shop, "lessons/1", "why=").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("left out for a reason"), "{page}");
    assert_eq!(sent(&shop, "lessons/1", "why=the+seam+was+open").await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/stations/1")).await;
    assert!(page.contains("the seam was open"), "{page}");
    assert_eq!(sent(&shop, "lessons/1", "counts=yes").await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/stations/1")).await;
    assert!(!page.contains("the seam was open"), "{page}");
    // A lesson of another station is none of this one's.
    ask(&shop, post("/stations/1/duplicate", "")).await;
    let (status, _) = ask(&shop, post("/stations/2/lessons/1", "why=mine")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert_eq!(sent(&shop, "lessons/9", "why=none").await.0, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_new_nozzle_and_a_new_heater_are_other_things() {
    let shop = with_station().await;
    let (status, page) = sent(&shop, "changed", "nozzle=7").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("“7” is no nozzle of it"), "{page}");
    for what in ["nozzle=22", "nozzle="] {
        assert_eq!(sent(&shop, "changed", what).await.0, StatusCode::SEE_OTHER, "{what}");
    }
    let kinds = shop.store.read(|r| r.lessons()).await.unwrap();
    let kinds: Vec<(Option<f64>, String)> =
        kinds.into_iter().map(|row| (row.lesson.nozzle_mm, row.lesson.kind)).collect();
    assert_eq!(kinds, [(Some(22.0), "new-nozzle".to_owned()), (None, "new-heater".to_owned())]);
    let (_, page) = ask(&shop, get("/stations/1")).await;
    assert_eq!(page.matches("action=\"/stations/1/lessons/").count(), 2, "each can be taken back: {page}");
}

#[tokio::test]
async fn a_tip_is_measured_on_a_block_in_the_degrees_it_was_begun_in() {
    let shop = with_station().await;
    let touches = "scale=F&block=20&tip=3&before-1=662&lowest-1=428&seconds-1=9&before-2=662&lowest-2=430&seconds-2=9";
    let (status, found) = sent(&shop, "iron", touches).await;
    assert!(status == StatusCode::OK && found.contains("K/W"), "{found}");
    let (_, page) = ask(&shop, get("/stations/1/iron")).await;
    assert!(page.contains("value=\"662\"") && page.contains("°F"), "it stays in °F: {page}");
    let (_, found) = sent(&shop, "iron", "lowest-1=660&lowest-2=661").await;
    assert!(found.contains("dips by less than"), "{found}");
    let (status, page) = sent(&shop, "iron/done", "").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY, "what fits nothing teaches nothing: {page}");
    let (status, _) = sent(&shop, "iron/done", "lowest-1=428&lowest-2=430").await;
    assert_eq!(status, StatusCode::SEE_OTHER);
    let lessons = shop.store.read(|r| r.lessons()).await.unwrap();
    assert_eq!(lessons.iter().map(|row| row.lesson.kind.as_str()).collect::<Vec<_>>(), ["iron"]);
}

#[tokio::test]
async fn more_readings_than_two_minutes_are_too_many() {
    let shop = with_station().await;
    let long = format!("readings={}", "1".repeat(200_001));
    let (status, page) = sent(&shop, "probe", &long).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("are too many"), "{status} {page}");
    let (status, _) = ask(&shop, post("/stations/9/probe", "readings=1")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}
