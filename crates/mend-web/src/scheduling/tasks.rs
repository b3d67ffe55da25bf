//! A job as a chain of tasks: what of its stops is still to be done.

use mend_core::method::equipment::SkillLevel;
use mend_core::shop::estimate::stage_time::StageTime;
use mend_core::shop::{Facts, Stop, StopState, state, stops_of};

use super::past::Past;
use crate::job::JobExtent;

/// A joint that was soldered and a board that was washed are left alone for so long, min: until it is at room temperature and
/// the alcohol is out of the connectors (E).
pub(super) const COOL_MIN: i64 = 20;

/// A task of the schedule: a stop, or several short ones together.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct TaskKind {
    /// As in the address of its (last) stop.
    pub(crate) key: &'static str,
    pub(crate) name: &'static str,
    stops: &'static [Stop],
}

/// In the order of the work.
pub(crate) const TASKS: [TaskKind; 8] = [
    TaskKind { key: "opening", name: "Open", stops: &[Stop::Opening] },
    TaskKind { key: "look", name: "Look and measure", stops: &[Stop::Board, Stop::Look] },
    TaskKind { key: "heat", name: "Plan", stops: &[Stop::Alloy, Stop::Method, Stop::Heat] },
    TaskKind { key: "run", name: "At the bench", stops: &[Stop::Run] },
    TaskKind { key: "pins", name: "Pins", stops: &[Stop::Pins] },
    TaskKind { key: "test", name: "Test", stops: &[Stop::Test] },
    TaskKind { key: "close", name: "Close", stops: &[Stop::Close] },
    TaskKind { key: "handover", name: "Hand over", stops: &[Stop::Handover] },
];

/// A task with its time.
#[derive(Debug, Clone, Copy)]
pub(crate) struct TaskTime {
    pub(crate) kind: TaskKind,
    pub(crate) time: StageTime,
}

impl TaskKind {
    pub(crate) fn named(key: &str) -> Option<Self> {
        TASKS.into_iter().find(|task| task.key == key)
    }

    pub(crate) fn is_heat(self) -> bool {
        self.key == "run"
    }

    /// Is it done under the microscope?
    pub(super) fn is_seen_closely(self) -> bool {
        ["look", "pins"].contains(&self.key)
    }

    /// Whose hands it wants at least.
    pub(super) fn level(self, extent: &JobExtent) -> SkillLevel {
        if self.is_heat() { extent.level.unwrap_or(SkillLevel::Trained) } else { SkillLevel::Learning }
    }
}

/// What is still to be done of a job, in order, with what each usually takes.
pub(crate) fn remaining(facts: &Facts, extent: &JobExtent, past: &Past) -> Vec<TaskTime> {
    let own: Vec<Stop> = stops_of(facts.kind).filter(|stop| state(facts, *stop) != StopState::Done).collect();
    let of = |kind: TaskKind| {
        let left: Vec<StageTime> =
            kind.stops.iter().filter(|stop| own.contains(stop)).map(|stop| past.stage(*stop, extent, "")).collect();
        (!left.is_empty()).then(|| TaskTime { kind, time: StageTime::together(&left) })
    };
    TASKS.into_iter().filter_map(of).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_done_is_no_task_any_more() {
        let (extent, past) = (JobExtent::default(), Past::default());
        let names = |facts: &Facts| -> Vec<&str> {
            remaining(facts, &extent, &past).iter().map(|task| task.kind.key).collect()
        };
        let new = names(&Facts::default());
        assert_eq!(new, ["opening", "look", "heat", "run", "pins", "test", "close", "handover"]);
        assert_eq!(names(&Facts { opened: true, board: true, looked: true, ..Facts::default() })[0], "heat");
        assert!(names(&Facts { handed_over: true, ..Facts::default() }).len() < new.len());
    }
}
