//! Line compounds and the metals that stay pure: fixed composition, `G = A + B T - sum nu Gf(T)` per mole of atoms.

use super::linear::{N, Vector};
use super::phase::GAS_CONSTANT;
use crate::materials::Element::{self, Ag, Bi, Cu, In, Sb, Sn, Zn};

/// A row of the table.
struct Known {
    name: &'static str,
    /// Atoms of each.
    atoms: &'static [(Element, f64)],
    /// A and B relative to the stable solids, J and J/K per mole of atoms.
    energy: (f64, f64),
}

const fn known(name: &'static str, atoms: &'static [(Element, f64)], energy: (f64, f64)) -> Known {
    Known { name, atoms, energy }
}

/// Fitted, but for Bi3In5, Cu11In9, Cu5Zn8, Ag5Zn8 and Cu2Sb: start values that keep the liquid from reaching where it
/// can't be. Not modelled: Cu3Sn (needs less tin than matters here), Ag(In,Sn) zeta, ternary compounds, Ni, Au.
#[rustfmt::skip]
const KNOWN: &[Known] = &[
    known("Ag3Sn", &[(Ag, 3.0), (Sn, 1.0)], (-4621.04, 1.8904)),
    known("Cu6Sn5", &[(Cu, 6.0), (Sn, 5.0)], (-7082.36, 0.3469)),
    known("BiIn", &[(Bi, 1.0), (In, 1.0)], (-1028.09, -3.5095)),
    known("BiIn2", &[(Bi, 1.0), (In, 2.0)], (-1238.14, -2.7720)),
    known("SbSn", &[(Sb, 1.0), (Sn, 1.0)], (-5630.04, 1.9593)),
    known("AgIn2", &[(Ag, 1.0), (In, 2.0)], (-1772.21, 2.0848)),
    known("Bi3In5", &[(Bi, 3.0), (In, 5.0)], (-1400.0, 0.0)),
    known("Ag3Sb", &[(Ag, 3.0), (Sb, 1.0)], (-1923.34, -1.0)),
    known("Ag2In", &[(Ag, 2.0), (In, 1.0)], (4045.20, -12.7712)),
    known("Cu11In9", &[(Cu, 11.0), (In, 9.0)], (-4500.0, 0.0)),
    known("Cu5Zn8", &[(Cu, 5.0), (Zn, 8.0)], (-12000.0, 0.0)),
    known("Ag5Zn8", &[(Ag, 5.0), (Zn, 8.0)], (-7000.0, 0.0)),
    known("Cu2Sb", &[(Cu, 2.0), (Sb, 1.0)], (-5500.0, 0.0)),
    known("InSb", &[(In, 1.0), (Sb, 1.0)], (-6371.82, 0.0930)),
    known("Ag", &[(Ag, 1.0)], (0.0, 0.0)),
    known("Cu", &[(Cu, 1.0)], (0.0, 0.0)),
    known("Zn", &[(Zn, 1.0)], (0.0, 0.0)),
];

/// A compound among the elements that are present, at one temperature.
#[derive(Debug, Clone)]
pub(super) struct Compound {
    pub(super) name: &'static str,
    /// Share of each present element, sum 1.
    pub(super) share: Vector,
    /// Gibbs energy over RT.
    pub(super) g: f64,
    energy: (f64, f64),
}

impl Compound {
    /// All that can form among `present`.
    pub(super) fn among(present: &[Element]) -> Vec<Self> {
        KNOWN.iter().filter_map(|known| Self::from_known(known, present)).collect()
    }

    fn from_known(known: &Known, present: &[Element]) -> Option<Self> {
        let atoms: f64 = known.atoms.iter().map(|(_, count)| count).sum();
        let mut share = [0.0; N];
        for (element, count) in known.atoms {
            share[present.iter().position(|p| p == element)?] = count / atoms;
        }
        Some(Self { name: known.name, share, g: 0.0, energy: known.energy })
    }

    /// Brings it to a temperature, K, at which the present elements melt with `fusion`, J/mol.
    pub(super) fn set(&mut self, kelvin: f64, fusion: &Vector) {
        let fused: f64 = self.share.iter().zip(fusion).map(|(share, gf)| share * gf).sum();
        self.g = (self.energy.0 + self.energy.1 * kelvin - fused) / (GAS_CONSTANT * kelvin);
    }
}
