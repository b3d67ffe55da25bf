//! One run for all set temperatures: without melting and with radiation about 400 K, every rise over the room goes with
//! the outlet's (heating.md, section 3: within 1-2 % of the full model; test R9).

use super::field::RIM_LOSS;
use super::mesh::{Mesh, Resolution};
use super::network::Network;
use super::run::{Case, jet};
use super::simulation::Simulation;
use super::surroundings::{Blowing, LOSS_SCALE, Radiation, Room, Surroundings, covered};
use super::unknowns::Unknowns;
use crate::board::Point;

/// Rises over the room, K, at every full second from 0, of a run at the case's own setting.
#[derive(Debug, Clone)]
pub struct UnitRun {
    /// Outlet over the room, K: what the rises go with.
    pub outlet: f64,
    /// A curve per joint.
    pub joints: Vec<Vec<f32>>,
    /// The part's body.
    pub body: Vec<f32>,
    /// A curve per neighbour.
    pub neighbours: Vec<Vec<f32>>,
    /// Hottest place of the laminate's faces.
    pub laminate: Vec<f32>,
}

/// Runs it to the longest heating, on the screening grid.
pub fn unit_run(case: &Case<'_>) -> UnitRun {
    let unknowns = Unknowns::nominal(&case.board.stack);
    let mesh = Mesh::of(case.board, Resolution::COARSE, unknowns.conduction);
    let network = Network::of(case.board, &mesh, (case.melting, case.room));
    let mut nodes = network.nodes.clone();
    for node in &mut nodes.nodes {
        // What melting takes is spread over the rise to it, so that the run stays linear.
        node.capacity += node.melting.take().map_or(0.0, |m| m.latent / m.liquidus);
    }
    let body = &case.board.connector.body;
    let path = case.air.motion.path(body).into_iter();
    let path = path.map(|(dx, dy)| Point { x: body.centre.x + dx, y: body.centre.y + dy }).collect();
    let room = Room { temperature: case.room, loss: LOSS_SCALE * unknowns.loss, radiation: Radiation::Linear };
    let blowing = Blowing { jet: jet(case, &unknowns), face: case.air.face, path };
    let outlet = blowing.jet.outlet_excess;
    let air = Surroundings::new((&mesh, &nodes), &covered(case.board, &mesh), Some(&blowing), &room);
    let step = Resolution::COARSE.step_s;
    let mut simulation: Simulation<f32> = Simulation::new(mesh, nodes, (RIM_LOSS, case.room.in_kelvin()), step);
    simulation.set_air(&air);
    let mut run = UnitRun {
        outlet,
        joints: vec![vec![0.0]; network.joints.len()],
        body: vec![0.0],
        neighbours: vec![vec![0.0]; network.neighbours.len()],
        laminate: vec![0.0],
    };
    for _ in 0..case.air.longest.in_seconds() as usize {
        (0..(1.0 / step).round() as usize).for_each(|_| simulation.advance());
        run.record(&simulation, &network);
    }
    run
}

impl UnitRun {
    fn record(&mut self, simulation: &Simulation<f32>, network: &Network) {
        let rise = |node: &usize| simulation.node(*node) as f32;
        self.joints.iter_mut().zip(&network.joints).for_each(|(curve, k)| curve.push(rise(k)));
        self.neighbours.iter_mut().zip(&network.neighbours).for_each(|(curve, k)| curve.push(rise(k)));
        self.body.push(rise(&network.body));
        self.laminate.push(simulation.hottest_face() as f32);
    }
}
