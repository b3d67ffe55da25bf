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
    /// How the nozzle comes near first, where it does.
    pub(super) nearing: Option<Nearing<RUNS>>,
}

/// While a nozzle comes near, its distance stands for so long, s: a jet follows its cube root at the most.
pub(super) const PIECE_S: usize = 3;

/// A nozzle that comes near.
#[derive(Debug, Clone)]
pub(super) struct Nearing<const RUNS: usize = 1> {
    /// Its air until the hand begins.
    pub(super) far: [BoundaryConditions; RUNS],
    /// And on the way, a piece each [`PIECE_S`].
    pub(super) pieces: Vec<[BoundaryConditions; RUNS]>,
    /// From the beginning until it is near, whole seconds.
    pub(super) over_s: usize,
    /// What the hand waits for.
    pub(super) waits_for: WaitsFor,
}

/// What a hand waits for, as the run sees it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum WaitsFor {
    /// Nothing.
    Nothing,
    /// The board under the joints is so warm, K over ambient.
    PadsAt(f64),
    /// A joint has let go.
    FirstJoint,
}

/// How far a nozzle is on its way, in one run.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum OnItsWay {
    /// The hand waits.
    Far,
    /// In a piece of the way.
    Piece(usize),
    /// At its distance.
    Near,
}

impl<const RUNS: usize> Nearing<RUNS> {
    /// Where the nozzle is so many seconds after the hand began.
    pub(super) fn after(&self, seconds: Option<usize>) -> OnItsWay {
        match seconds {
            None => OnItsWay::Far,
            Some(past) if past < self.over_s => OnItsWay::Piece(past / PIECE_S),
            Some(_) => OnItsWay::Near,
        }
    }

    fn together(of: [&Nearing; RUNS]) -> Self {
        let &Nearing { over_s, waits_for, ref pieces, .. } = of[0];
        let piece = |k: usize| of.map(|nearing| nearing.pieces[k][0].clone());
        let far = of.map(|nearing| nearing.far[0].clone());
        Self { far, pieces: (0..pieces.len()).map(piece).collect(), over_s, waits_for }
    }
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
pub(super) fn moved(air: &mut BoundaryConditions, first: Option<usize>, here: Option<usize>, drive: TipDrive) {
    first.into_iter().for_each(|tip| air.let_go(tip));
    here.into_iter().for_each(|tip| air.hold(tip, drive));
}

impl<const RUNS: usize> RunStage<RUNS> {
    /// The same stage of all runs.
    pub(super) fn together(of: [&RunStage; RUNS]) -> Self {
        let air = of.map(|stage| stage.air[0].clone());
        let &RunStage { seconds, ref rounds, ref nearing, .. } = of[0];
        let first = nearing.as_ref();
        let nearing = first.map(|first| Nearing::together(of.map(|stage| stage.nearing.as_ref().unwrap_or(first))));
        Self { seconds, air, rounds: rounds.clone(), nearing }
    }

    /// What the air does in each run, by how far its nozzle is.
    pub(super) fn air_at(&self, ways: &[OnItsWay; RUNS]) -> [BoundaryConditions; RUNS] {
        std::array::from_fn(|run| match (&self.nearing, ways[run]) {
            (Some(nearing), OnItsWay::Far) => nearing.far[run].clone(),
            (Some(nearing), OnItsWay::Piece(k)) => nearing.pieces[k][run].clone(),
            _ => self.air[run].clone(),
        })
    }
}
