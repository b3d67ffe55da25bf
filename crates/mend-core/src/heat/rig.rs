//! A case set up to be run: the board with everything on it, and what works on it from when to when.

use super::at_work::jet;
use super::boundary::{ActiveTools, Ambient, BoundaryConditions, HeatedBoard, LOSS_SCALE, Radiation, covered};
use super::case::Case;
use super::coefficients::RIM_LOSS;
use super::course::Course;
use super::lumped_nodes::OfRuns;
use super::mesh::{Mesh, Resolution};
use super::network::MeshedBoard;
use super::network::Network;
use super::parameters::ParameterSample;
use super::run_stage::{OnItsWay, Round, RunStage, WaitsFor, moved};
use super::shielding::Shielding;
use super::simulation::BatchBoard;
use super::simulation::Simulation;
use super::stepping::Sweep;
use super::under::mean;
use crate::solder::Melts;

/// How a case is modelled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Model {
    /// How fine.
    pub resolution: Resolution,
    /// Everything in proportion to its cause: radiation about 400 K, and what melting takes spread over the rise to it.
    pub linear: bool,
}

/// Board, lumps and stages, of one run or of several in a batch.
#[derive(Debug, Clone)]
pub struct Rig<const RUNS: usize = 1> {
    /// Where everything is among the lumps.
    pub network: Network,
    /// The state.
    pub simulation: Simulation<f32, RUNS>,
    /// One after the other; the last is the one in which the part is to come away.
    pub stages: Vec<RunStage<RUNS>>,
    /// The last stage with its jet blowing at room temperature: what is left is not the jet's. Of a linear model only.
    pub without_jet: Option<[BoundaryConditions; RUNS]>,
    /// Everything off.
    pub quiet: [BoundaryConditions; RUNS],
    /// Nozzle of the last stage's jet over ambient, K; 0 where there is none.
    pub exit_excess: f64,
    steps_per_second: usize,
    /// Which stage, and how many seconds of it are over.
    at: (usize, usize),
    /// In each run, the second of the stage in which the nozzle began to come near.
    came_from: [Option<usize>; RUNS],
    /// And how far it is.
    ways: [OnItsWay; RUNS],
    /// Each joint is emptied for itself: one that has been liquid counts though it freezes again.
    in_turn: bool,
}

impl Rig {
    /// Sets a case up, at rest at room temperature.
    pub fn new(case: &Case<'_>, parameters: &ParameterSample, model: Model) -> Self {
        Self::batch(case, std::array::from_ref(parameters), model)
    }
}

impl<const RUNS: usize> Rig<RUNS>
where
    f32: Sweep<RUNS>,
{
    /// Sets a case up once for each of some parameters, at rest at room temperature.
    pub fn batch(case: &Case<'_>, parameters: &[ParameterSample; RUNS], model: Model) -> Self {
        let setups = parameters.each_ref().map(|parameters| SetUp::new(case, parameters, model));
        let each = |of: &dyn Fn(&SetUp<'_>) -> BoundaryConditions| setups.each_ref().map(of);
        let courses = setups.each_ref().map(|setup| setup.course(|course| course.stages()));
        let stages = (0..courses[0].len()).map(|k| RunStage::together(courses.each_ref().map(|course| &course[k])));
        let stages = stages.collect();
        let without_jet = model.linear.then(|| each(&|setup| setup.course(|course| course.last_without_jet())));
        let quiet = each(&|setup| setup.course(|course| course.scene.with(&ActiveTools::default())));
        let exit_excess = case.recipe.air.map_or(0.0, |air| jet(case, &air, &parameters[0]).exit_excess);
        let step = model.resolution.step_s;
        let (mesh, network) = (setups[0].mesh.clone(), setups[0].network.clone());
        let (slabs, room) = (setups.each_ref().map(|s| s.mesh.slab), (RIM_LOSS, case.ambient.in_kelvin()));
        let nodes = setups.map(|setup| setup.network.nodes);
        let mut simulation = Simulation::batch(BatchBoard { mesh, slabs }, nodes, room, step);
        let begins = case.begins_over_ambient().in_kelvin();
        if begins != 0.0 {
            let cold: &[usize] = if case.purpose.fits() { &network.part } else { &[] };
            simulation.begin_at(begins, cold);
        }
        let (steps_per_second, in_turn) = ((1.0 / step).round() as usize, case.in_turn());
        Self {
            network,
            simulation,
            stages,
            without_jet,
            quiet,
            exit_excess,
            steps_per_second,
            at: (0, 0),
            came_from: [None; RUNS],
            ways: [OnItsWay::Far; RUNS],
            in_turn,
        }
    }

    /// Puts the tools of a stage to work.
    pub fn begin(&mut self, stage: usize) {
        self.at = (stage, 0);
        let stage = &self.stages[stage];
        for round in &stage.rounds {
            // It comes hot from its holder.
            let first = round.place(0).into_iter();
            first.for_each(|tip| {
                self.simulation.set_node(tip, round.drive.set * self.network.nodes.nodes[tip].capacity)
            });
        }
        self.came_from = [None; RUNS];
        self.ways = [OnItsWay::Far; RUNS];
        self.simulation.set_airs(&stage.air_at(&self.ways));
    }

    /// A second on.
    pub fn one_second(&mut self) {
        (0..self.steps_per_second).for_each(|_| self.simulation.advance());
    }

    /// Before each second: a nozzle comes nearer, a tip goes on to its next place, as hot as it is.
    pub fn tools_go_on(&mut self) {
        let (stage, second) = self.at;
        self.at.1 += 1;
        self.look_for_cue(second);
        let stage = &self.stages[stage];
        let way = |run: usize| {
            let since = self.came_from[run].map(|from| second - from);
            stage.nearing.as_ref().map_or(OnItsWay::Far, |nearing| nearing.after(since))
        };
        let ways = std::array::from_fn(way);
        let goes = |round: &Round| second > 0 && round.place(second) != round.place(second - 1);
        if ways == self.ways && !stage.rounds.iter().any(goes) {
            return;
        }
        let mut air = stage.air_at(&ways);
        for round in &stage.rounds {
            let (first, here) = (round.place(0), round.place(second));
            air.iter_mut().for_each(|air| moved(air, first, here, round.drive));
            let before = second.checked_sub(1).and_then(|before| round.place(before));
            if let Some((from, to)) = before.zip(here).filter(|(from, to)| from != to) {
                self.simulation.hand_on(from, to);
            }
        }
        self.ways = ways;
        self.simulation.set_airs(&air);
    }

    /// In every run where the hand has waited until now and sees what it waits for, the nozzle begins to come near.
    fn look_for_cue(&mut self, second: usize) {
        let Some(nearing) = &self.stages[self.at.0].nearing else { return };
        for (run, came_from) in self.came_from.iter_mut().enumerate().filter(|(_, from)| from.is_none()) {
            let state = self.simulation.of(run);
            let mut joints = self.network.joints.iter();
            let seen = match nearing.waits_for {
                WaitsFor::Nothing => true,
                WaitsFor::PadsAt(rise) => mean(&state, &self.network.pads) >= rise,
                WaitsFor::FirstJoint => joints.any(|joint| state.node_enthalpy(*joint) >= state.free_from(*joint)),
            };
            *came_from = seen.then_some(second);
        }
    }

    /// One second on; joints that let go get their time in their run, interpolated on enthalpy; one that
    /// is all solid again before the part is off has lost it.
    pub fn one_second_melting(&mut self, second: usize, melted: &mut [Vec<Option<f64>>; RUNS]) {
        self.tools_go_on();
        let (joints, steps) = (&self.network.joints, self.steps_per_second);
        let enthalpies = |simulation: &Simulation<f32, RUNS>| -> Vec<OfRuns<RUNS>> {
            joints.iter().map(|k| simulation.state.enthalpy[*k]).collect()
        };
        for step in 0..steps {
            let before = enthalpies(&self.simulation);
            self.simulation.advance();
            for (run, melted) in melted.iter_mut().enumerate() {
                let state = self.simulation.of(run);
                for ((joint, node), was) in melted.iter_mut().zip(joints).zip(&before) {
                    let (is, liquid) = (state.node_enthalpy(*node), state.free_from(*node));
                    if joint.is_none() && is >= liquid {
                        let part = (liquid - was[run]) / (is - was[run]);
                        *joint = Some(second as f64 + (step as f64 + part) / steps as f64);
                    } else if state.is_solid(*node) && !self.in_turn {
                        *joint = None;
                    }
                }
            }
        }
    }
}

/// A case under some parameters, before anything works on it.
pub(super) struct SetUp<'a> {
    case: &'a Case<'a>,
    parameters: &'a ParameterSample,
    pub(super) mesh: Mesh,
    pub(super) network: Network,
    pub(super) covered: [Vec<f64>; 2],
    pub(super) shielding: Shielding,
    pub(super) ambient: Ambient,
}

impl<'a> SetUp<'a> {
    pub(super) fn new(case: &'a Case<'a>, parameters: &'a ParameterSample, model: Model) -> Self {
        let mut mesh = Mesh::from_board(case.board, model.resolution, parameters.conduction);
        mesh.slab.capacity *= parameters.capacity * (1.0 + case.board.stack.crowding.adds());
        let melting: Vec<Melts> = case.melting.iter().map(|target| parameters.melts(target)).collect();
        let mut network = Network::from_board(case.board, &mesh, &melting, case.ambient);
        network.attach(MeshedBoard { board: case.board, mesh: &mesh }, case.recipe, case.station.iron);
        network.thermocouples = case.thermocouples.iter().map(|taped| taped.spot(&mesh, &network.components)).collect();
        if !case.purpose.has_part() {
            network.take_part_off(&case.board.connector);
        }
        if model.linear {
            for node in &mut network.nodes.nodes {
                node.capacity += node.melting.take().map_or(0.0, |m| m.latent / m.liquidus);
                node.most_w = f64::INFINITY;
            }
        }
        let radiation = if model.linear { Radiation::Linear } else { Radiation::Full };
        let ambient = Ambient { temperature: case.ambient, loss: LOSS_SCALE * parameters.loss, radiation };
        let covered = covered(case.board, case.purpose.has_part(), &mesh);
        let shielding = Shielding::from_shields(&case.recipe.shields, &mesh, parameters.shield);
        Self { case, parameters, mesh, network, covered, shielding, ambient }
    }

    fn course<T>(&self, what: impl FnOnce(Course<'_>) -> T) -> T {
        let Self { case, parameters, mesh, network, covered, shielding, ambient } = self;
        let (nodes, ambient) = (&network.nodes, *ambient);
        what(Course { case, parameters, scene: HeatedBoard { mesh, nodes, covered, shielding, ambient }, network })
    }
}
