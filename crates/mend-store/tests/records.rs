//! What happened at the bench is kept in its sequence; a job that has been handed over is closed to every write.
#![allow(clippy::unwrap_used)]

use mend_store::{
    EventRow, LogRow, Moment, NewBoard, NewEvent, NewMark, NewPlan, NewRun, NewVariant, Read, RunRow, Store,
    StoreError, TypedField, Write,
};

fn fresh() -> (tempfile::TempDir, Store) {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(&folder.path().join("shop.db")).unwrap();
    (folder, store)
}

fn moment(wall_ms: i64, tick_ms: i64) -> Moment {
    Moment { wall_ms, clock: "boot 1".to_owned(), tick_ms }
}

fn begun(w: &Write<'_>) -> Result<(i64, i64), StoreError> {
    let job = w.add_job(1)?;
    let board_id = w.add_board(&NewBoard { name: "b".to_owned(), file: "{}".to_owned(), draft: None }, 1)?.unwrap().id;
    let (inputs, plan) = ("{}".to_owned(), "{}".to_owned());
    let plan_id = w.add_plan(&NewPlan { job_id: job, board_id, inputs, plan, station: None, fits: false }, 1)?;
    let run = NewRun {
        job_id: job,
        plan_id,
        opened: moment(1_000_000, 500),
        steps: Some("[]".to_owned()),
        taped_on: String::new(),
    };
    Ok((job, w.add_run(&run)?))
}

fn event(token: &str, arrived: Moment, ago_ms: i64) -> NewEvent {
    let (kind, row, reason, token) = ("go".to_owned(), String::new(), String::new(), token.to_owned());
    NewEvent { kind, step: 0, row, reason, arrived, ago_ms, token }
}

fn run(read: Read<'_>, job: i64) -> RunRow {
    read.run_of(job).unwrap().unwrap()
}

#[tokio::test]
async fn events_are_in_their_sequence_and_measured_by_the_clock_that_nobody_sets() {
    let (_folder, store) = fresh();
    let (job, id) = store.write(begun).await.unwrap();
    let events = [
        event("a", moment(1_000_000, 2500), 0),
        // The wall clock has been set an hour back, then an hour forward: nothing is different.
        event("b", moment(1_000_000 - 3_600_000, 12_500), 0),
        event("c", moment(1_000_000 + 3_600_000, 22_500), 4000),
        // Pressed before the last one, it says: it never comes before it.
        event("d", moment(1_000_000, 23_500), 20_000),
        event("b", moment(1_000_000, 99_000), 0),
    ];
    store
        .write(move |w| {
            let run = run(w.read(), job);
            events.iter().try_for_each(|event| w.add_event(&run, event))
        })
        .await
        .unwrap();
    let kept: Vec<EventRow> = store.read(move |r| r.events(id)).await.unwrap();
    let at: Vec<(&str, i64)> = kept.iter().map(|e| (e.token.as_str(), e.at_ms)).collect();
    assert_eq!(at, [("a", 2000), ("b", 12_000), ("c", 18_000), ("d", 18_000)], "sent twice is once");
    let elapsed = store.read(move |r| Ok(run(r, job).elapsed(kept.last(), &moment(0, 33_500)))).await.unwrap();
    assert_eq!(elapsed, 33_000);
}

#[tokio::test]
async fn across_a_restart_of_the_machine_the_time_of_day_has_to_do() {
    let (_folder, store) = fresh();
    let (job, id) = store.write(begun).await.unwrap();
    let rebooted = Moment { wall_ms: 1_060_000, clock: "boot 2".to_owned(), tick_ms: 9 };
    store.write(move |w| w.add_event(&run(w.read(), job), &event("a", rebooted, 0))).await.unwrap();
    let kept = store.read(move |r| r.events(id)).await.unwrap();
    assert_eq!(kept[0].at_ms, 60_000);
}

#[tokio::test]
async fn a_closed_job_takes_no_write_until_it_is_reopened_with_a_reason() {
    let (_folder, store) = fresh();
    let (job, _) = store.write(begun).await.unwrap();
    store.write(move |w| w.hand_over(job, 50)).await.unwrap();
    type Attempt = fn(&Write<'_>, i64) -> Result<(), StoreError>;
    let attempts: [(&str, Attempt); 8] = [
        ("intake", |w, job| w.set_intake(job, TypedField::new("device", "x"), 1)),
        ("composition", |w, job| w.set_composition(job, "{}", 1)),
        ("settings", |w, job| w.set_settings(job, "{}", 1)),
        ("board", |w, job| w.choose_board(job, 1)),
        ("variant", |w, job| w.add_variant(job, NewVariant { name: "v", inputs: "{}", made_ms: 1 }).map(|_| ())),
        ("pin", |w, job| {
            let (pin, mark, token) = ("A1".to_owned(), "firm".to_owned(), "t".to_owned());
            w.mark_pin(job, &NewMark { pin, mark, at_ms: 1, token })
        }),
        ("event", |w, job| w.add_event(&run(w.read(), job), &event("z", moment(1, 1), 0))),
        ("run", |w, job| {
            let run = run(w.read(), job);
            w.add_run(&NewRun {
                job_id: job,
                plan_id: run.plan_id,
                opened: moment(1, 1),
                steps: None,
                taped_on: String::new(),
            })
            .map(|_| ())
        }),
    ];
    for (name, attempt) in attempts {
        let refused = store.write(move |w| attempt(w, job)).await;
        assert!(matches!(refused, Err(StoreError::Closed)), "{name}: {refused:?}");
    }
    let (what, who, reason) = ("reopened".to_owned(), "Wendolin".to_owned(), "a screw was left".to_owned());
    let reopened = LogRow { what, who, reason, at_ms: 60 };
    store.write(move |w| w.reopen(job, &reopened)).await.unwrap();
    for (name, attempt) in attempts {
        assert!(store.write(move |w| attempt(w, job)).await.is_ok(), "{name}");
    }
    let log = store.read(move |r| r.job_log(job)).await.unwrap();
    let log: Vec<(&str, &str)> = log.iter().map(|row| (row.what.as_str(), row.reason.as_str())).collect();
    assert_eq!(log, [("handed-over", ""), ("reopened", "a screw was left")]);
}

#[tokio::test]
async fn a_mark_sent_again_after_a_newer_one_changes_nothing() {
    let (_folder, store) = fresh();
    let (job, _) = store.write(begun).await.unwrap();
    for (mark, token) in [("firm", "1"), ("bridged", "2"), ("firm", "1")] {
        let new = NewMark { pin: "A1".to_owned(), mark: mark.to_owned(), at_ms: 1, token: token.to_owned() };
        store.write(move |w| w.mark_pin(job, &new)).await.unwrap();
    }
    assert_eq!(store.read(move |r| r.pins(job)).await.unwrap()["A1"], "bridged");
}
