//! The review of 100 000 jobs.
#![allow(clippy::print_stdout)]

use std::time::Instant;

use mend_core::shop::review::{GroupedBy, JobOutcome, Review, StageTaken, changes};

fn job(k: u32) -> JobOutcome {
    let late = 0.8 + f64::from(k * 37 % 41) / 100.0;
    let stage = |stop: &str| StageTaken { stop: stop.to_owned(), seconds: 600.0 * late, expected_s: 600.0 };
    JobOutcome {
        job: i64::from(k),
        connector: format!("connector {}", k % 40),
        method: format!("method {}", k % 11),
        station: format!("station {}", k % 5),
        board: format!("board {}", k % 300),
        person: format!("person {}", k % 7),
        predicted_s: [Some(40.0), Some(50.0), Some(65.0)],
        actual_s: Some(50.0 * late),
        chance: Some(0.5 + f64::from(k % 50) / 100.0),
        reworks: u32::from(k.is_multiple_of(13)),
        damaged: if k.is_multiple_of(29) { vec!["C1".to_owned()] } else { vec![] },
        stages: ["opening", "run", "pins", "close"].map(stage).into(),
        ..JobOutcome::default()
    }
}

fn main() {
    let outcomes: Vec<JobOutcome> = (0..100_000).map(job).collect();
    let begun = Instant::now();
    let review = Review::new(&outcomes);
    let told = changes(&outcomes, &review);
    let groups: usize = GroupedBy::ALL.into_iter().map(|by| review.grouped(by).len()).sum();
    let took = begun.elapsed().as_secs_f64() * 1e3;
    println!("100 000 jobs, {groups} groups, {} stops, {} changes: {took:.0} ms", review.stages.len(), told.len());
}
