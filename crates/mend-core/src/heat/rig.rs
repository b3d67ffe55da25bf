//! A case set up to be run: the board with everything on it, and what works on it from when to when.

use super::blowing::Blowing;
use super::boundary::{ActiveTools, Ambient, BoundaryConditions, HeatedBoard, LOSS_SCALE, Radiation, covered};
use super::case::Case;
use super::coefficients::RIM_LOSS;
use super::iron::Iron;
use super::jet::{Jet, JetLaw};
use super::lumped_nodes::OfRuns;
use super::mesh::{Mesh, Resolution};
use super::network::Network;
use super::parameters::ParameterSample;
use super::recipe::{HeatingAids, Recipe};
use super::shielding::Shielding;
use super::simulation::Simulation;
use super::station::Station;
use super::stepping::Sweep;
use super::tool::HotAir;
use crate::board::Rect;
use crate::solder::Melts;
use crate::units::{Flow, Length, Temperature};

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
pub struct RunStage<const RUNS: usize = 1> {
    /// Whole seconds.
    pub seconds: usize,
    /// What the air does meanwhile, in each run.
    pub air: [BoundaryConditions; RUNS],
    /// A tip that comes to its joints, and what it is set to, K over ambient.
    tip: Option<(usize, f64)>,
    /// Places that it goes round; it begins at the first.
    round: Vec<usize>,
    /// On each, whole seconds.
    dwell_s: usize,
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
    /// Each joint is emptied for itself: one that has been liquid counts though it freezes again.
    in_turn: bool,
}

/// The jet of some air at a case's station under some parameters.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{parameters::ParameterSample, rig::jet};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, air) = (bench.order(), bench.recipe.air.expect("hot air"));
/// let leaves = jet(&order.case(&melting), &air, &ParameterSample::nominal());
/// assert!(leaves.exit_excess > 100.0 && leaves.exit_excess < 420.0, "cooler than what is set, by what the nozzle loses");
/// ```
pub fn jet(case: &Case<'_>, air: &HotAir, parameters: &ParameterSample) -> Jet {
    let flow = Flow::litres_per_minute(air.flow.in_litres_per_minute() * parameters.flow);
    let distance = Length::mm(air.distance.in_mm() * parameters.distance);
    let law = case.station.law(parameters.jet);
    let back_pressure = law.back_pressure * parameters.back_pressure;
    let law = JetLaw { back_pressure, exit_shift: parameters.outlet_k, ..law };
    Jet::new(&HotAir { flow, distance, ..*air }, &law, case.ambient)
}

/// Some air of a station on a part with this body, nominally and in a usual room: to be drawn.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::rig::usual_blowing;
/// let air = bench.recipe.air.expect("hot air");
/// let blowing = usual_blowing(&bench.station, &air, &bench.board.connector.body);
/// assert_eq!(blowing.face, air.face);
/// ```
pub fn usual_blowing(station: &Station, air: &HotAir, body: &Rect) -> Blowing {
    const USUAL_AMBIENT: Temperature = Temperature::celsius(23.0);
    Blowing { jet: Jet::new(air, &station.law(1.0), USUAL_AMBIENT), face: air.face, path: air.path(body) }
}

/// Some air at work on a case's board.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{parameters::ParameterSample, rig::blowing};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, air) = (bench.order(), bench.recipe.air.expect("hot air"));
/// let at_work = blowing(&order.case(&melting), &air, &ParameterSample::nominal());
/// assert!(at_work.nearest(bench.board.connector.body.centre) < 1.0, "held still over the middle of the part, mm");
/// ```
pub fn blowing(case: &Case<'_>, air: &HotAir, parameters: &ParameterSample) -> Blowing {
    let [x, y] = air.aim;
    let aimed = HotAir { aim: [x + parameters.aim_mm[0], y + parameters.aim_mm[1]], ..*air };
    Blowing { jet: jet(case, air, parameters), face: air.face, path: aimed.path(&case.board.connector.body) }
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
        let mut simulation = Simulation::batch((mesh, slabs), nodes, room, step);
        let begins = case.begins_over_ambient().in_kelvin();
        if begins != 0.0 {
            let cold: &[usize] = if case.purpose.fits() { &network.part } else { &[] };
            simulation.begin_at(begins, cold);
        }
        let (steps_per_second, in_turn) = ((1.0 / step).round() as usize, case.in_turn());
        Self { network, simulation, stages, without_jet, quiet, exit_excess, steps_per_second, at: (0, 0), in_turn }
    }

    /// Puts the tools of a stage to work.
    pub fn begin(&mut self, stage: usize) {
        self.at = (stage, 0);
        let stage = &self.stages[stage];
        if let Some((tip, set)) = stage.tip {
            // It comes hot from its holder.
            self.simulation.set_node(tip, set * self.network.nodes.nodes[tip].capacity);
        }
        self.simulation.set_airs(&stage.air);
    }

    /// A second on.
    pub fn one_second(&mut self) {
        (0..self.steps_per_second).for_each(|_| self.simulation.advance());
    }

    /// The tip goes on to its next place, as hot as it is.
    fn go_round(&mut self) {
        let (stage, second) = self.at;
        self.at.1 += 1;
        let stage = &self.stages[stage];
        let (Some((_, set)), turns) = (stage.tip, stage.round.len()) else { return };
        if turns < 2 || second == 0 || !second.is_multiple_of(stage.dwell_s) {
            return;
        }
        let place = |turn: usize| stage.round[turn % turns];
        let (from, to) = (place(second / stage.dwell_s - 1), place(second / stage.dwell_s));
        let mut air = stage.air.clone();
        air.iter_mut().for_each(|air| air.hold(to, set));
        self.simulation.hand_on(from, to);
        self.simulation.set_airs(&air);
    }

    /// One second on; joints that let go get their time in their run, interpolated on enthalpy; one that
    /// is all solid again before the part is off has lost it.
    pub fn one_second_melting(&mut self, second: usize, melted: &mut [Vec<Option<f64>>; RUNS]) {
        self.go_round();
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

impl<const RUNS: usize> RunStage<RUNS> {
    /// The same stage of all runs.
    fn together(of: [&RunStage; RUNS]) -> Self {
        let air = of.map(|stage| stage.air[0].clone());
        Self { seconds: of[0].seconds, air, tip: of[0].tip, round: of[0].round.clone(), dwell_s: of[0].dwell_s }
    }
}

/// A case under some parameters, before anything works on it.
struct SetUp<'a> {
    case: &'a Case<'a>,
    parameters: &'a ParameterSample,
    mesh: Mesh,
    network: Network,
    covered: [Vec<f64>; 2],
    shielding: Shielding,
    ambient: Ambient,
}

impl<'a> SetUp<'a> {
    fn new(case: &'a Case<'a>, parameters: &'a ParameterSample, model: Model) -> Self {
        let mut mesh = Mesh::from_board(case.board, model.resolution, parameters.conduction);
        mesh.slab.capacity *= parameters.capacity;
        let melting: Vec<Melts> = case.melting.iter().map(|target| parameters.melts(target)).collect();
        let mut network = Network::from_board(case.board, &mesh, (&melting, case.ambient));
        network.attach((case.board, &mesh), case.recipe);
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
        let covered = covered((case.board, case.purpose.has_part()), &mesh);
        let shielding = Shielding::from_shields(&case.recipe.shields, &mesh, parameters.shield);
        Self { case, parameters, mesh, network, covered, shielding, ambient }
    }

    fn course<T>(&self, what: impl FnOnce(Course<'_>) -> T) -> T {
        let Self { case, parameters, mesh, network, covered, shielding, ambient } = self;
        let (nodes, ambient) = (&network.nodes, *ambient);
        what(Course { case, parameters, scene: HeatedBoard { mesh, nodes, covered, shielding, ambient }, network })
    }
}

/// What the stages are made from.
struct Course<'a> {
    case: &'a Case<'a>,
    parameters: &'a ParameterSample,
    scene: HeatedBoard<'a>,
    network: &'a Network,
}

impl Course<'_> {
    fn stages(&self) -> Vec<RunStage> {
        let Recipe { air, longest, preheat, during, .. } = self.case.recipe;
        let mut stages = Vec::new();
        for (k, stage) in preheat.iter().enumerate() {
            stages.push(self.stage(stage.lasts.in_seconds(), stage.air.as_ref(), (&stage.during, k)));
            let preheater = HeatingAids { iron: None, ..stage.during.clone() };
            stages.extend(
                (stage.change.in_seconds() >= 1.0)
                    .then(|| self.stage(stage.change.in_seconds(), None, (&preheater, k))),
            );
        }
        stages.push(self.stage(longest.in_seconds(), air.as_ref(), (during, preheat.len())));
        stages
    }

    fn stage(&self, seconds: f64, air: Option<&HotAir>, (during, stage): (&HeatingAids, usize)) -> RunStage {
        let working = self.working(air, (during, stage));
        let round = if working.tip.is_some() { self.network.tips[stage].clone() } else { Vec::new() };
        let dwell_s = during.iron.as_ref().map_or(1, Iron::dwell_s);
        RunStage { seconds: seconds as usize, air: [self.scene.with(&working)], tip: working.tip, round, dwell_s }
    }

    fn last_without_jet(&self) -> BoundaryConditions {
        let Recipe { air, preheat, during, .. } = self.case.recipe;
        let mut working = self.working(air.as_ref(), (during, preheat.len()));
        if let Some(blowing) = &mut working.blowing {
            blowing.jet = blowing.jet.unheated();
        }
        self.scene.with(&working)
    }

    fn working(&self, air: Option<&HotAir>, (during, stage): (&HeatingAids, usize)) -> ActiveTools {
        let over_ambient = |t: Temperature| (t - self.case.ambient).in_kelvin();
        let tip = during
            .iron
            .as_ref()
            .zip(self.network.tips[stage].first().copied())
            .map(|(iron, tip)| (tip, over_ambient(iron.set)));
        let preheater =
            during.preheater.map(|preheater| (preheater, preheater.area(self.case.board.connector.body.centre)));
        let blowing = air.map(|air| blowing(self.case, air, self.parameters));
        ActiveTools { blowing, preheater, tip }
    }
}
