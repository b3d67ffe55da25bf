//! Drafts of boards under parallel acts.

use std::collections::BTreeSet;
use std::sync::Arc;

use axum::body::Body;
use axum::http::{Request, StatusCode};

use crate::fixture::{Shop, ask, demo_bytes, get, post, shop};

/// A photograph as a form sends it.
fn photograph(to: &str, face: &str) -> Request<Body> {
    let part =
        |name: &str, more: &str| format!("--rim\r\nContent-Disposition: form-data; name=\"{name}\"{more}\r\n\r\n");
    let file = "; filename=\"board.jpg\"\r\nContent-Type: image/jpeg";
    let mut body = format!("{}{face}\r\n{}", part("face", ""), part("photo", file)).into_bytes();
    body.extend(demo_bytes("photos/1-loom-top.jpg"));
    body.extend(b"\r\n--rim--\r\n");
    let request = Request::post(to).header("host", "localhost").header("content-length", body.len());
    request.header("content-type", "multipart/form-data; boundary=rim").body(Body::from(body)).unwrap()
}

/// A new draft; answers its address.
async fn begun(shop: &Shop) -> String {
    let before = shop.store.read(|r| r.drafts()).await.unwrap();
    assert!(ask(shop, post("/boards/drafts", "board=")).await.0.is_redirection());
    let after = shop.store.read(|r| r.drafts()).await.unwrap();
    assert_eq!(after.len(), before.len() + 1);
    format!("/boards/drafts/{}", after.iter().map(|draft| draft.id).max().unwrap())
}

#[tokio::test(flavor = "multi_thread")]
async fn photographs_sent_at_the_same_time_are_all_kept_or_refused_in_words() {
    let shop = Arc::new(shop());
    let draft = begun(&shop).await;
    let sent = (0..10).map(|k| {
        let (shop, to) = (shop.clone(), format!("{draft}/photos"));
        tokio::spawn(async move { ask(&shop, photograph(&to, if k % 2 == 0 { "top" } else { "bottom" })).await })
    });
    let mut refused = Vec::new();
    for answer in sent.collect::<Vec<_>>() {
        let (status, page) = answer.await.unwrap();
        if !status.is_redirection() {
            refused.push((status, page));
        }
    }
    assert_eq!(refused.len(), 2, "eight photographs fit");
    for (status, page) in &refused {
        assert!(*status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("there are 8 already"), "{status} {page}");
    }
    let row = shop.store.read(|r| r.drafts()).await.unwrap().remove(0);
    let kept = mend_formats::draft::parse(row.draft.as_bytes()).unwrap().photos;
    let different: BTreeSet<i64> = kept.iter().map(|photo| photo.id).collect();
    assert_eq!((kept.len(), different.len()), (8, 8));
    for id in different {
        assert_eq!(ask(&shop, get(&format!("/boards/photos/{id}"))).await.0, StatusCode::OK);
    }
}
