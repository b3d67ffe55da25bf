//! All runs of an order: one fine, one coarse, and the samples; and how a figure of theirs becomes a band.

use super::abort_time::{AbortTime, Outcome};
use super::band::Band;
use super::damaged::Damage;
use super::limits::{Limit, LimitSubject, first_damage_of, limits};
use super::order::Order;
use crate::heat::case::Case;
use crate::heat::ensemble::run_all;
use crate::heat::mesh::Resolution;
use crate::heat::parameters::ParameterSample;
use crate::heat::run::{Run, run_until};
use crate::watch::Cancelled;

/// Samples behind every band.
pub const SAMPLES: usize = 64;
/// So many single changes are tried for the next move: their share of the whole work.
pub(super) const MOVES: usize = 16;
/// And so many of those over some of the samples.
pub(super) const FINALISTS: usize = 5;
/// Samples that they are tried over: two batches.
pub(super) const TRIED_SAMPLES: usize = 16;

/// All runs of an order.
pub(super) struct PlanRuns<'a> {
    pub(super) order: &'a Order<'a>,
    pub(super) case: Case<'a>,
    pub(super) limits: Vec<Limit>,
    /// The nominal run on the plan's own grid.
    pub(super) fine: Run,
    /// The nominal run on the screening grid: the difference corrects the samples.
    pub(super) coarse: Run,
    pub(super) samples: Vec<Run>,
    pub(super) damages: Vec<Option<Damage>>,
    pub(super) abort: AbortTime,
}

impl<'a> PlanRuns<'a> {
    pub(super) fn run(order: &'a Order<'a>, case: Case<'a>) -> Result<Self, Cancelled> {
        let nominal = ParameterSample::middle(&case);
        let sampled = ParameterSample::samples(SAMPLES, &case);
        let limits = limits(order, &case);
        let damage = |run: &Run| first_damage_of(&limits, run);
        // A fine run is the work of about ten coarse ones.
        const FINE_IS: usize = 10;
        case.watch.expect(SAMPLES + 1 + FINE_IS + MOVES + FINALISTS * TRIED_SAMPLES);
        // What comes after both release and the first damage is no part of any plan.
        let enough = |run: &Run| damage(run).is_some();
        let as_computed = || {
            let fine = run_until(&case, &nominal, Resolution::FINE, &enough);
            let coarse = run_until(&case, &nominal, Resolution::COARSE, &enough);
            (0..=FINE_IS).for_each(|_| case.watch.one_done());
            (fine, coarse)
        };
        let ((fine, coarse), samples) = rayon::join(as_computed, || run_all(&case, &sampled, &enough));
        case.watch.wanted()?;
        let damages: Vec<Option<Damage>> = samples.iter().map(damage).collect();
        let outcomes = samples.iter().zip(&damages).map(|(run, damage)| Outcome { release: run.release, damage });
        let longest_s = case.recipe.longest.in_seconds();
        let abort = AbortTime::from_outcomes(&outcomes.collect::<Vec<_>>(), fine.last_from, longest_s);
        Ok(Self { order, case, limits, fine, coarse, samples, damages, abort })
    }

    /// Fine over coarse release: the screening grid runs a few per cent fast.
    pub(super) fn time_factor(&self) -> f64 {
        match (self.since(self.fine.release), self.since(self.coarse.release)) {
            (Some(fine), Some(coarse)) if coarse > 0.0 => (fine / coarse).clamp(0.8, 1.25),
            _ => 1.0,
        }
    }

    /// A moment as seconds of the last pass; 0 for one before it.
    pub(super) fn since(&self, at: Option<f64>) -> Option<f64> {
        at.map(|t| (t - self.fine.last_from).max(0.0))
    }

    /// A figure of every run as a band, moved by what the fine grid says about the coarse one.
    pub(super) fn band(&self, figure: impl Fn(&Run) -> Option<f64>) -> Option<Band> {
        let values: Vec<f64> = self.samples.iter().filter_map(&figure).collect();
        let shift = match (figure(&self.fine), figure(&self.coarse)) {
            (Some(fine), Some(coarse)) => fine - coarse,
            _ => 0.0,
        };
        Band::from_values(&values).map(|band| band.shifted(shift))
    }

    /// The same for a time that can't be negative.
    pub(super) fn time_band(&self, figure: impl Fn(&Run) -> Option<f64>) -> Option<Band> {
        let band = self.band(figure)?;
        Some(Band { low: band.low.max(0.0), mid: band.mid.max(0.0), high: band.high.max(0.0) })
    }

    /// The second at which all goes off in a run: at release, at the abort time at the latest.
    pub(super) fn off(&self, run: &Run) -> usize {
        let stop = run.last_from + self.abort.at_s;
        run.release.filter(|t| *t <= stop).unwrap_or(stop).ceil() as usize
    }

    /// What is watched in a run until all goes off, and after it while the released part cools, °C.
    pub(super) fn history<'r>(&self, run: &'r Run, watched: LimitSubject) -> impl Iterator<Item = f64> + use<'r> {
        let released = run.release.filter(|t| *t <= run.last_from + self.abort.at_s);
        let heated = watched.curve(&run.traces).iter().take(self.off(run) + 1);
        let after = run.cooling.as_ref().filter(|_| released.is_some()).map(|cooling| watched.curve(&cooling.traces));
        heated.chain(after.unwrap_or_default()).map(|t| f64::from(*t))
    }

    /// What a run leaves of a limit, cooling included, K.
    pub(super) fn left(&self, run: &Run, limit: &Limit) -> f64 {
        limit.stands.under(&run.parameters).headroom(self.history(run, limit.watched))
    }

    /// The highest of it, °C.
    pub(super) fn highest(&self, run: &Run, watched: LimitSubject) -> f64 {
        self.history(run, watched).fold(f64::NEG_INFINITY, f64::max)
    }
}
