//! A shop in a temporary folder, asked over its own router without a server.

use std::collections::BTreeMap;
use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};

use axum::body::{Body, to_bytes};
use axum::http::{Request, StatusCode};
use mend_store::{Folder, Store};
use mend_web::{App, Clocks, Door, filling, router, transfer};
use tower::ServiceExt;

/// A shop with a clock that the test moves.
pub(crate) struct Shop {
    pub(crate) app: App,
    pub(crate) store: Store,
    pub(crate) ticks: Arc<AtomicI64>,
    _folder: tempfile::TempDir,
    _held: Folder,
}

pub(crate) fn shop() -> Shop {
    let folder = tempfile::tempdir().unwrap();
    let held = Folder::create(&folder.path().join("shop")).unwrap();
    let store = Store::open(&held.database()).unwrap();
    let ticks = Arc::new(AtomicI64::new(0));
    let read = ticks.clone();
    let clocks = Clocks {
        wall: Arc::new(jiff::ZonedDateTime::now),
        ticks: Arc::new(move || read.load(Ordering::Relaxed)),
        name: "test".to_owned(),
    };
    Shop { app: App::new(store.clone(), clocks), store, ticks, _folder: folder, _held: held }
}

pub(crate) fn demo_bytes(path: &str) -> Vec<u8> {
    std::fs::read(Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(path)).unwrap()
}

pub(crate) fn demo(path: &str) -> String {
    String::from_utf8(demo_bytes(path)).unwrap()
}

/// A station, a board and one job of the demo that has a run and has been handed over.
pub(crate) async fn filled(shop: &Shop) {
    let one = |name: &str, path: &str| BTreeMap::from([(name.to_owned(), demo(path))]);
    // The job has photographs: by their places, in the order of their names.
    let names = ["1-loom-top.jpg", "2-loom-bottom.jpg", "3-port-torn.jpg", "4-port-new.jpg"];
    let photos = names.map(|name| (name.to_owned(), demo_bytes(&format!("photos/{name}"))));
    let files = filling::ShopFiles {
        photos: BTreeMap::from(photos),
        stations: one("gull", "stations/1-gull.json"),
        boards: one("quillon-tern-15", "boards/quillon-tern-15.json"),
        jobs: one("01", "jobs/01-tern-jack.json"),
        equipment: Some(demo("equipment.json")),
        settings: Some(demo("shop.json")),
        ..Default::default()
    };
    filling::fill(&shop.app, &files).await.unwrap().await.unwrap();
}

/// A station and a board of the demo, and no job: nothing is computed.
pub(crate) async fn board_alone(shop: &Shop) {
    for (name, path) in [("gull", "stations/1-gull.json"), ("tern", "boards/quillon-tern-15.json")] {
        transfer::import_file(&shop.app, name, &demo_bytes(path)).await.unwrap();
    }
}

pub(crate) async fn ask(shop: &Shop, request: Request<Body>) -> (StatusCode, String) {
    let answer = router(shop.app.clone(), Door::default()).oneshot(request).await.unwrap();
    let status = answer.status();
    assert!(answer.headers().contains_key("content-security-policy"), "{status}");
    let body = to_bytes(answer.into_body(), 8 * 1024 * 1024).await.unwrap();
    (status, String::from_utf8_lossy(&body).replace("&#39;", "'"))
}

pub(crate) fn get(path: &str) -> Request<Body> {
    Request::get(path).header("host", "localhost").body(Body::empty()).unwrap()
}

pub(crate) fn post(path: &str, form: &str) -> Request<Body> {
    let request = Request::post(path).header("host", "localhost");
    request.header("content-type", "application/x-www-form-urlencoded").body(Body::from(form.to_owned())).unwrap()
}

pub(crate) async fn exported(shop: &Shop) -> BTreeMap<String, Vec<u8>> {
    let mut files = BTreeMap::new();
    let mut sink = |name: &str, bytes: &[u8]| {
        files.insert(name.to_owned(), bytes.to_vec());
        Ok(())
    };
    transfer::export(&shop.app, &mut sink).await.unwrap();
    files
}

/// A form with files in it.
pub(crate) fn upload(path: &str, fields: &[(&str, &[u8])]) -> Request<Body> {
    let mut body = Vec::new();
    for (name, value) in fields {
        let file = if *name == "photo" { "; filename=\"a.jpg\"" } else { "" };
        body.extend_from_slice(
            format!("--mend\r\ncontent-disposition: form-data; name=\"{name}\"{file}\r\n\r\n").as_bytes(),
        );
        body.extend_from_slice(value);
        body.extend_from_slice(b"\r\n");
    }
    body.extend_from_slice(b"--mend--\r\n");
    let request = Request::post(path).header("host", "localhost").header("content-length", body.len());
    request.header("content-type", "multipart/form-data; boundary=mend").body(Body::from(body)).unwrap()
}

/// A page as it reads: a line that is broken in its template reads on.
pub(crate) fn as_read(page: &str) -> String {
    page.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Every address that the sources name; what is put together there is none of them.
pub(crate) fn source_routes() -> Vec<String> {
    let mut found = Vec::new();
    let mut folders = vec![Path::new(env!("CARGO_MANIFEST_DIR")).join("src")];
    while let Some(folder) = folders.pop() {
        for path in std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()) {
            if path.is_dir() {
                folders.push(path);
            } else if path.file_name().is_some_and(|name| name != "access.rs") {
                let text = std::fs::read_to_string(&path).unwrap();
                found.extend(text.split(".route(\"").skip(1).map(|rest| rest.split('"').next().unwrap().to_owned()));
            }
        }
    }
    found
}
