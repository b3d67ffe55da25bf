//! Who gets in, who may do what, and whose name stands on it.

use axum::Router;
use axum::body::Body;
use axum::http::{Request, StatusCode, header};
use mend_web::{Door, router};
use tower::ServiceExt;

use crate::fixture::{Shop, ask, get, post, shop, source_routes};

const PHRASE: &str = "seven herons on the mole";

/// What a browser holds.
#[derive(Default, Clone)]
struct Browser(Vec<(String, String)>);

impl Browser {
    async fn ask(&mut self, shop: &Shop, request: Request<Body>) -> (StatusCode, String) {
        self.ask_at(router(shop.app.clone(), Door::default()), request).await
    }

    async fn ask_at(&mut self, router: Router, mut request: Request<Body>) -> (StatusCode, String) {
        let held: Vec<String> = self.0.iter().map(|(name, value)| format!("{name}={value}")).collect();
        request.headers_mut().insert(header::COOKIE, held.join("; ").parse().unwrap());
        let answer = router.oneshot(request).await.unwrap();
        for cookie in answer.headers().get_all(header::SET_COOKIE) {
            let (name, value) = cookie.to_str().unwrap().split(';').next().unwrap().split_once('=').unwrap();
            assert!(value.is_empty() || cookie.to_str().unwrap().contains("HttpOnly"));
            self.0.retain(|(known, _)| known != name);
            self.0.push((name.to_owned(), value.to_owned()));
        }
        let location = answer.headers().get(header::LOCATION).map(|to| to.to_str().unwrap().to_owned());
        let status = answer.status();
        let body = axum::body::to_bytes(answer.into_body(), 8 << 20).await.unwrap();
        (status, location.unwrap_or_else(|| String::from_utf8_lossy(&body).replace("&#39;", "'")))
    }

    async fn sign_in(&mut self, shop: &Shop, name: &str, secret: &str) -> (StatusCode, String) {
        let form = format!("name={}&secret={}", name.replace(' ', "+"), secret.replace(' ', "+"));
        self.ask(shop, post("/sign-in", &form)).await
    }
}

/// A shop that is reached over a network, with one of each role; the owner's browser.
async fn staffed() -> (Shop, Browser) {
    let (shop, mut owner) = (shop(), Browser::default());
    let link = shop.app.ask_for_names(false).await.unwrap();
    let form = format!("name=Olga+Quist&passphrase={}&pin=4071", PHRASE.replace(' ', "+"));
    assert_eq!(owner.ask(&shop, post(&link, &form)).await.0, StatusCode::SEE_OTHER);
    for (name, role) in [("Tam+Birk", "technician"), ("Tilda+Roe", "trainee"), ("Cas+Nye", "counter")] {
        let form = format!("name={name}&role={role}&level=trained");
        let (status, page) = owner.ask(&shop, post("/people", &form)).await;
        assert_eq!(status, StatusCode::OK, "{page}");
        let link = page.split("href=\"http://localhost").nth(1).unwrap().split('"').next().unwrap();
        let form = format!("passphrase={}+{role}&pin=5082", PHRASE.replace(' ', "+"));
        let (status, _) = Browser::default().ask(&shop, post(link, &form)).await;
        assert_eq!(status, StatusCode::SEE_OTHER);
        let (status, _) = Browser::default().ask(&shop, post(link, &form)).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "a link works once");
    }
    (shop, owner)
}

async fn browser_of(shop: &Shop, name: &str, role: &str) -> Browser {
    let mut browser = Browser::default();
    let (status, page) = browser.sign_in(shop, name, &format!("{PHRASE} {role}")).await;
    assert_eq!(status, StatusCode::SEE_OTHER, "{page}");
    browser
}

#[tokio::test]
async fn a_shop_on_a_network_lets_in_nobody_but_its_people() {
    let (shop, _) = staffed().await;
    let mut stranger = Browser::default();
    let (status, to) = stranger.ask(&shop, get("/stations?a=b")).await;
    assert_eq!((status, to.as_str()), (StatusCode::SEE_OTHER, "/sign-in?back=%2Fstations%3Fa%3Db"));
    let (status, page) = stranger.ask(&shop, post("/jobs", "")).await;
    assert!(status == StatusCode::UNAUTHORIZED && page.contains("Nobody is signed in"), "{page}");
    let (status, page) = stranger.ask(&shop, get("/sign-in")).await;
    assert!(status == StatusCode::OK && !page.contains("Olga") && !page.contains("href=\"/stations\""), "{page}");
    let (status, page) = stranger.sign_in(&shop, "Olga Quist", "4071").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("type your passphrase"), "{page}");
    let (status, page) = stranger.sign_in(&shop, "Nobody", "not a passphrase of anyone").await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("do not belong together"), "{page}");
    assert!(shop.app.ask_for_names(false).await.is_none(), "the owner's link is made once");
}

#[tokio::test]
async fn each_role_may_what_it_is_for() {
    let (shop, mut owner) = staffed().await;
    assert_eq!(owner.ask(&shop, post("/jobs", "")).await.0, StatusCode::SEE_OTHER);
    let people = [("Tam Birk", "technician"), ("Tilda Roe", "trainee"), ("Cas Nye", "counter")];
    let mut browsers = vec![owner];
    for person in people {
        browsers.push(browser_of(&shop, person.0, person.1).await);
    }
    // Owner, technician, trainee, counter: may they?
    let wanted = [
        (get("/"), [true; 4]),
        (get("/jobs/1/intake"), [true; 4]),
        (get("/jobs/1/board"), [true, true, true, false]),
        (get("/jobs/1/record"), [true, true, true, false]),
        (get("/stations"), [true, true, true, false]),
        (post("/stations", "template=none"), [true, true, false, false]),
        (post("/equipment", ""), [true, true, false, false]),
        (get("/settings"), [true, false, false, false]),
        (get("/people"), [true, false, false, false]),
        (post("/people/1/leave", ""), [true, false, false, false]),
        (post("/jobs/1/intake", "field=device&value=Quay"), [true; 4]),
    ];
    for (request, may) in wanted {
        let (method, path) = (request.method().clone(), request.uri().to_string());
        for (browser, may) in browsers.iter_mut().zip(may) {
            let again = Request::builder().method(method.clone()).uri(&path).header("host", "localhost");
            let again = again.header("content-type", "application/x-www-form-urlencoded");
            let body = if path.ends_with("intake") && method == "POST" { "field=device&value=Quay" } else { "" };
            let (status, page) = browser.ask(&shop, again.body(Body::from(body)).unwrap()).await;
            let refused = status == StatusCode::FORBIDDEN;
            assert_eq!(refused, !may, "{method} {path}: {status} {page}");
        }
    }
    let (_, page) = browsers[3].ask(&shop, get("/")).await;
    assert!(!page.contains("/stations") && page.contains("Cas Nye"), "{page}");
    let (_, page) = browsers[3].ask(&shop, get("/jobs/1/intake")).await;
    assert!(!page.contains("/jobs/1/heat"), "the counter sees no way to the bench");
}

#[tokio::test]
async fn five_hundred_wrong_pins_are_slow_and_the_bench_stays_open() {
    let (shop, owner) = staffed().await;
    let (mut bench, mut theirs) = (owner.clone(), browser_of(&shop, "Cas Nye", "counter").await);
    let (mut slowed, mut got_in) = (0, 0);
    for guess in 0..500 {
        shop.ticks.fetch_add(100, std::sync::atomic::Ordering::Relaxed);
        match theirs.sign_in(&shop, "Tam Birk", &format!("{:04}", 6000 + guess)).await.0 {
            StatusCode::TOO_MANY_REQUESTS => slowed += 1,
            StatusCode::SEE_OTHER => got_in += 1,
            _ => {}
        }
    }
    assert!(slowed > 480 && got_in == 0, "{slowed} of 500 were not looked at");
    let (status, _) = bench.sign_in(&shop, "Tam Birk", "5082").await;
    assert_eq!(status, StatusCode::SEE_OTHER, "the right person at the bench, by PIN");
    let (status, _) = theirs.sign_in(&shop, "Tam Birk", &format!("{PHRASE} technician")).await;
    assert_eq!(status, StatusCode::SEE_OTHER, "and by passphrase at the very browser");
}

#[tokio::test]
async fn what_is_done_keeps_the_name_of_who_did_it() {
    let (shop, mut bench) = staffed().await;
    bench.ask(&shop, post("/jobs", "")).await;
    assert_eq!(bench.sign_in(&shop, "Tilda Roe", "5082").await.0, StatusCode::SEE_OTHER);
    bench.ask(&shop, post("/jobs/1/intake", "field=device&value=Quay")).await;
    let (_, page) = bench.ask(&shop, get("/jobs/1/record")).await;
    let at = |words: &str| page.find(words).unwrap_or_else(|| panic!("{words}: {page}"));
    assert!(at("Taken in") < at("<td>Olga Quist") && at("<td>Olga Quist") < at("Quay</td>"), "{page}");
    assert!(at("Quay</td>") < at("<td>Tilda Roe"), "{page}");
    assert_eq!(bench.ask(&shop, post("/sign-out", "")).await.1, "/sign-in");
    assert_eq!(bench.ask(&shop, get("/")).await.0, StatusCode::SEE_OTHER);
}

#[tokio::test]
async fn what_somebody_practised_is_for_themselves_and_the_owner() {
    let (shop, mut owner) = staffed().await;
    let mut trainee = browser_of(&shop, "Tilda Roe", "trainee").await;
    assert_eq!(trainee.ask(&shop, post("/practice", "task=thin-shell")).await.1, "/practice/1");
    let (_, page) = owner.ask(&shop, get("/practice")).await;
    let record = page.split("href=\"/practice?person=").nth(1).and_then(|rest| rest.split('"').next()).unwrap();
    let whose = format!("/practice?person={record}");
    let (status, page) = owner.ask(&shop, get(&whose)).await;
    assert!(status == StatusCode::OK && page.contains("Tilda Roe at the practice bench"), "{page}");
    assert!(page.contains("href=\"/practice/1\"") && !page.contains("name=\"task\""), "{page}");
    assert_eq!(owner.ask(&shop, get("/practice/1")).await.0, StatusCode::OK);
    let mut technician = browser_of(&shop, "Tam Birk", "technician").await;
    assert!(!technician.ask(&shop, get("/practice")).await.1.contains("Everybody</h2>"));
    for path in [whose.as_str(), "/practice/1", "/practice/1/debrief"] {
        assert_eq!(technician.ask(&shop, get(path)).await.0, StatusCode::NOT_FOUND, "{path}");
    }
    assert_eq!(owner.ask(&shop, get("/practice?person=99")).await.0, StatusCode::NOT_FOUND);
    let (status, page) = owner.ask(&shop, get("/practice?person=me")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("<h1>"), "{status}: {page}");
}

#[tokio::test]
async fn a_shop_is_never_left_without_an_owner_and_secrets_are_checked() {
    let (shop, mut owner) = staffed().await;
    let (status, page) = owner.ask(&shop, post("/people/1", "name=Olga&role=counter&level=trained")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("without an owner"), "{page}");
    assert_eq!(owner.ask(&shop, get("/people")).await.0, StatusCode::OK);
    let form = format!("now={}&passphrase=short&pin=1234", PHRASE.replace(' ', "+"));
    let (status, page) = owner.ask(&shop, post("/people/me", &form)).await;
    assert!(
        status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("15 to 128") && page.contains("tried first"),
        "{page}"
    );
    let form = format!("now={}&pin=9036", PHRASE.replace(' ', "+"));
    assert_eq!(owner.ask(&shop, post("/people/me", &form)).await.0, StatusCode::OK);
    assert_eq!(owner.clone().sign_in(&shop, "olga quist", "9036").await.0, StatusCode::SEE_OTHER);
}

#[tokio::test]
async fn who_left_comes_in_no_more_and_comes_back_by_a_new_link() {
    let (shop, mut owner) = staffed().await;
    let mut tam = browser_of(&shop, "Tam Birk", "technician").await;
    assert_eq!(tam.ask(&shop, get("/stations")).await.0, StatusCode::OK);
    assert_eq!(owner.ask(&shop, post("/people/2/leave", "")).await.0, StatusCode::SEE_OTHER);
    assert_ne!(tam.ask(&shop, get("/stations")).await.0, StatusCode::OK, "the session is over");
    let (status, _) = Browser::default().sign_in(&shop, "Tam Birk", &format!("{PHRASE} technician")).await;
    assert_ne!(status, StatusCode::SEE_OTHER, "the passphrase opens nothing");
    let (status, page) = owner.ask(&shop, post("/people", "name=Tam+Birk&role=trainee&level=trained")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("somebody else is called"), "{page}");
    assert_eq!(owner.ask(&shop, post("/people/2/back", "")).await.0, StatusCode::SEE_OTHER);
    let (_, page) = owner.ask(&shop, post("/people/2/link", "")).await;
    let link = page.split("href=\"http://localhost").nth(1).unwrap().split('"').next().unwrap();
    let form = "passphrase=a+new+phrase+of+mine&pin=7093";
    assert_eq!(Browser::default().ask(&shop, post(link, form)).await.0, StatusCode::SEE_OTHER);
    let (status, _) = Browser::default().sign_in(&shop, "Tam Birk", "a new phrase of mine").await;
    assert_eq!(status, StatusCode::SEE_OTHER);
    let (status, _) = owner.ask(&shop, post("/people/99/link", "")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_machine_of_its_own_asks_nobody() {
    let shop = shop();
    assert_eq!(ask(&shop, get("/people")).await.0, StatusCode::OK);
    assert_eq!(ask(&shop, post("/jobs", "")).await.0, StatusCode::SEE_OTHER);
}

/// What a role may, said once more and apart from the application's own table.
fn may(role: &str, method: &str, route: &str) -> bool {
    let under = |list: &[&str]| {
        list.iter().any(|at| route == *at || route.strip_prefix(at).is_some_and(|rest| rest.starts_with('/')))
    };
    let looks = method == "GET";
    let everybodys = ["/assets", "/sign-in", "/sign-out", "/welcome", "/scale", "/help", "/people/me"];
    let counters = ["intake", "label", "photos", "handover", "parts", "quote", "look/extras/{extra}"];
    let counters: Vec<String> = counters.iter().map(|stop| format!("/jobs/{{id}}/{stop}")).collect();
    let counters: Vec<&str> = counters.iter().map(String::as_str).collect();
    let at_counter = under(&counters)
        || ["/", "/jobs", "/jobs/{id}"].contains(&route)
        || under(&["/stock", "/schedule"])
        || (under(&["/customers"]) && route != "/customers/erase")
        || (looks && under(&["/boards/photos"]));
    let owners = (under(&["/people", "/settings"]) && route != "/people/me") || route == "/customers/erase";
    match role {
        _ if under(&everybodys) => true,
        "owner" => true,
        _ if owners => false,
        "counter" => at_counter,
        "trainee" => looks || !under(&["/stations", "/equipment", "/instruments"]),
        _ => true,
    }
}

#[tokio::test]
async fn every_address_asks_every_role() {
    let (shop, owner) = staffed().await;
    let all = source_routes();
    assert!(all.len() > 120, "{}", all.len());
    let people = [("Tam Birk", "technician"), ("Tilda Roe", "trainee"), ("Cas Nye", "counter")];
    let mut browsers = vec![("owner", owner)];
    for person in people {
        browsers.push((person.1, browser_of(&shop, person.0, person.1).await));
    }
    let router = router(shop.app.clone(), Door::default());
    for route in all.iter().filter(|route| *route != "/sign-out" && !route.contains("/leave")) {
        // A number that nothing has: whoever may is told that there is no such thing, and nothing is changed.
        let path: String =
            route.split('/').map(|part| if part.starts_with('{') { "999" } else { part }).collect::<Vec<_>>().join("/");
        for (role, browser) in &browsers {
            for method in ["GET", "POST"] {
                let asked = Request::builder().method(method).uri(&path).header("host", "localhost");
                let asked = asked.header("content-type", "application/x-www-form-urlencoded").body(Body::empty());
                let (status, _) = browser.clone().ask_at(router.clone(), asked.unwrap()).await;
                let there = status != StatusCode::METHOD_NOT_ALLOWED;
                assert!(
                    !there || (status != StatusCode::FORBIDDEN) == may(role, method, route),
                    "{role} {method} {route}: {status}"
                );
            }
        }
    }
}
