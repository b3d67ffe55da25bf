//! Fifty attempts at the practice bench, ten steps a second each, on the machine's own cores: how long a frame takes, and what an
//! attempt holds. Every hand moves the nozzle at every step, which is more than a hand does.
#![allow(clippy::print_stdout, clippy::expect_used)]

use std::time::Instant;

use mend_core::practice::attempt::Attempt;
use mend_core::practice::course::course;
use mend_core::practice::cues::Cues;
use mend_core::practice::hands::HandMove;
use rayon::prelude::*;

const SESSIONS: u32 = 50;
const SECONDS: u32 = 60;

/// Resident memory of this process, bytes; 0 where the system does not say.
fn resident() -> usize {
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:"));
    line.and_then(|line| line.trim().trim_end_matches(" kB").parse::<usize>().ok()).map_or(0, |kb| kb * 1024)
}

fn main() {
    let before = resident();
    let begin = |k: u32| Attempt::begin(course()[k as usize % 4].scene(k).expect("of the library")).expect("known");
    let mut attempts: Vec<Attempt> = (0..SESSIONS).map(begin).collect();
    attempts.iter_mut().for_each(|attempt| attempt.does(HandMove::Air { on: true }));
    let mut frames: Vec<f64> = Vec::new();
    let mut rounds: Vec<f64> = Vec::new();
    for step in 0..10 * SECONDS {
        let begun = Instant::now();
        let angle = f64::from(step) * 0.3;
        let (x_mm, y_mm) = (30.0 + 5.0 * angle.cos(), 6.0 + 5.0 * angle.sin());
        let done: Vec<f64> = attempts
            .par_iter_mut()
            .map(|attempt| {
                attempt.does(HandMove::Aim { x_mm, y_mm });
                attempt.tick();
                let bytes = Cues::of(attempt).bytes();
                assert!(bytes.len() < 6000, "a frame is small");
                begun.elapsed().as_secs_f64() * 1e3
            })
            .collect();
        frames.extend(done);
        rounds.push(begun.elapsed().as_secs_f64() * 1e3);
    }
    frames.sort_by(f64::total_cmp);
    rounds.sort_by(f64::total_cmp);
    let at = |sorted: &[f64], share: f64| sorted[((sorted.len() - 1) as f64 * share) as usize];
    let each = (resident().saturating_sub(before)) as f64 / f64::from(SESSIONS) / 1e6;
    println!(
        "{SESSIONS} attempts, {SECONDS} s: a frame is there {:.1} ms after its step in the middle, p99 {:.1} ms; all of a step {:.1} ms, p99 {:.1} ms; {each:.2} MB each",
        at(&frames, 0.5),
        at(&frames, 0.99),
        at(&rounds, 0.5),
        at(&rounds, 0.99),
    );
}
