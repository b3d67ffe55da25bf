//! A run that is watched: an update of its twin of 256 runs with all that is shown, and a new ensemble.
#![allow(clippy::print_stdout, clippy::unwrap_used, clippy::expect_used)]

use std::hint::black_box;
use std::time::Instant;

use mend_core::calibration::probe::place;
use mend_core::example::Bench;
use mend_core::planning::live::Watching;

fn main() {
    let bench = Bench::try_new().expect("the example");
    let taped = [place(&bench.board)];
    let from = Instant::now();
    let opened = Watching::try_new(&bench.order(), &taped).expect("it can be computed");
    println!("calibration/256_runs_all_cores     {:.2} s", from.elapsed().as_secs_f64());
    let mut twin = opened.twin();
    for second in (0..60).step_by(5) {
        let _ = twin.read(0, [f64::from(second), twin.state(f64::from(second)).expected_c[0][1] + 3.0]);
    }
    let from = Instant::now();
    black_box(opened.renewed(&bench.order(), &taped, &twin.weights_at(60.0)).expect("it can be computed"));
    println!("calibration/renewal_all_cores      {:.2} s", from.elapsed().as_secs_f64());
    let mut slowest: f64 = 0.0;
    for _ in 0..5 {
        let mut twin = opened.twin();
        for second in 0..60 {
            let at_s = f64::from(second);
            let expected = twin.state(at_s).expected_c[0][1];
            let from = Instant::now();
            let _ = twin.read(0, [at_s, expected + 3.0]);
            black_box(twin.state(at_s));
            slowest = slowest.max(from.elapsed().as_secs_f64());
        }
    }
    println!("calibration/update_of_256_slowest  {:.2} ms", slowest * 1e3);
    // Fifty benches, each with a reading ten times a second: all their updates of one second, one after the other.
    let mut twins: Vec<_> = (0..50).map(|_| opened.twin()).collect();
    let from = Instant::now();
    for tenth in 0..10 {
        for twin in &mut twins {
            let at_s = 20.0 + f64::from(tenth) / 10.0;
            let _ = twin.read(0, [at_s, 60.0 + f64::from(tenth)]);
            black_box(twin.state(at_s));
        }
    }
    println!("calibration/50_benches_at_10_hz    {:.2} s of one core a second", from.elapsed().as_secs_f64());
}
