//! Every route: what it answers when all is well, to a number that is nobody's, on a job whose record is closed, and on what is
//! another job's.

use axum::http::StatusCode;

use crate::fixture::{Shop, ask, demo, filled, get, post, shop, source_routes, upload};

/// Pages and parts of pages of the shop, and of its one job.
const PAGES: [&str; 84] = [
    "/",
    "/help",
    "/alloys",
    "/alloys?mix=SAC305%3D60%2CSn42Bi58%3D40",
    "/settings",
    "/equipment",
    "/instruments",
    "/stations",
    "/stations/1",
    "/stations/1/flow",
    "/stations/1/outlet",
    "/stations/1/iron",
    "/stations/1/label",
    "/stations/1/probe",
    "/stations/1/probe/found",
    "/stations/1/measure/flow/plan",
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
    "/customers",
    "/customers?q=lund",
    "/schedule",
    "/schedule?day=2",
    "/schedule/0/calendar",
    "/review",
    "/review/stations.csv",
    "/people",
    "/stock",
    "/stock/1",
    "/stock/1/label",
    "/stock/donors",
    "/stock/order.csv",
    "/practice",
    "/sign-in",
    "/jobs/1/intake",
    "/jobs/1/label",
    "/jobs/1/label/bag",
    "/jobs/1/board",
    "/jobs/1/opening",
    "/jobs/1/opening/file",
    "/jobs/1/look",
    "/jobs/1/look?list=before",
    "/jobs/1/look?list=between",
    "/jobs/1/look?list=condition-after",
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
    "/jobs/1/heat/replay",
    "/jobs/1/fit",
    "/jobs/1/fit?view=ways",
    "/jobs/1/fit/plan",
    "/jobs/1/fit/window",
    "/jobs/1/fit/ways",
    "/jobs/1/run",
    "/jobs/1/lesson",
    "/jobs/1/pins",
    "/jobs/1/components",
    "/jobs/1/components/0/back",
    "/jobs/1/components/0/back/plan",
    "/jobs/1/photos",
    "/jobs/1/quote",
    "/jobs/1/parts",
    "/jobs/1/record",
    "/jobs/1/test",
    "/jobs/1/close",
    "/jobs/1/handover",
];

/// Parts of pages that have nothing to say of a job that taught nothing.
const MAY_BE_EMPTY: [&str; 1] = ["/jobs/1/lesson"];

/// What is sent to a job's routes, well formed.
const SENT: [(&str, &str); 51] = [
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
    ("opening", "list=opening&name=1&value=out&token=o"),
    ("opening/map", "map=1"),
    ("opening/edits", "act=page&name=inside&token=e"),
    ("look", "list=condition&name=plus&value=torn&token=l"),
    ("look/extras/1", "answer=accepted&who=Maud"),
    ("what-if/station", "station=Gull%2C+bench+1"),
    ("what-if/1/take", ""),
    ("what-if/1/remove", ""),
    ("components", "list=components&name=fuse&value=in+place&token=c"),
    ("components/0/back", ""),
    ("components/0/back/cancel", ""),
    ("photos/1", "words=torn&on_sheet=yes"),
    ("quote", "fixed=80"),
    ("quote/1/answer", "answer=accepted&who=Maud"),
    ("parts", "item=1&quantity=1"),
    ("parts/1/remove", ""),
    ("test", "list=test-open&name=runs+without+the+battery&value=works&token=t"),
    ("test/back", "stop=pins&who=Tam&why=loose"),
    ("close", "list=skipped&name=close&value=yes&token=s"),
    ("close/taps", "list=opening&name=1&value=back&token=b"),
    ("handover/decline", "who=Tam&why=not+worth+it"),
    ("rehearse", ""),
    ("run/watch", "run=1&step=0"),
];

/// A filled shop with a draft, an item in stock, and a job that has a map, a variant and something found inside.
async fn with_draft() -> Shop {
    let shop = shop();
    filled(&shop).await;
    for (path, form) in [
        ("/boards/drafts", "board=1"),
        ("/stock", "name=Jack"),
        ("/jobs/1/handover/reopen", "who=Tam&reason=a+line+more"),
        ("/jobs/1/opening/map", "device=Tern+15"),
        ("/jobs/1/what-if", "name=one&change=%7B%22change%22%3A%22feed-nothing%22%7D"),
    ] {
        let (status, page) = ask(&shop, post(path, form)).await;
        assert!(status.is_redirection(), "{path}: {status} {page}");
    }
    let found = upload("/jobs/1/look/extras", &[("what", b"dust"), ("price", b"5"), ("of", b"")]);
    assert!(ask(&shop, found).await.0.is_redirection());
    let clip = "act=add&page=0&x=0.5&y=0.5&kind=clip&token=clip";
    assert_eq!(ask(&shop, post("/jobs/1/opening/edits", clip)).await.0, StatusCode::OK);
    let (status, page) = ask(&shop, post("/jobs/1/handover", "who=Tam")).await;
    assert!(status.is_redirection(), "{status} {page}");
    shop
}

/// What is wrong with an answer: all of it at once is told, not the first alone.
#[derive(Default)]
struct Wrong(Vec<String>);

impl Wrong {
    fn expect(&mut self, right: bool, path: &str, (status, page): (StatusCode, &str)) {
        if !right {
            let said: String =
                page.split("<main").last().unwrap_or_default().split_whitespace().collect::<Vec<_>>().join(" ");
            self.0.push(format!("{path}: {status} {}", said.chars().take(300).collect::<String>()));
        }
    }

    fn none(self) {
        assert!(self.0.is_empty(), "{:#?}", self.0);
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn every_page_answers() {
    let (shop, mut wrong) = (with_draft().await, Wrong::default());
    for path in PAGES {
        let (status, page) = ask(&shop, get(path)).await;
        let nothing_said = page.is_empty() && !MAY_BE_EMPTY.contains(&path);
        wrong.expect(status == StatusCode::OK && !nothing_said, path, (status, &page));
    }
    wrong.none();
    assert!(ask(&shop, get("/jobs/1")).await.0.is_redirection());
}

#[tokio::test(flavor = "multi_thread")]
async fn a_number_that_is_nobodys_is_not_found_on_our_page() {
    let (shop, mut wrong) = (with_draft().await, Wrong::default());
    for path in PAGES.iter().filter(|path| path.contains("/1")) {
        for nobody in ["/999", "/x"] {
            let path = path.replacen("/1", nobody, 1);
            let (status, page) = ask(&shop, get(&path)).await;
            wrong.expect(status == StatusCode::NOT_FOUND && page.contains("<h1>"), &path, (status, &page));
        }
    }
    for (path, form) in SENT {
        let path = format!("/jobs/999/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        wrong.expect(status == StatusCode::NOT_FOUND, &path, (status, &page));
    }
    wrong.none();
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_sent_to_an_open_job_is_taken() {
    let (shop, mut wrong) = (with_draft().await, Wrong::default());
    assert!(ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await.0.is_redirection());
    for (path, form) in SENT {
        let path = format!("/jobs/1/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        let taken = status.is_success() || status.is_redirection();
        // Presses for a step that is past and pins of an unfinished walk are told so in words.
        let told = status == StatusCode::CONFLICT && page.contains("<p>");
        wrong.expect(taken || told, &path, (status, &page));
    }
    wrong.none();
}

#[tokio::test(flavor = "multi_thread")]
async fn a_closed_record_takes_nothing() {
    let (shop, mut wrong) = (with_draft().await, Wrong::default());
    let computes = |path: &str| {
        path.contains("cancel") || path.ends_with("lanes") || path.ends_with("search") || path.ends_with("ways")
    };
    let draws = |path: &str| ["heat/plan", "heat/window", "heat/replay", "fit/plan", "fit/window"].contains(&path);
    // Nothing has been compared here and nothing fails, which is said first; handing over once more changes nothing.
    let says_else = |path: &str| ["method/choose", "handover", "handover/decline", "test/back"].contains(&path);
    // Practice and what is only computed or watched leave the record as it is.
    let leaves = |path: &str| ["rehearse", "run/watch", "components/0/back"].contains(&path);
    let left = |path: &str| computes(path) || draws(path) || says_else(path) || leaves(path);
    for (path, form) in SENT.into_iter().filter(|(path, _)| !left(path)) {
        let path = format!("/jobs/1/{path}");
        let (status, page) = ask(&shop, post(&path, form)).await;
        let refused = status == StatusCode::CONFLICT && page.contains("record is closed");
        wrong.expect(refused, &path, (status, &page));
    }
    wrong.none();
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_another_jobs_is_not_found() {
    let shop = with_draft().await;
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
    assert!(ask(&shop, post("/jobs", "")).await.0.is_redirection());
    for (path, form) in [
        ("what-if/1/take", ""),
        ("what-if/1/remove", ""),
        ("look/extras/1", "answer=declined&who=Maud"),
        ("photos/1", "words=mine"),
    ] {
        let (status, page) = ask(&shop, post(&format!("/jobs/2/{path}"), form)).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{path}: {page}");
    }
    let (status, page) = ask(&shop, post("/jobs/2/run/events", "kind=go&run=1&step=0&token=z")).await;
    assert!(status.is_client_error(), "{status} {page}");
    // To remove what is not there is no slip: a press that comes twice.
    ask(&shop, post("/jobs/2/photos/1", "remove=yes")).await;
    let kept = shop.store.read(|r| Ok((r.variants(1)?, r.extras(1)?, r.job_photos(1)?))).await.unwrap();
    assert_eq!((kept.0.len(), kept.1[0].answer.as_str(), kept.2.len()), (1, "", 2), "all is still there");
}

/// Does an address lead to this route?
fn leads_to(route: &str, address: &str) -> bool {
    let address = address.split('?').next().unwrap_or_default();
    let (route, address): (Vec<&str>, Vec<&str>) = (route.split('/').collect(), address.split('/').collect());
    let same = |(part, is): (&&str, &&str)| part == is || part.starts_with('{');
    route.len() == address.len() && route.iter().zip(&address).all(same)
}

#[test]
fn no_stop_of_a_job_is_left_out_here() {
    let sent: Vec<String> = SENT.iter().map(|(path, _)| format!("/jobs/1/{path}")).collect();
    let asked: Vec<&str> = PAGES.into_iter().chain(sent.iter().map(String::as_str)).collect();
    // Files, the way back itself, and what another file asks: an own quote, a look-alike, a rest of a meter, a way to fit.
    let elsewhere = ["photo", "extras", "reopen", "{quote}", "told", "meter", "{way}"];
    let of_jobs = source_routes().into_iter().filter(|route| route.starts_with("/jobs/{id}/"));
    let is_asked = |route: &str| asked.iter().any(|address| leads_to(route, address));
    let left = of_jobs.filter(|route| !is_asked(route) && !elsewhere.iter().any(|word| route.contains(word)));
    assert_eq!(left.collect::<Vec<_>>(), [""; 0]);
}

#[tokio::test(flavor = "multi_thread")]
async fn stations_are_added_changed_retired_and_brought_back() {
    let shop = shop();
    let (status, _) = ask(&shop, post("/stations", "kind=fan-bench")).await;
    assert!(status.is_redirection() || status == StatusCode::UNPROCESSABLE_ENTITY, "{status}");
    let station = demo("stations/1-gull.json");
    mend_web::transfer::import_file(&shop.app, "gull", station.as_bytes()).await.unwrap();
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
