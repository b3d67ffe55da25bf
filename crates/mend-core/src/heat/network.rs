//! Builds the lumps of a board: every joint, the part's body and shell, every component, and what joins them.

use super::mesh::Mesh;
use super::nodes::{CellLink, Melting, Node, NodeSurface, Nodes};
use super::thermocouple::BeadSpot;
use super::under::{Under, layer_of};
use crate::board::route::by_place;
use crate::board::{Board, Component, Connector, Face, Joint, JointShape, Rect, Role};
use crate::materials::BodyMaterial;
use crate::solder::Melts;
use crate::units::{Length, Temperature};

/// Solder, J/m³K (D, +-5 %).
pub(super) const SOLDER_CAPACITY: f64 = 1.7e6;
/// Latent heat of solder, J/mm³ (D, 0.30-0.48; 45-65 J/g).
pub(super) const SOLDER_LATENT: f64 = 0.40;
/// Copper alloy of a pin, J/m³K (T).
const PIN_CAPACITY: f64 = 3.45e6;
/// Metal of a pin that heats with its joint, per mm² of land, mm³ (E: 0.15 mm sheet twice the land; a stage 1 mm through the board).
const PIN_METAL: f64 = 0.3;
/// Pad to joint per land, W/K per mm² (heating.md, equation 11).
const LAND_CONDUCTANCE: f64 = 9e-3;
/// Joints of one row and role are merged until a node holds this much, J/K: lighter ones only set the stiffness.
const LIGHTEST_NODE: f64 = 1e-3;
/// A body standing on the board conducts through 0.1-0.15 mm of air, W/m²K (E, x0.5-2); its own pads come on top.
const BODY_TO_BOARD: f64 = 250.0;
/// Share of a plastic body that is skin (E).
const SKIN: f64 = 0.35;
/// Shell sheet: 0.25 mm of steel, J/m²K (E).
const SHELL_CAPACITY: f64 = 0.25e-3 * 3.8e6;
/// Shell on its plastic, W/m²K (E).
const SHELL_CONTACT: f64 = 200.0;
/// A plastic peg's diameter, mm (E, usual 0.8-1.6).
const PEG_MM: f64 = 1.2;
/// Plastic of a body, W/mK (D, 0.2-0.5).
const PLASTIC_CONDUCTIVITY: f64 = 0.3;
/// Emissivity of a bright copper block (D, 0.05-0.3).
pub(super) const BLOCK_EMISSIVITY: f64 = 0.15;
/// Emissivity of a tinned shell (D, 0.05-0.3).
const SHELL_EMISSIVITY: f64 = 0.15;

/// The lumps of a board and where each thing of interest is among them.
#[derive(Debug, Clone)]
pub struct Network {
    /// The lumps.
    pub nodes: Nodes,
    /// For each joint of the connector, its node.
    pub joints: Vec<usize>,
    /// The skin of the part's body.
    pub body: usize,
    /// Every lump of the part itself: it comes cold where it is the new one.
    pub part: Vec<usize>,
    /// For each component, its skin.
    pub components: Vec<usize>,
    /// For each component, the board that it is soldered to: columns with their shares, and the layer.
    pub stands_on: Vec<Under>,
    /// The board at the part's joints.
    pub pads: Under,
    /// For each thermocouple, what its bead touches.
    pub thermocouples: Vec<BeadSpot>,
    /// For each stage and each of its irons, the tip that is held on joints in it: one for each place that it goes round.
    pub tips: Vec<Vec<Vec<usize>>>,
}

impl Network {
    /// The lumps of `board` on `mesh`, the joints of the connector melting at `targets`, in their order.
    pub fn from_board(board: &Board, mesh: &Mesh, targets: &[Melts], ambient: Temperature) -> Self {
        let mut nodes = Nodes::default();
        let connector = &board.connector;
        let (skin, core) = add_body(&mut nodes, mesh, StandingBody::from_connector(connector));
        let shell = connector.shell.then(|| add_shell(&mut nodes, connector, skin));
        let mut part: Vec<usize> = [Some(skin), Some(core), shell].into_iter().flatten().collect();
        let joints = JointNodes { board, mesh, ambient }.add(&mut nodes, targets);
        let link = connector.family.body_link();
        for (joint, node) in connector.joints.iter().zip(&joints) {
            match joint.role {
                Role::Anchor => nodes.join(*node, shell.unwrap_or(core), link.anchor),
                _ => nodes.join(*node, core, link.pin),
            }
        }
        let pegs = StandingBody::from_connector(connector);
        let pegs = Pegs { standing: &pegs, count: connector.pegs, core };
        part.extend(add_pegs(&mut nodes, mesh, board.stack.thickness, &pegs));
        let components =
            board.components.iter().map(|n| add_body(&mut nodes, mesh, StandingBody::from_component(n)).0).collect();
        let under = |n: &Component| Under { columns: mesh.under(&n.covers()), layer: layer_of(mesh, n.face) };
        let stands_on = board.components.iter().map(under).collect();
        let share = 1.0 / connector.joints.len().max(1) as f64;
        let columns = connector.joints.iter().map(|j| (mesh.column_at(j.at), share)).collect();
        let pads = Under { columns, layer: layer_of(mesh, connector.face) };
        Self {
            nodes,
            joints,
            body: skin,
            part,
            components,
            stands_on,
            pads,
            thermocouples: Vec::new(),
            tips: Vec::new(),
        }
    }

    /// Takes the part off again: its lumps are joined to nothing, and its pins are not in the joints.
    pub fn take_part_off(&mut self, connector: &Connector) {
        let of_part = |node: &usize| self.part.contains(node);
        self.nodes.links.retain(|link| !of_part(&link.a) && !of_part(&link.b));
        self.nodes.cells.retain(|link| !of_part(&link.node));
        self.part.iter().for_each(|node| self.nodes.nodes[*node].surface = None);
        for (joint, node) in connector.joints.iter().zip(&self.joints) {
            self.nodes.nodes[*node].capacity -= pin_capacity(joint);
        }
    }
}

/// Heat capacity of the pin in a joint, J/K.
pub(crate) fn pin_capacity(joint: &Joint) -> f64 {
    joint.shape.land() * PIN_METAL * PIN_CAPACITY * 1e-9
}

/// A body standing on a face.
struct StandingBody {
    body: Rect,
    height: f64,
    face: Face,
    material: BodyMaterial,
    /// Is the skin bare to the air, or under a metal shell?
    bare: bool,
    /// Share of its footprint that is soldered; the part's own joints are nodes of their own.
    pad_share: f64,
}

impl StandingBody {
    fn from_connector(c: &Connector) -> Self {
        Self {
            body: c.body,
            height: c.height.in_mm(),
            face: c.face,
            material: c.material,
            bare: !c.shell,
            pad_share: 0.0,
        }
    }
    fn from_component(n: &Component) -> Self {
        Self {
            body: n.covers(),
            height: n.height.in_mm(),
            face: n.face,
            material: n.material,
            bare: true,
            pad_share: n.soldered(),
        }
    }
}

/// Its top and half of its sides: what the air really reaches (E), m².
fn reached_area(body: &Rect, height: f64) -> f64 {
    (body.area() + (body.width + body.depth) * height) * 1e-6
}

/// Skin and core of a body, the core on the board. Answers (skin, core).
fn add_body(nodes: &mut Nodes, mesh: &Mesh, standing: StandingBody) -> (usize, usize) {
    let StandingBody { body, height, face, material, bare, pad_share } = standing;
    let capacity = material.capacity() * body.area() * height * 1e-9;
    let area = reached_area(&body, height);
    let surface = bare.then(|| NodeSurface { face, place: body, area, emissivity: material.emissivity() });
    let skin = nodes.add(Node { surface, ..Node::lump(SKIN * capacity) });
    let core = nodes.add(Node::lump((1.0 - SKIN) * capacity));
    nodes.join(skin, core, material.skin_to_core() * area);
    let contact = BODY_TO_BOARD * body.area() * 1e-6 + LAND_CONDUCTANCE * pad_share * body.area();
    for (column, share) in mesh.under(&body) {
        nodes.cells.push(CellLink { node: core, column, layer: layer_of(mesh, face), conductance: contact * share });
    }
    (skin, core)
}

/// A connector's plastic pegs, and the node of its body's core.
struct Pegs<'a> {
    standing: &'a StandingBody,
    count: u32,
    core: usize,
}

/// Pegs go through the board: their plastic is a node between the body's core and every layer below it. Answers the node.
fn add_pegs(nodes: &mut Nodes, mesh: &Mesh, thickness: Length, pegs: &Pegs<'_>) -> Option<usize> {
    let Pegs { standing, count, core } = *pegs;
    if count == 0 {
        return None;
    }
    let (count, depth) = (f64::from(count), thickness.in_mm());
    let section = std::f64::consts::FRAC_PI_4 * PEG_MM * PEG_MM;
    let pegs = nodes.add(Node::lump(count * standing.material.capacity() * section * depth * 1e-9));
    nodes.join(pegs, core, count * PLASTIC_CONDUCTIVITY * section * 1e-6 / (depth / 2.0 * 1e-3));
    let wall = count * BODY_TO_BOARD * std::f64::consts::PI * PEG_MM * depth * 1e-6 / mesh.layers as f64;
    for (column, share) in mesh.under(&standing.body) {
        let links = (0..mesh.layers).map(|layer| CellLink { node: pegs, column, layer, conductance: wall * share });
        nodes.cells.extend(links);
    }
    Some(pegs)
}

fn add_shell(nodes: &mut Nodes, connector: &Connector, skin: usize) -> usize {
    let area = reached_area(&connector.body, connector.height.in_mm());
    let place = connector.body;
    let surface = Some(NodeSurface { face: connector.face, place, area, emissivity: SHELL_EMISSIVITY });
    let shell = nodes.add(Node { surface, ..Node::lump(SHELL_CAPACITY * area) });
    nodes.join(shell, skin, SHELL_CONTACT * area);
    shell
}

/// A board on its grid.
#[derive(Debug, Clone, Copy)]
pub struct MeshedBoard<'a> {
    /// The board.
    pub board: &'a Board,
    /// Its grid.
    pub mesh: &'a Mesh,
}

/// Puts the joints of a board on its grid.
struct JointNodes<'a> {
    board: &'a Board,
    mesh: &'a Mesh,
    ambient: Temperature,
}

impl JointNodes<'_> {
    /// One node per joint, fine components of a row merged. Answers each joint's node.
    fn add(&self, nodes: &mut Nodes, targets: &[Melts]) -> Vec<usize> {
        let joints = &self.board.connector.joints;
        let mut placed = vec![0; joints.len()];
        let mut before: Option<usize> = None;
        // By row and place, not as they are listed: which are merged must not depend on that.
        for k in row_by_row(joints) {
            let light = |other: &usize| {
                joints[*other].row == joints[k].row && nodes.nodes[placed[*other]].capacity < LIGHTEST_NODE
            };
            placed[k] = match before.filter(light) {
                Some(other) => placed[other],
                None => nodes.add(Node::lump(0.0)),
            };
            self.grow(&mut nodes.nodes[placed[k]], &joints[k], &targets[k]);
            self.link(nodes, &joints[k], placed[k]);
            before = Some(k);
        }
        placed
    }

    /// A joint's metal comes to its node.
    fn grow(&self, node: &mut Node, joint: &Joint, target: &Melts) {
        let volume = joint.solder_volume(self.board.stack.thickness);
        node.capacity += volume * SOLDER_CAPACITY * 1e-9 + pin_capacity(joint);
        let latent = node.melting.map_or(0.0, |m| m.latent) + volume * SOLDER_LATENT;
        let [solidus, free, liquidus] =
            [target.solidus, target.lets_go, target.melted].map(|t| (t - self.ambient).in_kelvin());
        node.melting = Some(Melting { solidus, liquidus, latent, lets_go: (free, target.liquid) });
    }

    /// Joins a joint to the board: a pad to its face, a hole to every layer.
    fn link(&self, nodes: &mut Nodes, joint: &Joint, node: usize) {
        let mesh = self.mesh;
        let column = mesh.column_at(joint.at);
        match joint.shape {
            JointShape::Pad { .. } => {
                let conductance = pad_conductance(joint, mesh);
                nodes.cells.push(CellLink {
                    node,
                    column,
                    layer: layer_of(mesh, self.board.connector.face),
                    conductance,
                });
            }
            JointShape::Hole { .. } => {
                let each = hole_conductance(joint.role) / mesh.layers as f64;
                let links = (0..mesh.layers).map(|layer| CellLink { node, column, layer, conductance: each });
                nodes.cells.extend(links);
            }
        }
    }
}

/// Joints row by row, those of a row from left to right.
fn row_by_row(joints: &[Joint]) -> Vec<usize> {
    let mut order: Vec<usize> = (0..joints.len()).collect();
    order.sort_by(|a, b| joints[*a].row.cmp(&joints[*b].row).then(by_place(&joints[*a].at, &joints[*b].at)));
    order
}

/// Equation 11: `1/G = 1/(9e-3 A + G_trace) + (dz/2)/(kz A_s + 5e-4 G_trace)`, A_s = max(2 A, 0.5 mm²), W/K. The
/// half-cell term cuts the dependence on the grid from 10.5 % to about 5 %.
fn pad_conductance(joint: &Joint, mesh: &Mesh) -> f64 {
    let land = joint.shape.land();
    let trace = trace_conductance(joint.role);
    let spread = (2.0 * land).max(0.5) * 1e-6;
    let half_cell = mesh.layer_thickness() / 2.0;
    1.0 / (1.0 / (LAND_CONDUCTANCE * land + trace) + half_cell / (mesh.slab.through * spread + 5e-4 * trace))
}

/// From a joint into its own copper, W/K, whatever grid the board is on.
pub(crate) fn joint_conductance(joint: &Joint) -> f64 {
    match joint.shape {
        JointShape::Pad { .. } => LAND_CONDUCTANCE * joint.shape.land() + trace_conductance(joint.role),
        JointShape::Hole { .. } => hole_conductance(joint.role),
    }
}

/// What a joint takes up until it is liquid and this much warmer, J.
pub(crate) fn stored_j(joint: &Joint, board: &Board, rise_k: f64) -> f64 {
    let volume = joint.solder_volume(board.stack.thickness);
    (volume * SOLDER_CAPACITY * 1e-9 + pin_capacity(joint)) * rise_k + volume * SOLDER_LATENT
}

/// What hangs on a surface pad, W/K. A 0.15 mm trace is a fin on laminate: sqrt(kA g') with kA = 390 x 5e-9 Wm/K and
/// g' about 1 W/mK gives 1.4e-3; ground and supply reach a plane through one or two holes (E, x0.5-2).
fn trace_conductance(role: Role) -> f64 {
    match role {
        Role::Signal => 1.5e-3,
        Role::Ground | Role::Power => 1e-2,
        Role::Anchor => 2e-2,
    }
}

/// A plated hole into the board, W/K (E: signal .03-.2, ground .15-.6, heavy stage .3-1).
fn hole_conductance(role: Role) -> f64 {
    match role {
        Role::Signal => 0.08,
        Role::Ground | Role::Power => 0.35,
        Role::Anchor => 0.5,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};
    use crate::heat::mesh::Resolution;

    fn network(bench: &Bench) -> Network {
        let mesh = Mesh::from_board(&bench.board, Resolution::COARSE, 1.0);
        let targets = bench.composition.targets(&bench.board).expect("computed");
        let nominal = crate::heat::parameters::ParameterSample::nominal();
        let targets: Vec<Melts> = targets.iter().map(|target| nominal.melts(target)).collect();
        Network::from_board(&bench.board, &mesh, &targets, AMBIENT)
    }

    #[test]
    fn every_joint_and_body_has_its_node_and_stands_on_the_board() {
        let bench = Bench::try_new().expect("the example");
        let made = network(&bench);
        assert_eq!(made.joints.len(), bench.board.connector.joints.len());
        assert_eq!((made.components.len(), made.stands_on.len()), (1, 1));
        assert!(made.joints.iter().chain(&made.components).all(|node| *node < made.nodes.nodes.len()));
        for under in made.stands_on.iter().chain([&made.pads]) {
            let sum: f64 = under.columns.iter().map(|(_, share)| share).sum();
            assert!((sum - 1.0).abs() < 1e-9, "{sum}");
            assert_eq!(under.layer, 0, "all of it is on the top face");
        }
    }

    #[test]
    fn a_part_without_its_shell_or_with_pegs_is_another_network() {
        let mut bench = Bench::try_new().expect("the example");
        let shelled = network(&bench).nodes.nodes.len();
        bench.board.connector.shell = false;
        assert_eq!(network(&bench).nodes.nodes.len(), shelled - 1, "the shell is a node");
    }
}
