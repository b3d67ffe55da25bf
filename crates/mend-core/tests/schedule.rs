//! The bench schedule against the optimum of small cases, and what holds of every schedule.

#![allow(clippy::expect_used)]

use mend_core::method::equipment::SkillLevel;
use mend_core::shop::schedule::workload::{BenchJob, BenchTask, Doing, Pinned, TaskBegun, WorkShift, Worker, Workload};
use mend_core::shop::schedule::{BenchSchedule, by_due_date, schedule};
use proptest::prelude::*;

fn task(minutes: i64, doing: Doing) -> BenchTask {
    let name = format!("{minutes} min");
    BenchTask {
        name,
        minutes,
        doing,
        needs: vec![],
        nozzle_mm: None,
        at_once: false,
        pinned: Pinned::default(),
        begun: None,
    }
}

const HANDS: Doing = Doing::Hands(SkillLevel::Trained);

fn worker(name: &str, level: SkillLevel) -> Worker {
    // Two weeks of two stretches a day.
    let shifts = (0..14).flat_map(|day| {
        let from = 1440 * day;
        [WorkShift { from, until: from + 240 }, WorkShift { from: from + 300, until: from + 540 }]
    });
    Worker { name: name.to_owned(), level, shifts: shifts.collect() }
}

fn job(due: i64, tasks: Vec<BenchTask>) -> BenchJob {
    BenchJob { name: format!("due {due}"), due: Some(due), weight: 1.0, ready: 0, tasks }
}

fn day(jobs: Vec<BenchJob>) -> Workload {
    let workers = vec![worker("Tam", SkillLevel::Practised), worker("Osk", SkillLevel::Trained)];
    Workload { workers, resources: vec!["Gull".to_owned(), "bath".to_owned()], jobs }
}

/// Numbers that are the same each time.
struct Row(u64);

impl Row {
    fn next(&mut self, below: i64) -> i64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 33) % below as u64) as i64
    }
}

/// One worker, up to six jobs of up to three tasks, seven in all.
fn small(row: &mut Row) -> Workload {
    let jobs = 2 + row.next(5);
    let mut left = 7;
    let made = (0..jobs).map(|k| {
        let of_it = (1 + row.next(3)).min(left - (jobs - k - 1)).max(1);
        left -= of_it;
        let tasks = (0..of_it).map(|t| {
            let passive = t == 1 && row.next(2) == 0;
            let minutes = 10 + row.next(80);
            BenchTask {
                needs: if passive { vec![1] } else { vec![] },
                ..task(minutes, if passive { Doing::Passive } else { HANDS })
            }
        });
        let tasks: Vec<BenchTask> = tasks.collect();
        let weight = 1.0 + row.next(3) as f64;
        BenchJob { weight, ready: 20 * row.next(4), ..job(30 + row.next(300), tasks) }
    });
    let made: Vec<BenchJob> = made.collect();
    Workload { workers: vec![worker("Tam", SkillLevel::Practised)], ..day(made) }
}

/// The least weighted lateness of all orders of hands and bath: every order in which the tasks of each job follow each other.
fn optimum(workload: &Workload) -> f64 {
    struct Tried<'a> {
        jobs: &'a [BenchJob],
        shifts: &'a [WorkShift],
        best: f64,
    }
    impl Tried<'_> {
        /// Placed one after the other: hands and bath each go on where they were left, so that every order counts.
        fn go(&mut self, next: &mut [usize], ends: &mut [i64], (hands, bath, late): (i64, i64, f64)) {
            if late >= self.best {
                return;
            }
            if next.iter().zip(self.jobs).all(|(next, job)| *next == job.tasks.len()) {
                self.best = late;
                return;
            }
            for k in 0..self.jobs.len() {
                let job = &self.jobs[k];
                let Some(task) = job.tasks.get(next[k]) else { continue };
                let (was, by_hand) = (ends[k], task.doing != Doing::Passive);
                let from = was.max(if by_hand { hands } else { bath });
                let fits = |shift: &WorkShift| Some(from.max(shift.from)).filter(|at| at + task.minutes <= shift.until);
                let from =
                    if by_hand { self.shifts.iter().find_map(fits).expect("two weeks are enough") } else { from };
                let until = from + task.minutes;
                let last = next[k] + 1 == job.tasks.len();
                let more = if last { job.weight * (until - job.due.unwrap_or(i64::MAX)).max(0) as f64 } else { 0.0 };
                (next[k], ends[k]) = (next[k] + 1, until);
                let stands = if by_hand { (until, bath, late + more) } else { (hands, until, late + more) };
                self.go(next, ends, stands);
                (next[k], ends[k]) = (next[k] - 1, was);
            }
        }
    }
    let jobs = workload.jobs.len();
    let mut tried = Tried { jobs: &workload.jobs, shifts: &workload.workers[0].shifts, best: f64::INFINITY };
    let mut ends: Vec<i64> = workload.jobs.iter().map(|job| job.ready).collect();
    tried.go(&mut vec![0; jobs], &mut ends, (0, 0, 0.0));
    tried.best
}

#[test]
fn two_hundred_small_cases_come_within_three_per_cent_of_the_optimum_and_never_behind_due_dates() {
    let mut row = Row(7);
    let (mut found, mut best) = (0.0, 0.0);
    for case in 0..200 {
        let workload = small(&mut row);
        let made = schedule(&workload).expect("it fits").cost.late;
        let least = optimum(&workload);
        assert!(made <= least * 1.03 + 1e-9, "case {case}: {made} against {least}");
        assert!(made <= by_due_date(&workload).expect("it fits").cost.late);
        (found, best) = (found + made, best + least);
    }
    assert!(best > 1000.0 && found <= best * 1.01, "{found} against {best} in all");
}

#[test]
fn what_runs_by_itself_is_filled_with_hands_on_another() {
    let first = job(1000, vec![task(10, HANDS), task(60, Doing::Passive), task(10, HANDS)]);
    let second = job(1000, vec![task(50, HANDS)]);
    let one = Workload { workers: vec![worker("Tam", SkillLevel::Trained)], ..day(vec![first, second]) };
    let made = schedule(&one).expect("it fits");
    assert_eq!((made.done.as_slice(), made.cost.idle), (&[80, 60][..], 10));
}

#[test]
fn a_warm_board_is_not_left_and_what_wants_practised_hands_gets_them() {
    let warm = BenchTask { at_once: true, ..task(30, HANDS) };
    // From minute 30 the lift would end ten minutes before the break, and the wick would come after it.
    let soak = BenchJob { ready: 30, ..job(900, vec![task(200, HANDS), warm]) };
    let made = schedule(&day(vec![soak])).expect("it fits");
    let [lift, wick] = [&made.placed[0], &made.placed[1]];
    assert_eq!((lift.from, lift.until, lift.worker), (300, wick.from, wick.worker), "no break between them");
    let hard = job(900, vec![task(30, Doing::Hands(SkillLevel::Practised))]);
    let easy = job(10, vec![task(30, HANDS)]);
    let made = schedule(&day(vec![easy, hard])).expect("it fits");
    let by = |job: usize| made.placed.iter().find(|placed| placed.job == job).and_then(|placed| placed.worker);
    assert_eq!((by(0), by(1)), (Some(1), Some(0)), "the least practised who can takes the easy one");
    let nobody = job(900, vec![task(300, HANDS)]);
    assert_eq!(schedule(&day(vec![nobody])).expect_err("no shift is so long").task, 0);
}

#[test]
fn what_is_under_way_stays_and_what_is_pinned_goes_where_it_was_put() {
    let begun = BenchTask { begun: Some(TaskBegun { worker: Some(0), from: -10 }), ..task(60, HANDS) };
    let put = BenchTask { pinned: Pinned { worker: Some(0), not_before: Some(100) }, ..task(20, HANDS) };
    let made = schedule(&day(vec![job(500, vec![begun]), job(20, vec![put])])).expect("it fits");
    let of = |job: usize| made.placed.iter().find(|placed| placed.job == job).expect("placed");
    assert_eq!((of(0).from, of(0).until, of(0).worker), (-10, 50, Some(0)));
    assert_eq!((of(1).from, of(1).worker), (100, Some(0)));
    assert_eq!(made.next_of(0, 60).map(|placed| placed.job), Some(1));
}

fn any_task() -> impl Strategy<Value = BenchTask> {
    let level = prop_oneof![Just(SkillLevel::Learning), Just(SkillLevel::Trained), Just(SkillLevel::Practised)];
    (5_i64..90, prop_oneof![level.prop_map(Doing::Hands), Just(Doing::Passive)], any::<bool>(), 0_usize..4).prop_map(
        |(minutes, doing, at_once, needs)| BenchTask {
            at_once,
            needs: [vec![], vec![0], vec![1], vec![]][needs].clone(),
            nozzle_mm: (needs == 0).then_some(5.0),
            ..task(minutes, doing)
        },
    )
}

fn any_day() -> impl Strategy<Value = Workload> {
    let any = (proptest::collection::vec(any_task(), 1..4), 0_i64..2000, 0_i64..300);
    let job = any.prop_map(|(tasks, due, ready)| BenchJob { ready, ..job(due, tasks) });
    proptest::collection::vec(job, 1..7).prop_map(day)
}

/// No two things at once of one worker or one resource.
fn apart(mut spans: Vec<(i64, i64)>) -> bool {
    spans.sort_unstable();
    spans.windows(2).all(|two| two[0].1 <= two[1].0)
}

fn holds(workload: &Workload, made: &BenchSchedule) -> Result<(), TestCaseError> {
    let of = |placed: &mend_core::shop::schedule::PlacedTask| &workload.jobs[placed.job].tasks[placed.task];
    for (k, worker) in workload.workers.iter().enumerate() {
        let mine: Vec<_> = made.placed.iter().filter(|placed| placed.worker == Some(k)).collect();
        prop_assert!(apart(mine.iter().map(|placed| (placed.from, placed.until)).collect()), "{} twice", worker.name);
        for placed in mine {
            let within = |shift: &WorkShift| shift.from <= placed.from && placed.until <= shift.until;
            prop_assert!(worker.shifts.iter().any(within), "out of hours");
            let Doing::Hands(level) = of(placed).doing else {
                return Err(TestCaseError::fail("hands on what runs by itself"));
            };
            prop_assert!(worker.level >= level);
        }
    }
    for resource in 0..workload.resources.len() {
        let mine = made.placed.iter().filter(|placed| of(placed).needs.contains(&resource));
        prop_assert!(apart(mine.map(|placed| (placed.from, placed.until)).collect()), "a resource twice");
    }
    for (k, job) in workload.jobs.iter().enumerate() {
        let mut chain: Vec<_> = made.placed.iter().filter(|placed| placed.job == k).collect();
        chain.sort_by_key(|placed| placed.task);
        prop_assert_eq!(chain.len(), job.tasks.len());
        prop_assert!(chain.windows(2).all(|two| two[0].until <= two[1].from) && chain[0].from >= job.ready);
        prop_assert_eq!(chain.last().map(|placed| placed.until), Some(made.done[k]));
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn of_every_schedule_nobody_is_twice_at_once_chains_keep_their_order_and_hours_hold(workload in any_day()) {
        let made = schedule(&workload).expect("short tasks fit");
        holds(&workload, &made)?;
        prop_assert!(made.cost.order(&by_due_date(&workload).expect("short tasks fit").cost).is_le());
        prop_assert_eq!(&made, &schedule(&workload).expect("again"), "the same each time");
    }
}
