//! The stack-up: from copper layers to the conductivities and capacity of the laminate that the heat run sees.

use super::crowding::Crowding;
use super::stiffener::Stiffener;
use crate::units::Length;

/// Copper, W/mK (textbook, annealed foil a little below pure 400).
const COPPER_CONDUCTIVITY: f64 = 390.0;
/// Glass-epoxy through and in plane, W/mK (material data, 0.25-0.45; in plane up to 0.9 real).
const LAMINATE_CONDUCTIVITY: f64 = 0.35;
/// Copper, J/m³K (textbook).
const COPPER_CAPACITY: f64 = 3.45e6;
/// Laminate, J/m³K (material data, +-10 %; rises about 25 % from 25 to 200 °C).
const LAMINATE_CAPACITY: f64 = 2.15e6;
/// Laminate with its mask, g/cm³ (D, 1.8-1.95).
const LAMINATE_DENSITY: f64 = 1.85;
/// Copper, g/cm³ (T).
const COPPER_DENSITY: f64 = 8.96;
/// Share of a signal layer's copper that conducts across the board (engineering estimate, 0.2-0.6).
const SIGNAL_LAYER_SHARE: f64 = 0.45;
/// Barrel copper of a 0.3 mm hole with 25 µm plating, mm².
const BARREL_COPPER: f64 = 0.0236;

/// Layers of one kind: how many are planes, how many carry signals, and how much of each is copper.
#[derive(Debug, Clone, PartialEq)]
pub struct StackUp {
    /// Finished thickness.
    pub thickness: Length,
    /// Copper layers in all.
    pub layers: u32,
    /// How many of them are planes.
    pub planes: u32,
    /// Foil thickness, µm (35 is 1 oz/ft²).
    pub foil_um: f64,
    /// Copper share of a plane, 0-1.
    pub plane_coverage: f64,
    /// Copper share of a signal layer, 0-1.
    pub signal_coverage: f64,
    /// Plated holes per mm² near the port, where known (dense boards 0.1-0.3).
    pub vias_per_mm2: Option<f64>,
    /// Logarithmic spread of the conductivity in plane, where it was judged by `stack_guess`.
    pub spread: Option<f64>,
    /// How crowded it is with small parts that nobody describes.
    pub crowding: Crowding,
    /// What is glued on it under the part.
    pub stiffener: Option<Stiffener>,
}

/// Logarithmic spread of the in-plane conductivity where nothing more is known: nobody counts layers (prior of heating.md
/// section 6).
const USUAL_SPREAD: f64 = 0.30;

impl StackUp {
    /// What a board of this thickness usually is, before anybody has looked closer: six layers with two planes (E).
    pub fn usual(thickness: Length) -> Self {
        let (foil_um, plane_coverage, signal_coverage) = (35.0, 0.8, 0.3);
        Self {
            thickness,
            layers: 6,
            planes: 2,
            foil_um,
            plane_coverage,
            signal_coverage,
            vias_per_mm2: None,
            spread: None,
            crowding: Crowding::Usual,
            stiffener: None,
        }
    }

    /// Logarithmic spread of the in-plane conductivity.
    pub fn conduction_spread(&self) -> f64 {
        self.spread.unwrap_or(USUAL_SPREAD)
    }

    /// Weight of the bare board per area, g/mm²: laminate 1.85 g/cm³ (D, 1.8-1.95), copper 8.96 (T).
    pub fn weight(&self) -> f64 {
        let copper = self.copper_share();
        self.thickness.in_mm() * 1e-3 * (LAMINATE_DENSITY * (1.0 - copper) + COPPER_DENSITY * copper)
    }

    /// Copper's share of the volume, 0-1.
    pub fn copper_share(&self) -> f64 {
        let foil = self.foil_um * 1e-3;
        let signal_layers = f64::from(self.layers.saturating_sub(self.planes));
        let copper = f64::from(self.planes) * foil * self.plane_coverage + signal_layers * foil * self.signal_coverage;
        (copper / self.thickness.in_mm()).min(0.9)
    }

    /// Conductivity in the plane, W/mK. A plane with holes conducts as cov/(2-cov) of a whole one (Maxwell, two
    /// dimensions); a signal layer as 0.45 of its cover.
    pub fn in_plane(&self) -> f64 {
        let foil = self.foil_um * 1e-3;
        let plane = self.plane_coverage / (2.0 - self.plane_coverage);
        let signal = SIGNAL_LAYER_SHARE * self.signal_coverage;
        let signal_layers = f64::from(self.layers.saturating_sub(self.planes));
        let equivalent = foil * (f64::from(self.planes) * plane + signal_layers * signal);
        COPPER_CONDUCTIVITY * equivalent / self.thickness.in_mm() + LAMINATE_CONDUCTIVITY * (1.0 - self.copper_share())
    }

    /// Conductivity through the board, W/mK. Where holes are not known, 1.0 (known practice 0.8-1.5).
    pub fn through(&self) -> f64 {
        match self.vias_per_mm2 {
            Some(density) => {
                LAMINATE_CONDUCTIVITY / (1.0 - self.copper_share()) + COPPER_CONDUCTIVITY * density * BARREL_COPPER
            }
            None => 1.0,
        }
    }

    /// Heat capacity, J/m³K.
    pub fn capacity(&self) -> f64 {
        let copper = self.copper_share();
        copper * COPPER_CAPACITY + (1.0 - copper) * LAMINATE_CAPACITY
    }

    /// Is it one of the dense boards on which the model is known to run fast (heating.md: 0.6-0.8 of what is seen)?
    pub fn is_dense(&self) -> bool {
        self.layers >= 10
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn six_layers() -> StackUp {
        StackUp::usual(Length::mm(1.6))
    }

    #[test]
    fn planes_carry_the_heat_across() {
        // By hand: foil 0.035 x (2 x 0.8/1.2 + 4 x 0.45 x 0.3) / 1.6 x 390 = 15.98, plus the laminate.
        let stack = six_layers();
        assert!((stack.in_plane() - 16.31).abs() < 0.05, "{}", stack.in_plane());
        let doubled = StackUp { foil_um: 70.0, ..stack.clone() };
        assert!(doubled.in_plane() > 1.9 * stack.in_plane());
    }

    #[test]
    fn holes_carry_it_through() {
        // 0.2 holes/mm² is 390 x 0.2 x 0.0236 = 1.84 W/mK above the laminate.
        let stack = StackUp { vias_per_mm2: Some(0.2), ..six_layers() };
        assert!((stack.through() - (1.84 + 0.35 / (1.0 - stack.copper_share()))).abs() < 0.01);
        assert_eq!(six_layers().through(), 1.0);
    }
}
