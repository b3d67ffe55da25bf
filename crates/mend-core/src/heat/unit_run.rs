//! One run for all set temperatures: without melting and with radiation about 400 K, what the jet brings goes with its
//! exit_excess (heating.md, section 3: within 1-2 % of the full model; test R9). A soak before it, a preheater and an iron superpose:
//! a second run with the jet blowing unheated.

use super::case::Case;
use super::mesh::Resolution;
use super::parameters::ParameterSample;
use super::rig::{Model, Rig};
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
    let parameters = ParameterSample::nominal();
    let rig = Rig::new(case, &parameters, Model { resolution: Resolution::COARSE, linear: true });
    let exit_excess = rig.exit_excess;
    let cold = case.begins_over_ambient().in_kelvin() == 0.0;
    let lone = case.recipe.preheat.is_empty() && case.recipe.during.is_none() && cold;
    let empty = Traces::from_network(&rig.network);
    let (before, rest) = if lone { (empty.clone(), empty) } else { without_jet(rig.clone(), case) };
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

/// All stages, the last one with its jet unheated: before the last, and in it. The stages before are as they are set, so
/// they run in full: radiation about 400 K takes half as much again as it should from a board at 130 °C, and a soaked
/// window was up to a tenth late.
fn without_jet(mut linear: Rig, case: &Case<'_>) -> (Traces, Traces) {
    let parameters = ParameterSample::nominal();
    let mut full = Rig::new(case, &parameters, Model { resolution: Resolution::COARSE, linear: false });
    let mut before = Traces::from_network(&full.network);
    let (last, mut stage, mut past) = (linear.stages.len() - 1, 0, 0);
    while past < case.recipe.seconds_before() {
        full.begin(stage);
        let seconds = full.stages[stage].seconds;
        before.append(follow(&mut full, seconds, case));
        (stage, past) = (stage + 1, past + seconds);
    }
    linear.simulation.adopt(&full.simulation);
    linear.begin(last);
    let (seconds, air) = (linear.stages[last].seconds, linear.without_jet.take());
    air.iter().for_each(|air| linear.simulation.set_airs(air));
    (before, follow(&mut linear, seconds, case))
}

fn follow(rig: &mut Rig, seconds: usize, case: &Case<'_>) -> Traces {
    let mut traces = Traces::from_network(&rig.network);
    traces.record(&rig.simulation.of(0), &rig.network, 0.0);
    for _ in 0..seconds {
        if case.watch.is_cancelled() {
            break;
        }
        rig.one_second();
        traces.record(&rig.simulation.of(0), &rig.network, 0.0);
    }
    traces
}
