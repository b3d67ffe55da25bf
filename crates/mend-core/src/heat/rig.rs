//! A case set up to be run: the board with everything on it, and what works on it from when to when.

use super::blowing::Blowing;
use super::field::RIM_LOSS;
use super::iron::DWELL_S;
use super::jet::Jet;
use super::mesh::{Mesh, Resolution};
use super::network::Network;
use super::recipe::{Helpers, Recipe};
use super::run::Case;
use super::shielding::Shielding;
use super::simulation::Simulation;
use super::surroundings::{LOSS_SCALE, Radiation, Room, Scene, Surroundings, Working, covered};
use super::tool::{HotAir, Station};
use super::unknowns::Unknowns;
use crate::board::Rect;
use crate::solder::MeltTarget;
use crate::units::{Flow, Temperature};

/// How a case is modelled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Model {
    /// How fine.
    pub resolution: Resolution,
    /// Everything in proportion to its cause: radiation about 400 K, and what melting takes spread over the rise to it.
    pub linear: bool,
}

/// Tools at work for a while.
#[derive(Debug, Clone)]
pub struct Leg {
    /// Whole seconds.
    pub seconds: usize,
    /// What the air does meanwhile.
    pub air: Surroundings,
    /// A tip that comes to its joints, and what it is set to, K over the room.
    tip: Option<(usize, f64)>,
    /// Places that it goes round; it begins at the first.
    round: Vec<usize>,
}

/// Board, lumps and legs.
#[derive(Debug, Clone)]
pub struct Rig {
    /// The lumps.
    pub network: Network,
    /// The state.
    pub simulation: Simulation<f32>,
    /// One after the other; the last is the one in which the part is to come away.
    pub legs: Vec<Leg>,
    /// The last leg with its jet blowing at room temperature: what is left is not the jet's. Of a linear model only.
    pub without_jet: Option<Surroundings>,
    /// Everything off.
    pub quiet: Surroundings,
    /// Outlet of the last leg's jet over the room, K; 0 where there is none.
    pub outlet: f64,
    steps_per_second: usize,
    /// Which leg, and how many seconds of it are over.
    at: (usize, usize),
    /// Each joint is emptied for itself: one that has been liquid counts though it freezes again.
    in_turn: bool,
}

/// The jet of some air at a case's station under some unknowns.
pub fn jet(case: &Case<'_>, air: &HotAir, unknowns: &Unknowns) -> Jet {
    let flow = Flow::litres_per_minute(air.flow.in_litres_per_minute() * unknowns.flow);
    Jet::new(&HotAir { flow, ..*air }, &case.station.law(unknowns.jet), case.room)
}

/// Some air of a station on a part with this body, nominally and in a usual room: to be drawn.
pub fn usual_blowing(station: &Station, air: &HotAir, body: &Rect) -> Blowing {
    const USUAL_ROOM: Temperature = Temperature::celsius(23.0);
    Blowing { jet: Jet::new(air, &station.law(1.0), USUAL_ROOM), face: air.face, path: air.path(body) }
}

/// Some air at work on a case's board.
pub fn blowing(case: &Case<'_>, air: &HotAir, unknowns: &Unknowns) -> Blowing {
    Blowing { jet: jet(case, air, unknowns), face: air.face, path: air.path(&case.board.connector.body) }
}

impl Rig {
    /// Sets a case up, at rest at room temperature.
    pub fn new(case: &Case<'_>, unknowns: &Unknowns, model: Model) -> Self {
        let mesh = Mesh::of(case.board, model.resolution, unknowns.conduction);
        let melting: Vec<MeltTarget> = case.melting.iter().map(|target| unknowns.melts(target)).collect();
        let mut network = Network::of(case.board, &mesh, (&melting, case.room));
        network.attach((case.board, &mesh), case.recipe);
        if model.linear {
            for node in &mut network.nodes.nodes {
                node.capacity += node.melting.take().map_or(0.0, |m| m.latent / m.liquidus);
                node.most_w = f64::INFINITY;
            }
        }
        let radiation = if model.linear { Radiation::Linear } else { Radiation::Full };
        let room = Room { temperature: case.room, loss: LOSS_SCALE * unknowns.loss, radiation };
        let (covered, shielding) =
            (covered(case.board, &mesh), Shielding::of(&case.recipe.shields, &mesh, unknowns.shield));
        let scene = Scene { mesh: &mesh, nodes: &network.nodes, covered: &covered, shielding: &shielding, room };
        let course = Course { case, unknowns, scene, network: &network };
        let (legs, without_jet) = (course.legs(), model.linear.then(|| course.last_without_jet()));
        let quiet = scene.with(&Working::default());
        let outlet = case.recipe.air.map_or(0.0, |air| jet(case, &air, unknowns).outlet_excess);
        let step = model.resolution.step_s;
        let simulation = Simulation::new(mesh, network.nodes.clone(), (RIM_LOSS, case.room.in_kelvin()), step);
        let (steps_per_second, in_turn) = ((1.0 / step).round() as usize, case.recipe.in_turn(case.board));
        Self { network, simulation, legs, without_jet, quiet, outlet, steps_per_second, at: (0, 0), in_turn }
    }

    /// Puts the tools of a leg to work.
    pub fn begin(&mut self, leg: usize) {
        self.at = (leg, 0);
        let leg = &self.legs[leg];
        if let Some((tip, set)) = leg.tip {
            // It comes hot from its holder.
            self.simulation.set_node(tip, set * self.network.nodes.nodes[tip].capacity);
        }
        self.simulation.set_air(&leg.air);
    }

    /// A second on.
    pub fn one_second(&mut self) {
        (0..self.steps_per_second).for_each(|_| self.simulation.advance());
    }

    /// The tip goes on to its next place, as hot as it is.
    fn go_round(&mut self) {
        let (leg, second) = self.at;
        self.at.1 += 1;
        let leg = &self.legs[leg];
        let (Some((_, set)), turns) = (leg.tip, leg.round.len()) else { return };
        if turns < 2 || second == 0 || !second.is_multiple_of(DWELL_S) {
            return;
        }
        let place = |turn: usize| leg.round[turn % turns];
        let (from, to) = (place(second / DWELL_S - 1), place(second / DWELL_S));
        let mut air = leg.air.clone();
        air.hold(to, set);
        let heat = self.simulation.node_enthalpy(from);
        self.simulation.set_node(to, heat);
        self.simulation.set_air(&air);
    }

    /// One second on; joints that turn liquid get their time, interpolated on enthalpy; one that
    /// is all solid again before the part is off has lost it.
    pub fn one_second_melting(&mut self, second: usize, melted: &mut [Option<f64>]) {
        self.go_round();
        let (joints, nodes) = (&self.network.joints, &self.network.nodes.nodes);
        let steps = self.steps_per_second;
        for step in 0..steps {
            let before: Vec<f64> = joints.iter().map(|k| self.simulation.node_enthalpy(*k)).collect();
            self.simulation.advance();
            for ((joint, node), was) in melted.iter_mut().zip(joints).zip(&before) {
                let (is, liquid) = (self.simulation.node_enthalpy(*node), nodes[*node].liquid_from());
                if joint.is_none() && is >= liquid {
                    let part = (liquid - was) / (is - was);
                    *joint = Some(second as f64 + (step as f64 + part) / steps as f64);
                } else if is <= nodes[*node].solid_to() && !self.in_turn {
                    *joint = None;
                }
            }
        }
    }
}

/// What the legs are made from.
struct Course<'a> {
    case: &'a Case<'a>,
    unknowns: &'a Unknowns,
    scene: Scene<'a>,
    network: &'a Network,
}

impl Course<'_> {
    fn legs(&self) -> Vec<Leg> {
        let Recipe { air, longest, before, with, .. } = self.case.recipe;
        let mut legs = Vec::new();
        for (k, pass) in before.iter().enumerate() {
            legs.push(self.leg(pass.lasts.in_seconds(), pass.air.as_ref(), (&pass.with, k)));
            let plate = Helpers { iron: None, ..pass.with.clone() };
            legs.extend(
                (pass.change.in_seconds() >= 1.0).then(|| self.leg(pass.change.in_seconds(), None, (&plate, k))),
            );
        }
        legs.push(self.leg(longest.in_seconds(), air.as_ref(), (with, before.len())));
        legs
    }

    fn leg(&self, seconds: f64, air: Option<&HotAir>, (with, pass): (&Helpers, usize)) -> Leg {
        let working = self.working(air, (with, pass));
        let round = if working.tip.is_some() { self.network.tips[pass].clone() } else { Vec::new() };
        Leg { seconds: seconds as usize, air: self.scene.with(&working), tip: working.tip, round }
    }

    fn last_without_jet(&self) -> Surroundings {
        let Recipe { air, before, with, .. } = self.case.recipe;
        let mut working = self.working(air.as_ref(), (with, before.len()));
        if let Some(blowing) = &mut working.blowing {
            blowing.jet = blowing.jet.unheated();
        }
        self.scene.with(&working)
    }

    fn working(&self, air: Option<&HotAir>, (with, pass): (&Helpers, usize)) -> Working {
        let over_room = |t: Temperature| (t - self.case.room).in_kelvin();
        let tip = with
            .iron
            .as_ref()
            .zip(self.network.tips[pass].first().copied())
            .map(|(iron, tip)| (tip, over_room(iron.set)));
        let plate = with.plate.map(|plate| (plate, plate.area(self.case.board.connector.body.centre)));
        let blowing = air.map(|air| blowing(self.case, air, self.unknowns));
        Working { blowing, plate, tip }
    }
}
