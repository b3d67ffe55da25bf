//! What is put into the store comes out again, all of it or none.
#![allow(clippy::unwrap_used)]

use mend_store::{LedgerRow, NewPlan, PressRow, Store, StoreError};

fn fresh() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.db")).unwrap();
    (folder, store)
}

#[tokio::test]
async fn a_job_keeps_what_was_typed_across_a_restart() {
    let (folder, store) = fresh();
    let job = store.write(|w| w.add_job(1)).await.unwrap();
    store.write(move |w| w.set_intake(job, ("symptom", "no picture"), 2)).await.unwrap();
    store.write(move |w| w.set_intake(job, ("symptom", "no picture, no sound"), 3)).await.unwrap();
    drop(store);
    let again = Store::open(&folder.path().join("shop.db")).unwrap();
    let row = again.read(move |r| r.job(job)).await.unwrap().unwrap();
    assert_eq!(row.intake["symptom"], "no picture, no sound");
}

#[tokio::test]
async fn a_failed_write_leaves_nothing() {
    let (_folder, store) = fresh();
    let failed = store
        .write(|w| {
            let job = w.add_job(1)?;
            // No such board: the foreign key refuses.
            w.choose_board(job, 999)
        })
        .await;
    assert!(matches!(failed, Err(StoreError::Sqlite(_))));
    assert!(store.read(|r| r.jobs()).await.unwrap().is_empty());
}

#[tokio::test]
async fn a_press_sent_twice_is_one_press() {
    let (_folder, store) = fresh();
    let run = store
        .write(|w| {
            let job = w.add_job(1)?;
            let board_id = w.add_board("b", "{}", 1)?.unwrap();
            let plan = NewPlan { job_id: job, board_id, inputs: "{}".to_owned(), plan: "{}".to_owned() };
            let plan = w.add_plan(&plan, 1)?;
            w.add_run(job, plan, 5)
        })
        .await
        .unwrap();
    for (at_ms, token) in [(20, "b"), (10, "a"), (20, "b")] {
        let press = PressRow { press: "go".to_owned(), at_ms };
        store.write(move |w| w.add_press(run, &press, token)).await.unwrap();
    }
    for (at_ms, token) in [(40, "d"), (30, "c"), (40, "d")] {
        let entry = LedgerRow { act: "wicked".to_owned(), row: String::new(), reason: String::new(), at_ms };
        store.write(move |w| w.add_ledger(run, &entry, token)).await.unwrap();
    }
    let ledger = store.read(move |r| r.ledger(run)).await.unwrap();
    assert_eq!(ledger.iter().map(|e| e.at_ms).collect::<Vec<_>>(), [30, 40], "the same with the cleaning ledger");
    let presses = store.read(move |r| r.presses(run)).await.unwrap();
    assert_eq!(presses.iter().map(|p| p.at_ms).collect::<Vec<_>>(), [10, 20], "in order of time");
}

#[tokio::test]
async fn a_board_name_is_taken_once() {
    let (_folder, store) = fresh();
    let taken = store.write(|w| w.add_board("b", "{}", 1)).await.unwrap();
    assert!(taken.is_some());
    assert!(store.write(|w| w.add_board("b", "{}", 1)).await.unwrap().is_none(), "the name is taken");
}

#[tokio::test]
async fn what_the_joints_hold_is_the_last_that_was_entered() {
    let (_folder, store) = fresh();
    let job = store.write(|w| w.add_job(1)).await.unwrap();
    assert_eq!(store.read(move |r| r.charge(job)).await.unwrap(), None);
    for charge in ["{}", "{\"alloy\":\"SAC305\"}"] {
        store.write(move |w| w.set_charge(job, charge, 2)).await.unwrap();
    }
    assert_eq!(store.read(move |r| r.charge(job)).await.unwrap().as_deref(), Some("{\"alloy\":\"SAC305\"}"));
}
