//! The stages of one step over field and lumps together, compiled for the processor at hand.

// Plain index loops become vectors; iterators and closures here did not.
#![allow(clippy::needless_range_loop)]

use super::coefficients::Coefficients;
use super::field::{self, Earlier};
use super::lumped_nodes::{LumpedNodes, OfRuns};
use super::real::Real;
use super::rkl2::Weights;

/// Field and lumps of all runs of a batch, with the arrays that are kept between steps so that stepping allocates nothing.
#[derive(Debug, Clone)]
pub struct State<R, const RUNS: usize> {
    pub(super) now: Vec<R>,
    pub(super) enthalpy: Vec<OfRuns<RUNS>>,
    pub(super) lumps: LumpedNodes<RUNS>,
    start: Vec<R>,
    first: Vec<R>,
    other: Vec<R>,
    node_start: Vec<OfRuns<RUNS>>,
    node_first: Vec<OfRuns<RUNS>>,
    node_other: Vec<OfRuns<RUNS>>,
}

/// A number whose loops are compiled for the processor at hand, for batches of so many runs.
pub trait Sweep<const RUNS: usize = 1>: Real {
    /// Rates of the field at `start`.
    fn first_rates(coefficients: &Coefficients<Self, RUNS>, start: &[Self], first: &mut [Self]);
    /// The field of a later stage, in place of the stage before last.
    fn next_field(
        coefficients: &Coefficients<Self, RUNS>,
        weights: Weights,
        earlier: Earlier<'_, Self>,
        next: &mut [Self],
    );
    /// Temperatures and rates of the lumps.
    fn node_rates(lumps: &mut LumpedNodes<RUNS>, enthalpy: &[OfRuns<RUNS>], now: &[Self]);
    /// What the cells give to the lumps in `seconds`.
    fn take_from(lumps: &LumpedNodes<RUNS>, now: &[Self], cells: (&mut [Self], f64));
}

impl<R: Sweep<RUNS>, const RUNS: usize> State<R, RUNS> {
    /// At rest at ambient temperature: so many `values` of the field, so many `nodes`.
    pub(super) fn at_rest(lumps: LumpedNodes<RUNS>, values: usize, nodes: usize) -> Self {
        let field = || vec![R::zero(); values];
        let each = || vec![[0.0; RUNS]; nodes];
        Self {
            now: field(),
            enthalpy: each(),
            lumps,
            start: field(),
            first: field(),
            other: field(),
            node_start: each(),
            node_first: each(),
            node_other: each(),
        }
    }

    /// The first stage of a step.
    pub(super) fn first_stage(&mut self, c: &Coefficients<R, RUNS>, w: Weights) {
        self.start.copy_from_slice(&self.now);
        self.other.copy_from_slice(&self.now);
        self.node_start.copy_from_slice(&self.enthalpy);
        self.node_other.copy_from_slice(&self.enthalpy);
        R::first_rates(c, &self.start, &mut self.first);
        R::node_rates(&mut self.lumps, &self.enthalpy, &self.now);
        self.node_first.copy_from_slice(&self.lumps.rate);
        R::take_from(&self.lumps, &self.now, (&mut self.first, 1.0));
        let tau = R::from_f64(w.rate);
        for (y, l) in self.now.iter_mut().zip(&self.first) {
            *y = *y + tau * *l;
        }
        for (h, l) in self.enthalpy.iter_mut().zip(&self.node_first) {
            for run in 0..RUNS {
                h[run] += w.rate * l[run];
            }
        }
    }

    /// A later one.
    pub(super) fn later_stage(&mut self, c: &Coefficients<R, RUNS>, w: Weights) {
        R::node_rates(&mut self.lumps, &self.enthalpy, &self.now);
        let earlier = Earlier { now: &self.now, start: &self.start, first: &self.first };
        R::next_field(c, w, earlier, &mut self.other);
        R::take_from(&self.lumps, &self.now, (&mut self.other, w.rate));
        for k in 0..self.enthalpy.len() {
            let (h, start) = (&self.enthalpy[k], &self.node_start[k]);
            let (first, rate) = (&self.node_first[k], &self.lumps.rate[k]);
            let next = &mut self.node_other[k];
            for run in 0..RUNS {
                next[run] = w.now * h[run]
                    + w.before * next[run]
                    + w.start * start[run]
                    + w.rate * rate[run]
                    + w.first * first[run];
            }
        }
        std::mem::swap(&mut self.now, &mut self.other);
        std::mem::swap(&mut self.enthalpy, &mut self.node_other);
    }
}

/// So many runs fill a vector of the processors at hand.
pub const BATCH: usize = 8;

/// The loops for one number and one size of batch. They are compiled each for itself: inlined into one function the sweeps lost
/// a quarter of their speed to pointers that might alias.
macro_rules! compiled {
    ($name:ident, $real:ty, $runs:expr) => {
        mod $name {
            #![allow(unsafe_code)]
            use super::{Coefficients, Earlier, LumpedNodes, OfRuns, Sweep, Weights, field};
            use multiversion::multiversion;
            use multiversion::target::target_cfg_f;

            #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
            fn first_rates(c: &Coefficients<$real, $runs>, start: &[$real], first: &mut [$real]) {
                const FUSED: bool = target_cfg_f!(any(target_feature = "fma", target_arch = "aarch64"));
                field::first_rates::<_, _, FUSED>(c, start, first);
            }

            #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
            fn next_field(c: &Coefficients<$real, $runs>, w: Weights, earlier: Earlier<'_, $real>, next: &mut [$real]) {
                const FUSED: bool = target_cfg_f!(any(target_feature = "fma", target_arch = "aarch64"));
                field::next_field::<_, _, FUSED>(c, w, earlier, next);
            }

            #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
            fn node_rates(lumps: &mut LumpedNodes<$runs>, enthalpy: &[OfRuns<$runs>], now: &[$real]) {
                lumps.find_rates(enthalpy, now);
            }

            #[multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
            fn take_from(lumps: &LumpedNodes<$runs>, now: &[$real], cells: &mut [$real], seconds: f64) {
                lumps.take_from(now, cells, seconds);
            }

            impl Sweep<$runs> for $real {
                fn first_rates(c: &Coefficients<Self, $runs>, start: &[Self], first: &mut [Self]) {
                    first_rates(c, start, first);
                }
                fn next_field(
                    c: &Coefficients<Self, $runs>,
                    w: Weights,
                    earlier: Earlier<'_, Self>,
                    next: &mut [Self],
                ) {
                    next_field(c, w, earlier, next);
                }
                fn node_rates(lumps: &mut LumpedNodes<$runs>, enthalpy: &[OfRuns<$runs>], now: &[Self]) {
                    node_rates(lumps, enthalpy, now);
                }
                fn take_from(lumps: &LumpedNodes<$runs>, now: &[Self], cells: (&mut [Self], f64)) {
                    take_from(lumps, now, cells.0, cells.1);
                }
            }
        }
    };
}

compiled!(one_run, f32, 1);
compiled!(a_batch, f32, { super::BATCH });
compiled!(one_run_wide, f64, 1);
