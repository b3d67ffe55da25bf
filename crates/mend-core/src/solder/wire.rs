//! Solder wire: mass against length.

use std::f64::consts::FRAC_PI_4;

use serde::{Deserialize, Serialize};

use crate::finding::Finding;
use crate::finding::problem::ValueProblem;
use crate::materials::Composition;
use crate::units::Unit;

/// Density of rosin flux, g/cm³ (E, 1.05-1.1).
const FLUX_DENSITY: f64 = 1.08;

/// A wire.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Wire {
    /// Diameter, mm.
    #[serde(rename = "wire_mm")]
    pub diameter_mm: f64,
    /// Mass share of its flux core, 0-0.1; 0 is solid. Usual cores are 0.01-0.035.
    pub flux_share: f64,
}

impl Wire {
    /// What most benches have: 0.5 mm with 2 % of flux.
    pub const USUAL: Self = Self { diameter_mm: 0.5, flux_share: 0.02 };

    /// Objections to a wire that can't be.
    pub fn check(&self) -> Vec<Finding> {
        let mut found = Vec::new();
        let mut within = |place: &str, value: f64, range: (f64, f64), unit: Unit| {
            let outside = ValueProblem::outside(value, range, unit);
            found.extend(outside.map(|problem| Finding::blocking("wire", place, problem)));
        };
        within("wire_mm", self.diameter_mm, (0.1, 6.0), Unit::Millimetres);
        within("flux_share", self.flux_share, (0.0, 0.1), Unit::One);
        found
    }

    /// Alloy in a millimetre of it, mg: `rho_wire pi/4 d² (1 - p)` with `1/rho_wire = (1 - p)/rho + p/rho_flux`.
    pub fn mg_per_mm(&self, alloy: &Composition) -> f64 {
        let p = self.flux_share;
        let wire = 1.0 / ((1.0 - p) / alloy.density() + p / FLUX_DENSITY);
        wire * FRAC_PI_4 * self.diameter_mm * self.diameter_mm * (1.0 - p)
    }

    /// Length that holds a mass of alloy, mm.
    pub fn length_of(&self, alloy: &Composition, mass_mg: f64) -> f64 {
        mass_mg / self.mg_per_mm(alloy)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::Alloy;

    #[test]
    fn solid_wire_weighs_what_the_books_say() {
        let sac305 = Alloy::named("SAC305").expect("in the table").composition();
        for (diameter_mm, mg_per_mm) in [(0.5, 1.45), (0.8, 3.71), (1.0, 5.80)] {
            let wire = Wire { diameter_mm, flux_share: 0.0 };
            assert!((wire.mg_per_mm(&sac305) - mg_per_mm).abs() < 0.02, "{diameter_mm}: {}", wire.mg_per_mm(&sac305));
            let cored = Wire { diameter_mm, flux_share: 0.03 };
            assert!(cored.length_of(&sac305, 10.0) > wire.length_of(&sac305, 10.0));
        }
        assert_eq!(Wire { diameter_mm: 1e300, flux_share: 0.5 }.check().len(), 2);
    }
}
