//! The bench schedule of 200 jobs.
#![allow(clippy::print_stdout, clippy::expect_used)]

use std::time::Instant;

use mend_core::method::equipment::SkillLevel;
use mend_core::shop::schedule::workload::{BenchJob, BenchTask, Doing, Pinned, WorkShift, Worker, Workload};
use mend_core::shop::schedule::{by_due_date, schedule};

fn task(minutes: i64, doing: Doing, needs: Vec<usize>) -> BenchTask {
    let (name, pinned) = (String::new(), Pinned::default());
    BenchTask { name, minutes, doing, needs, nozzle_mm: None, at_once: false, pinned, begun: None }
}

/// Opened, heated, bathed, dried, fitted, tested and closed: seven tasks, six stretches.
fn job(k: i64) -> BenchJob {
    let hands = |level| Doing::Hands(level);
    let mut wick = task(10, hands(SkillLevel::Trained), vec![(k % 3) as usize]);
    wick.at_once = true;
    let tasks = vec![
        task(10 + k % 20, hands(SkillLevel::Learning), vec![]),
        task(20 + k % 30, hands(SkillLevel::Trained), vec![(k % 3) as usize]),
        wick,
        task(8, Doing::Passive, vec![3]),
        task(20, Doing::Passive, vec![]),
        task(15 + k % 10, hands(SkillLevel::Trained), vec![(k % 3) as usize]),
        task(15, hands(SkillLevel::Learning), vec![]),
    ];
    BenchJob { name: format!("job {k}"), due: Some(600 + 97 * (k * 37 % 200)), weight: 1.0, ready: 0, tasks }
}

fn main() {
    let shifts = |_: i64| (0..60).map(|day| WorkShift { from: 1440 * day, until: 1440 * day + 480 }).collect();
    let worker = |k: i64| Worker { name: format!("{k}"), level: SkillLevel::ALL[(k % 3) as usize], shifts: shifts(k) };
    let resources = ["one", "two", "three", "bath"].map(str::to_owned).to_vec();
    let workload = Workload { workers: (0..4).map(worker).collect(), resources, jobs: (0..200).map(job).collect() };
    let begun = Instant::now();
    let made = schedule(&workload).expect("it fits");
    let took = begun.elapsed();
    let plain = by_due_date(&workload).expect("it fits");
    println!(
        "200 jobs: {:.0} ms, {:.0} weighted minutes late, {:.0} by due date",
        took.as_secs_f64() * 1e3,
        made.cost.late,
        plain.cost.late
    );
}
