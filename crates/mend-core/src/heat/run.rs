//! One run: air on until the longest time, what melts when; and from the moment of release, air off until all is solid.

use super::field::RIM_LOSS;
use super::jet::{Jet, JetLaw};
use super::mesh::{Mesh, Resolution};
use super::network::Network;
use super::simulation::Simulation;
use super::surroundings::{Blowing, LOSS_SCALE, Radiation, Room, Surroundings, covered};
use super::tool::{HotAir, Station};
use super::unknowns::Unknowns;
use crate::board::{Board, Face, Point};
use crate::solder::MeltTarget;
use crate::units::{Flow, Temperature};

/// Longest cooling that is followed, s.
const LONGEST_COOLING: usize = 300;
/// Down to here braid glides on a warm board, °C (E).
pub const WICKING_WARMTH: Temperature = Temperature::celsius(150.0);

/// Everything a run starts from.
#[derive(Debug, Clone, Copy)]
pub struct Case<'a> {
    /// The board.
    pub board: &'a Board,
    /// Where each joint melts, in the connector's order.
    pub melting: &'a [MeltTarget],
    /// The station.
    pub station: &'a Station,
    /// Its settings.
    pub air: &'a HotAir,
    /// The room.
    pub room: Temperature,
}

/// What a run found. Curves are °C at every full second from 0.
#[derive(Debug, Clone)]
pub struct Run {
    /// For each joint, when it was all liquid, s.
    pub melted: Vec<Option<f64>>,
    /// For each joint, where it melted in this run, °C.
    pub melts_at: Vec<f64>,
    /// When the part comes away: the last joint, and the hand that notices, s.
    pub release: Option<f64>,
    /// A curve per joint.
    pub joints: Vec<Vec<f32>>,
    /// The part's body.
    pub body: Vec<f32>,
    /// A curve per neighbour.
    pub neighbours: Vec<Vec<f32>>,
    /// Hottest place of the laminate's faces.
    pub laminate: Vec<f32>,
    /// After release.
    pub cooling: Option<Cooling>,
    /// Both faces at release, or at the end if it never came, °C by column.
    pub faces: [Vec<f32>; 2],
}

/// What happens after the air goes off at release.
#[derive(Debug, Clone)]
pub struct Cooling {
    /// Until the last joint is all solid, s.
    pub hold: Option<f64>,
    /// Until the board under the joints is too cool to wick on, s.
    pub warm: f64,
    /// How far the part's body and each neighbour climbed on after the air went off: their highest, °C.
    pub body_peak: f32,
    /// Per neighbour, °C.
    pub neighbour_peaks: Vec<f32>,
}

/// The pause between "it is molten" and "it is up": min(3 s, 0.25 t + 0.5 s) (E).
pub fn handling(molten: f64) -> f64 {
    (0.25 * molten + 0.5).min(3.0)
}

/// Computes a run to its longest heating. The same inputs give the same bits.
pub fn run(case: &Case<'_>, unknowns: &Unknowns, resolution: Resolution) -> Run {
    Runner::new(case, unknowns, resolution).run(&|_| false)
}

/// The same, but once the part is released the heating ends as soon as `enough` is known.
pub fn run_until(case: &Case<'_>, unknowns: &Unknowns, resolution: Resolution, enough: &dyn Fn(&Run) -> bool) -> Run {
    Runner::new(case, unknowns, resolution).run(enough)
}

/// The jet of a case under some unknowns.
pub fn jet(case: &Case<'_>, unknowns: &Unknowns) -> Jet {
    let mut law = JetLaw::of(case.station.blower);
    law.scale *= case.station.jet_scale * unknowns.jet;
    law.heater_w = case.station.heater_w;
    let flow = Flow::litres_per_minute(case.air.flow.in_litres_per_minute() * unknowns.flow);
    Jet::new(&HotAir { flow, ..*case.air }, &law, case.room)
}

struct Runner<'a> {
    case: &'a Case<'a>,
    network: Network,
    melts_at: Vec<f64>,
    simulation: Simulation<f32>,
    quiet: Surroundings,
    steps_per_second: usize,
    seconds: usize,
}

impl<'a> Runner<'a> {
    fn new(case: &'a Case<'a>, unknowns: &Unknowns, resolution: Resolution) -> Self {
        let mesh = Mesh::of(case.board, resolution, unknowns.conduction);
        let melting: Vec<MeltTarget> = case.melting.iter().map(|target| unknowns.melts(target)).collect();
        let network = Network::of(case.board, &mesh, (&melting, case.room));
        let melts_at = melting.iter().map(|target| target.melted.in_celsius()).collect();
        let room = Room { temperature: case.room, loss: LOSS_SCALE * unknowns.loss, radiation: Radiation::Full };
        let covered = covered(case.board, &mesh);
        let body = &case.board.connector.body;
        let path = case.air.motion.path(body).into_iter();
        let blowing = Blowing {
            jet: jet(case, unknowns),
            face: case.air.face,
            path: path.map(|(dx, dy)| Point { x: body.centre.x + dx, y: body.centre.y + dy }).collect(),
        };
        let blown = Surroundings::new((&mesh, &network.nodes), &covered, Some(&blowing), &room);
        let quiet = Surroundings::new((&mesh, &network.nodes), &covered, None, &room);
        let mut simulation =
            Simulation::new(mesh, network.nodes.clone(), (RIM_LOSS, case.room.in_kelvin()), resolution.step_s);
        simulation.set_air(&blown);
        let steps_per_second = (1.0 / resolution.step_s).round() as usize;
        let seconds = case.air.longest.in_seconds() as usize;
        Self { case, network, melts_at, simulation, quiet, steps_per_second, seconds }
    }

    fn run(mut self, enough: &dyn Fn(&Run) -> bool) -> Run {
        let mut run = self.empty();
        self.record(&mut run);
        let mut at_release = None;
        for second in 0..self.seconds {
            self.one_second(second, &mut run.melted);
            self.record(&mut run);
            if run.release.is_none() && run.melted.iter().all(Option::is_some) {
                let molten = run.melted.iter().flatten().fold(0.0, |last: f64, t| last.max(*t));
                run.release = Some(molten + handling(molten));
            }
            if at_release.is_none() && run.release.is_some_and(|t| t <= (second + 1) as f64) {
                at_release = Some(self.simulation.clone());
            }
            if at_release.is_some() && enough(&run) {
                break;
            }
        }
        if let Some(hot) = at_release {
            self.simulation = hot;
        }
        let last = self.simulation.mesh().layers - 1;
        run.faces = [0, last].map(|layer| self.simulation.layer(layer).iter().map(|t| t + self.room()).collect());
        run.cooling = run.release.map(|_| self.cool());
        run
    }

    fn room(&self) -> f32 {
        self.case.room.in_celsius() as f32
    }

    fn empty(&self) -> Run {
        let curve = || Vec::with_capacity(self.seconds + 1);
        Run {
            melted: vec![None; self.network.joints.len()],
            melts_at: self.melts_at.clone(),
            release: None,
            joints: self.network.joints.iter().map(|_| curve()).collect(),
            body: curve(),
            neighbours: self.network.neighbours.iter().map(|_| curve()).collect(),
            laminate: curve(),
            cooling: None,
            faces: [Vec::new(), Vec::new()],
        }
    }

    /// One second on; joints that turn liquid get their time, interpolated on enthalpy.
    fn one_second(&mut self, second: usize, melted: &mut [Option<f64>]) {
        for step in 0..self.steps_per_second {
            let before: Vec<f64> = self.network.joints.iter().map(|k| self.simulation.node_enthalpy(*k)).collect();
            self.simulation.advance();
            for ((joint, node), was) in melted.iter_mut().zip(&self.network.joints).zip(&before) {
                let (is, liquid) =
                    (self.simulation.node_enthalpy(*node), self.simulation.nodes().nodes[*node].liquid_from());
                if joint.is_none() && is >= liquid {
                    let part = (liquid - was) / (is - was);
                    *joint = Some(second as f64 + (step as f64 + part) / self.steps_per_second as f64);
                }
            }
        }
    }

    fn celsius(&self, node: usize) -> f32 {
        self.simulation.node(node) as f32 + self.room()
    }

    fn record(&self, run: &mut Run) {
        for (curve, node) in run.joints.iter_mut().zip(&self.network.joints) {
            curve.push(self.celsius(*node));
        }
        for (curve, node) in run.neighbours.iter_mut().zip(&self.network.neighbours) {
            curve.push(self.celsius(*node));
        }
        run.body.push(self.celsius(self.network.body));
        run.laminate.push(self.simulation.hottest_face() as f32 + self.room());
    }

    fn cool(&mut self) -> Cooling {
        let quiet = self.quiet.clone();
        self.simulation.set_air(&quiet);
        let mut found = Cooling {
            hold: None,
            warm: LONGEST_COOLING as f64,
            body_peak: self.celsius(self.network.body),
            neighbour_peaks: self.network.neighbours.iter().map(|k| self.celsius(*k)).collect(),
        };
        let mut warm = true;
        for second in 1..=LONGEST_COOLING {
            for _ in 0..self.steps_per_second {
                self.simulation.advance();
            }
            self.climb(&mut found);
            let solid = |k: &usize| self.simulation.node_enthalpy(*k) <= self.simulation.nodes().nodes[*k].solid_to();
            if found.hold.is_none() && self.network.joints.iter().all(solid) {
                found.hold = Some(second as f64);
            }
            if warm && self.board_under_joints() < WICKING_WARMTH.in_celsius() {
                found.warm = second as f64;
                warm = false;
            }
            if found.hold.is_some() && !warm {
                break;
            }
        }
        found
    }

    fn climb(&self, found: &mut Cooling) {
        found.body_peak = found.body_peak.max(self.celsius(self.network.body));
        for (peak, node) in found.neighbour_peaks.iter_mut().zip(&self.network.neighbours) {
            *peak = peak.max(self.celsius(*node));
        }
    }

    /// Mean of the board's surface at the joints, °C.
    fn board_under_joints(&self) -> f64 {
        let connector = &self.case.board.connector;
        let mesh = self.simulation.mesh();
        let layer = if connector.face == Face::Top { 0 } else { mesh.layers - 1 };
        let sum: f64 = connector.joints.iter().map(|j| self.simulation.cell(mesh.column_at(j.at), layer)).sum();
        sum / connector.joints.len() as f64 + self.case.room.in_celsius()
    }
}
