//! A job as a line of stops in working order, each with its state; and which job comes first.

use serde::{Deserialize, Serialize};

use super::kinds::stops_of;
use super::stop::Stop;
use crate::method::JobKind;
use crate::planning::plan::WindowState;

/// How far the bench run is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
pub enum RunState {
    /// Not begun.
    #[default]
    NotStarted,
    /// At a step, counted from 1.
    AtStep(usize, usize),
    /// All steps done.
    Done,
}

/// How the pins stand.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
pub enum PinState {
    /// None walked.
    #[default]
    NotWalked,
    /// Some left.
    Partly,
    /// Something to mend.
    Rework,
    /// All firm.
    Sound,
    /// Not walked here, and said so.
    Skipped,
}

/// What is known of a job.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct Facts {
    /// What it is for.
    #[serde(default)]
    pub kind: JobKind,
    /// Fields the intake still wants.
    pub intake_missing: usize,
    /// Has all come out that its map has, or was that skipped?
    #[serde(default)]
    pub opened: bool,
    /// Has a board been chosen?
    pub board: bool,
    /// Has it been looked at and measured, or was that skipped?
    #[serde(default)]
    pub looked: bool,
    /// Is it settled what the joints hold and are fed?
    pub alloy: bool,
    /// Has a method been chosen?
    pub method: bool,
    /// The plan's window, if there is a plan for that.
    pub window: Option<WindowState>,
    /// The run.
    pub run: RunState,
    /// The pins.
    pub pins: PinState,
    /// Has it been tested open, or was that skipped?
    #[serde(default)]
    pub tested: bool,
    /// Is all back in, and does it work when closed, or was that skipped?
    #[serde(default)]
    pub closed: bool,
    /// Handed over.
    pub handed_over: bool,
    /// What it waits for, as entered; empty: nothing.
    pub waits_for: String,
    /// Days until it is due; negative: late. None: no date.
    pub due_in_days: Option<i64>,
}

/// State of a stop.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StopState {
    /// Behind us.
    Done,
    /// The next thing to do.
    Now,
    /// Later.
    Later,
}

fn is_done(facts: &Facts, stop: Stop) -> bool {
    let begun = facts.run != RunState::NotStarted;
    match stop {
        Stop::Intake => facts.intake_missing == 0,
        // Who has a board before him has opened the device.
        Stop::Opening => facts.opened || facts.board,
        Stop::Board => facts.board,
        // Who has gone on to the solder has not looked, and does not go back for it.
        Stop::Look => facts.looked || facts.alloy || facts.window.is_some() || begun,
        // Nor does who has been at the bench go back to say what was in the joints, or to plan anew because a lesson outdated the plan.
        Stop::Alloy => facts.alloy || begun,
        // Who has planned the heat by hand has chosen.
        Stop::Method => facts.method || facts.window.is_some() || begun,
        Stop::Heat => facts.window.is_some() || begun,
        Stop::Run => facts.run == RunState::Done,
        Stop::Pins => matches!(facts.pins, PinState::Sound | PinState::Skipped),
        Stop::Test => facts.tested,
        Stop::Close => facts.closed,
        Stop::Handover => facts.handed_over,
    }
}

/// The first stop that is not done; none when the job is closed.
///
/// ```
/// use mend_core::shop::{Facts, Stop, next};
/// assert_eq!(next(&Facts::default()), Some(Stop::Opening));
/// assert_eq!(next(&Facts { handed_over: true, ..Facts::default() }), None);
/// ```
pub fn next(facts: &Facts) -> Option<Stop> {
    if facts.handed_over {
        return None;
    }
    stops_of(facts.kind).find(|stop| !is_done(facts, *stop))
}

/// State of one stop.
///
/// ```
/// use mend_core::shop::{Facts, Stop, StopState, state};
/// let facts = Facts::default();
/// assert_eq!((state(&facts, Stop::Intake), state(&facts, Stop::Opening)), (StopState::Done, StopState::Now));
/// ```
pub fn state(facts: &Facts, stop: Stop) -> StopState {
    if next(facts) == Some(stop) {
        StopState::Now
    } else if is_done(facts, stop) {
        StopState::Done
    } else {
        StopState::Later
    }
}

/// Order on the bench, smallest first: what is under way, then what can be done by due date, then what waits, then closed.
///
/// ```
/// use mend_core::shop::{Facts, rank};
/// let late = Facts { due_in_days: Some(-1), ..Facts::default() };
/// let closed = Facts { handed_over: true, ..Facts::default() };
/// assert!(rank(&late) < rank(&Facts::default()) && rank(&Facts::default()) < rank(&closed));
/// ```
pub fn rank(facts: &Facts) -> (u8, i64) {
    let due = facts.due_in_days.unwrap_or(i64::MAX);
    let group = match facts {
        _ if facts.handed_over => 4,
        _ if matches!(facts.run, RunState::AtStep(..)) => 0,
        _ if !facts.waits_for.is_empty() => 3,
        _ if due < 0 => 1,
        _ => 2,
    };
    (group, due)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_job_goes_from_stop_to_stop() {
        let mut facts = Facts { intake_missing: 2, ..Facts::default() };
        assert_eq!(next(&facts), Some(Stop::Intake));
        facts.intake_missing = 0;
        assert_eq!(next(&facts), Some(Stop::Opening));
        facts.opened = true;
        assert_eq!(next(&facts), Some(Stop::Board));
        facts.board = true;
        assert_eq!(next(&facts), Some(Stop::Look));
        facts.looked = true;
        assert_eq!(next(&facts), Some(Stop::Alloy));
        facts.alloy = true;
        assert_eq!(next(&facts), Some(Stop::Method));
        facts.method = true;
        assert_eq!(next(&facts), Some(Stop::Heat));
        let outdated = Facts { run: RunState::Done, window: None, ..facts.clone() };
        assert_eq!(next(&outdated), Some(Stop::Pins), "the run is over, whatever became of its plan");
        let by_hand = Facts { method: false, window: Some(WindowState::Tight), ..facts.clone() };
        assert_eq!(next(&by_hand), Some(Stop::Run));
        facts.window = Some(WindowState::Open);
        facts.run = RunState::Done;
        facts.pins = PinState::Rework;
        assert_eq!(next(&facts), Some(Stop::Pins));
        assert_eq!(state(&facts, Stop::Handover), StopState::Later);
        facts.pins = PinState::Sound;
        assert_eq!(next(&facts), Some(Stop::Test));
        facts.tested = true;
        assert_eq!(next(&facts), Some(Stop::Close));
        facts.closed = true;
        assert_eq!(next(&facts), Some(Stop::Handover));
        facts.handed_over = true;
        assert_eq!(next(&facts), None);
        assert_eq!(state(&facts, Stop::Pins), StopState::Done);
        let given_back = Facts { handed_over: true, ..Facts::default() };
        assert_eq!(state(&given_back, Stop::Run), StopState::Later, "given back as it is: nothing was done");
        assert_eq!(state(&given_back, Stop::Handover), StopState::Done);
    }

    #[test]
    fn a_part_on_the_bench_comes_before_a_late_one_and_waiting_ones_come_last() {
        let running = Facts { run: RunState::AtStep(5, 12), due_in_days: Some(3), ..Facts::default() };
        let late = Facts { due_in_days: Some(-1), ..Facts::default() };
        let soon = Facts { due_in_days: Some(0), ..Facts::default() };
        let waiting = Facts { waits_for: "port".to_owned(), due_in_days: Some(-5), ..Facts::default() };
        let mut jobs = [&waiting, &soon, &late, &running];
        jobs.sort_by_key(|facts| rank(facts));
        assert_eq!(jobs, [&running, &late, &soon, &waiting]);
    }
}
