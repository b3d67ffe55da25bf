//! The liquid and the seven solid solutions, by name.

use crate::materials::Element;

/// A phase of varying composition.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Phase {
    Liquid,
    Bct,
    Fcc,
    Rho,
    Tet,
    Beta,
    Gamma,
    Epsilon,
}

impl Phase {
    pub(super) const SOLIDS: [Self; 7] =
        [Self::Bct, Self::Fcc, Self::Rho, Self::Tet, Self::Beta, Self::Gamma, Self::Epsilon];

    pub(super) const fn name(self) -> &'static str {
        match self {
            Self::Liquid => "liquid",
            Self::Bct => "BCT",
            Self::Fcc => "FCC",
            Self::Rho => "RHO",
            Self::Tet => "TET",
            Self::Beta => "BET",
            Self::Gamma => "GAM",
            Self::Epsilon => "EPS",
        }
    }

    /// What it can hold, the hosts first, each with the share from which a search starts.
    pub(super) const fn start(self) -> &'static [(Element, f64)] {
        use Element::{Ag, Bi, Cu, In, Pb, Sb, Sn, Zn};
        match self {
            Self::Liquid => &[(Sn, 1.0), (Pb, 1.0), (Bi, 1.0), (In, 1.0), (Ag, 1.0), (Cu, 1.0), (Sb, 1.0), (Zn, 1.0)],
            Self::Bct => &[(Sn, 1.0), (Pb, 0.01), (Bi, 0.02), (In, 0.02), (Sb, 0.01), (Zn, 0.005)],
            Self::Fcc => &[(Pb, 1.0), (Sn, 0.05), (Bi, 0.05), (In, 0.1), (Sb, 0.02)],
            Self::Rho => &[(Bi, 1.0), (Sb, 0.3), (Sn, 0.01), (Pb, 0.01)],
            Self::Tet => &[(In, 1.0), (Sn, 0.05), (Pb, 0.05), (Bi, 0.05)],
            Self::Beta => &[(In, 0.7), (Sn, 0.3), (Pb, 0.02), (Bi, 0.02)],
            Self::Gamma => &[(Sn, 0.8), (In, 0.2), (Bi, 0.02), (Pb, 0.02)],
            Self::Epsilon => &[(Pb, 0.7), (Bi, 0.3), (Sn, 0.03), (In, 0.05)],
        }
    }
}
