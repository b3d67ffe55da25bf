//! The elements of one metal, every phase they can form, and how hard each phase wants to form.

use super::compound::Compound;
use super::linear::{N, Vector};
use super::parameters::fusion;
use super::phase::{GAS_CONSTANT, Solution};
use super::phase_name::Phase;
use super::response::Response;
use crate::materials::{Composition, Element};

/// Elements below this are dropped before solving, wt%: they decide nothing and cost convergence.
const TRACE_WT: f64 = 0.005;
/// Shares never fall below this.
const FLOOR: f64 = 1e-14;
/// Largest relative change of a share in one step.
const CLAMP: (f64, f64) = (-0.5, 1.5);
const SEARCH_STEPS: usize = 30;
/// Steps of a search from the start in which the phase is taken for ideal.
const COLD_STEPS: usize = 2;
/// At a step this small the search ends: what the step itself still gains is known to third order, 1e-3 J/mol.
const SEARCH_TOLERANCE: f64 = 5e-3;

/// Phases are numbered: the liquid is 0, then the solid solutions, then the compounds.
pub(super) const LIQUID: usize = 0;

/// The phases of a metal at one temperature. Potentials and energies are over RT.
#[derive(Debug, Clone)]
pub(super) struct System {
    pub(super) present: Vec<Element>,
    pub(super) kelvin: f64,
    solutions: Vec<Solution>,
    compounds: Vec<Compound>,
    /// Where the last search in each solution ended.
    seen: Vec<Vector>,
}

impl System {
    /// The system of a composition, and its mole fractions.
    pub(super) fn from_composition(composition: &Composition) -> (Self, Vector) {
        let present: Vec<Element> =
            Element::ALL.into_iter().filter(|element| composition.wt(*element) > TRACE_WT).collect();
        let mut x = [0.0; N];
        for (k, element) in present.iter().enumerate() {
            x[k] = composition.share(*element) / element.molar_mass();
        }
        let moles: f64 = x.iter().sum();
        let all = std::iter::once(Phase::Liquid).chain(Phase::SOLIDS);
        let solutions: Vec<Solution> = all.filter_map(|phase| Solution::among(phase, &present)).collect();
        let compounds = Compound::among(&present);
        let seen = solutions.iter().map(|s| s.start).collect();
        (Self { present, kelvin: 0.0, solutions, compounds, seen }, x.map(|m| m / moles))
    }

    /// Brings every phase to a temperature, K.
    pub(super) fn set(&mut self, kelvin: f64) {
        let mut melting = [0.0; N];
        for (gf, element) in melting.iter_mut().zip(&self.present) {
            *gf = fusion(*element, kelvin);
        }
        self.kelvin = kelvin;
        self.solutions.iter_mut().for_each(|s| s.set(kelvin, &melting));
        self.compounds.iter_mut().for_each(|c| c.set(kelvin, &melting));
    }

    /// How many phases.
    pub(super) fn len(&self) -> usize {
        self.solutions.len() + self.compounds.len()
    }

    /// A phase as a solution, or as the compound that it is.
    pub(super) fn solution(&self, phase: usize) -> Result<&Solution, &Compound> {
        self.solutions.get(phase).ok_or_else(|| &self.compounds[phase - self.solutions.len()])
    }

    pub(super) fn name(&self, phase: usize) -> &'static str {
        self.solution(phase).map_or_else(|c| c.name, |s| s.phase.name())
    }

    /// Where the last search in a solution ended; nothing of interest for a compound.
    pub(super) fn seen(&self, phase: usize) -> Vector {
        self.seen.get(phase).copied().unwrap_or([0.0; N])
    }

    /// Where the next search in a solution shall start; nothing for a compound.
    pub(super) fn remember(&mut self, phase: usize, y: &Vector) {
        if let Some(seen) = self.seen.get_mut(phase) {
            *seen = *y;
        }
    }

    /// A phase's composition spread over the present elements.
    pub(super) fn spread(&self, phase: usize, y: &Vector) -> Vector {
        match self.solution(phase) {
            Ok(s) => {
                let mut all = [0.0; N];
                (0..s.n).for_each(|k| all[s.place[k]] = y[k]);
                all
            }
            Err(compound) => compound.share,
        }
    }

    /// J/mol in units of RT.
    pub(super) fn joules(&self, energy: f64) -> f64 {
        energy / (GAS_CONSTANT * self.kelvin)
    }

    /// Chemical potentials of the liquid of composition x.
    pub(super) fn liquid_potentials(&self, x: &Vector) -> Vector {
        let (g, slope) = self.solutions[LIQUID].slopes(x);
        let mean: f64 = (0..self.present.len()).map(|k| x[k] * slope[k]).sum();
        slope.map(|s| s + g - mean)
    }

    /// Driving force of a phase: the largest `sum y mu - G(y)` over its compositions.
    pub(super) fn drive(&mut self, phase: usize, mu: &Vector) -> f64 {
        let known = self.solutions.len();
        let Some(solution) = self.solutions.get(phase) else {
            let compound = &self.compounds[phase - known];
            return compound.share.iter().zip(mu).map(|(share, mu)| share * mu).sum::<f64>() - compound.g;
        };
        let warm = solution.is_own(&self.seen[phase]);
        let mut y = if warm { self.seen[phase] } else { solution.start };
        let mut drive = f64::NEG_INFINITY;
        for step in 0..SEARCH_STEPS {
            let (g, slope) = solution.slopes(&y);
            let pull = solution.pull(mu, &slope);
            let cold = !warm && step < COLD_STEPS;
            let response = if cold { Response::ideal(solution.n, &y) } else { Response::from_solution(solution, &y) };
            let change = response.to(&pull);
            // sum y mu - g, and half of the pull times the way it goes.
            drive = (0..solution.n).map(|k| y[k] * (pull[k] + slope[k]) + 0.5 * pull[k] * change[k]).sum::<f64>() - g;
            if moved(&mut y, &change, solution.n) < SEARCH_TOLERANCE {
                break;
            }
        }
        self.seen[phase] = y;
        drive
    }
}

/// Moves shares by `change`, clamped and scaled to sum to one; answers the largest relative change.
pub(super) fn moved(y: &mut Vector, change: &Vector, n: usize) -> f64 {
    let mut largest = 0.0_f64;
    for k in 0..n {
        let relative = (change[k] / y[k]).clamp(CLAMP.0, CLAMP.1);
        if y[k] > 1e-10 {
            largest = largest.max(relative.abs());
        }
        y[k] = (y[k] * (1.0 + relative)).max(FLOOR);
    }
    let sum: f64 = y[..n].iter().sum();
    y[..n].iter_mut().for_each(|share| *share /= sum);
    largest
}
