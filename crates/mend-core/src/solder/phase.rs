//! The liquid and the seven solid solutions: Gibbs energy, its slopes and its curvature.
//!
//! `G = sum y g + RT sum y ln y + sum_pairs ya yb sum_k L_k (ya - yb)^k + sum_triples ya yb yc L`, each end member g
//! relative to the pure liquid: `g = lattice - Gf(T)`. Everything here is over RT.

use super::interaction::Pair;
use super::linear::{Matrix, N, Vector};
use super::parameters;
use super::phase_name::Phase;
use crate::materials::Element;

/// Gas constant, J/(mol K) (exact by definition, SI).
pub(super) const GAS_CONSTANT: f64 = 8.314_462_618;

/// An interaction between two components, places in the phase.
#[derive(Debug, Clone)]
struct Interaction {
    a: usize,
    b: usize,
    /// A and B of the orders 0 to 2, J/mol and J/(mol K).
    terms: [(f64, f64); 3],
    /// At the present temperature, over RT.
    now: [f64; 3],
}

/// A phase among the elements that are present, at one temperature.
#[derive(Debug, Clone)]
pub(super) struct Solution {
    pub(super) phase: Phase,
    /// How many of the present elements it holds.
    pub(super) n: usize,
    /// For each component, its place among the present elements.
    pub(super) place: [usize; N],
    /// Host-rich composition to start a search from.
    pub(super) start: Vector,
    elements: [Element; N],
    /// A and B of each component's lattice, J/mol and J/(mol K).
    lattices: [(f64, f64); N],
    ends: Vector,
    interactions: Vec<Interaction>,
    triples: Vec<([usize; 3], f64, f64)>,
}

impl Solution {
    /// The phase among `present`; none if it holds none of them.
    pub(super) fn among(phase: Phase, present: &[Element]) -> Option<Self> {
        let mut made = Self {
            phase,
            n: 0,
            place: [0; N],
            start: [0.0; N],
            elements: [Element::Sn; N],
            lattices: [(0.0, 0.0); N],
            ends: [0.0; N],
            interactions: Vec::new(),
            triples: Vec::new(),
        };
        for (element, share) in phase.start() {
            if let Some(place) = present.iter().position(|p| p == element) {
                made.place[made.n] = place;
                made.start[made.n] = *share;
                made.elements[made.n] = *element;
                made.lattices[made.n] = parameters::lattice_energy(phase, *element);
                made.n += 1;
            }
        }
        let total: f64 = made.start.iter().sum();
        made.start = made.start.map(|share| share / total);
        parameters::pairs(phase).for_each(|pair| made.add_pair(pair));
        if phase == Phase::Liquid {
            made.add_triples();
        }
        (made.n > 0).then_some(made)
    }

    fn component(&self, element: Element) -> Option<usize> {
        self.elements[..self.n].iter().position(|own| *own == element)
    }

    fn add_pair(&mut self, pair: &Pair) {
        let (Some(a), Some(b)) = (self.component(pair.of[0]), self.component(pair.of[1])) else { return };
        let known = self.interactions.iter().position(|i| (i.a, i.b) == (a, b));
        let at = known.unwrap_or_else(|| {
            self.interactions.push(Interaction { a, b, terms: [(0.0, 0.0); 3], now: [0.0; 3] });
            self.interactions.len() - 1
        });
        self.interactions[at].terms[pair.order] = pair.energy;
    }

    fn add_triples(&mut self) {
        for triple in parameters::triples() {
            let places: Vec<usize> = triple.of.iter().filter_map(|e| self.component(*e)).collect();
            if let [a, b, c] = places[..] {
                self.triples.push(([a, b, c], triple.energy, 0.0));
            }
        }
    }

    /// Brings it to a temperature, K, at which the present elements melt with `fusion`, J/mol.
    pub(super) fn set(&mut self, kelvin: f64, fusion: &Vector) {
        let rt = GAS_CONSTANT * kelvin;
        if self.phase != Phase::Liquid {
            for k in 0..self.n {
                let (a, b) = self.lattices[k];
                self.ends[k] = (a + b * kelvin - fusion[self.place[k]]) / rt;
            }
        }
        for i in &mut self.interactions {
            i.now = i.terms.map(|(a, b)| (a + b * kelvin) / rt);
        }
        for (_, energy, now) in &mut self.triples {
            *now = *energy / rt;
        }
    }

    /// Gibbs energy and its slope by each component, over RT.
    pub(super) fn slopes(&self, y: &Vector) -> (f64, Vector) {
        let (mut g, mut slope) = (0.0, [0.0; N]);
        for k in 0..self.n {
            let ln = y[k].ln();
            g += y[k] * (self.ends[k] + ln);
            slope[k] = self.ends[k] + ln + 1.0;
        }
        for i in &self.interactions {
            let (ya, yb) = (y[i.a], y[i.b]);
            let (s, d) = (ya * yb, ya - yb);
            let f = i.now[0] + d * (i.now[1] + d * i.now[2]);
            let rise = i.now[1] + 2.0 * d * i.now[2];
            g += s * f;
            slope[i.a] += yb * f + s * rise;
            slope[i.b] += ya * f - s * rise;
        }
        for ([a, b, c], _, l) in &self.triples {
            g += y[*a] * y[*b] * y[*c] * l;
            slope[*a] += y[*b] * y[*c] * l;
            slope[*b] += y[*a] * y[*c] * l;
            slope[*c] += y[*a] * y[*b] * l;
        }
        (g, slope)
    }

    /// What potentials of the present elements pull with on each component: `mu - slope`.
    pub(super) fn pull(&self, mu: &Vector, slope: &Vector) -> Vector {
        let mut pull = [0.0; N];
        (0..self.n).for_each(|k| pull[k] = mu[self.place[k]] - slope[k]);
        pull
    }

    /// Is the search still in this phase's own valley: do its hosts make up more than 0.3?
    pub(super) fn is_own(&self, y: &Vector) -> bool {
        let hosts = (0..self.n).filter(|k| self.start[*k] >= 0.25);
        self.phase == Phase::Liquid || hosts.map(|k| y[k]).sum::<f64>() > 0.3
    }

    /// Second slopes of the excess energy, over RT.
    pub(super) fn excess_curvature(&self, y: &Vector) -> Matrix {
        let mut h = [[0.0; N]; N];
        for i in &self.interactions {
            let (ya, yb) = (y[i.a], y[i.b]);
            let (s, d) = (ya * yb, ya - yb);
            let f = i.now[0] + d * (i.now[1] + d * i.now[2]);
            let (rise, bend) = (i.now[1] + 2.0 * d * i.now[2], 2.0 * i.now[2]);
            h[i.a][i.a] += 2.0 * yb * rise + s * bend;
            h[i.b][i.b] += -2.0 * ya * rise + s * bend;
            let mixed = f + d * rise - s * bend;
            h[i.a][i.b] += mixed;
            h[i.b][i.a] += mixed;
        }
        for (places, _, l) in &self.triples {
            for (u, v, w) in [(0, 1, 2), (0, 2, 1), (1, 2, 0)] {
                let (a, b) = (places[u], places[v]);
                h[a][b] += y[places[w]] * l;
                h[b][a] += y[places[w]] * l;
            }
        }
        h
    }
}
