//! What a recipe adds to a network: blocks, what joins the joints, and tips.

use super::bridge::{Bridge, COPPER_CAPACITY};
use super::iron::{Iron, TIP_CAPACITY};
use super::iron_heater::IronHeater;
use super::mesh::Mesh;
use super::network::MeshedBoard;
use super::network::{BLOCK_EMISSIVITY, Network, SOLDER_CAPACITY, SOLDER_LATENT};
use super::nodes::{CellLink, Node, NodeLink, NodeSurface};
use super::recipe::{HeatingAids, Recipe};
use super::shield::Shield;
use super::under::layer_of;
use crate::board::{Board, Rect, Stiffener};

/// A stiffener reaches this far beyond the part's body, mm (E, 0.5-2).
const RIM_MM: f64 = 1.0;
/// 50 um of adhesive of 0.2 W/mK, W/m2K (E, x0.5-2).
const GLUE: f64 = 4000.0;

impl Network {
    /// Adds what a recipe lays on and holds to it: blocks, what joins the joints, and a tip for each stage that has an iron,
    /// driven by `heater`.
    pub fn attach(&mut self, on: MeshedBoard<'_>, recipe: &Recipe, heater: IronHeater) {
        let MeshedBoard { board, mesh } = on;
        board.stack.stiffener.iter().for_each(|stiffener| self.add_stiffener(board, mesh, stiffener));
        recipe.shields.iter().for_each(|shield| self.add_block(board, mesh, shield));
        recipe.bridge.iter().for_each(|bridge| self.lay(bridge, board));
        let stages = recipe.preheat.iter().map(|stage| &stage.during).chain([&recipe.during]);
        self.tips = stages.map(|during| self.add_tips(board, heater, during)).collect();
    }

    /// A stiffener is glued to the far face: tiles as large as the columns that they lie on, each on its column and joined to the
    /// next. A jet from that side is taken to meet the board: a thin sheet is as warm as its glue within a second.
    fn add_stiffener(&mut self, board: &Board, mesh: &Mesh, stiffener: &Stiffener) {
        let body = board.connector.body;
        let place = Rect { width: body.width + 2.0 * RIM_MM, depth: body.depth + 2.0 * RIM_MM, ..body };
        let (thickness, material) = (stiffener.thickness.in_m(), stiffener.material);
        let layer = layer_of(mesh, board.hanging());
        let mut tiles: Vec<((usize, usize), usize)> = Vec::new();
        for (column, share) in mesh.under(&place) {
            let area = share * place.area() * 1e-6;
            let tile = self.nodes.add(Node::lump(material.capacity() * area * thickness));
            self.nodes.cells.push(CellLink { node: tile, column, layer, conductance: GLUE * area });
            tiles.push((column, tile));
        }
        // Square tiles pass k t between neighbours, whatever their size.
        let joins = material.conductivity() * thickness;
        for (k, ((i, j), tile)) in tiles.iter().enumerate() {
            let near = |at: &(usize, usize)| *at == (i + 1, *j) || *at == (*i, j + 1);
            let others: Vec<usize> =
                tiles.iter().skip(k + 1).filter(|(at, _)| near(at)).map(|(_, other)| *other).collect();
            others.into_iter().for_each(|other| self.nodes.join(*tile, other, joins));
        }
    }

    /// A block rests on the tallest component below it, or where there is none on the board.
    fn add_block(&mut self, board: &Board, mesh: &Mesh, shield: &Shield) {
        let Some((capacity, contact)) = shield.block() else { return };
        let (place, face) = (shield.area(), shield.face);
        let surface = Some(NodeSurface { face, place, area: place.area() * 1e-6, emissivity: BLOCK_EMISSIVITY });
        let block = self.nodes.add(Node { surface, ..Node::lump(capacity) });
        let below = board.components.iter().enumerate().filter(|(_, n)| shield.covers(n.face, &n.body) > 0.0);
        match below.max_by(|a, b| a.1.height.in_mm().total_cmp(&b.1.height.in_mm())) {
            Some((k, n)) => self.nodes.join(block, self.components[k], contact * n.body.shared(&place) / place.area()),
            None => {
                let layer = layer_of(mesh, face);
                let cells = mesh.under(&place).into_iter();
                let link = |(column, share)| CellLink { node: block, column, layer, conductance: contact * share };
                self.nodes.cells.extend(cells.map(link));
            }
        }
    }

    /// One tip is at one place at a time: each place has a node of its own, and the tip's heat goes from one to the next.
    fn add_tips(&mut self, board: &Board, heater: IronHeater, during: &HeatingAids) -> Vec<Vec<usize>> {
        let mut places = |iron: &Iron| iron.visits(board).iter().map(|held| self.add_tip(iron, heater, held)).collect();
        during.irons().map(&mut places).collect()
    }

    fn add_tip(&mut self, iron: &Iron, heater: IronHeater, held: &[usize]) -> usize {
        let tip = self.nodes.add(Node { most_w: heater.most, ..Node::lump(TIP_CAPACITY) });
        let conductance = iron.wetted() / held.len().max(1) as f64;
        let touches = held.iter().map(|joint| NodeLink { a: tip, b: self.joints[*joint], conductance });
        self.nodes.touches.extend(touches);
        tip
    }

    /// Lays a bridge: neighbouring joints are joined, and each carries its half of the metal between.
    fn lay(&mut self, bridge: &Bridge, board: &Board) {
        for (a, b, apart) in bridge.spans(board) {
            let (a, b) = (self.joints[a], self.joints[b]);
            let capacity = (bridge.wire_mm2() * COPPER_CAPACITY + bridge.bead_mm2 * SOLDER_CAPACITY) * apart * 1e-9;
            for node in [a, b] {
                let node = &mut self.nodes.nodes[node];
                node.capacity += capacity / 2.0;
                node.melting.iter_mut().for_each(|m| m.latent += bridge.bead_mm2 * apart * SOLDER_LATENT / 2.0);
            }
            if a != b {
                self.nodes.join(a, b, bridge.conducts() / (apart * 1e-3));
            }
        }
    }
}
