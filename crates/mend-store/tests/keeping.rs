//! What is put into the store comes out again, all of it or none.
#![allow(clippy::unwrap_used)]

use mend_store::{LedgerRow, NewBoard, NewDraft, NewPlan, PressRow, Store, StoreError};

fn fresh() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.db")).unwrap();
    (folder, store)
}

fn board(name: &str) -> NewBoard {
    NewBoard { name: name.to_owned(), file: "{}".to_owned(), draft: None }
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
            let board_id = w.add_board(&board("b"), 1)?.unwrap().id;
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
    let taken = store.write(|w| Ok(w.add_board(&board("b"), 1)?.map(|b| b.id))).await.unwrap();
    assert!(taken.is_some());
    assert!(store.write(|w| w.add_board(&board("b"), 1)).await.unwrap().is_none(), "the name is taken");
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

#[tokio::test]
async fn a_job_keeps_the_version_that_it_used() {
    let (_folder, store) = fresh();
    let (job, first, second) = store
        .write(|w| {
            let job = w.add_job(1)?;
            let first = w.add_board(&board("Quay"), 1)?.unwrap();
            w.choose_board(job, first.id)?;
            let second = w.add_version(first.model_id, &board("Quay 14"), 2)?.unwrap();
            Ok((job, first, second))
        })
        .await
        .unwrap();
    assert_eq!((first.version, second.version, second.model_id), (1, 2, first.model_id));
    let kept = store.read(move |r| r.job(job)).await.unwrap().unwrap();
    assert_eq!(kept.board_id, Some(first.id));
    let newest = store.read(|r| r.boards()).await.unwrap();
    assert_eq!(newest.iter().map(|b| (b.id, b.name.as_str())).collect::<Vec<_>>(), [(second.id, "Quay 14")]);
    let taken =
        store.write(|w| Ok((w.add_board(&board("Quay 14"), 3)?.is_none(), w.add_board(&board("Brook"), 3)?))).await;
    let (none, brook) = taken.unwrap();
    let brook = brook.unwrap().model_id;
    assert!(none, "a name is taken once");
    assert!(store.write(move |w| w.add_version(brook, &board("Quay 14"), 4)).await.unwrap().is_none());
}

#[tokio::test]
async fn a_draft_goes_back_and_forward_and_a_new_act_ends_what_was_undone() {
    let (_folder, store) = fresh();
    let now = |id| {
        let store = store.clone();
        async move {
            let row = store.read(move |r| r.draft(id)).await.unwrap().unwrap();
            (row.draft, row.back, row.forward)
        }
    };
    let id = store
        .write(|w| w.add_draft(&NewDraft { model_id: None, job_id: None, draft: "0".to_owned() }, 1))
        .await
        .unwrap();
    for text in ["1", "2", "3"] {
        store.write(move |w| w.add_draft_step(id, (text, text), 2)).await.unwrap();
    }
    assert_eq!(now(id).await, ("3".to_owned(), 3, 0));
    store.write(move |w| w.move_draft(id, (-1, "u"), 3)).await.unwrap();
    store.write(move |w| w.move_draft(id, (-1, "v"), 3)).await.unwrap();
    assert_eq!(now(id).await, ("1".to_owned(), 1, 2));
    store.write(move |w| w.move_draft(id, (1, "r"), 3)).await.unwrap();
    assert_eq!(now(id).await, ("2".to_owned(), 2, 1));
    store.write(move |w| w.add_draft_step(id, ("4", "x"), 4)).await.unwrap();
    assert_eq!(now(id).await, ("4".to_owned(), 3, 0));
    store.write(move |w| w.move_draft(id, (1, "y"), 5)).await.unwrap();
    assert_eq!(now(id).await.0, "4", "there is nothing to do again");
    store.write(move |w| w.end_draft(id)).await.unwrap();
    assert!(store.read(move |r| r.draft(id)).await.unwrap().is_none());
}

#[tokio::test]
async fn the_shops_means_are_one_row_and_a_jobs_variants_have_names_of_their_own() {
    let (_folder, store) = fresh();
    assert_eq!(store.read(|r| r.means()).await.unwrap(), None);
    for file in ["a", "b"] {
        store.write(move |w| w.set_means(file, 1)).await.unwrap();
    }
    assert_eq!(store.read(|r| r.means()).await.unwrap().as_deref(), Some("b"));
    let (one, other) = store.write(|w| Ok((w.add_job(1)?, w.add_job(2)?))).await.unwrap();
    let added = |job| store.write(move |w| w.add_variant(job, ("narrow", "{}"), 3));
    let id = added(one).await.unwrap().unwrap();
    assert_eq!(added(one).await.unwrap(), None, "the name is taken");
    assert!(added(other).await.unwrap().is_some(), "in another job it is free");
    assert!(store.read(move |r| r.variant(other, id)).await.unwrap().is_none(), "it is not that job's");
    store.write(move |w| w.forget_variant(one, id)).await.unwrap();
    assert!(store.read(move |r| r.variants(one)).await.unwrap().is_empty());
}
