//! The service under tests: turns, cancelling, failures, what is kept.

use std::sync::atomic::{AtomicUsize, Ordering};

use mend_core::planning::search::SearchResult;

use super::*;

const PLACE: Viewer = Viewer::Job(1);

fn found(candidates: usize) -> SearchResult {
    SearchResult { best: None, nearest: None, candidates, turned_down: 0, buys: Vec::new() }
}

fn key(of: &str) -> Key<SearchResult> {
    Key::search(of.to_owned())
}

fn spin(watch: &Watch) -> Result<SearchResult, Failed> {
    while !watch.is_cancelled() {
        std::thread::sleep(Duration::from_millis(1));
    }
    Err(Failed::Cancelled)
}

fn count(stand: &Stand<SearchResult>) -> Option<usize> {
    if let Stand::Ended(Ok(found)) = stand { Some(found.candidates) } else { None }
}

#[tokio::test]
async fn a_key_is_computed_once_however_many_wait() {
    let (computing, runs) = (Arc::new(Computing::new()), Arc::new(AtomicUsize::new(0)));
    let asks = (0..20).map(|place| {
        let (computing, runs) = (computing.clone(), runs.clone());
        async move {
            let work = move |_: &Watch| {
                runs.fetch_add(1, Ordering::Relaxed);
                std::thread::sleep(Duration::from_millis(20));
                Ok(found(5))
            };
            count(&computing.compute(Viewer::Job(place), &key("a"), work).await)
        }
    });
    let told = futures_util::future::join_all(asks).await;
    assert!(told.iter().all(|told| *told == Some(5)), "{told:?}");
    assert_eq!(runs.load(Ordering::Relaxed), 1);
}

#[tokio::test]
async fn a_long_one_says_how_far_it_is_and_can_be_cancelled_and_begun_again() {
    let computing = Computing::new();
    let long = computing.compute(PLACE, &key("a"), spin).await;
    assert!(matches!(long, Stand::Running(share) if share == 0.0));
    computing.cancel(&key("a"));
    let ended = computing.compute(PLACE, &key("a"), |_| Ok(found(1))).await;
    assert!(matches!(ended, Stand::Ended(Err(Failed::Cancelled))));
    computing.forget(&key("a"));
    assert_eq!(count(&computing.compute(PLACE, &key("a"), |_| Ok(found(2))).await), Some(2));
}

#[tokio::test]
async fn a_place_that_turns_to_another_key_calls_off_the_first_unless_another_place_shows_it() {
    let computing = Computing::new();
    for place in [PLACE, Viewer::Job(2)] {
        assert!(matches!(computing.compute(place, &key("a"), spin).await, Stand::Running(_)));
    }
    let watch = computing.shared.lock().tasks[&key("a").bare].watch.clone();
    assert_eq!(count(&computing.compute(PLACE, &key("b"), |_| Ok(found(2))).await), Some(2));
    assert!(!watch.is_cancelled(), "the other job's page still shows it");
    assert_eq!(count(&computing.compute(Viewer::Job(2), &key("b"), |_| Ok(found(3))).await), Some(2));
    assert!(watch.is_cancelled());
    assert_eq!(count(&computing.compute(PLACE, &key("a"), |_| Ok(found(4))).await), Some(4), "wanted again");
}

#[tokio::test]
async fn what_nobody_asks_for_is_called_off() {
    let computing = Computing::new();
    assert!(matches!(computing.compute(PLACE, &key("a"), spin).await, Stand::Running(_)));
    let watch = computing.shared.lock().tasks[&key("a").bare].watch.clone();
    let sweep = |after: Duration| computing.shared.lock().sweep(Instant::now() + after);
    sweep(INTEREST / 2);
    assert!(!watch.is_cancelled());
    sweep(INTEREST * 2);
    assert!(watch.is_cancelled());
}

#[tokio::test]
async fn a_panic_is_a_failure_that_can_be_tried_again_and_workers_go_on() {
    let computing = Computing::new();
    for round in 0..8 {
        let place = Viewer::Job(round);
        // A panic may take a while to be told of: its backtrace is printed first.
        let broken = computing.whole(place, &key(&format!("bad {round}")), |_| panic!("as a test")).await;
        assert!(matches!(broken, Err(Failed::Broken(_))), "{broken:?}");
    }
    computing.forget(&key("bad 0"));
    assert_eq!(count(&computing.compute(PLACE, &key("bad 0"), |_| Ok(found(1))).await), Some(1));
}

#[tokio::test]
async fn more_than_the_queue_holds_is_refused_and_closing_calls_everything_off() {
    let computing = Computing::new();
    let cores = worker::count();
    for k in 0..(LONGEST_QUEUE + cores) as i64 {
        let begun = computing.shared.begin(
            Viewer::Job(k),
            &key(&k.to_string()).bare,
            WantedWork {
                work: Box::new(|watch| spin(watch).map(|found| Arc::new(found) as AnyResult)),
                bytes_of: bytes_of::<SearchResult>,
            },
        );
        assert!(begun.is_ok(), "{k}");
        // The workers take theirs before the queue is full.
        if k < cores as i64 {
            std::thread::sleep(Duration::from_millis(30));
        }
    }
    let one_more = computing.compute(PLACE, &key("more"), spin).await;
    assert!(matches!(one_more, Stand::Ended(Err(Failed::Busy))), "{one_more:?}");
    let watch = computing.shared.lock().tasks[&key("0").bare].watch.clone();
    computing.close();
    assert!(watch.is_cancelled());
}
