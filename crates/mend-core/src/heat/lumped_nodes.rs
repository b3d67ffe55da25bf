//! The lumps as the stepping wants them: constants of all runs of a batch beside each other, temperatures and rates in plain loops
//! over the runs. Loops, not closures: see [`super::field`].

// Plain index loops become vectors; iterators and closures here did not.
#![allow(clippy::needless_range_loop)]

use super::nodes::{CellLink, Node, NodeLink, Nodes};
use super::real::Real;

/// A figure of each run.
pub(super) type OfRuns<const RUNS: usize> = [f64; RUNS];

/// Constants of one lump. Its temperature is piecewise linear in its enthalpy.
#[derive(Debug, Clone)]
struct Lump<const RUNS: usize> {
    /// One over its capacity, K/J; 1 for a held lump, whose state is its temperature.
    per_joule: OfRuns<RUNS>,
    /// Enthalpy from which it melts, J; infinite where it does not.
    melts_from: OfRuns<RUNS>,
    /// Enthalpy that melting takes until it lets go, and from there on, J.
    melting: [OfRuns<RUNS>; 2],
    /// Rise meanwhile, K/J.
    while_melting: [OfRuns<RUNS>; 2],
    /// The most that its heater gives, W.
    most_w: f64,
    /// Held at its temperature.
    held: bool,
}

/// A lump's link into a cell, resolved.
#[derive(Debug, Clone)]
struct CellContact<const RUNS: usize> {
    node: usize,
    /// Index of the first run's value.
    cell: usize,
    conductance: f64,
    /// One over the cell's heat capacity, K/J.
    per_joule: OfRuns<RUNS>,
}

/// Where a lump's links go: the index of a cell's first value, and one over its heat capacity in each run.
pub(super) type CellPlace<const RUNS: usize> = (usize, OfRuns<RUNS>);

/// All lumps of all runs.
#[derive(Debug, Clone)]
pub struct LumpedNodes<const RUNS: usize> {
    lumps: Vec<Lump<RUNS>>,
    joined: Vec<NodeLink>,
    contacts: Vec<CellContact<RUNS>>,
    loss: Vec<OfRuns<RUNS>>,
    gain: Vec<OfRuns<RUNS>>,
    temperature: Vec<OfRuns<RUNS>>,
    pub(super) rate: Vec<OfRuns<RUNS>>,
}

impl<const RUNS: usize> Lump<RUNS> {
    fn from_nodes(of: [&Node; RUNS]) -> Self {
        let held = of[0].capacity.is_infinite();
        // Enthalpy that a part of the melting takes, and its rise per joule: up to where it lets go, or from there.
        let part = |node: &Node, second: bool| {
            let Some(m) = node.melting else { return (0.0, 0.0) };
            let (span, rise) = match second {
                false => (node.free_from() - node.solid_to(), m.lets_go.0 - m.solidus),
                true => (node.liquid_from() - node.free_from(), m.liquidus - m.lets_go.0),
            };
            (span.max(0.0), if span > 0.0 { rise / span } else { 0.0 })
        };
        Self {
            per_joule: of.map(|node| if held { 1.0 } else { 1.0 / node.capacity }),
            melts_from: of.map(Node::solid_to),
            melting: [false, true].map(|second| of.map(|node| part(node, second).0)),
            while_melting: [false, true].map(|second| of.map(|node| part(node, second).1)),
            most_w: of[0].most_w,
            held,
        }
    }
}

#[inline(always)]
fn least(a: f64, b: f64) -> f64 {
    if a < b { a } else { b }
}

#[inline(always)]
fn most(a: f64, b: f64) -> f64 {
    if a > b { a } else { b }
}

impl<const RUNS: usize> LumpedNodes<RUNS> {
    /// The lumps of runs that differ in figures, not in what is joined to what; `place` says where a link of a run goes.
    pub(super) fn new(of: &[Nodes; RUNS], place: impl Fn(&CellLink) -> CellPlace<RUNS>) -> Self {
        let count = of[0].nodes.len();
        let contact = |link| {
            let &CellLink { node, conductance, .. } = link;
            let (cell, per_joule) = place(link);
            CellContact { node, cell, conductance, per_joule }
        };
        let none = || vec![[0.0; RUNS]; count];
        Self {
            lumps: (0..count).map(|k| Lump::from_nodes(std::array::from_fn(|run| &of[run].nodes[k]))).collect(),
            joined: of[0].links.clone(),
            contacts: of[0].cells.iter().map(contact).collect(),
            loss: none(),
            gain: none(),
            temperature: none(),
            rate: none(),
        }
    }

    /// What the air does to a run's lumps.
    pub(super) fn set_air(&mut self, run: usize, air: &[(f64, f64)]) {
        for (k, (loss, gain)) in air.iter().enumerate() {
            self.loss[k][run] = *loss;
            self.gain[k][run] = *gain;
        }
    }

    /// What is joined from now on: with the links of the tips at work.
    pub(super) fn join(&mut self, of: &Nodes, tips: &[usize]) {
        self.joined.clear();
        self.joined.extend(of.joined(tips));
    }

    /// Gershgorin's bounds of a run, 1/s: what links add to each cell, by index, and the fastest lump.
    pub(super) fn fastest(&self, run: usize, of: &Nodes, into_cells: &mut [f64]) -> f64 {
        let mut into: Vec<f64> = self.loss.iter().map(|loss| loss[run]).collect();
        for contact in &self.contacts {
            into_cells[contact.cell / RUNS] += 2.0 * contact.conductance * contact.per_joule[run];
            into[contact.node] += 2.0 * contact.conductance;
        }
        for link in &self.joined {
            into[link.a] += 2.0 * link.conductance;
            into[link.b] += 2.0 * link.conductance;
        }
        of.nodes.iter().zip(&into).map(|(node, g)| g / node.capacity).fold(0.0, f64::max)
    }

    /// Temperatures and rates of all lumps at a state. Held ones stay.
    #[inline(always)]
    pub(super) fn find_rates<R: Real>(&mut self, enthalpy: &[OfRuns<RUNS>], now: &[R]) {
        for k in 0..self.lumps.len() {
            let (lump, h) = (&self.lumps[k], &enthalpy[k]);
            let (loss, gain) = (&self.loss[k], &self.gain[k]);
            let (mut t, mut rate) = ([0.0; RUNS], [0.0; RUNS]);
            for run in 0..RUNS {
                let above = h[run] - lump.melts_from[run];
                let [mush, rest] = [lump.melting[0][run], lump.melting[1][run]];
                let (first, second) = (least(most(above, 0.0), mush), least(most(above - mush, 0.0), rest));
                let sensible = least(h[run], lump.melts_from[run]) + most(above - mush - rest, 0.0);
                let melted = first * lump.while_melting[0][run] + second * lump.while_melting[1][run];
                t[run] = sensible * lump.per_joule[run] + melted;
                rate[run] = least(gain[run] - loss[run] * t[run], lump.most_w);
            }
            self.temperature[k] = t;
            self.rate[k] = rate;
        }
        for link in &self.joined {
            let (a, b) = (&self.temperature[link.a], &self.temperature[link.b]);
            let mut flow = [0.0; RUNS];
            for run in 0..RUNS {
                flow[run] = link.conductance * (a[run] - b[run]);
            }
            for run in 0..RUNS {
                self.rate[link.a][run] -= flow[run];
            }
            for run in 0..RUNS {
                self.rate[link.b][run] += flow[run];
            }
        }
        for contact in &self.contacts {
            let flow = self.flow(contact, now);
            for run in 0..RUNS {
                self.rate[contact.node][run] += flow[run];
            }
        }
        for (lump, rate) in self.lumps.iter().zip(&mut self.rate) {
            if lump.held {
                *rate = [0.0; RUNS];
            }
        }
    }

    /// Heat flow through a contact into the lump, W, at the temperatures of the last [`Self::find_rates`].
    #[inline(always)]
    fn flow<R: Real>(&self, contact: &CellContact<RUNS>, now: &[R]) -> OfRuns<RUNS> {
        let mut cell = [R::zero(); RUNS];
        cell.copy_from_slice(&now[contact.cell..contact.cell + RUNS]);
        let node = &self.temperature[contact.node];
        let mut flow = [0.0; RUNS];
        for run in 0..RUNS {
            flow[run] = contact.conductance * (cell[run].wide() - node[run]);
        }
        flow
    }

    /// Takes from the cells what flows into the lumps: `cells` loses it for `seconds`.
    #[inline(always)]
    pub(super) fn take_from<R: Real>(&self, now: &[R], cells: &mut [R], seconds: f64) {
        for contact in &self.contacts {
            let flow = self.flow(contact, now);
            let mut cell = [R::zero(); RUNS];
            let from = &mut cells[contact.cell..contact.cell + RUNS];
            cell.copy_from_slice(from);
            for run in 0..RUNS {
                cell[run] = cell[run] - R::from_f64(flow[run] * contact.per_joule[run] * seconds);
            }
            from.copy_from_slice(&cell);
        }
    }
}
