//! What the air does to every surface: the tool's jet where it blows, a preheater where it warms, the quiet room elsewhere, and
//! all of it less under a shield or a body.

use super::STEFAN_BOLTZMANN;
use super::blowing::Blowing;
use super::mesh::Mesh;
use super::nodes::{NodeSurface, Nodes};
use super::preheater::Preheater;
use super::shield::Screen;
use super::shielding::{Shielding, columns_under};
use super::surface_air::SurfaceAir;
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
pub struct Ambient {
    /// Air and walls.
    pub temperature: Temperature,
    /// Scale on natural convection and radiation.
    pub loss: f64,
    /// How the board radiates.
    pub radiation: Radiation,
}

/// What stays as it is while the tools change.
#[derive(Debug, Clone, Copy)]
pub struct HeatedBoard<'a> {
    /// The grid.
    pub mesh: &'a Mesh,
    /// The lumps.
    pub nodes: &'a Nodes,
    /// Share of each column under a body, per face: see [`covered`].
    pub covered: &'a [Vec<f64>; 2],
    /// The shields.
    pub shielding: &'a Shielding,
    /// Ambient temperature.
    pub ambient: Ambient,
}

/// What works on the board for a while.
#[derive(Debug, Clone, Default)]
pub struct ActiveTools {
    /// A jet.
    pub blowing: Option<Blowing>,
    /// A preheater, and what it warms.
    pub preheater: Option<(Preheater, Rect)>,
    /// The nodes of tips that are on their joints, and what drives each.
    pub tips: Vec<(usize, TipDrive)>,
}

/// What drives a tip.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TipDrive {
    /// What it is set to, K over ambient.
    pub set: f64,
    /// From its heater to it, K/W.
    pub to_tip: f64,
}

impl From<Blowing> for ActiveTools {
    fn from(blowing: Blowing) -> Self {
        Self { blowing: Some(blowing), ..Self::default() }
    }
}

/// Air on every column of both faces and on every node.
#[derive(Debug, Clone)]
pub struct BoundaryConditions {
    /// Top and bottom, by column.
    pub faces: [Vec<SurfaceAir>; 2],
    /// For each node: loss W/K and gain W.
    pub nodes: Vec<(f64, f64)>,
    /// The tips that are on their joints.
    pub tips: Vec<usize>,
}

impl BoundaryConditions {
    /// No exchange with any air: what is left is the rim.
    pub fn still(columns: usize, nodes: usize) -> Self {
        let face = || vec![SurfaceAir::default(); columns];
        Self { faces: [face(), face()], nodes: vec![(0.0, 0.0); nodes], tips: Vec::new() }
    }

    /// Holds a tip on its joints.
    pub fn hold(&mut self, tip: usize, drive: TipDrive) {
        let per_kelvin = 1.0 / drive.to_tip;
        self.nodes[tip] = (per_kelvin, per_kelvin * drive.set);
        self.tips.push(tip);
    }

    /// Takes a tip off its joints.
    pub fn let_go(&mut self, tip: usize) {
        self.nodes[tip] = (0.0, 0.0);
        self.tips.retain(|other| *other != tip);
    }
}

/// How a surface takes air and gives off heat.
#[derive(Clone, Copy)]
struct SurfaceLooks {
    face: Face,
    emissivity: f64,
}

impl HeatedBoard<'_> {
    /// Everything with these tools at work.
    pub fn with(&self, working: &ActiveTools) -> BoundaryConditions {
        let nodes = self.nodes.nodes.iter().map(|node| self.node_air(node.surface, working)).collect();
        let faces = [Face::Top, Face::Bottom].map(|face| self.face_air(face, working));
        let mut air = BoundaryConditions { faces, nodes, tips: Vec::new() };
        working.tips.iter().for_each(|(tip, drive)| air.hold(*tip, *drive));
        air
    }

    fn face_air(&self, face: Face, working: &ActiveTools) -> Vec<SurfaceAir> {
        let mesh = self.mesh;
        let blowing = working.blowing.as_ref().filter(|b| b.face == face);
        let places = (0..mesh.y.len()).flat_map(|j| (0..mesh.x.len()).map(move |i| (i, j)));
        let place = |(i, j): (usize, usize)| Point { x: mesh.x.middle(i), y: mesh.y.middle(j) };
        let jet: Vec<(f64, f64)> = places.map(|at| blowing.map_or((0.0, 0.0), |b| b.at(place(at)))).collect();
        let below = self.shielding.spread(face, mesh, &jet);
        let open = |column: usize| 1.0 - (1.0 - UNDER_A_BODY) * self.covered[face as usize][column];
        let mask = SurfaceLooks { face, emissivity: MASK_EMISSIVITY };
        let air = |column: usize| {
            let bare = self.surface_air(jet[column], mask, None);
            let air = self.shielding.over_column(face, column).map_or(bare, |(share, screen)| {
                mixed(bare, self.surface_air(below[column], mask, Some(screen)), share)
            });
            air.scaled(open(column))
        };
        let mut air: Vec<SurfaceAir> = (0..jet.len()).map(air).collect();
        if let Some((preheater, area)) = working.preheater.filter(|(preheater, _)| preheater.face == face) {
            for (column, share) in columns_under(mesh, &area) {
                let warmed = self.preheater_air(&preheater, MASK_EMISSIVITY).scaled(open(column));
                air[column] = mixed(air[column], warmed, share);
            }
        }
        air
    }

    /// A surface in a jet's (h, q), bare or under a screen.
    fn surface_air(&self, jet: (f64, f64), looks: SurfaceLooks, screen: Option<&Screen>) -> SurfaceAir {
        let SurfaceLooks { face, emissivity } = looks;
        let quiet = QUIET_AIR[face as usize] * self.ambient.loss;
        let both = |h: f64| combined(h, quiet);
        let (loss, gain) = screen.map_or((both(jet.0), jet.1), |screen| screen.below(jet.0, jet.1, both));
        let emissivity = emissivity * self.ambient.loss * screen.map_or(1.0, |screen| screen.emissivity);
        self.radiating(SurfaceAir { loss, gain, emissivity, linear_radiation: 0.0 })
    }

    /// Over a preheater: its air, and what it shines.
    fn preheater_air(&self, preheater: &Preheater, emissivity: f64) -> SurfaceAir {
        let rise = (preheater.set - self.ambient.temperature).in_kelvin();
        let loss = preheater.coupling.transfer();
        let emissivity = if preheater.coupling.radiates() { emissivity } else { 0.0 };
        let shines = match self.ambient.radiation {
            Radiation::Full => {
                let (preheater, ambient) = (preheater.set.in_kelvin(), self.ambient.temperature.in_kelvin());
                emissivity * STEFAN_BOLTZMANN * (preheater.powi(4) - ambient.powi(4))
            }
            Radiation::Linear => linear(emissivity) * rise,
        };
        self.radiating(SurfaceAir { loss, gain: loss * rise + shines, emissivity, linear_radiation: 0.0 })
    }

    fn radiating(&self, air: SurfaceAir) -> SurfaceAir {
        match self.ambient.radiation {
            Radiation::Full => air,
            Radiation::Linear => SurfaceAir { emissivity: 0.0, linear_radiation: linear(air.emissivity), ..air },
        }
    }

    /// Loss W/K and gain W of a node; radiation always linear.
    fn node_air(&self, surface: Option<NodeSurface>, working: &ActiveTools) -> (f64, f64) {
        let Some(surface) = surface else { return (0.0, 0.0) };
        let scene = Self { ambient: Ambient { radiation: Radiation::Linear, ..self.ambient }, ..*self };
        let blowing = working.blowing.as_ref().filter(|b| b.face == surface.face);
        let jet = blowing.map_or((0.0, 0.0), |b| b.over(&surface.place));
        let looks = SurfaceLooks { face: surface.face, emissivity: surface.emissivity };
        let bare = scene.surface_air(jet, looks, None);
        let mut air = self
            .shielding
            .over_body(surface.face, &surface.place)
            .map_or(bare, |(share, screen)| mixed(bare, scene.surface_air(jet, looks, Some(screen)), share));
        if let Some((preheater, area)) = working.preheater.filter(|(preheater, _)| preheater.face == surface.face) {
            let share = area.shared(&surface.place) / surface.place.area();
            air = mixed(air, scene.preheater_air(&preheater, surface.emissivity), share);
        }
        ((air.loss + air.linear_radiation) * surface.area, air.gain * surface.area)
    }
}

/// `share` of the second, the rest of the first.
fn mixed(a: SurfaceAir, b: SurfaceAir, share: f64) -> SurfaceAir {
    let between = |a: f64, b: f64| a + (b - a) * share;
    SurfaceAir {
        loss: between(a.loss, b.loss),
        gain: between(a.gain, b.gain),
        emissivity: between(a.emissivity, b.emissivity),
        linear_radiation: between(a.linear_radiation, b.linear_radiation),
    }
}

/// Jet and natural convection together: the cube root of the sum of cubes (equation 9).
fn combined(jet: f64, quiet: f64) -> f64 {
    (jet.powi(3) + quiet.powi(3)).cbrt()
}

/// Radiation about 400 K as a heat transfer coefficient, W/m²K.
fn linear(emissivity: f64) -> f64 {
    4.0 * emissivity * STEFAN_BOLTZMANN * LINEAR_AT.powi(3)
}

/// Share of each column that a body covers, per face: the part, where it is on, and every component.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::boundary::covered;
/// use mend_core::heat::mesh::{Mesh, Resolution};
/// let mesh = Mesh::from_board(&bench.board, Resolution::COARSE, 1.0);
/// let [top, bottom] = covered(&bench.board, true, &mesh);
/// assert!(top.iter().any(|share| *share > 0.99), "under the part");
/// assert!(bottom.iter().all(|share| *share == 0.0), "nothing stands below");
/// ```
pub fn covered(board: &Board, has_part: bool, mesh: &Mesh) -> [Vec<f64>; 2] {
    let connector = has_part.then_some((board.connector.face, board.connector.body));
    let bodies = || connector.into_iter().chain(board.components.iter().map(|n| (n.face, n.covers())));
    [Face::Top, Face::Bottom].map(|face| {
        let mut share = vec![0.0_f64; mesh.inside.len()];
        for (_, body) in bodies().filter(|(on, _)| *on == face) {
            for (column, part) in columns_under(mesh, &body) {
                share[column] = (share[column] + part).min(1.0);
            }
        }
        share
    })
}
