//! Heat, until the part is off.

use super::super::band::TimeBand;
use super::line::HeatLine;
use super::script::Script;
use super::stages;
use super::step::{Step, StepKind, step};
use super::task::Task;
use crate::board::{Board, ConnectorFamily};
use crate::caution::Caution;
use crate::heat::iron::Iron;
use crate::heat::recipe::HeatingStage;
use crate::heat::tool::{HotAir, Tilt};
use crate::method::MethodFamily;

/// Soaks, the heat itself, and the lift.
pub(super) fn until_off(script: &Script<'_>) -> Vec<Step> {
    let in_turn = script.plan.recipe.in_turn(script.board);
    let mut steps = stages::soaks(script, in_turn);
    steps.push(if in_turn { empty_holes(script) } else { heat(script) });
    if !script.is(MethodFamily::HotSwap) {
        steps.push(lift(script));
    }
    steps
}

fn heat(script: &Script<'_>) -> Step {
    let recipe = &script.plan.recipe;
    let family = script.choice.map(|choice| choice.family);
    let mut lines = stages::helpers(&recipe.during);
    lines.extend(recipe.air.as_ref().map(|air| blown(script, air)).into_iter().flatten());
    lines.extend(recipe.air.iter().flat_map(way));
    lines.extend(family.map(|family| HeatLine::MethodHands { family }));
    lines.push(if recipe.levered && recipe.air.is_none() { HeatLine::LeverRound } else { HeatLine::DoNotPull });
    let kind = StepKind::Heat { release: script.plan.release, abort_s: script.plan.abort.at_s };
    let usual = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    let own = family.map_or(&[][..], |family| family.method().cautions());
    let cautions = [&usual, own].concat().into_iter().fold(Vec::new(), |mut once, caution| {
        if !once.contains(&caution) {
            once.push(caution);
        }
        once
    });
    let task = Task::Heat { family, limited_by: script.plan.limited_by.clone() };
    Step { kind, ..step(task, lines, &cautions) }
}

/// How the nozzle comes near and leans, where it does.
pub(super) fn way(air: &HotAir) -> Vec<HeatLine> {
    let near = air.approach.map(|approach| HeatLine::ComesNear {
        from_mm: approach.from.in_mm(),
        to_mm: air.distance.in_mm(),
        s: approach.over.in_seconds(),
        when: approach.when,
    });
    let leans = air.tilt.filter(|tilt| tilt.lean_deg > 0.0);
    let leans = leans.map(|Tilt { lean_deg, towards_deg }| HeatLine::Leans { lean_deg, towards_deg });
    near.into_iter().chain(leans).collect()
}

/// The air with all its settings in a line.
pub(super) fn air_and_place(board: &Board, air: &HotAir) -> HeatLine {
    HeatLine::AirAndPlace {
        onto_part: air.face == board.connector.face,
        face: air.face,
        motion: air.motion,
        distance_mm: air.distance.in_mm(),
        nozzle_mm: air.nozzle.in_mm(),
        lpm: air.flow.in_litres_per_minute(),
    }
}

/// Two lines where nothing else is said of the heat; one where a method has a line of its own: a screen that is read from two
/// metres holds four.
fn blown(script: &Script<'_>, air: &HotAir) -> Vec<HeatLine> {
    let (motion, face) = (air.motion, air.face);
    let onto_part = face == script.board.connector.face;
    let (distance_mm, nozzle_mm) = (air.distance.in_mm(), air.nozzle.in_mm());
    let lpm = air.flow.in_litres_per_minute();
    match script.choice {
        Some(_) => vec![air_and_place(script.board, air)],
        None => {
            vec![HeatLine::AirPlace { onto_part, face, motion, distance_mm }, HeatLine::AirSetting { nozzle_mm, lpm }]
        }
    }
}

/// One hole after the other: the time is that of all of them.
fn empty_holes(script: &Script<'_>) -> Step {
    let recipe = &script.plan.recipe;
    let each: Vec<&HeatingStage> = recipe.preheat.iter().filter(|stage| stage.during.iron.is_some()).collect();
    let before: f64 = each.iter().map(|stage| stage.seconds() as f64).sum();
    let joints = each.iter().filter_map(|stage| stage.during.iron.as_ref()).chain(&recipe.during.iron);
    let named: Vec<String> = joints.map(|iron| iron.row.clone()).collect();
    let dwell = each.first().map_or(0.0, |stage| stage.lasts.in_seconds());
    let tip = |iron: &Iron| HeatLine::TipOnEachLeg { tip_mm: iron.tip.in_mm(), s: dwell };
    let mut lines: Vec<HeatLine> = recipe.during.iron.iter().map(tip).collect();
    lines.extend([HeatLine::OneAfterOther { joints: named }, HeatLine::MethodHands { family: MethodFamily::Pump }]);
    let later = |t: Option<f64>| t.map(|t| t + before);
    let TimeBand { low_s, mid_s, high_s, share } = script.plan.release;
    let release = TimeBand { low_s: later(low_s), mid_s: later(mid_s), high_s: later(high_s), share };
    let kind = StepKind::Heat { release, abort_s: before + script.plan.abort.at_s };
    let family = script.choice.map(|choice| choice.family);
    let task = Task::EmptyHoles { family, limited_by: script.plan.limited_by.clone() };
    Step { kind, ..step(task, lines, MethodFamily::Pump.method().cautions()) }
}

fn lift(script: &Script<'_>) -> Step {
    let mut lines = vec![HeatLine::StraightUp];
    if script.board.connector.pegs > 0 {
        lines.push(HeatLine::RockPegs { pegs: script.board.connector.pegs });
    }
    if script.board.connector.family == ConnectorFamily::FlexTail {
        lines.push(HeatLine::GlueHolds);
    }
    step(Task::Lift, lines, &[Caution::Burns])
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;
    use crate::planning::sequence::line::Line;

    #[test]
    fn the_heat_carries_the_plans_times_the_methods_hands_and_each_caution_once() {
        let job = job();
        let steps = until_off(&job.script());
        let heat = steps.iter().find(|step| matches!(step.task(), Some(Task::Heat { .. }))).expect("the heat");
        let family = job.choice.family;
        assert!(says(heat, HeatLine::MethodHands { family }) && says(heat, HeatLine::DoNotPull));
        assert!(matches!(&heat.kind, StepKind::Heat { abort_s, .. } if *abort_s == job.plan.abort.at_s));
        let mut once = heat.cautions.clone();
        once.dedup();
        assert_eq!(once, heat.cautions);
        assert!(once.contains(&Caution::HotBench), "the method's own");
    }

    #[test]
    fn a_hot_swap_lifts_nothing_by_itself_and_pegs_are_rocked() {
        let mut swap = job();
        swap.choice.family = MethodFamily::HotSwap;
        assert!(until_off(&swap.script()).iter().all(|step| step.task() != Some(&Task::Lift)));
        let mut pegs = job();
        pegs.bench.board.connector.pegs = 2;
        let lifted = until_off(&pegs.script());
        let lift = lifted.iter().find(|step| step.task() == Some(&Task::Lift)).expect("a lift");
        assert!(says(lift, HeatLine::RockPegs { pegs: 2 }));
    }

    #[test]
    fn without_a_method_the_air_takes_two_lines() {
        let job = job();
        let script = Script { choice: None, ..job.script() };
        let steps = until_off(&script);
        let airs = |line: &&Line| {
            matches!(line, Line::Heat(HeatLine::AirPlace { onto_part: false, .. } | HeatLine::AirSetting { .. }))
        };
        assert_eq!(steps[0].lines().iter().filter(airs).count(), 2, "{steps:?}");
    }
}
