//! What is looked at and measured before and after the heat, and what comes of it: the customer's word, a way back, another price.

use axum::http::StatusCode;

use crate::fixture::{Shop, as_read, ask, board_alone, get, post, shop, upload};

/// An open job on a jack of three pins and two anchors, at a shop that asks 60 an hour.
async fn on_a_jack() -> Shop {
    let shop = shop();
    board_alone(&shop).await;
    ask(&shop, post("/settings", "currency=EUR&rate=60&opens=00:00&closes=23:59")).await;
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/1/board", "board=1")).await;
    shop
}

async fn enter(shop: &Shop, stop: &str, (list, name, value): (&str, &str, &str)) -> (StatusCode, String) {
    let name = name.replace(' ', "+");
    let form = format!("list={list}&name={name}&value={}&token={list}-{name}-{value}", value.replace(' ', "+"));
    let (status, page) = ask(shop, post(&format!("/jobs/1/{stop}"), &form)).await;
    (status, as_read(&page))
}

#[tokio::test]
async fn a_torn_land_is_priced_by_the_shops_rate_and_asked_for_on_record() {
    let shop = on_a_jack().await;
    let (_, page) = enter(&shop, "look", ("condition", "plus", "torn")).await;
    assert!(page.contains("Mend lands: plus torn") && page.contains("min)"), "{page}");
    let (_, heat) = ask(&shop, get("/jobs/1/quote")).await;
    assert!(!heat.contains("Mend lands"), "it is on no quote before it is offered");
    assert!(ask(&shop, upload("/jobs/1/look/extras", &[("of", b"lands")])).await.0.is_redirection());
    let (status, page) = ask(&shop, upload("/jobs/1/look/extras", &[("what", b"dust"), ("price", b"cheap")])).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("“cheap” is no amount"), "{page}");
    for (form, says) in [("answer=perhaps&who=Maud", "is no answer"), ("answer=accepted&who=", "is wanted")] {
        let (status, page) = ask(&shop, post("/jobs/1/look/extras/1", form)).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {page}");
    }
    assert!(ask(&shop, post("/jobs/1/look/extras/1", "answer=accepted&who=Maud")).await.0.is_redirection());
    let (_, page) = ask(&shop, get("/jobs/1/look")).await;
    let page = as_read(&page);
    assert!(page.contains("accepted") && page.contains("Maud"), "{page}");
    let (_, quote) = ask(&shop, get("/jobs/1/quote")).await;
    assert!(as_read(&quote).contains("Mend lands: plus torn"), "it is said, and in no line of the price: {quote}");
    assert!(quote.contains("Found inside and accepted"), "{quote}");
    // What is whole after all needs no mending.
    enter(&shop, "look", ("condition", "plus", "whole")).await;
    let (status, page) = ask(&shop, upload("/jobs/1/look/extras", &[("of", b"lands")])).await;
    assert!(status == StatusCode::CONFLICT && page.contains("Every land is whole"), "{page}");
}

#[tokio::test]
async fn what_is_left_to_be_paid_is_the_price_and_what_was_accepted_less_the_deposit() {
    let shop = on_a_jack().await;
    let sheet = async || as_read(&ask(&shop, get("/jobs/1/handover")).await.1);
    assert!(!sheet().await.contains("Left to pay"), "no price is agreed yet");
    ask(&shop, post("/jobs/1/intake", "field=price&value=85")).await;
    assert!(sheet().await.contains("85.00 EUR"), "{}", sheet().await);
    ask(&shop, post("/jobs/1/intake", "field=deposit&value=20")).await;
    for what in ["dust", "paste", "fan"] {
        ask(&shop, upload("/jobs/1/look/extras", &[("what", what.as_bytes()), ("price", b"12.50")])).await;
    }
    for (extra, answer) in [(1, "accepted"), (2, "declined")] {
        ask(&shop, post(&format!("/jobs/1/look/extras/{extra}"), &format!("answer={answer}&who=Maud"))).await;
    }
    let says = sheet().await;
    assert!(says.contains("Left to pay") && says.contains("77.50 EUR (85.00 + 12.50 − 20.00)"), "{says}");
    ask(&shop, post("/jobs/1/intake", "field=deposit&value=100")).await;
    let says = sheet().await;
    assert!(says.contains("To give back") && says.contains("2.50 EUR"), "{says}");
    ask(&shop, post("/jobs/1/handover/decline", "who=Tam&why=not+worth+it")).await;
    assert!(!sheet().await.contains("To give back"), "only what the reason says is to be paid");
}

#[tokio::test]
async fn a_sheet_says_whether_the_port_is_the_fault_and_the_heat_is_held_against_how_it_was() {
    let shop = on_a_jack().await;
    for (pin, reading) in [("plus", "OL"), ("minus", "OL"), ("sense", "0.482")] {
        let (status, page) = enter(&shop, "look", ("before", pin, reading)).await;
        assert_eq!(status, StatusCode::OK, "{page}");
    }
    let (_, page) = ask(&shop, get("/jobs/1/look?list=before")).await;
    let page = as_read(&page);
    assert!(page.contains("Is the port the fault at all?") && page.contains("minus: open"), "{page}");
    assert!(page.contains("sense: 482 mV") && page.contains("No good board of this model"), "{page}");
    // With the part off: what was torn before is not the heat's doing, what was whole is.
    enter(&shop, "look", ("condition", "plus", "torn")).await;
    enter(&shop, "look", ("condition-after", "plus", "torn")).await;
    for land in ["sense", "anchor 1", "anchor 2"] {
        enter(&shop, "look", ("condition-after", land, "whole")).await;
    }
    let (_, page) = enter(&shop, "look", ("condition-after", "minus", "whole")).await;
    assert!(page.contains("The heat has hurt no land"), "{page}");
    let (_, page) = enter(&shop, "look", ("condition-after", "minus", "lifted")).await;
    assert!(page.contains("One land is worse than it was") && page.contains("minus: lifted, was whole"), "{page}");
    let (_, page) = enter(&shop, "look", ("condition-after", "minus", "")).await;
    assert!(page.contains("1 to look at"), "taken back: {page}");
}

#[tokio::test]
async fn a_good_board_is_what_the_next_one_of_its_model_is_held_against() {
    let shop = on_a_jack().await;
    for (pin, reading) in [("plus", "0.520"), ("minus", "0.003"), ("sense", "0.610")] {
        let (status, page) = enter(&shop, "look", ("good", pin, reading)).await;
        assert_eq!(status, StatusCode::OK, "{page}");
    }
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/2/board", "board=1")).await;
    let read = |pin: &str, reading: &str| {
        post("/jobs/2/look", &format!("list=before&name={pin}&value={reading}&token={pin}{reading}"))
    };
    let (_, page) = ask(&shop, read("sense", "0.604")).await;
    assert!(as_read(&page).contains("sense: 604 mV, like the others, a good board: 610 mV"), "{page}");
    let (_, page) = ask(&shop, read("plus", "0.010")).await;
    assert!(as_read(&page).contains("a good board: 520 mV"), "{page}");
    assert!(!as_read(&page).contains("No good board of this model"), "{page}");
}

#[tokio::test]
async fn a_test_that_fails_goes_back_on_record_and_all_are_tried_anew() {
    let shop = on_a_jack().await;
    let tests =
        ["charges at full power", "runs without the battery", "no warming at the plug", "the plug does not rock"];
    for test in tests {
        enter(&shop, "test", ("test-open", test, "works")).await;
    }
    assert_eq!(ask(&shop, post("/jobs/1/test/back", "stop=pins&who=Tam&why=loose")).await.0, StatusCode::CONFLICT);
    let (_, page) = enter(&shop, "test", ("test-open", tests[0], "fails")).await;
    assert!(page.contains("charges at full power"), "{page}");
    for (form, says) in [
        ("stop=intake&who=Tam&why=loose", "is no stop to go back to"),
        ("stop=pins&who=&why=loose", "stay on record"),
        ("stop=pins&who=Tam&why=", "stay on record"),
    ] {
        let (status, page) = ask(&shop, post("/jobs/1/test/back", form)).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {page}");
    }
    let (status, _) = ask(&shop, post("/jobs/1/test/back", "stop=pins&who=Tam&why=plus+is+loose")).await;
    assert_eq!(status, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/jobs/1/test")).await;
    let page = as_read(&page);
    assert!(page.contains("charges at full power fails: plus is loose. Back to: "), "{page}");
    assert!(!page.contains("class=\"works\""), "each is tried anew: {page}");
    let (status, page) = enter(&shop, "test", ("test-open", tests[0], "hums")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("“hums” is no result"), "{page}");
    let (_, record) = ask(&shop, get("/jobs/1/record")).await;
    assert!(as_read(&record).contains("plus is loose"), "{record}");
}
