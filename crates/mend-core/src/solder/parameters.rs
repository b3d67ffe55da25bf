//! The parameters' types, those of the pure elements, and how the phases ask for theirs.

use super::interaction::{Pair, Status, Triple};
use super::phase_name::Phase;
use super::{liquid_table, solid_table};
use crate::materials::Element;

/// `Gf = G_liquid - G_stable_solid` in J/mol: a + bT + cT^7 up to the melting point, its tangent above (SGTE values, each
/// zero at the melting point within 0.5 J; sure).
const FUSION: [(f64, f64, f64, f64); 8] = [
    (7103.092, -14.087767, 1.47031e-18, 505.078),
    (4672.124, -7.750683, -6.019e-19, 600.612),
    (11246.067, -20.636509, -5.9549e-19, 544.55),
    (3282.092, -7.636407, -5.219e-20, 429.75),
    (11025.076, -8.891021, -1.034e-20, 1234.93),
    (12964.735, -9.511904, -5.849e-21, 1357.77),
    (19822.828, -21.923164, -1.74847e-20, 903.78),
    (7157.213, -10.29299, -3.5896e-19, 692.68),
];

/// Energy of fusion of an element at a temperature in K, J/mol.
pub(super) fn fusion(element: Element, kelvin: f64) -> f64 {
    let (a, b, c, melting) = FUSION[element as usize];
    if kelvin <= melting {
        a + b * kelvin + c * kelvin.powi(7)
    } else {
        (b + 7.0 * c * melting.powi(6)) * (kelvin - melting)
    }
}

/// Interactions of two elements in a phase.
pub(super) fn pairs(phase: Phase) -> impl Iterator<Item = &'static Pair> {
    liquid_table::PAIRS.iter().chain(solid_table::PAIRS).filter(move |pair| pair.phase == phase)
}

/// Pairs of these elements whose leading interaction in the liquid was never fitted.
pub(super) fn rest_on_start_values(elements: &[Element]) -> impl Iterator<Item = [Element; 2]> {
    let leading = pairs(Phase::Liquid).filter(|pair| pair.order == 0 && pair.status == Status::Start);
    leading.map(|pair| pair.of).filter(|of| of.iter().all(|e| elements.contains(e)))
}

/// Interactions of three elements in the liquid.
pub(super) fn triples() -> &'static [Triple] {
    liquid_table::TRIPLES
}

/// A and B of an element's lattice energy in a solid phase; zero where it is stable in that lattice.
pub(super) fn lattice_energy(phase: Phase, element: Element) -> (f64, f64) {
    let own = solid_table::LATTICES.iter().find(|l| l.phase == phase && l.of == element);
    own.map_or((0.0, 0.0), |l| l.energy)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_element_melts_at_its_melting_point_with_its_heat() {
        // J/mol, rounded (heat of fusion from the slope: H = G - T dG/dT).
        let heats = [7029.0, 4774.0, 11297.0, 3283.0, 11297.0, 13263.0, 19875.0, 7322.0];
        for (element, heat) in Element::ALL.into_iter().zip(heats) {
            let (_, b, c, melting) = FUSION[element as usize];
            assert!(fusion(element, melting).abs() < 0.5, "{element:?}");
            let computed = -melting * (b + 7.0 * c * melting.powi(6));
            assert!((computed - heat).abs() < 2.0, "{element:?}: {computed}");
        }
    }
}
