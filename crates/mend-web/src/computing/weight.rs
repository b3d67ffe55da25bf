//! How many bytes a result takes: the cache is bounded by their sum. Counted from the large arrays of each; what is left out is
//! covered by a flat share.

use mend_core::calibration::next_release::ReleaseBand;
use mend_core::calibration::probed::Probed;
use mend_core::calibration::watched_run::WatchedRun;
use mend_core::planning::compare::Comparison;
use mend_core::planning::fit::FitComparison;
use mend_core::planning::learnt::Learnt;
use mend_core::planning::live::Watching;
use mend_core::planning::plan::Plan;
use mend_core::planning::put_back::PutBack;
use mend_core::planning::search::SearchResult;
use mend_core::planning::watched::JudgedReplay;
use mend_core::planning::window_point::WindowPoint;

use super::Rechecked;

/// Names, words, small lists.
const SMALL: usize = 16 * 1024;

/// Bytes that a result holds, about.
pub(crate) trait Weight {
    /// About so many bytes.
    fn bytes(&self) -> usize;
}

impl Weight for Plan {
    fn bytes(&self) -> usize {
        let marks: usize = self.margins.iter().map(|margin| margin.marks.len()).sum();
        let cells = self.map.top_c.len() + self.map.bottom_c.len();
        SMALL + cells * size_of::<Option<f64>>() + marks * 64 + self.joints.len() * 96
    }
}

impl Weight for Probed {
    fn bytes(&self) -> usize {
        SMALL
    }
}

impl Weight for [ReleaseBand; 2] {
    fn bytes(&self) -> usize {
        SMALL
    }
}

impl Weight for Watching {
    fn bytes(&self) -> usize {
        let taped = |run: &WatchedRun| run.thermocouples.iter().map(|curve| 2 * curve.celsius.len()).sum::<usize>();
        let curves = |run: &WatchedRun| run.coldest.len() + run.tightest.len() + taped(run);
        let one = |run: &WatchedRun| 4 * curves(run) + size_of_val(&run.melted[..]) + size_of::<WatchedRun>();
        SMALL + self.runs.iter().map(one).sum::<usize>()
    }
}

impl Weight for Learnt {
    fn bytes(&self) -> usize {
        SMALL
    }
}

impl Weight for Rechecked {
    fn bytes(&self) -> usize {
        SMALL + self.map.candidates.len() * size_of::<WindowPoint>()
    }
}

impl Weight for JudgedReplay {
    fn bytes(&self) -> usize {
        let cells: usize = self.recording.frames.iter().flatten().map(Vec::len).sum();
        let traces = &self.recording.traces;
        let curves =
            traces.joints.iter().chain(&traces.components).chain(&traces.own_joints).map(Vec::len).sum::<usize>();
        SMALL + 4 * (cells + curves + 3 * traces.body.len()) + self.tightest.len() * size_of::<(usize, f64)>()
    }
}

impl Weight for Comparison {
    fn bytes(&self) -> usize {
        SMALL + self.lanes.iter().map(|lane| SMALL + lane.plan.bytes()).sum::<usize>()
    }
}

impl Weight for FitComparison {
    fn bytes(&self) -> usize {
        SMALL + self.lanes.iter().map(|lane| SMALL + lane.plan.bytes()).sum::<usize>()
    }
}

impl Weight for Option<PutBack> {
    fn bytes(&self) -> usize {
        SMALL
    }
}

impl Weight for SearchResult {
    fn bytes(&self) -> usize {
        SMALL
    }
}
