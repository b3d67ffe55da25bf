//! Parts: promised, waited for, received, told from look-alikes, harvested.

use axum::http::StatusCode;

use mend_core::shop::stock::MoveKind;
use mend_store::{EventRow, NewRun, RunRow};

use crate::fixture::{Shop, as_read, ask, demo_bytes, filled, get, post, shop, upload};

#[tokio::test]
async fn a_job_waits_for_its_part_and_comes_back_when_it_is_received() {
    let shop = shop();
    for name in ["Port,+mid+mount", "Port,+top+mount"] {
        assert_eq!(ask(&shop, post("/stock", &format!("name={name}&keep=yes"))).await.0, StatusCode::SEE_OTHER);
    }
    for _ in 0..2 {
        ask(&shop, post("/jobs", "")).await;
    }
    ask(&shop, post("/stock/1/move", "kind=ordered&quantity=1&day=2026-12-04")).await;
    for job in 1..=2 {
        let (status, _) = ask(&shop, post(&format!("/jobs/{job}/parts"), "item=1&quantity=1")).await;
        assert_eq!(status, StatusCode::SEE_OTHER);
    }
    let (_, bench) = ask(&shop, get("/")).await;
    assert_eq!(as_read(&bench).matches("waits for Port, mid mount, expected 4 December").count(), 2, "{bench}");
    let (_, page) = ask(&shop, get("/stock")).await;
    assert!(page.contains("To order today") && as_read(&page).contains("job 2</a>"), "{page}");
    ask(&shop, post("/stock/1/move", "kind=received&quantity=1")).await;
    let (_, bench) = ask(&shop, get("/")).await;
    assert_eq!(as_read(&bench).matches("waits for Port").count(), 1, "the first has it, the second is told: {bench}");
    let (_, page) = ask(&shop, get("/jobs/1/parts")).await;
    assert!(page.contains("lies ready for this job"), "{page}");
    ask(&shop, post("/jobs/1/parts/1/remove", "")).await;
    let (_, bench) = ask(&shop, get("/")).await;
    assert!(!bench.contains("waits for Port"), "what one gives up the other has: {bench}");
    let (_, csv) = ask(&shop, get("/stock/order.csv")).await;
    assert!(csv.starts_with("item,quantity,unit") && csv.contains("\"Port, mid mount\""), "{csv}");
}

/// What the job has used of each item so far.
async fn used_up(shop: &Shop) -> Vec<(i64, f64)> {
    shop.store.read(|read| read.moved_for(1, MoveKind::Used)).await.unwrap()
}

/// The job's run is done once more, press by press.
async fn run_again(shop: &Shop) {
    let again = |w: &mend_store::Write<'_>| {
        let run = w.read().runs_of(1)?.remove(0);
        let events = w.read().events(run.id)?;
        let RunRow { plan_id, steps, opened, taped_on, .. } = run;
        let id = w.add_run(&NewRun { job_id: 1, plan_id, opened, steps, taped_on })?;
        events.iter().try_for_each(|event| {
            let token = format!("again {}", event.token);
            w.put_event(id, &EventRow { token, ..event.clone() })
        })
    };
    shop.store.write(again).await.unwrap();
}

#[tokio::test]
async fn what_was_done_at_the_bench_leaves_the_shelf_once() {
    let shop = shop();
    filled(&shop).await;
    for form in [
        "name=Gel+flux&kind=consumable&unit=mL&used-as=flux",
        "name=Alcohol&kind=consumable&unit=mL&used-as=alcohol",
        "name=Tape&kind=consumable&unit=m&used-as=polyimide+tape&of=20+mm",
        "name=Port",
    ] {
        assert_eq!(ask(&shop, post("/stock", form)).await.0, StatusCode::SEE_OTHER, "{form}");
    }
    let (status, page) = ask(&shop, post("/stock", "name=Nozzle&kind=consumable&used-as=nozzle&of=broad")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("“broad” is no width"), "{page}");
    let (_, page) = ask(&shop, get("/stock/3")).await;
    assert!(page.contains("value=\"polyimide tape\" selected") && page.contains("value=\"20 mm\""), "{page}");
    for _ in 0..2 {
        ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=again")).await;
        let (status, said) = ask(&shop, post("/jobs/1/handover", "")).await;
        assert_eq!(status, StatusCode::SEE_OTHER, "{said}");
        let used = used_up(&shop).await;
        let items: Vec<i64> = used.iter().map(|(item, _)| *item).collect();
        assert!(items.starts_with(&[1, 2]) && !items.contains(&4), "{used:?}");
        let (_, page) = ask(&shop, get("/stock/1")).await;
        assert_eq!(page.matches("by the bench run").count(), 1, "given back again, nothing is taken again: {page}");
    }
    let once = used_up(&shop).await[0].1;
    ask(&shop, post("/jobs/1/handover/reopen", "who=Tam&reason=it+came+back")).await;
    run_again(&shop).await;
    assert_eq!(ask(&shop, post("/jobs/1/handover", "")).await.0, StatusCode::SEE_OTHER);
    let twice = used_up(&shop).await[0].1;
    assert!((twice - 2.0 * once).abs() < 1e-9, "what is done again is used again: {once} {twice}");
}

#[tokio::test]
async fn a_shelf_is_counted_and_gives_no_more_than_it_has() {
    let shop = shop();
    ask(&shop, post("/stock", "name=Braid&kind=consumable&unit=m")).await;
    for (form, says) in [
        ("kind=used&quantity=1", "only 0 is free"),
        ("kind=received&quantity=much", "is no number"),
        ("kind=received&quantity=-1", "can't be"),
        ("kind=ordered&quantity=1&day=soon", "is no day"),
        ("kind=reserved&quantity=1", "is no move"),
    ] {
        let (status, page) = ask(&shop, post("/stock/1/move", form)).await;
        assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains(says), "{form}: {page}");
    }
    ask(&shop, post("/stock/1/move", "kind=received&quantity=5")).await;
    ask(&shop, post("/stock/1/move", "kind=counted&quantity=4.5&note=found+half+a+metre+short")).await;
    let (_, page) = ask(&shop, get("/stock/1")).await;
    assert!(page.contains("<dd>4.50 m</dd>") && page.contains("-0.50 m") && page.contains("found half"), "{page}");
    let (status, page) = ask(&shop, post("/stock", "name=braid")).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("another item is called"), "{page}");
    let (status, page) = ask(&shop, post("/stock/1", "name=Braid&price=cheap&pack=0")).await;
    assert!(
        status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("no amount") && page.contains("pack"),
        "{page}"
    );
    assert_eq!(ask(&shop, get("/stock/9")).await.0, StatusCode::NOT_FOUND);
    let (status, label) = ask(&shop, get("/stock/1/label")).await;
    assert!(status == StatusCode::OK && label.contains("/stock/1"), "{label}");
}

#[tokio::test]
async fn a_donor_is_harvested_once() {
    let shop = shop();
    ask(&shop, post("/stock/donors", "name=Quay+4+board&holds=port%0Aflex")).await;
    let before = ask(&shop, post("/stock/donors/1/harvest", "")).await.0;
    ask(&shop, post("/stock/donors/1/harvest", "")).await;
    let (_, page) = ask(&shop, get("/stock/donors")).await;
    assert!(before == StatusCode::SEE_OTHER && page.contains("Harvest: job 1") && !page.contains("job 2"), "{page}");
    let (_, page) = ask(&shop, get("/jobs/1/parts")).await;
    assert!(page.contains("What comes off"), "{page}");
}

#[tokio::test]
async fn a_donor_that_is_discarded_is_gone_and_its_harvest_stays() {
    let shop = shop();
    for name in ["Quay+4+board", "Loom+board"] {
        ask(&shop, post("/stock/donors", &format!("name={name}&holds=port"))).await;
    }
    ask(&shop, post("/stock/donors/1/harvest", "")).await;
    for donor in [1, 2] {
        let (status, _) = ask(&shop, post(&format!("/stock/donors/{donor}/discard"), "")).await;
        assert_eq!(status, StatusCode::SEE_OTHER);
    }
    let (_, page) = ask(&shop, get("/stock/donors")).await;
    assert!(page.contains("No donor yet"), "{page}");
    assert_eq!(ask(&shop, get("/jobs/1/parts")).await.0, StatusCode::OK, "its job is still to be done");
    assert_eq!(ask(&shop, post("/stock/donors/9/discard", "")).await.0, StatusCode::NOT_FOUND);
    assert_eq!(ask(&shop, post("/stock/donors/2/harvest", "")).await.0, StatusCode::NOT_FOUND, "nothing is left of it");
}

#[tokio::test]
async fn a_part_is_told_from_its_look_alike_by_a_measure_or_a_photograph() {
    let shop = shop();
    for name in ["Jack+A", "Jack+B"] {
        ask(&shop, post("/stock", &format!("name={name}"))).await;
    }
    let alike = "other=2&difference=the+shell+is+0.4+mm+higher";
    assert!(ask(&shop, post("/stock/1/look-alike", alike)).await.0.is_redirection());
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/1/parts", "item=1&quantity=1")).await;
    let (_, page) = ask(&shop, get("/jobs/1/parts")).await;
    assert!(page.contains("Jack B") && page.contains("0.4 mm higher"), "{page}");
    let told = |fields: &[(&str, &[u8])]| upload("/jobs/1/parts/1/told/2", fields);
    let (status, page) = ask(&shop, told(&[("measured", b"")])).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("is empty"), "{page}");
    let (status, page) = ask(&shop, told(&[("measured", &[b'x'; 61])])).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY && page.contains("is too long"), "{page}");
    let photo = demo_bytes("photos/3-port-torn.jpg");
    assert!(ask(&shop, told(&[("measured", b"3.2 mm"), ("photo", &photo)])).await.0.is_redirection());
    let (_, page) = ask(&shop, get("/jobs/1/parts")).await;
    assert!(page.contains("measured 3.2 mm, photographed"), "{page}");
    let (_, photos) = ask(&shop, get("/jobs/1/photos")).await;
    assert!(photos.contains("told from Jack B"), "{photos}");
    let other = upload("/jobs/1/parts/2/told/1", &[("measured", b"3.2 mm")]);
    assert_eq!(ask(&shop, other).await.0, StatusCode::NOT_FOUND, "the job needs no such part");
}

#[tokio::test]
async fn a_label_leads_to_its_page_by_the_address_that_was_asked() {
    let shop = shop();
    ask(&shop, post("/jobs", "")).await;
    ask(&shop, post("/jobs/1/intake", "field=customer&value=Maud+Ferrar")).await;
    ask(&shop, post("/jobs/1/intake", "field=inside&value=a+memory+card")).await;
    let (_, label) = ask(&shop, get("/jobs/1/label")).await;
    assert!(label.contains("http://localhost/jobs/1") && label.contains("Maud Ferrar"), "{label}");
    let (_, bag) = ask(&shop, get("/jobs/1/label/bag")).await;
    assert!(bag.contains("a memory card") && bag.contains("Maud Ferrar"), "{bag}");
    for nobody in ["/jobs/9/label", "/jobs/x/label/bag", "/stock/9/label", "/stations/9/label"] {
        assert_eq!(ask(&shop, get(nobody)).await.0, StatusCode::NOT_FOUND, "{nobody}");
    }
}
