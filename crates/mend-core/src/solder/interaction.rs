//! The energies that the tables list, as types.

use super::phase_name::Phase;
use crate::materials::Element;

/// Where a parameter is from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Status {
    /// An effective value of this model, fitted to published alloys.
    Fitted,
    /// A published assessment as recalled, never fitted.
    Start,
}

/// A + B T, J/mol and J/(mol K), and where the two are from.
pub(super) struct Energy(pub(super) f64, pub(super) f64, pub(super) Status);

/// One order of the interaction of two elements in a phase.
#[derive(Debug)]
pub(super) struct Pair {
    pub(super) phase: Phase,
    pub(super) of: [Element; 2],
    pub(super) order: usize,
    /// A + B T: J/mol and J/(mol K).
    pub(super) energy: (f64, f64),
    pub(super) status: Status,
}

/// Energy of an element in a lattice that is not its own, A + B T.
#[derive(Debug)]
pub(super) struct Lattice {
    pub(super) phase: Phase,
    pub(super) of: Element,
    pub(super) energy: (f64, f64),
}

/// Interaction of three elements in the liquid, J/mol.
#[derive(Debug)]
pub(super) struct Triple {
    pub(super) of: [Element; 3],
    pub(super) energy: f64,
}

pub(super) const fn pair(phase: Phase, of: [Element; 2], order: usize, Energy(a, b, status): Energy) -> Pair {
    Pair { phase, of, order, energy: (a, b), status }
}

pub(super) const fn lattice(phase: Phase, of: Element, Energy(a, b, _): Energy) -> Lattice {
    Lattice { phase, of, energy: (a, b) }
}

pub(super) const fn triple(of: [Element; 3], energy: f64, _: Status) -> Triple {
    Triple { of, energy }
}
