//! One run for all set temperatures: without melting and with radiation about 400 K, what the jet brings goes with its
//! outlet (heating.md, section 3: within 1-2 % of the full model; test R9). A soak before it, a plate and an iron superpose:
//! a second run with the jet blowing unheated.

use super::mesh::Resolution;
use super::rig::{Model, Rig};
use super::run::Case;
use super::traces::Traces;
use super::unknowns::Unknowns;

/// Rises over the room, K, at every full second from the last pass's 0, of a run at the case's own setting.
#[derive(Debug, Clone)]
pub struct UnitRun {
    /// Outlet over the room, K: what the rises of `jet` go with.
    pub outlet: f64,
    /// By the jet of the last pass, from a cold board.
    pub jet: Traces,
    /// By all else; nothing where there is nothing else.
    pub rest: Traces,
    /// The passes before the last.
    pub before: Traces,
}

/// Runs it to the longest heating, on the screening grid.
pub fn unit_run(case: &Case<'_>) -> UnitRun {
    let unknowns = Unknowns::nominal(&case.board.stack);
    let rig = Rig::new(case, &unknowns, Model { resolution: Resolution::COARSE, linear: true });
    let outlet = rig.outlet;
    let lone = case.recipe.before.is_empty() && case.recipe.with.is_none();
    let empty = Traces::of(&rig.network);
    let (before, rest) = if lone { (empty.clone(), empty) } else { without_jet(rig.clone(), case) };
    UnitRun { outlet, jet: jet_alone(rig, case), rest, before }
}

/// The last pass from a cold board, with nothing heated but the jet.
fn jet_alone(mut rig: Rig, case: &Case<'_>) -> Traces {
    let (Some(leg), Some(rest)) = (rig.legs.pop(), rig.without_jet.take()) else { return Traces::default() };
    let mut air = leg.air;
    for (air, rest) in air.faces.iter_mut().flatten().zip(rest.faces.iter().flatten()) {
        air.gain -= rest.gain;
    }
    for (air, rest) in air.nodes.iter_mut().zip(&rest.nodes) {
        air.1 -= rest.1;
    }
    rig.simulation.set_air(&air);
    follow(&mut rig, leg.seconds, case)
}

/// All passes, the last one with its jet unheated: before the last, and in it. The passes before are as they are set, so
/// they run in full: radiation about 400 K takes half as much again as it should from a board at 130 °C, and a soaked
/// window was up to a tenth late.
fn without_jet(mut linear: Rig, case: &Case<'_>) -> (Traces, Traces) {
    let unknowns = Unknowns::nominal(&case.board.stack);
    let mut full = Rig::new(case, &unknowns, Model { resolution: Resolution::COARSE, linear: false });
    let mut before = Traces::of(&full.network);
    let last = full.legs.len() - 1;
    for leg in 0..last {
        full.begin(leg);
        let seconds = full.legs[leg].seconds;
        before.append(follow(&mut full, seconds, case));
    }
    linear.simulation.adopt(&full.simulation);
    linear.begin(last);
    let (seconds, air) = (linear.legs[last].seconds, linear.without_jet.take());
    air.iter().for_each(|air| linear.simulation.set_air(air));
    (before, follow(&mut linear, seconds, case))
}

fn follow(rig: &mut Rig, seconds: usize, case: &Case<'_>) -> Traces {
    let mut traces = Traces::of(&rig.network);
    traces.record(&rig.simulation, &rig.network, 0.0);
    for _ in 0..seconds {
        if case.watch.is_cancelled() {
            break;
        }
        rig.one_second();
        traces.record(&rig.simulation, &rig.network, 0.0);
    }
    traces
}
