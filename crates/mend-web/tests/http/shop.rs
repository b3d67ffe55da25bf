//! What is refused is our page, what is unreadable spoils only itself, and an export makes the same shop.

use std::collections::BTreeMap;
use std::sync::atomic::Ordering;

use axum::body::Body;
use axum::http::{Request, StatusCode};
use mend_core::shop::stock::MoveKind;
use mend_store::{
    AttemptEnd, AttemptEventRow, IndexRow, JobPhotoRow, LogRow, NewAttempt, NewBoard, NewMove, NewPhoto, ReadingRow,
    StateRow, TypedField,
};
use mend_web::transfer;

use crate::fixture::{Shop, ask, demo, demo_bytes, exported, filled, get, post, shop, upload};

/// Puts texts into the store that are none of our formats: a version of a board with a job on it, a station, a list's row.
async fn spoil(shop: &Shop) -> i64 {
    let write = |w: &mend_store::Write<'_>| {
        let model = w.read().models()?[0].id;
        let bad = NewBoard { name: "Tern".to_owned(), file: "{".to_owned(), draft: None };
        let board = w.add_version(model, &bad, 1)?.unwrap();
        w.add_station("Broken", "x")?;
        let job = w.add_job(1)?;
        w.choose_board(job, board.id)?;
        let (device, summary, words) = (String::new(), "none".to_owned(), String::new());
        let (release, within, model_id) = (None, false, None);
        w.list_job(&IndexRow { job_id: job, open: true, model_id, device, summary, release, within, words })?;
        Ok(job)
    };
    shop.store.write(write).await.unwrap()
}

#[tokio::test]
async fn one_unreadable_row_spoils_only_its_own_item_which_says_so() {
    let shop = shop();
    filled(&shop).await;
    assert!(ask(&shop, post("/jobs", "")).await.0.is_redirection());
    let job = spoil(&shop).await;
    for (path, message) in [
        ("/boards".to_owned(), "can't be read as it is stored"),
        ("/stations".to_owned(), "can't be read as it is stored"),
        (format!("/jobs/{job}/intake"), "The board of this job can't be read"),
        ("/".to_owned(), "open it to see what is wrong"),
        ("/".to_owned(), "New device"),
        ("/stations".to_owned(), "Gull, bench 1"),
    ] {
        let (status, page) = ask(&shop, get(&path)).await;
        assert_eq!(status, StatusCode::OK, "{path}");
        assert!(page.contains(message), "{path}: {page}");
    }
    let (status, page) = ask(&shop, get("/boards/1")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("restore a backup"), "{page}");
    let found = transfer::check(&shop.app).await.unwrap();
    let job = format!("list's row of job {job}");
    for what in ["board 2 “Tern”, revision 2", "station 2 “Broken”", job.as_str()] {
        assert!(found.iter().any(|line| line.contains(what)), "{what}: {found:?}");
    }
    assert_eq!(found.len(), 3, "{found:?}");
}

#[tokio::test]
async fn every_refusal_is_our_page() {
    let shop = shop();
    let bare = || Request::get("/");
    let cases = [
        (get("/nowhere"), StatusCode::NOT_FOUND),
        (post("/settings", "opens=1"), StatusCode::UNPROCESSABLE_ENTITY),
        (bare().header("host", "elsewhere.example").body(Body::empty()).unwrap(), StatusCode::MISDIRECTED_REQUEST),
        (bare().body(Body::empty()).unwrap(), StatusCode::MISDIRECTED_REQUEST),
        (Request::delete("/").header("host", "localhost").body(Body::empty()).unwrap(), StatusCode::METHOD_NOT_ALLOWED),
        (get("/assets/none.js"), StatusCode::NOT_FOUND),
        (get("/jobs?before=x"), StatusCode::UNPROCESSABLE_ENTITY),
        (post("/jobs/1/run/events", "kind=go"), StatusCode::UNPROCESSABLE_ENTITY),
    ];
    for (request, wanted) in cases {
        let what = format!("{} {}", request.method(), request.uri());
        let (status, page) = ask(&shop, request).await;
        assert_eq!(status, wanted, "{what}");
        assert!(page.contains("<h1>") || page.contains("Not saved yet"), "{what}: {page}");
    }
    let forged = Request::post("/jobs").header("host", "localhost").header("sec-fetch-site", "cross-site");
    let (status, page) = ask(&shop, forged.body(Body::empty()).unwrap()).await;
    assert!(status == StatusCode::FORBIDDEN && page.contains("<h1>"), "{page}");
}

#[tokio::test]
async fn a_page_of_another_site_starts_no_computation() {
    let shop = shop();
    filled(&shop).await;
    let from = |mode: &str| {
        let request = Request::get("/jobs/1/method").header("host", "localhost").header("sec-fetch-site", "cross-site");
        request.header("sec-fetch-mode", mode).body(Body::empty()).unwrap()
    };
    let (status, page) = ask(&shop, from("navigate")).await;
    assert!(status == StatusCode::OK && page.contains("/jobs/1/method") && !page.contains("aria-busy"), "{page}");
    assert_eq!(ask(&shop, from("no-cors")).await.0, StatusCode::FORBIDDEN);
}

#[tokio::test]
async fn a_press_is_stamped_by_the_clock_that_nobody_sets_and_kept_once() {
    let shop = shop();
    filled(&shop).await;
    let closed = ask(&shop, post("/jobs/1/run/events", "kind=undo&run=1&step=0&token=x")).await;
    assert!(closed.0 == StatusCode::CONFLICT && closed.1.contains("its record is closed"), "{}", closed.1);
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
    let runs = shop.store.read(|r| r.runs_of(1)).await.unwrap();
    let run = runs[0].id;
    let before = shop.store.read(move |r| r.events(run)).await.unwrap().len();
    let steps: Vec<serde_json::Value> = serde_json::from_str(runs[0].steps.as_ref().unwrap()).unwrap();
    let (_, page) = ask(&shop, get("/jobs/1/run")).await;
    let at = page.split("data-step=\"").nth(1).and_then(|rest| rest.split('"').next()).unwrap();
    assert!(at.parse::<usize>().unwrap() <= steps.len());
    for (tick, token) in [(1000, "a"), (4000, "b"), (9000, "b")] {
        shop.ticks.store(tick, Ordering::Relaxed);
        let form = format!("kind=fed&run={run}&step={at}&token={token}&ago_ms=0");
        let (status, page) = ask(&shop, post("/jobs/1/run/events", &form)).await;
        assert_eq!(status, StatusCode::OK, "{page}");
    }
    let events = shop.store.read(move |r| r.events(run)).await.unwrap();
    assert_eq!(events.len(), before + 2);
    assert_eq!(events[before + 1].at_ms - events[before].at_ms, 3000);
    let (status, page) = ask(&shop, post("/jobs/1/run/events", &format!("kind=go&run={run}&step=2&token=c"))).await;
    assert!(status == StatusCode::CONFLICT && page.contains("It was entered at step 3"), "{page}");
}

#[tokio::test]
async fn a_full_disk_is_named_and_writing_goes_on_by_itself() {
    let shop = shop();
    filled(&shop).await;
    ask(&shop, post("/jobs", "")).await;
    shop.store.limit_pages(Some(0)).await.unwrap();
    let long = format!("field=symptom&value={}", "x".repeat(1900));
    let mut message = (StatusCode::OK, String::new());
    for field in ["symptom", "earlier_work", "inside", "power_on", "terms"] {
        message = ask(&shop, post("/jobs/2/intake", &long.replace("symptom", field))).await;
        if message.0 != StatusCode::OK {
            break;
        }
    }
    assert!(message.0 == StatusCode::INSUFFICIENT_STORAGE && message.1.contains("The disk is full"), "{}", message.1);
    assert_eq!(ask(&shop, get("/jobs/2/intake")).await.0, StatusCode::OK, "reading goes on");
    shop.store.limit_pages(None).await.unwrap();
    assert_eq!(ask(&shop, post("/jobs/2/intake", &long)).await.0, StatusCode::OK);
}

/// A heating of the job's run was watched: a state of its twin, and two readings, one of which is none.
async fn watched(shop: &Shop) {
    let run = shop.store.read(|r| r.run_of(1)).await.unwrap().unwrap().id;
    let state = StateRow { begun_ms: 1000, at_s: 12, step: 4, says: r#"{"advice":"go-on"}"#.to_owned() };
    let reading = |after_ms, celsius| ReadingRow { begun_ms: 1000, after_ms, celsius };
    let readings = [reading(1000, Some(84.5)), reading(2000, None)];
    let keep = move |w: &mend_store::Write<'_>| {
        w.keep_state(run, &state)?;
        w.keep_readings(run, &readings)
    };
    shop.store.write(keep).await.unwrap();
}

/// A photograph of the job is on its sheet.
async fn pictured(shop: &Shop) {
    let photo = NewPhoto { jpeg: vec![0xff, 0xd8, 0xff, 0xd9], size: (64, 48) };
    let keep = move |w: &mend_store::Write<'_>| {
        let photo_id = w.add_photo(&photo, 1)?;
        let (stop, words) = ("intake".to_owned(), "as it came".to_owned());
        w.add_job_photo(1, &JobPhotoRow { id: 0, photo_id, stop, words, on_sheet: true, added_ms: 1 })?;
        Ok(photo_id)
    };
    let photo = shop.store.write(keep).await.unwrap();
    let (_, sheet) = ask(shop, get("/jobs/1/handover")).await;
    assert!(sheet.contains(&format!("/boards/photos/{photo}\"")) && sheet.contains("as it came"), "{sheet}");
}

/// Dust, with a picture, and the customer's answer.
async fn found_inside(shop: &Shop) {
    let picture = demo_bytes("photos/5-burnt.jpg");
    let dust = upload("/jobs/1/look/extras", &[("what", b"dust in the fan"), ("price", b"12"), ("photo", &picture)]);
    assert_eq!(ask(shop, dust).await.0, StatusCode::SEE_OTHER);
    let asked = "answer=accepted&who=Tam";
    assert_eq!(ask(shop, post("/jobs/1/look/extras/1", asked)).await.0, StatusCode::SEE_OTHER);
}

/// People with hours of their own, items with moves, a look-alike, a need, a quote with its answer, a donor and a pin.
async fn on_the_floor(shop: &Shop) {
    for (path, form) in [
        ("/people", "name=Tam+Birk&role=technician&level=trained"),
        ("/people/1", "name=Tam+Birk&role=technician&level=trained&from=09:00&until=13:00&day=monday"),
        ("/stock", "name=Port&keep=yes"),
        ("/stock", "name=Other+port"),
        ("/stock/1/move", "kind=received&quantity=2"),
        ("/stock/1/move", "kind=ordered&quantity=1&day=2031-05-06"),
        ("/stock/1/look-alike", "other=2&difference=pins+on+top"),
        ("/jobs/1/parts", "item=1&quantity=1"),
        ("/jobs/1/quote", "fixed=80"),
        ("/jobs/1/quote/1/answer", "who=Mara&answer=accepted"),
        ("/stock/donors", "name=Quay+board&holds=port"),
    ] {
        let (status, said) = ask(shop, post(path, form)).await;
        assert!(status.is_success() || status == StatusCode::SEE_OTHER, "{path}: {said}");
    }
    let (_, page) = ask(shop, get("/people")).await;
    assert!(page.contains("value=\"13:00\""), "{page}");
    let (status, page) = ask(shop, post("/people/1", "name=Tam&role=technician&level=trained&from=nine")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("no time of day"), "{page}");
}

/// Somebody enters, moves and practises, and the job waits for another part.
async fn by_somebodys_hand(shop: &Shop) {
    let worked = |w: &mend_store::Write<'_>| {
        w.set_intake(1, TypedField::new("symptom", "no charge"), 5)?;
        let (stop, words) = ("close".to_owned(), "closed".to_owned());
        w.add_job_photo(1, &JobPhotoRow { id: 0, photo_id: 1, stop, words, on_sheet: false, added_ms: 7 })?;
        w.log_job(1, &LogRow { what: "note".to_owned(), who: String::new(), reason: "seen".to_owned(), at_ms: 6 })?;
        let (day, note) = (String::new(), String::new());
        w.add_move(&NewMove { item: 1, job: None, kind: MoveKind::Scrapped, quantity: 0.5, day, note, at_ms: 7 })?;
        let attempt = w.begin_attempt(NewAttempt {
            task: "still",
            job: None,
            of: r#"{"format":"urgent-mend/practice/1"}"#,
            at_ms: 8,
        })?;
        let nozzle = AttemptEventRow { seq: 1, tick: 4, does: r#"{"air":true}"#.to_owned() };
        w.add_attempt_events(attempt, &[nozzle])?;
        w.end_attempt(attempt, &AttemptEnd { ticks: 40, at_ms: 9, passed: true, harms: "[]".to_owned() })
    };
    shop.store.write_as(Some(1), worked).await.unwrap();
    assert_eq!(ask(shop, post("/jobs/1/parts", "item=2&quantity=1")).await.0, StatusCode::SEE_OTHER);
    let (status, said) = ask(shop, post("/jobs/1/handover", "")).await;
    assert_eq!(status, StatusCode::SEE_OTHER, "{said}");
}

/// What [`by_somebodys_hand`] did stands in the file, and whose it is.
fn expect_worked(floor: &[u8]) {
    let floor: serde_json::Value = serde_json::from_slice(floor).unwrap();
    let hands = floor["hands"].as_array().unwrap().iter();
    let kinds: Vec<&str> =
        hands.clone().filter(|hand| hand["person"] == 0).filter_map(|hand| hand["kind"].as_str()).collect();
    assert_eq!(kinds, ["intake", "log", "photo"], "{floor}");
    assert!(hands.clone().any(|hand| hand["kind"] == "pin" && hand["person"].is_null()), "{floor}");
    assert_eq!((&floor["attempts"][0]["person"], &floor["attempts"][0]["ticks"]), (&0.into(), &40.into()), "{floor}");
    let waits = floor["waits"].as_array().unwrap();
    assert!(waits.iter().any(|wait| wait["cause"] == "part" && wait["ended_ms"].is_number()), "{floor}");
}

/// Two exports are the same, file by file: else it is said which is not, and how.
fn expect_same(one: &BTreeMap<String, Vec<u8>>, other: &BTreeMap<String, Vec<u8>>) {
    assert_eq!(one.keys().collect::<Vec<_>>(), other.keys().collect::<Vec<_>>());
    for (name, bytes) in one {
        assert_eq!(String::from_utf8_lossy(bytes), String::from_utf8_lossy(&other[name]), "{name}");
    }
}

#[tokio::test]
async fn an_export_makes_the_same_shop() {
    let (one, other) = (shop(), shop());
    filled(&one).await;
    // A lesson that counts, and one that was left out.
    for row in ["1", "3"] {
        let timed = format!("shown-{row}=20&seconds-{row}-1=30&shown-2=70&seconds-2-1=10");
        let (status, said) = ask(&one, post("/stations/1/flow/done", &timed)).await;
        assert_eq!(status, StatusCode::SEE_OTHER, "{said}");
    }
    assert_eq!(ask(&one, post("/stations/1/lessons/1", "why=")).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(ask(&one, post("/stations/1/lessons/1", "why=leaked")).await.0, StatusCode::SEE_OTHER);
    let touched = "before-1=350&lowest-1=215&seconds-1=31";
    let (status, said) = ask(&one, post("/stations/1/iron/done", touched)).await;
    assert_eq!(status, StatusCode::SEE_OTHER, "{said}");
    let logger = "kind=thermometer&name=Logger&address=10.0.0.9:5025&at_bench=yes";
    assert_eq!(ask(&one, post("/instruments", logger)).await.0, StatusCode::SEE_OTHER);
    watched(&one).await;
    ask(&one, post("/jobs/1/handover/reopen", "who=Tam&reason=a picture more")).await;
    found_inside(&one).await;
    pictured(&one).await;
    for (path, form) in [
        ("/jobs/1/opening/map", "device=Merle 2"),
        ("/jobs/1/opening/edits", "act=add&page=0&x=0.5&y=0.5&kind=clip&token=a"),
        ("/jobs/1/opening", "list=opening&name=1&value=out&token=b"),
    ] {
        let (status, said) = ask(&one, post(path, form)).await;
        assert!(status.is_success() || status == StatusCode::SEE_OTHER, "{path}: {said}");
    }
    on_the_floor(&one).await;
    by_somebodys_hand(&one).await;
    let files = exported(&one).await;
    assert!(files.contains_key("lessons/00003.json") && files.contains_key("floor.json"));
    let text = |name: &str| String::from_utf8_lossy(&files[name]).into_owned();
    assert!(text("export.json").contains("10.0.0.9:5025"));
    expect_worked(&files["floor.json"]);
    let job = files.keys().find(|name| name.starts_with("jobs/")).map(|name| text(name)).unwrap();
    for there in
        ["\"celsius\": 84.5", "\"test-closed\"", "\"dust in the fan\"", "\"words\": \"as it came\"", "\"tap\": \"out\""]
    {
        assert!(job.contains(there), "{there}");
    }
    let list = files["export.json"].clone();
    let source = |name: &str| files.get(name).cloned().ok_or_else(|| std::io::Error::other("none"));
    let jobs = transfer::import_whole(&other.app, &list, &source).await.unwrap();
    assert_eq!(jobs, 1);
    expect_same(&exported(&other).await, &files);
    let (_, sheet) = ask(&other, get("/jobs/1/handover")).await;
    assert!(sheet.contains("Released"), "its run came along: {sheet}");
    assert!(transfer::import_whole(&other.app, &list, &source).await.is_err(), "into an empty shop only");
    let station = demo("stations/1-gull.json");
    assert!(transfer::import_file(&other.app, "gull", station.as_bytes()).await.is_err(), "the name is taken");
    let board = demo("boards/tullimar-brook.json");
    assert!(transfer::import_file(&other.app, "brook", board.as_bytes()).await.unwrap().0.contains("revision 1"));
    assert!(transfer::import_file(&other.app, "x", b"{}").await.is_err());
    let job = demo("jobs/06-tern-late.json");
    assert!(transfer::import_file(&other.app, "job", job.as_bytes()).await.is_err(), "its board is named as a file");
    let job = job.replace("\"quillon-tern-15\"", "\"Tern 15 power board\"");
    assert!(transfer::import_file(&other.app, "job", job.as_bytes()).await.is_err(), "its station is not here");
    let heron = demo("stations/3-old-heron.json");
    transfer::import_file(&other.app, "heron", heron.as_bytes()).await.unwrap();
    let taken = transfer::import_file(&other.app, "job", job.as_bytes()).await.map(|taken| taken.0);
    assert!(taken.as_ref().is_ok_and(|message| message.starts_with("job 2")), "{taken:?}");
}

/// The clock of this test stands still, and jumps to the next timer when nobody has anything to do.
#[tokio::test(start_paused = true)]
async fn a_body_that_stops_on_its_way_is_refused() {
    use futures_util::{StreamExt, stream};
    let shop = shop();
    let pieces = stream::iter([Ok::<_, std::io::Error>("opens=")]).chain(stream::pending());
    let request = Request::post("/settings").header("host", "localhost").header("content-length", "1000");
    let request = request.header("content-type", "application/x-www-form-urlencoded");
    let began = tokio::time::Instant::now();
    let (status, page) = ask(&shop, request.body(Body::from_stream(pieces)).unwrap()).await;
    assert!(status.is_client_error(), "{status} {page}");
    assert_eq!(began.elapsed().as_secs(), 20);
}
