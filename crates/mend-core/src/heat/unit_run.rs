//! One run for all set temperatures: without melting and with radiation about 400 K, what the jet brings goes with its
//! exit_excess (heating.md, section 3: within 1-2 % of the full model; test R9). A soak before it, a preheater and an iron superpose:
//! a second run with the jet blowing unheated.

use super::case::Case;
use super::mesh::Resolution;
use super::parameters::ParameterSample;
use super::rig::{Model, Rig};
use super::simulation::Simulation;
use super::traces::Traces;

/// Rises over ambient, K, at every full second from the last stage's 0, of a run at the case's own setting.
#[derive(Debug, Clone)]
pub struct UnitRun {
    /// Nozzle over ambient, K: what the rises of `jet` go with.
    pub exit_excess: f64,
    /// By the jet of the last stage, from a cold board.
    pub jet: Traces,
    /// By all else; nothing where there is nothing else.
    pub rest: Traces,
    /// The stages before the last.
    pub before: Traces,
}

/// Runs it to the longest heating, on the screening grid.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::unit_run::unit_run;
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let order = bench.order();
/// let unit = unit_run(&order.case(&melting));
/// assert!(unit.exit_excess > 100.0, "K above ambient at the nozzle");
/// assert_eq!(unit.jet.joints.len(), bench.board.connector.joints.len());
/// ```
pub fn unit_run(case: &Case<'_>) -> UnitRun {
    unit_run_after(case, Soak::run(case).as_ref())
}

/// The same after a soak that is known already: its own, or that of a case which differs in the air of the last stage alone.
pub(crate) fn unit_run_after(case: &Case<'_>, soak: Option<&Soak>) -> UnitRun {
    let parameters = ParameterSample::middle(case);
    let rig = Rig::new(case, &parameters, Model { resolution: Resolution::COARSE, linear: true });
    let exit_excess = rig.exit_excess;
    let empty = || Traces::from_network(&rig.network);
    let (before, rest) =
        soak.map_or_else(|| (empty(), empty()), |soak| (soak.before.clone(), soak.without_jet(rig.clone(), case)));
    UnitRun { exit_excess, jet: jet_alone(rig, case), rest, before }
}

/// The last stage from a cold board, with nothing heated but the jet.
fn jet_alone(mut rig: Rig, case: &Case<'_>) -> Traces {
    let (Some(stage), Some(rest)) = (rig.stages.pop(), rig.without_jet.take()) else { return Traces::default() };
    let ([mut air], [rest]) = (stage.air, rest);
    for (air, rest) in air.faces.iter_mut().flatten().zip(rest.faces.iter().flatten()) {
        air.gain -= rest.gain;
    }
    for (air, rest) in air.nodes.iter_mut().zip(&rest.nodes) {
        air.1 -= rest.1;
    }
    rig.simulation.begin_at(0.0, &[]);
    rig.simulation.set_air(&air);
    follow(&mut rig, stage.seconds, case)
}

/// What comes before the last stage, and how the board stands then. It runs in full, as it is set: radiation about 400 K takes
/// half as much again as it should from a board at 130 °C, and a soaked window was up to a tenth late.
pub(crate) struct Soak {
    before: Traces,
    board: Simulation<f32>,
}

impl Soak {
    /// The soak of a case; none where the board is cold and nothing but the jet ever heats it.
    pub(crate) fn run(case: &Case<'_>) -> Option<Self> {
        let cold = case.begins_over_ambient().in_kelvin() == 0.0;
        if case.recipe.preheat.is_empty() && case.recipe.during.is_none() && cold {
            return None;
        }
        let parameters = ParameterSample::middle(case);
        let mut full = Rig::new(case, &parameters, Model { resolution: Resolution::COARSE, linear: false });
        let mut before = Traces::from_network(&full.network);
        let (mut stage, mut past) = (0, 0);
        while past < case.recipe.seconds_before() {
            full.begin(stage);
            let seconds = full.stages[stage].seconds;
            before.append(follow_with(&mut full, seconds, case, Rig::tools_go_on));
            (stage, past) = (stage + 1, past + seconds);
        }
        Some(Self { before, board: full.simulation })
    }

    /// The last stage after it, with its jet unheated.
    fn without_jet(&self, mut linear: Rig, case: &Case<'_>) -> Traces {
        let last = linear.stages.len() - 1;
        linear.simulation.adopt(&self.board);
        linear.begin(last);
        let (seconds, air) = (linear.stages[last].seconds, linear.without_jet.take());
        air.iter().for_each(|air| linear.simulation.set_airs(air));
        follow(&mut linear, seconds, case)
    }
}

/// With tools that stay where they are, as a linear model has them.
fn follow(rig: &mut Rig, seconds: usize, case: &Case<'_>) -> Traces {
    follow_with(rig, seconds, case, |_| ())
}

fn follow_with(rig: &mut Rig, seconds: usize, case: &Case<'_>, before_each: impl Fn(&mut Rig)) -> Traces {
    let mut traces = Traces::from_network(&rig.network);
    traces.record(&rig.simulation.of(0), &rig.network, 0.0);
    for _ in 0..seconds {
        if case.watch.is_cancelled() {
            break;
        }
        before_each(rig);
        rig.one_second();
        traces.record(&rig.simulation.of(0), &rig.network, 0.0);
    }
    traces
}
