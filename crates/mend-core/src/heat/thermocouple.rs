//! A thermocouple taped to the board or onto a component: what it would read, and how much a slip of a millimetre would change that.

use super::mesh::Mesh;
use super::run_view::RunView;
use super::stepping::Sweep;
use super::under::{Under, layer_of, mean};
use crate::board::{Face, Point, Rect};

/// The bead and its tape take the mean of a square this wide, mm (E, 1.5-3).
const BEAD_MM: f64 = 2.0;
/// Over this to either side the slope is taken, mm: a cell of the screening grid.
const ASIDE_MM: f64 = 2.0;

/// Where one is taped.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Thermocouple {
    /// Place, mm in the board's frame.
    pub at: Point,
    /// On this face.
    pub face: Face,
    /// The component, by its place in the board's list, whose body it is taped onto; none: it is on the board itself.
    pub on: Option<usize>,
}

/// What one reads in a run.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ThermocoupleCurve {
    /// Temperatures from second 0, °C in a run.
    pub celsius: Vec<f32>,
    /// How steep the board's temperature is there, K/mm.
    pub per_mm: Vec<f32>,
}

/// What a bead touches.
#[derive(Debug, Clone)]
pub enum BeadSpot {
    /// The board: the cells under it, and beside it in each direction.
    Board { under: Under, aside: Box<[Under; 4]> },
    /// The skin of a component, as warm all over as its node is.
    Body(usize),
}

impl Thermocouple {
    /// What it touches, `components` being the nodes of their skins.
    pub(super) fn spot(&self, mesh: &Mesh, components: &[usize]) -> BeadSpot {
        if let Some(node) = self.on.and_then(|component| components.get(component)) {
            return BeadSpot::Body(*node);
        }
        let layer = layer_of(mesh, self.face);
        let over = |x: f64, y: f64| {
            let centre = Point { x: self.at.x + x, y: self.at.y + y };
            Under { columns: mesh.under(&Rect { centre, width: BEAD_MM, depth: BEAD_MM }), layer }
        };
        let aside = [(-ASIDE_MM, 0.0), (ASIDE_MM, 0.0), (0.0, -ASIDE_MM), (0.0, ASIDE_MM)];
        BeadSpot::Board { under: over(0.0, 0.0), aside: Box::new(aside.map(|(x, y)| over(x, y))) }
    }
}

impl ThermocoupleCurve {
    pub(super) fn record<const RUNS: usize>(&mut self, spot: &BeadSpot, state: &RunView<'_, f32, RUNS>, from: f32)
    where
        f32: Sweep<RUNS>,
    {
        let (here, slope) = match spot {
            BeadSpot::Body(node) => (state.node(*node), 0.0),
            BeadSpot::Board { under, aside } => {
                // Beyond the rim the board's nearest column counts: half of the slope is what is left.
                let [west, east, near, far] = aside.each_ref().map(|under| mean(state, under));
                (mean(state, under), (east - west).hypot(far - near) / (2.0 * ASIDE_MM))
            }
        };
        self.celsius.push(here as f32 + from);
        self.per_mm.push(slope as f32);
    }

    pub(super) fn append(&mut self, other: &mut Self) {
        self.celsius.append(&mut other.celsius);
        self.per_mm.append(&mut other.per_mm);
    }
}
