//! What is put into the store comes out again, all of it or none.
#![allow(clippy::unwrap_used)]

use mend_store::{
    ActState, DoneAct, DraftAct, IndexRow, MeasuringKey, NewAttempt, NewBoard, NewDraft, NewLesson, NewVariant,
    ReleaseRow, Store, StoreError, TypedField,
};

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
    store.write(move |w| w.set_intake(job, TypedField::new("symptom", "no picture"), 2)).await.unwrap();
    store.write(move |w| w.set_intake(job, TypedField::new("symptom", "no picture, no sound"), 3)).await.unwrap();
    drop(store);
    let again = Store::open(&folder.path().join("shop.db")).unwrap();
    let row = again.read(move |r| r.job(job)).await.unwrap().unwrap();
    assert_eq!(row.intake["symptom"], "no picture, no sound");
}

#[tokio::test]
async fn an_attempt_keeps_each_move_once_and_ends_once() {
    use mend_store::{AttemptEnd, AttemptEventRow};
    let (_folder, store) = fresh();
    let id = store
        .write(|w| w.begin_attempt(NewAttempt { task: "thin-shell", job: None, of: "{}", at_ms: 1 }))
        .await
        .unwrap();
    let event = |seq, tick| AttemptEventRow { seq, tick, does: "{}".to_owned() };
    store.write(move |w| w.add_attempt_events(id, &[event(1, 0), event(2, 3)])).await.unwrap();
    store.write(move |w| w.add_attempt_events(id, &[event(2, 9), event(3, 9)])).await.unwrap();
    let events = store.read(move |r| r.attempt_events(id)).await.unwrap();
    assert_eq!(events, [event(1, 0), event(2, 3), event(3, 9)], "a move that is sent twice counts as it came first");
    for (ticks, passed) in [(90, true), (99, false)] {
        let end = AttemptEnd { ticks, at_ms: 5, passed, harms: "[]".to_owned() };
        store.write(move |w| w.end_attempt(id, &end)).await.unwrap();
    }
    let row = store.read(move |r| r.attempts_of(None)).await.unwrap().remove(0);
    assert_eq!((row.ticks, row.passed, row.task.as_str()), (90, true, "thin-shell"));
}

#[tokio::test]
async fn a_job_waits_from_when_a_cause_is_seen_until_it_is_gone() {
    use mend_core::shop::review::WaitCause;
    let (_folder, store) = fresh();
    let job = store.write(|w| w.add_job(1)).await.unwrap();
    for (causes, at_ms) in [
        (vec![WaitCause::Word], 1_000),
        (vec![WaitCause::Word, WaitCause::Part], 3_000),
        (vec![WaitCause::Part], 11_000),
        (vec![], 23_000),
        (vec![WaitCause::Word], 30_000),
    ] {
        store.write(move |w| w.set_waits(job, &causes, at_ms)).await.unwrap();
    }
    let waited = store.read(|r| r.waited()).await.unwrap().remove(&job).unwrap();
    let told: Vec<_> = waited.iter().map(|waited| (waited.cause, waited.seconds)).collect();
    assert_eq!(told, [(WaitCause::Part, 20.0), (WaitCause::Word, 10.0)], "what it waits for still is not counted");
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
    assert!(store.read(|r| r.job_numbers()).await.unwrap().is_empty());
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
    assert_eq!(store.read(move |r| r.composition(job)).await.unwrap(), None);
    for composition in ["{}", "{\"alloy\":\"SAC305\"}"] {
        store.write(move |w| w.set_composition(job, composition, 2)).await.unwrap();
    }
    assert_eq!(store.read(move |r| r.composition(job)).await.unwrap().as_deref(), Some("{\"alloy\":\"SAC305\"}"));
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
    let newest = store.read(|r| r.models()).await.unwrap();
    assert_eq!(newest.iter().map(|b| (b.board_id, b.name.as_str())).collect::<Vec<_>>(), [(second.id, "Quay 14")]);
    let taken =
        store.write(|w| Ok((w.add_board(&board("Quay 14"), 3)?.is_none(), w.add_board(&board("Brook"), 3)?))).await;
    let (none, brook) = taken.unwrap();
    let brook = brook.unwrap().model_id;
    assert!(none, "a name is taken once");
    assert!(store.write(move |w| w.add_version(brook, &board("Quay 14"), 4)).await.unwrap().is_none());
}

fn act(token: &str) -> DraftAct {
    DraftAct { token: token.to_owned(), client: "one".to_owned(), on: None }
}

#[tokio::test]
async fn an_act_on_what_somebody_else_has_changed_is_outdated_and_one_sent_again_is_done() {
    let (_folder, store) = fresh();
    let new = NewDraft { model_id: None, job_id: None, draft: "0".to_owned() };
    let id = store.write(move |w| w.add_draft(&new, 1)).await.unwrap();
    store.write(move |w| w.add_draft_step(id, "1", DoneAct { act: &act("a"), at_ms: 2 })).await.unwrap();
    let standing = |token: &str, client: &str, on| {
        let by = DraftAct { token: token.to_owned(), client: client.to_owned(), on };
        store.read(move |r| r.standing(id, &by))
    };
    assert_eq!(standing("a", "one", Some(0)).await.unwrap(), ActState::Done);
    assert_eq!(standing("b", "one", Some(0)).await.unwrap(), ActState::Fresh, "its own acts do not outdate it");
    assert_eq!(standing("c", "two", Some(0)).await.unwrap(), ActState::Outdated);
    assert_eq!(standing("c", "two", Some(1)).await.unwrap(), ActState::Fresh);
    assert_eq!(standing("d", "two", None).await.unwrap(), ActState::Fresh, "it adds to whatever there is");
}

fn indexed(job_id: i64, model_id: i64, actual_s: Option<f64>) -> IndexRow {
    let device = format!("Tern {job_id}");
    let release = actual_s.map(|actual_s| ReleaseRow {
        job_id,
        device: device.clone(),
        predicted: [Some(30.0), Some(40.0), None],
        actual_s,
    });
    let within = actual_s.is_some_and(|s| s >= 30.0);
    let (words, summary) = (format!("Maud Ferrar {device} {job_id}"), "{}".to_owned());
    IndexRow { job_id, open: actual_s.is_none(), model_id: Some(model_id), device, summary, release, within, words }
}

#[tokio::test]
async fn lists_count_what_became_of_jobs_and_find_them_by_the_beginnings_of_words() {
    let (_folder, store) = fresh();
    let model = store
        .write(|w| {
            let model = w.add_board(&board("Quay"), 1)?.unwrap().model_id;
            for (k, actual) in [None, Some(35.0), Some(20.0)].into_iter().enumerate() {
                let job = w.add_job(k as i64)?;
                w.list_job(&indexed(job, model, actual))?;
                // Listed again it is counted once.
                w.list_job(&indexed(job, model, actual))?;
            }
            Ok(model)
        })
        .await
        .unwrap();
    let row = store.read(move |r| r.model(model)).await.unwrap().unwrap();
    assert_eq!((row.jobs, row.released, row.within), (3, 2, 1));
    let ids = |rows: Vec<mend_store::ListedJob>| rows.iter().map(|row| row.job_id).collect::<Vec<_>>();
    assert_eq!(ids(store.read(|r| r.open_jobs()).await.unwrap()), [1]);
    assert_eq!(ids(store.read(|r| r.closed_jobs(i64::MAX, 1)).await.unwrap()), [3]);
    assert_eq!(ids(store.read(|r| r.closed_jobs(3, 9)).await.unwrap()), [2]);
    assert_eq!(ids(store.read(|r| r.found_jobs("mau tern", i64::MAX, 9)).await.unwrap()), [3, 2, 1]);
    assert_eq!(ids(store.read(|r| r.found_jobs("2", i64::MAX, 9)).await.unwrap()), [2]);
    assert!(store.read(|r| r.found_jobs("\" OR (", i64::MAX, 9)).await.unwrap().is_empty());
    let releases = store.read(move |r| r.releases(model, 9)).await.unwrap();
    assert_eq!(releases.iter().map(|row| row.actual_s).collect::<Vec<_>>(), [35.0, 20.0]);
}

#[tokio::test]
async fn a_station_is_found_by_every_name_that_it_had() {
    let (_folder, store) = fresh();
    let id = store.write(|w| w.add_station("Gull", "a")).await.unwrap().unwrap();
    assert!(store.write(move |w| w.set_station(id, "Gull, bench 2", "b")).await.unwrap());
    let row = store.read(|r| r.station_named("Gull")).await.unwrap().unwrap();
    assert_eq!((row.id, row.file.as_str()), (id, "b"));
    assert_eq!(store.write(|w| w.add_station("Gull", "c")).await.unwrap(), None, "the name is taken for good");
    let other = store.write(|w| w.add_station("Tern", "d")).await.unwrap().unwrap();
    assert!(!store.write(move |w| w.set_station(other, "Gull", "d")).await.unwrap());
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
        store.write(move |w| w.add_draft_step(id, text, DoneAct { act: &act(text), at_ms: 2 })).await.unwrap();
    }
    assert_eq!(now(id).await, ("3".to_owned(), 3, 0));
    store.write(move |w| w.move_draft(id, -1, DoneAct { act: &act("u"), at_ms: 3 })).await.unwrap();
    store.write(move |w| w.move_draft(id, -1, DoneAct { act: &act("v"), at_ms: 3 })).await.unwrap();
    assert_eq!(now(id).await, ("1".to_owned(), 1, 2));
    store.write(move |w| w.move_draft(id, 1, DoneAct { act: &act("r"), at_ms: 3 })).await.unwrap();
    assert_eq!(now(id).await, ("2".to_owned(), 2, 1));
    store.write(move |w| w.add_draft_step(id, "4", DoneAct { act: &act("x"), at_ms: 4 })).await.unwrap();
    assert_eq!(now(id).await, ("4".to_owned(), 3, 0));
    store.write(move |w| w.move_draft(id, 1, DoneAct { act: &act("y"), at_ms: 5 })).await.unwrap();
    assert_eq!(now(id).await.0, "4", "there is nothing to do again");
    store.write(move |w| w.end_draft(id)).await.unwrap();
    assert!(store.read(move |r| r.draft(id)).await.unwrap().is_none());
}

#[tokio::test]
async fn the_shops_means_are_one_row_and_a_jobs_variants_have_names_of_their_own() {
    let (_folder, store) = fresh();
    assert_eq!(store.read(|r| r.equipment()).await.unwrap(), None);
    for file in ["a", "b"] {
        store.write(move |w| w.set_equipment(file, 1)).await.unwrap();
    }
    assert_eq!(store.read(|r| r.equipment()).await.unwrap().as_deref(), Some("b"));
    let (one, other) = store.write(|w| Ok((w.add_job(1)?, w.add_job(2)?))).await.unwrap();
    let added = |job| store.write(move |w| w.add_variant(job, NewVariant { name: "narrow", inputs: "{}", made_ms: 3 }));
    let id = added(one).await.unwrap().unwrap();
    assert_eq!(added(one).await.unwrap(), None, "the name is taken");
    assert!(added(other).await.unwrap().is_some(), "in another job it is free");
    assert!(store.read(move |r| r.variant(other, id)).await.unwrap().is_none(), "it is not that job's");
    store.write(move |w| w.remove_variant(one, id)).await.unwrap();
    assert!(store.read(move |r| r.variants(one)).await.unwrap().is_empty());
}

#[tokio::test]
async fn a_lesson_ends_its_measurement_and_counts_until_it_is_left_out() {
    let (_folder, store) = fresh();
    let station = store.write(|w| w.add_station("Gull", "{}")).await.unwrap().unwrap();
    for value in ["4", "4.2"] {
        store
            .write(move |w| {
                w.set_measuring(MeasuringKey { station, kind: "flow" }, TypedField::new("shown-1", value), 1)
            })
            .await
            .unwrap();
    }
    let under_way = store.read(move |r| r.measuring(station, "flow")).await.unwrap();
    assert_eq!(under_way["shown-1"], "4.2");
    let new = NewLesson {
        kind: "flow".to_owned(),
        station_id: station,
        nozzle_mm: None,
        board_id: None,
        job_id: None,
        says: "{}".to_owned(),
        entered: "{}".to_owned(),
        figures: "{}".to_owned(),
    };
    let id = store.write(move |w| w.add_lesson(&new, 5)).await.unwrap();
    assert!(store.read(move |r| r.measuring(station, "flow")).await.unwrap().is_empty());
    assert_eq!(store.read(move |r| r.lessons_for(station, 0)).await.unwrap().len(), 1);
    store.write(move |w| w.leave_lesson_out(id, Some("the bag leaked"))).await.unwrap();
    assert!(store.read(move |r| r.lessons_for(station, 0)).await.unwrap().is_empty());
    let kept = store.read(move |r| r.lessons_of_station(station)).await.unwrap();
    assert_eq!(kept[0].left_out.as_deref(), Some("the bag leaked"));
}
