//! A bridge wire or a flooded blob: which span of a row an iron keeps molten. A chain of 1 mm nodes of wire and solder on a
//! board, one iron in the middle (heating.md, equation 15). Order of magnitude only: no measured data stand behind it.

use super::axis::Axis;
use super::boundary::{BoundaryConditions, TipDrive};
use super::bridge::{Bridge, COPPER_CAPACITY};
use super::coefficients::RIM_LOSS;
use super::iron::{Iron, TIP_CAPACITY};
use super::iron_heater::IronHeater;
use super::mesh::{Mesh, Slab};
use super::network::{SOLDER_CAPACITY, SOLDER_LATENT};
use super::nodes::{CellLink, Melting, Node, NodeLink, Nodes};
use super::simulation::Simulation;
use crate::units::Temperature;

/// The piece of board that takes part, mm: beyond it nothing is felt within a minute.
const BOARD_MM: usize = 60;

/// A wire soldered along a row, or solder alone.
#[derive(Debug, Clone, PartialEq)]
pub struct WireModel {
    /// The iron, in the middle.
    pub iron: Iron,
    /// The wire's diameter, mm; 0 for a blob.
    pub wire_mm: f64,
    /// Section of the solder round it, mm².
    pub bead_mm2: f64,
    /// Length of the row, mm, up to 50.
    pub length_mm: usize,
    /// What the joints under it conduct into the board, W/K per mm of row.
    pub joints_w_per_k_mm: f64,
    /// Through the board, or to its face alone?
    pub plated: bool,
    /// Where the solder begins to melt, and is all liquid.
    pub melts: (Temperature, Temperature),
    /// The board at the start: the room's, or preheated.
    pub board: Temperature,
}

impl WireModel {
    /// k A of wire and bead together, W m/K.
    pub fn conducts(&self) -> f64 {
        Bridge { wire_mm: self.wire_mm, bead_mm2: self.bead_mm2 }.conducts()
    }

    /// Fin length sqrt(k A / g'), mm: as far as the iron's heat carries before the board has taken most of it.
    pub fn fin_length_mm(&self) -> f64 {
        (self.conducts() / (self.joints_w_per_k_mm * 1e3)).sqrt() * 1e3
    }

    /// Half of the span that stays molten on a board that stays as it is, mm: l ln((Tw - Tb) / (Tm - Tb)) with the wire at
    /// `wire` under the tip. 0 where it is not molten there either.
    pub fn steady_half_span_mm(&self, wire: Temperature) -> f64 {
        let (over, melts) = ((wire - self.board).in_kelvin(), (self.melts.1 - self.board).in_kelvin());
        if melts <= 0.0 {
            return f64::INFINITY;
        }
        if over <= melts { 0.0 } else { self.fin_length_mm() * (over / melts).ln() }
    }

    /// The molten span after each second of `seconds`, mm, on a board of `slab` that warms as it is heated.
    pub fn molten_spans_mm(&self, slab: Slab, seconds: usize) -> Vec<usize> {
        let (mut simulation, wire) = self.set_up(slab);
        let spans = (0..seconds).map(|_| {
            (0..4).for_each(|_| simulation.advance());
            let molten = |k: &usize| simulation.node_enthalpy(*k) >= simulation.nodes().nodes[*k].liquid_from();
            wire.iter().filter(|k| molten(k)).count()
        });
        spans.collect()
    }

    fn set_up(&self, slab: Slab) -> (Simulation<f32>, Vec<usize>) {
        // Everything over the board's own start: a preheated board is held at it by what preheats it.
        let over = |t: Temperature| (t - self.board).in_kelvin();
        let mesh = Mesh::plate(Axis::uniform(BOARD_MM, 1.0), Axis::uniform(BOARD_MM, 1.0), 6, slab);
        let mut nodes = Nodes::default();
        let section = std::f64::consts::FRAC_PI_4 * self.wire_mm * self.wire_mm * 1e-6;
        let bead = self.bead_mm2 * 1e-6;
        let capacity = (section * COPPER_CAPACITY + bead * SOLDER_CAPACITY) * 1e-3;
        let latent = bead * 1e-3 * SOLDER_LATENT * 1e9;
        let melting = Some(Melting::whole(over(self.melts.0), over(self.melts.1), latent));
        let wire: Vec<usize> =
            (0..self.length_mm.min(50)).map(|_| nodes.add(Node { melting, ..Node::lump(capacity) })).collect();
        wire.windows(2).for_each(|pair| nodes.join(pair[0], pair[1], self.conducts() * 1e3));
        for (k, node) in wire.iter().enumerate() {
            let column = ((BOARD_MM - wire.len()) / 2 + k, BOARD_MM / 2);
            let layers = if self.plated { mesh.layers } else { 1 };
            let conductance = self.joints_w_per_k_mm / layers as f64;
            nodes.cells.extend((0..layers).map(|layer| CellLink { node: *node, column, layer, conductance }));
        }
        let tip = nodes.add(Node { most_w: IronHeater::USUAL.most, ..Node::lump(TIP_CAPACITY) });
        let wide = (self.iron.tip.in_mm().round() as usize).clamp(1, wire.len());
        let under = &wire[(wire.len() - wide) / 2..][..wide];
        let conductance = self.iron.wetted() / wide as f64;
        nodes.touches = under.iter().map(|b| NodeLink { a: tip, b: *b, conductance }).collect();
        let (columns, count, set) = (mesh.inside.len(), nodes.nodes.len(), over(self.iron.set));
        let mut simulation = Simulation::new(mesh, nodes, (RIM_LOSS, self.board.in_kelvin()), 0.25);
        let mut air = BoundaryConditions::still(columns, count);
        air.hold(tip, TipDrive { set, to_tip: IronHeater::USUAL.to_tip });
        simulation.set_node(tip, set * TIP_CAPACITY);
        simulation.set_air(&air);
        (simulation, wire)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::iron::USUAL_DWELL;
    use crate::units::Length;

    fn slab() -> Slab {
        Slab { thickness: 1.6e-3, in_plane: 20.0, through: 1.2, capacity: 2.3e6 }
    }

    fn heavy(board: f64, melts: f64) -> WireModel {
        WireModel {
            iron: Iron {
                set: Temperature::celsius(400.0),
                tip: Length::mm(4.0),
                row: String::new(),
                dwell: USUAL_DWELL,
            },
            wire_mm: 1.0,
            bead_mm2: 2.0,
            length_mm: 25,
            joints_w_per_k_mm: 0.05,
            plated: true,
            melts: (Temperature::celsius(melts - 3.0), Temperature::celsius(melts)),
            board: Temperature::celsius(board),
        }
    }

    #[test]
    fn the_fin_is_that_of_the_table() {
        let wire = heavy(23.0, 220.0);
        assert!((wire.conducts() - 4.06e-4).abs() < 2e-6, "{}", wire.conducts());
        assert!((wire.fin_length_mm() - 2.9).abs() < 0.1, "{}", wire.fin_length_mm());
        let half = wire.steady_half_span_mm(Temperature::celsius(300.0));
        assert!((half - 2.85 * (277.0_f64 / 197.0).ln()).abs() < 0.05, "{half}");
        assert_eq!(wire.steady_half_span_mm(Temperature::celsius(200.0)), 0.0);
    }

    /// Section 5 of heating.md: after 1 and 5 s 5 and 7 mm cold, 9 and 17 mm at 120 °C, 15 and 25 mm with low-melt as well.
    /// It does not say on what board or with how wide a tip; 20 W/mK and 4 mm meet all six within 3 mm.
    #[test]
    fn a_warm_board_and_low_melt_widen_what_an_iron_keeps_molten() {
        let cases = [(heavy(23.0, 220.0), [5, 7]), (heavy(120.0, 220.0), [9, 17]), (heavy(120.0, 145.0), [15, 25])];
        for (wire, wanted) in cases {
            let spans = wire.molten_spans_mm(slab(), 5);
            for (span, wanted) in [spans[0], spans[4]].iter().zip(wanted) {
                assert!(span.abs_diff(wanted) <= 3, "{spans:?} against {wanted} mm");
            }
        }
    }
}
