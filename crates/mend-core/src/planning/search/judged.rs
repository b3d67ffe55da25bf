//! A run judged by its limits.

use super::super::limits::{Limit, comes_first, first_damage_of};
use super::super::rules::ramp::is_steep;
use crate::board::Board;
use crate::heat::run::Run;

/// What a run says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Judged {
    /// When the part comes away, s from the first tool.
    pub(super) release_s: Option<f64>,
    /// When something is damaged.
    pub(super) damage_s: Option<f64>,
    /// The limit that is nearest at release, and the headroom to it, K.
    pub(super) tightest: Option<(usize, f64)>,
    /// Do packages or ceramics warm too fast until then?
    pub(super) steep: bool,
    /// Where it never comes, what the coldest joint lacks, K.
    pub(super) lacks_k: f64,
}

impl Judged {
    pub(super) fn from_run(run: &Run, limits: &[Limit], board: &Board) -> Self {
        let off = run.release.map_or(run.traces.len(), |t| t.ceil() as usize + 1);
        let heated = |curve: &Vec<f32>| curve.iter().copied().take(off).collect();
        let heated: Vec<Vec<f32>> = run.traces.components.iter().map(heated).collect();
        let rooms = limits.iter().enumerate().map(|(k, limit)| (k, limit.headroom(&run.traces, off)));
        let lacks = run.melts_at.iter().zip(&run.traces.joints).zip(&run.melted).filter(|(_, melted)| melted.is_none());
        let lacks =
            lacks.map(|((melts_at, curve), _)| melts_at - f64::from(curve.iter().copied().fold(f32::MIN, f32::max)));
        Self {
            release_s: run.release,
            damage_s: first_damage_of(limits, run).map(|damage| damage.at_s),
            tightest: rooms.min_by(|a, b| a.1.total_cmp(&b.1)),
            steep: is_steep(board, &heated),
            lacks_k: lacks.fold(0.0, f64::max),
        }
    }

    /// Does everything melt before anything is damaged?
    pub(super) fn works(&self) -> bool {
        comes_first(self.release_s, self.damage_s)
    }
}
