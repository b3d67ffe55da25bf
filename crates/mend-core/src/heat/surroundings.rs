//! What the air does to every surface: the tool's jet where it blows, the quiet room everywhere else.

use super::STEFAN_BOLTZMANN;
use super::field::SurfaceAir;
use super::jet::Jet;
use super::mesh::Mesh;
use super::nodes::{NodeSurface, Nodes};
use crate::board::{Board, Face, Point, Rect};
use crate::units::Temperature;

/// Natural convection, W/m²K: looking up 5-10, looking down 3-7 (T).
const QUIET_AIR: [f64; 2] = [8.0, 5.0];
/// Scale on all that a free face loses, convection and radiation alike (tuned, 0.6-1.3). The reference case R7 is met to
/// 0.01 K only when radiation is scaled too, in a room of 25 °C.
pub const LOSS_SCALE: f64 = 0.8;
/// Emissivity of solder mask (D, 0.85-0.95).
const MASK_EMISSIVITY: f64 = 0.9;
/// What gets to the board under a body (E, 0.1-0.4). Without it heating from above would be counted twice.
const UNDER_A_BODY: f64 = 0.2;
/// Where radiation is linearised, K.
const LINEAR_AT: f64 = 400.0;

/// How radiation of the board is computed. Nodes always use the linear form.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Radiation {
    /// Fourth powers.
    Full,
    /// Slope at 400 K: for scaled unit runs and the reference cases.
    Linear,
}

/// The room in which it happens.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Room {
    /// Air and walls.
    pub temperature: Temperature,
    /// Scale on natural convection and radiation.
    pub loss: f64,
    /// How the board radiates.
    pub radiation: Radiation,
}

/// A nozzle at work: its jet, the face it meets, the places it visits (mm).
#[derive(Debug, Clone)]
pub struct Blowing {
    /// The jet.
    pub jet: Jet,
    /// The face.
    pub face: Face,
    /// Where the axis goes; each place for the same share of the time.
    pub path: Vec<Point>,
}

impl Blowing {
    /// Mean h and mean h x gas excess at a place. Exact where a sweep is quick against the board (heating.md, equation 8).
    fn at(&self, place: Point) -> (f64, f64) {
        let share = 1.0 / self.path.len() as f64;
        self.path.iter().fold((0.0, 0.0), |(h, q), axis| {
            let r = (axis.x - place.x).hypot(axis.y - place.y) * 1e-3;
            let transfer = self.jet.transfer(r) * share;
            (h + transfer, q + transfer * self.jet.gas_excess(r))
        })
    }

    /// Means over a rectangle, 3 x 3 points.
    fn over(&self, rect: &Rect) -> (f64, f64) {
        let thirds = [-1.0 / 3.0, 0.0, 1.0 / 3.0];
        let points = thirds.iter().flat_map(|a| thirds.iter().map(move |b| (a, b)));
        let sum = points.fold((0.0, 0.0), |(h, q), (a, b)| {
            let p = Point { x: rect.centre.x + a * rect.width, y: rect.centre.y + b * rect.depth };
            let (dh, dq) = self.at(p);
            (h + dh, q + dq)
        });
        (sum.0 / 9.0, sum.1 / 9.0)
    }
}

/// Air on every column of both faces and on every node.
#[derive(Debug, Clone)]
pub struct Surroundings {
    /// Top and bottom, by column.
    pub faces: [Vec<SurfaceAir>; 2],
    /// For each node: loss W/K and gain W.
    pub nodes: Vec<(f64, f64)>,
}

impl Surroundings {
    /// With the tool blowing, or without one. `covered` is the share of each column under a body, per face.
    pub fn new((mesh, nodes): (&Mesh, &Nodes), covered: &[Vec<f64>; 2], tool: Option<&Blowing>, room: &Room) -> Self {
        let faces = [Face::Top, Face::Bottom].map(|face| {
            let covered = &covered[face as usize];
            let blowing = tool.filter(|t| t.face == face);
            let columns = (0..mesh.y.len()).flat_map(|j| (0..mesh.x.len()).map(move |i| (i, j)));
            columns
                .map(|(i, j)| {
                    let place = Point { x: mesh.x.middle(i), y: mesh.y.middle(j) };
                    let open = 1.0 - (1.0 - UNDER_A_BODY) * covered[mesh.column(i, j)];
                    surface_air(blowing.map(|b| b.at(place)), (face, open), room)
                })
                .collect()
        });
        let nodes =
            nodes.nodes.iter().map(|node| node.surface.map_or((0.0, 0.0), |s| node_air(&s, tool, room))).collect();
        Self { faces, nodes }
    }
}

/// Jet and natural convection together: the cube root of the sum of cubes (equation 9).
fn combined(jet: f64, quiet: f64) -> f64 {
    (jet.powi(3) + quiet.powi(3)).cbrt()
}

fn surface_air(jet: Option<(f64, f64)>, (face, open): (Face, f64), room: &Room) -> SurfaceAir {
    let (h, q) = jet.unwrap_or((0.0, 0.0));
    let loss = combined(h, QUIET_AIR[face as usize] * room.loss) * open;
    let emissivity = MASK_EMISSIVITY * room.loss * open;
    match room.radiation {
        Radiation::Full => SurfaceAir { loss, gain: q * open, emissivity, linear_radiation: 0.0 },
        Radiation::Linear => SurfaceAir { loss, gain: q * open, emissivity: 0.0, linear_radiation: linear(emissivity) },
    }
}

/// Radiation about 400 K as a heat transfer coefficient, W/m²K.
fn linear(emissivity: f64) -> f64 {
    4.0 * emissivity * STEFAN_BOLTZMANN * LINEAR_AT.powi(3)
}

fn node_air(surface: &NodeSurface, tool: Option<&Blowing>, room: &Room) -> (f64, f64) {
    let blowing = tool.filter(|t| t.face == surface.face);
    let (h, q) = blowing.map_or((0.0, 0.0), |b| b.over(&surface.place));
    let loss = combined(h, QUIET_AIR[surface.face as usize] * room.loss) + linear(surface.emissivity * room.loss);
    (loss * surface.area, q * surface.area)
}

/// Share of each column that a body covers, per face: the part and every neighbour.
pub fn covered(board: &Board, mesh: &Mesh) -> [Vec<f64>; 2] {
    let connector = (board.connector.face, board.connector.body);
    let bodies = || std::iter::once(connector).chain(board.neighbours.iter().map(|n| (n.face, n.body)));
    [Face::Top, Face::Bottom].map(|face| {
        let mut share = vec![0.0_f64; mesh.inside.len()];
        for (_, body) in bodies().filter(|(on, _)| *on == face) {
            for j in 0..mesh.y.len() {
                let deep = mesh.y.overlap(j, (body.near(), body.far())) / mesh.y.width(j);
                for i in 0..mesh.x.len() {
                    let part = deep * mesh.x.overlap(i, (body.left(), body.right())) / mesh.x.width(i);
                    let at = mesh.column(i, j);
                    share[at] = (share[at] + part).min(1.0);
                }
            }
        }
        share
    })
}
