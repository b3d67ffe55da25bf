//! All runs of an order, and what is read off them.

use rayon::prelude::*;

use super::band::{Band, TimeBand};
use super::binds::binds;
use super::laminate::{laminate, pad_lift};
use super::limits::{Harm, Limit, first_harm, in_time, limits};
use super::margin::{Margin, Standing};
use super::next_move::{MOVES, next_move};
use super::plan::{ENGINE, HeatMap, JointMelt, Order, Plan, SAMPLES, Window};
use super::rows::margins;
use super::rules::{Seen, said};
use super::stop_line::StopLine;
use crate::finding::Finding;
use crate::heat::mesh::{Mesh, Resolution};
use crate::heat::rig::blowing;
use crate::heat::run::{Case, Run, run_until};
use crate::heat::unknowns::Unknowns;
use crate::solder::MeltTarget;
use crate::watch::Cancelled;

/// Is the best single change looked for, where the window is not open?
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Moves {
    /// Looked for.
    Asked,
    /// Left out: who searches all settings needs no single change.
    NotAsked,
}

/// All runs of an order and what is read off them.
pub(super) struct Outcome<'a> {
    pub(super) order: &'a Order<'a>,
    pub(super) case: Case<'a>,
    pub(super) limits: Vec<Limit>,
    /// The nominal run on the plan's own grid.
    pub(super) fine: Run,
    /// The nominal run on the screening grid: the difference corrects the samples.
    pub(super) coarse: Run,
    pub(super) samples: Vec<Run>,
    pub(super) harms: Vec<Option<Harm>>,
    pub(super) stop: StopLine,
}

impl<'a> Outcome<'a> {
    pub(super) fn of(order: &'a Order<'a>, case: Case<'a>) -> Result<Self, Cancelled> {
        let nominal = Unknowns::nominal(&case.board.stack);
        let sampled = Unknowns::samples(SAMPLES, case.station, &case.board.stack);
        let limits = limits(order, &case);
        let harm = |run: &Run| first_harm(&limits, &run.traces);
        // A fine run is the work of about ten coarse ones.
        const FINE_IS: usize = 10;
        case.watch.expect(SAMPLES + 1 + FINE_IS + MOVES);
        // What comes after both release and the first harm is no part of any plan.
        let run = |unknowns: &Unknowns, resolution| {
            let run = run_until(&case, unknowns, resolution, &|run| harm(run).is_some());
            let pieces = if resolution == Resolution::FINE { FINE_IS } else { 1 };
            (0..pieces).for_each(|_| case.watch.one_done());
            run
        };
        let coarse = |unknowns: &Unknowns| run(unknowns, Resolution::COARSE);
        let (fine, (coarse, samples)) = rayon::join(
            || run(&nominal, Resolution::FINE),
            || (coarse(&nominal), sampled.par_iter().map(coarse).collect::<Vec<Run>>()),
        );
        case.watch.wanted()?;
        let harms: Vec<Option<Harm>> = samples.iter().map(harm).collect();
        let stop = StopLine::of(&harms, (fine.last_from, case.recipe.longest.in_seconds()));
        Ok(Self { order, case, limits, fine, coarse, samples, harms, stop })
    }

    /// Fine over coarse release: the screening grid runs a few per cent fast.
    fn time_factor(&self) -> f64 {
        match (self.since(self.fine.release), self.since(self.coarse.release)) {
            (Some(fine), Some(coarse)) if coarse > 0.0 => (fine / coarse).clamp(0.8, 1.25),
            _ => 1.0,
        }
    }

    /// A moment as seconds of the last pass; 0 for one before it.
    fn since(&self, at: Option<f64>) -> Option<f64> {
        at.map(|t| (t - self.fine.last_from).max(0.0))
    }

    /// A figure of every run as a band, moved by what the fine grid says about the coarse one.
    pub(super) fn band(&self, figure: impl Fn(&Run) -> Option<f64>) -> Option<Band> {
        let values: Vec<f64> = self.samples.iter().filter_map(&figure).collect();
        let shift = match (figure(&self.fine), figure(&self.coarse)) {
            (Some(fine), Some(coarse)) => fine - coarse,
            _ => 0.0,
        };
        Band::of(&values).map(|band| band.shifted(shift))
    }

    /// The same for a time that can't be negative.
    pub(super) fn time_band(&self, figure: impl Fn(&Run) -> Option<f64>) -> Option<Band> {
        let band = self.band(figure)?;
        Some(Band { low: band.low.max(0.0), mid: band.mid.max(0.0), high: band.high.max(0.0) })
    }

    /// The second at which all goes off in a run: at release, at the stop line at the latest.
    pub(super) fn off(&self, run: &Run) -> usize {
        let stop = run.last_from + self.stop.at_s;
        run.release.filter(|t| *t <= stop).unwrap_or(stop).ceil() as usize
    }

    /// Highest of a curve until all goes off, then `after` it if the part was released.
    pub(super) fn highest(&self, run: &Run, curve: &[f32], after: Option<f32>) -> f64 {
        let released = run.release.filter(|t| *t <= run.last_from + self.stop.at_s);
        let heated = curve.iter().take(self.off(run) + 1).copied().fold(f32::MIN, f32::max);
        f64::from(released.and(after).map_or(heated, |after| after.max(heated)))
    }

    fn chance(&self) -> f64 {
        let works = self.samples.iter().zip(&self.harms).filter(|(run, harm)| in_time(run, harm.as_ref()));
        works.count() as f64 / self.samples.len() as f64
    }

    fn joints(&self) -> Vec<JointMelt> {
        let names = self.case.board.connector.joints.iter().enumerate();
        names
            .map(|(k, joint)| {
                let times: Vec<Option<f64>> = self.samples.iter().map(|run| self.since(run.melted[k])).collect();
                JointMelt { joint: joint.name.clone(), melts: TimeBand::of(&times, self.time_factor()) }
            })
            .collect()
    }

    fn map(&self) -> HeatMap {
        let mesh = Mesh::of(self.case.board, Resolution::FINE, 1.0);
        let [top_c, bottom_c] = [0, 1].map(|face| {
            let cells = self.fine.faces[face].iter().zip(&mesh.inside);
            cells.map(|(t, inside)| inside.then(|| (t * 10.0).round() / 10.0)).collect()
        });
        HeatMap { x_mm: mesh.x.borders().to_vec(), y_mm: mesh.y.borders().to_vec(), top_c, bottom_c }
    }

    /// What the rules have to say of the runs.
    fn findings(&self) -> Vec<Finding> {
        let board = self.case.board;
        let nominal = Unknowns::nominal(&board.stack);
        let air = self.case.recipe.air.map(|air| blowing(&self.case, &air, &nominal));
        let factory = MeltTarget::of(&self.order.charge.factory).map_or(f64::INFINITY, |t| t.melted.in_celsius());
        let off = self.off(&self.fine);
        said(&Seen { order: self.order, air: air.as_ref(), fine: &self.fine, off, factory_melts_c: factory })
    }

    pub(super) fn into_plan(self, mut findings: Vec<Finding>, moves: Moves) -> Result<Plan, Cancelled> {
        let Order { charge, recipe, .. } = *self.order;
        let releases: Vec<Option<f64>> = self.samples.iter().map(|run| self.since(run.release)).collect();
        let (margins, chance) = (margins(&self), self.chance());
        let window = window(&margins, chance);
        findings.extend(self.findings());
        let next_move = match window {
            Window::Open => None,
            _ if moves == Moves::NotAsked => None,
            _ => next_move(&self),
        };
        self.case.watch.wanted()?;
        Ok(Plan {
            engine: ENGINE,
            recipe: recipe.clone(),
            alloy: charge.factory.name.clone(),
            fed: charge.fed().map(|feed| feed.metal.name.clone()),
            melts_at_c: self.case.melting.iter().map(|t| t.melted.in_celsius()).fold(f64::MIN, f64::max),
            samples: SAMPLES,
            window,
            chance,
            binds: binds(&self, &margins),
            release: TimeBand::of(&releases, self.time_factor()),
            hold_s: self.band(|run| run.cooling.as_ref()?.hold),
            warm_s: self.band(|run| run.cooling.as_ref().map(|c| c.warm)),
            laminate: laminate(&self),
            pad_lift: pad_lift(&self),
            next_move,
            joints: self.joints(),
            map: self.map(),
            stop: self.stop,
            margins,
            findings,
        })
    }
}

fn window(margins: &[Margin], chance: f64) -> Window {
    let past = margins.iter().any(|m| !m.expendable && m.standing == Standing::Past);
    match chance {
        c if c >= 0.9 && !past => Window::Open,
        c if c >= 0.5 => Window::Tight,
        _ => Window::Closed,
    }
}
