//! The map that a device is opened by: made while going, counted out and in, the cell first, whatever is sent twice.

use axum::http::StatusCode;

use crate::fixture::{Shop, as_read, ask, demo_bytes, get, post, shop, upload};

/// A job whose device has a map of its own.
async fn opened() -> Shop {
    let shop = shop();
    ask(&shop, post("/jobs", "")).await;
    assert_eq!(ask(&shop, post("/jobs/1/opening/map", "device=Merle+2")).await.0, StatusCode::SEE_OTHER);
    shop
}

async fn edit(shop: &Shop, form: &str) -> (StatusCode, String) {
    let (status, page) = ask(shop, post("/jobs/1/opening/edits", form)).await;
    (status, as_read(&page))
}

async fn tap(shop: &Shop, to: &str, form: &str) -> (StatusCode, String) {
    let (status, page) = ask(shop, post(&format!("/jobs/1/{to}"), &format!("list=opening&{form}"))).await;
    (status, as_read(&page))
}

const SCREW: &str = "act=add&page=0&x=0.2&y=0.2&kind=screw&head=cross&length=4&thread=2";
const CELL: &str = "act=add&page=0&x=0.4&y=0.4&kind=cable&latch=flip-up&of_cell=yes";
const CABLE: &str = "act=add&page=0&x=0.6&y=0.4&kind=cable&latch=slide-out";

#[tokio::test]
async fn a_map_is_made_of_what_is_taken_out_and_a_change_that_comes_twice_is_one() {
    let shop = opened().await;
    for token in ["a", "a", "b"] {
        assert_eq!(edit(&shop, &format!("{SCREW}&token={token}")).await.0, StatusCode::OK);
    }
    let (_, page) = edit(&shop, &format!("{CELL}&token=c")).await;
    assert!(page.contains("0 of 2") && page.contains("cross screw 4 mm"), "{page}");
    let (status, page) = edit(&shop, "act=page&name=under+the+plate&token=d").await;
    assert!(status == StatusCode::OK && page.contains("<h2>under the plate</h2>"), "{page}");
    let (_, page) = edit(&shop, "act=remove&item=1&token=e").await;
    assert!(page.contains("<td>0 of 1</td>") && !page.contains("<td>0 of 2</td>"), "{page}");
    for (form, says) in [
        ("act=add&page=0&x=0.5&y=1.5&kind=clip&token=f", "lies outside the page"),
        ("act=add&page=7&x=0.5&y=0.5&kind=clip&token=g", "no such page or thing"),
        ("act=add&page=0&x=0.5&y=0.5&kind=spring&token=h", "nothing that a device is opened by"),
        ("act=add&page=0&x=0.5&y=0.5&kind=screw&head=star&length=4&thread=2&token=i", "none of the choices"),
        ("act=add&page=0&x=0.5&y=0.5&kind=screw&head=cross&length=four&thread=2&token=j", "“four”"),
        ("act=add&page=0&x=0.5&y=0.5&kind=adhesive&warm=900&seconds=60&token=k", "900"),
        ("act=page&name=+&token=l", "a page needs a name"),
        ("act=melt&token=m", "is no change"),
        ("act=remove&item=99&token=n", "no such page or thing"),
        ("act=remove&item=2&token=", "1 to 64 characters"),
    ] {
        let (status, page) = edit(&shop, form).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {status} {page}");
    }
    assert_eq!(ask(&shop, post("/jobs", "")).await.0, StatusCode::SEE_OTHER);
    let (status, page) = ask(&shop, post("/jobs/2/opening/map", "device=Merle+2")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("a map of “Merle 2” already"), "{page}");
}

#[tokio::test]
async fn the_cells_cable_is_first_out_and_last_in_and_what_is_missing_is_named() {
    let shop = opened().await;
    for (token, what) in [("a", CELL), ("b", CABLE), ("c", SCREW)] {
        edit(&shop, &format!("{what}&token={token}")).await;
    }
    let (status, page) = tap(&shop, "opening", "name=2&value=out&token=t1").await;
    assert!(status == StatusCode::CONFLICT && page.contains("The cell is still connected"), "{page}");
    for (item, token) in [(1, "t2"), (2, "t3"), (3, "t4"), (3, "t4")] {
        let (status, page) = tap(&shop, "opening", &format!("name={item}&value=out&token={token}")).await;
        assert_eq!(status, StatusCode::OK, "{page}");
    }
    let (status, page) = tap(&shop, "close/taps", "name=1&value=back&token=t5").await;
    assert!(status == StatusCode::CONFLICT && page.contains("the cell is connected last"), "{page}");
    let (_, page) = tap(&shop, "close/taps", "name=3&value=back&token=t6").await;
    assert!(page.contains("<td>1 of 1</td> <td>1 of 1</td>") && page.contains("2 out, not back yet"), "{page}");
    let (_, page) = tap(&shop, "close/taps", "name=3&value=undo&token=t7").await;
    assert!(page.contains("<td>1 of 1</td> <td>0 of 1</td>") && page.contains("3 out, not back yet"), "{page}");
    let (_, close) = ask(&shop, get("/jobs/1/close")).await;
    assert!(close.contains("Back in: cross screw 4 mm"), "the last that came out goes in first: {close}");
    for (form, says) in
        [("name=9&value=out&token=t8", "nothing that comes out"), ("name=3&value=lost&token=t9", "is no tap")]
    {
        let (status, page) = tap(&shop, "opening", form).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {page}");
    }
}

#[tokio::test]
async fn a_photograph_lies_behind_a_page_and_stays_in_the_shop() {
    let shop = opened().await;
    let photo = demo_bytes("photos/1-loom-top.jpg");
    let put = |page: &'static [u8]| upload("/jobs/1/opening/photo", &[("page", page), ("photo", &photo)]);
    assert_eq!(ask(&shop, put(b"0")).await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/jobs/1/opening")).await;
    assert!(page.contains("<image href=\"/boards/photos/1\""), "{page}");
    let (status, page) = ask(&shop, put(b"4")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("no such page"), "{page}");
    let bad = upload("/jobs/1/opening/photo", &[("page", b"0"), ("photo", b"no picture")]);
    let (status, page) = ask(&shop, bad).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("none of JPEG, PNG and WebP"), "{page}");
    // Its number says nothing in another shop.
    let (_, file) = ask(&shop, get("/jobs/1/opening/file")).await;
    assert!(file.contains("\"urgent-mend/opening/1\"") && !file.contains("\"photo\": 1"), "{file}");
}

#[tokio::test]
async fn the_next_job_goes_by_the_map_and_what_it_adds_is_another_version() {
    let shop = opened().await;
    edit(&shop, &format!("{SCREW}&token=a")).await;
    tap(&shop, "opening", "name=1&value=out&token=b").await;
    ask(&shop, post("/jobs", "")).await;
    assert_eq!(ask(&shop, post("/jobs/2/opening/map", "map=1")).await.0, StatusCode::SEE_OTHER);
    let (_, page) = ask(&shop, get("/jobs/2/opening")).await;
    assert!(as_read(&page).contains("0 of 1"), "nothing is out of this one: {page}");
    let (_, page) = ask(&shop, post("/jobs/2/opening/edits", &format!("{CABLE}&token=c"))).await;
    assert!(page.contains("version 2"), "{page}");
    let (_, first) = ask(&shop, get("/jobs/1/opening")).await;
    assert!(first.contains("version 1"), "what the first went by stays: {first}");
}
