//! A stretch of a run in which the same tools are at work.

use super::boundary::{BoundaryConditions, TipDrive};

/// Tools at work for a while.
#[derive(Debug, Clone)]
pub struct RunStage<const RUNS: usize = 1> {
    /// Whole seconds.
    pub seconds: usize,
    /// What the air does meanwhile, in each run.
    pub air: [BoundaryConditions; RUNS],
    /// Tips that come to their joints.
    pub(super) rounds: Vec<Round>,
    /// Goes on from the one before: the same tools, the nozzle nearer.
    pub(super) goes_on: bool,
}

/// A tip that goes round.
#[derive(Debug, Clone)]
pub(super) struct Round {
    /// What drives it.
    pub(super) drive: TipDrive,
    /// Its places; it begins at the first.
    pub(super) places: Vec<usize>,
    /// On each, whole seconds.
    pub(super) dwell_s: usize,
}

impl Round {
    /// Where it is after so many seconds.
    pub(super) fn place(&self, second: usize) -> Option<usize> {
        self.places.get((second / self.dwell_s) % self.places.len().max(1)).copied()
    }
}

/// A tip that a stage begins with at its first place is elsewhere by now.
pub(super) fn moved(air: &mut BoundaryConditions, (first, here): (Option<usize>, Option<usize>), drive: TipDrive) {
    first.into_iter().for_each(|tip| air.let_go(tip));
    here.into_iter().for_each(|tip| air.hold(tip, drive));
}

impl<const RUNS: usize> RunStage<RUNS> {
    /// The same stage of all runs.
    pub(super) fn together(of: [&RunStage; RUNS]) -> Self {
        let air = of.map(|stage| stage.air[0].clone());
        let &RunStage { seconds, ref rounds, goes_on, .. } = of[0];
        Self { seconds, air, rounds: rounds.clone(), goes_on }
    }
}
