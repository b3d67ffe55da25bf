use super::*;
use crate::planning::band::TimeBand;
use crate::planning::bench_event::Happening::{Go, Stopped, Undo};
use crate::planning::limited_by::LimitedBy;
use crate::planning::sequence::step::{Duty, FitTimes, HotTool, HotToolKind, StepText};
use crate::planning::sequence::task::Task;

fn step(task: Task, kind: StepKind) -> Step {
    let text = StepText::Typed { task, lines: Vec::new() };
    Step { text, cautions: vec![], kind, duty: Duty::None, map: false }
}

fn steps() -> Vec<Step> {
    let release = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
    let heat = Task::Heat { family: None, limited_by: LimitedBy::Written(String::new()) };
    vec![
        step(Task::Flux, StepKind::Do),
        step(heat, StepKind::Heat { release, abort_s: 60.0 }),
        step(Task::Lift, StepKind::Do),
        step(Task::Wick, StepKind::WhileWarm { window_s: None }),
        step(Task::SetWithAir, StepKind::Set { fit: None }),
        step(Task::Hold, StepKind::Hold { until_s: None }),
    ]
}

fn run(list: &[(Happening, i64)]) -> BenchRun {
    let events: Vec<Event> = list.iter().map(|(what, at_ms)| Event { what: what.clone(), at_ms: *at_ms }).collect();
    BenchRun::after(&steps(), &events)
}

fn wicked() -> Happening {
    Happening::named("wicked", "row A", "").expect("an entry")
}

#[test]
fn one_key_runs_the_whole_job() {
    let moved = [(Go, 1000), (Go, 5000), (Go, 45_500), (Go, 47_000), (Go, 50_000)];
    let now = run(&moved);
    assert_eq!(now.release().map(|s| (s.seconds, s.attempt)), Some((40.5, 1)));
    // Wicking counts from "it moved" through the lift between.
    assert_eq!((now.at, now.phase), (3, RunPhase::Running { since_ms: 45_500 }));
    assert!(!now.is_done(&steps()));
}

#[test]
fn a_soak_is_begun_and_ended_by_a_press_and_stamps_nothing() {
    let mut soaked = steps();
    soaked.insert(1, step(Task::Soak { air: true }, StepKind::Soak { lasts_s: 45.0, tools: vec![] }));
    let events = [0, 1000, 46_000].map(|at_ms| Event { what: Go, at_ms });
    let now = BenchRun::after(&soaked, &events[..2]);
    assert_eq!((now.at, now.phase), (1, RunPhase::Running { since_ms: 1000 }));
    let now = BenchRun::after(&soaked, &events);
    assert_eq!((now.at, now.phase, now.stamps.len()), (2, RunPhase::Ready, 0));
}

#[test]
fn the_airs_time_is_that_of_what_blows_stopped_or_not_and_never_the_irons() {
    assert_eq!(run(&[(Go, 0), (Go, 1000), (Stopped, 4000), (Go, 9000), (Go, 11_000)]).air_on_ms, 5000);
    let with = |what: HotToolKind| vec![HotTool { what, set_c: 350.0 }];
    let of = |kind: StepKind| {
        let steps = [step(Task::SetWithIron, kind)];
        BenchRun::after(&steps, &[0, 3000].map(|at_ms| Event { what: Go, at_ms })).air_on_ms
    };
    let liquid = TimeBand { low_s: None, mid_s: None, high_s: None, share: 0.0 };
    let fit = |what| Some(FitTimes { liquid, abort_s: 60.0, tools: with(what) });
    assert_eq!(of(StepKind::Set { fit: fit(HotToolKind::Iron) }), 0);
    assert_eq!(of(StepKind::Set { fit: fit(HotToolKind::Air) }), 3000);
    assert_eq!(of(StepKind::Soak { lasts_s: 3.0, tools: with(HotToolKind::Preheater) }), 0);
    assert_eq!(of(StepKind::Soak { lasts_s: 3.0, tools: with(HotToolKind::Air) }), 3000);
}

#[test]
fn undo_takes_the_last_event_back_wherever_it_is_and_its_stamp_with_it() {
    let heated = [(Go, 0), (Go, 5000), (Go, 9000)];
    let back = run(&[&heated[..], &[(Undo, 9500)]].concat());
    assert_eq!(back.phase, RunPhase::Running { since_ms: 5000 }, "the clock goes on as if nothing had been pressed");
    assert!(back.stamps.is_empty() && back.undoable);
    let lifted = [&heated[..], &[(Go, 10_000), (Go, 11_000), (wicked(), 12_000), (Undo, 13_000)]].concat();
    let now = run(&lifted);
    assert!(now.at == 3 && now.entries.is_empty(), "an entry of the ledger is taken back as well");
    let to_the_heat = run(&[&lifted[..], &[(Undo, 14_000), (Undo, 15_000), (Undo, 16_000)]].concat());
    assert_eq!((to_the_heat.at, to_the_heat.stamps.len()), (1, 0));
    let first = run(&[(Undo, 10)]);
    assert!(first.at == 0 && !first.undoable);
}

#[test]
fn only_a_first_attempt_on_a_cold_board_is_what_the_plan_predicted() {
    let stopped = [(Go, 0), (Go, 5000), (Stopped, 65_000)];
    let now = run(&stopped);
    assert_eq!((now.at, now.phase, now.stopped, now.attempts), (1, RunPhase::Ready, 1, 1));
    let again = run(&[&stopped[..], &[(Go, 95_000), (Go, 120_000)]].concat());
    let stamp = &again.stamps[0];
    assert_eq!((stamp.seconds, stamp.attempt, stamp.since_off_s), (25.0, 2, Some(30.0)));
    assert_eq!(again.release(), None, "a warm board is another question");
    assert_eq!(run(&[(Stopped, 5)]).stopped, 0, "there is no air to stop");
    let slip = run(&[(Go, 0), (Go, 5000), (Undo, 5500), (Go, 9000), (Go, 49_000)]);
    assert_eq!(slip.release().map(|s| s.seconds), Some(40.0), "an air-on that was taken back is none");
}

#[test]
fn a_row_shines_once_in_an_attempt_and_only_under_air() {
    let shone = |row: &str| Happening::Shone { row: row.to_owned() };
    let heated = [(Go, 0), (shone("row A"), 2000), (Go, 5000), (shone("row A"), 35_000), (shone("row A"), 36_000)];
    let now = run(&heated);
    let cue = Cue { step: 1, begun_ms: 5000, row: "row A".to_owned(), seconds: 30.0 };
    assert_eq!((now.cues_now().collect::<Vec<_>>(), now.is_as_planned(&steps())), (vec![&cue], true));
    assert_eq!(run(&[&heated[..], &[(Undo, 37_000)]].concat()).cues, [], "taken back");
    let again = run(&[&heated[..], &[(Stopped, 40_000), (Go, 90_000), (shone("row B"), 99_000)]].concat());
    assert_eq!(again.cues_now().map(|cue| (cue.begun_ms, cue.seconds)).collect::<Vec<_>>(), [(90_000, 9.0)]);
    assert!(!again.is_as_planned(&steps()), "the board is warm");
}

#[test]
fn the_new_part_is_set_without_a_stamp_and_held_from_air_off() {
    let now = run(&[0, 10, 20, 30, 40, 1000, 2000, 9000, 11_000].map(|t| (Go, t)));
    assert_eq!((now.at, now.phase), (5, RunPhase::Running { since_ms: 9000 }));
    assert_eq!(now.stamps.len(), 1);
}

#[test]
fn presses_after_the_end_change_nothing_and_undo_still_takes_the_last_that_did() {
    let many: Vec<(Happening, i64)> = (0..20).map(|t| (Go, t)).collect();
    assert_eq!(run(&many).at, 6);
    assert_eq!(run(&[&many[..], &[(Undo, 30)]].concat()).at, 5);
}
