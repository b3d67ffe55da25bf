//! The new part: tinned, fitted, set, held, its anchors and pins.

use super::heat::{air_and_place, way};
use super::line::{FitLine, Line};
use super::script::Script;
use super::stages::tools;
use super::step::{Duty, FitTimes, Step, StepKind, step};
use super::task::Task;
use crate::board::{ConnectorFamily, Role, groups};
use crate::caution::Caution;
use crate::heat::purpose::Purpose;
use crate::method::techniques::{FIRST, HOLES, SEAT, SET};
use crate::planning::plan::Plan;
use crate::planning::small_runs::SmallWork;
use crate::planning::tips::{WIDEST_MM, tips_of};
use crate::solder::Wire;

pub(super) fn fit(script: &Script<'_>) -> Step {
    let hidden = script.board.connector.joints.iter().any(|j| j.hidden);
    let refit = &script.composition.refit;
    let mut lines = Vec::new();
    if script.choice.is_none() || script.technique(&HOLES) != "drop-in" || script.holes() == 0 {
        lines.push(FitLine::DryFit);
    }
    if hidden {
        lines.push(FitLine::HiddenDomes);
    }
    if script.board.connector.family == ConnectorFamily::FlexTail {
        lines.push(FitLine::AlignByMarks);
    }
    match script.choice {
        None => lines.push(FitLine::TinAndSeat { alloy: refit.name.clone() }),
        Some(_) => {
            lines.extend(tinning(script));
            lines.push(first_fixed(script));
            lines.push(match script.technique(&SEAT) {
                "back" => FitLine::DrawnBack,
                _ => FitLine::PushedHome,
            });
        }
    }
    let mut cautions = vec![Caution::Fumes];
    if refit.has_lead() {
        cautions.push(Caution::Lead);
    }
    Step { duty: Duty::Fit, ..step(Task::Fit, lines, &cautions) }
}

/// How much goes on each pad, by what a joint of its row holds; holes are filled when the part is in.
fn tinning(script: &Script<'_>) -> Vec<FitLine> {
    let refit = &script.composition.refit;
    let pads = groups(script.board).into_iter().filter(|group| !group.holes);
    let line = |group: crate::board::JointGroup| {
        let mass = group.volume * refit.composition.density();
        let length = Wire::USUAL.length_of(&refit.composition, mass);
        let (alloy, wire_mm) = (refit.name.clone(), Wire::USUAL.diameter_mm);
        let (row, joints, hidden) = (group.name.clone(), group.joints.len(), group.hidden);
        FitLine::TinRow { row, joints, mm: length, alloy, wire_mm, hidden }
    };
    pads.map(line).collect()
}

/// Surface pins are looked at before anchors lock them; plated pins are held by their corners.
fn first_fixed(script: &Script<'_>) -> FitLine {
    let surface = script.board.connector.joints.iter().any(|joint| joint.is_pin() && !joint.shape.is_hole());
    match (script.technique(&FIRST), surface) {
        ("pins", _) | ("kind", true) => FitLine::FirstPin,
        _ => FitLine::TackAnchors,
    }
}

pub(super) fn set(script: &Script<'_>) -> Step {
    if let Some(fit) = script.fit {
        return planned_set(script, fit);
    }
    let by_iron = script.plan.recipe.air.is_none() || script.technique(&SET) == "iron";
    let cautions = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    if script.choice.is_some() && by_iron {
        let lines = vec![FitLine::IronOnEachPad, tip_for_each(script), FitLine::PressUntilSolid];
        return step(Task::SetWithIron, lines, &cautions);
    }
    let lines = vec![FitLine::SameAirAgain, FitLine::AirOffDoNotMove];
    Step { kind: StepKind::Set { fit: None }, ..step(Task::SetWithAir, lines, &cautions) }
}

/// A tip for each class of joints, from the heat that it must deliver.
fn tip_for_each(script: &Script<'_>) -> FitLine {
    FitLine::Tips { choices: tips_of(script.fit.unwrap_or(script.plan), script.board) }
}

/// By the plan of the fit: with its own air or iron and its own times.
fn planned_set(script: &Script<'_>, fit: &Plan) -> Step {
    let cautions = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    let recipe = &fit.recipe;
    let tools = tools(recipe.air.as_ref(), &recipe.during);
    let times = FitTimes { liquid: fit.release, abort_s: fit.abort.at_s, tools };
    let kind = StepKind::Set { fit: Some(times) };
    let mut lines: Vec<Line> = recipe.air.iter().map(|air| air_and_place(script.board, air).into()).collect();
    lines.extend(recipe.air.iter().flat_map(way).map(Line::from));
    match (&recipe.air, &recipe.during.iron) {
        (None, Some(iron)) => {
            lines.push(FitLine::IronRound { tip_mm: iron.tip.in_mm(), dwell_s: iron.dwell.in_seconds() }.into());
            lines.push(tip_for_each(script).into());
            lines.push(FitLine::PressUntilSolid.into());
            return Step { kind, ..step(Task::SetWithIron, lines, &cautions) };
        }
        _ if fit.purpose == Purpose::SetOn => lines.push(FitLine::SetOnLiquid.into()),
        _ => lines.push(FitLine::UntilItSinks.into()),
    }
    lines.push(FitLine::AirOffDoNotMove.into());
    Step { kind, ..step(Task::SetWithAir, lines, &cautions) }
}

pub(super) fn hold(script: &Script<'_>) -> Step {
    let lines = vec![FitLine::HoldStill { face: script.board.connector.face }];
    // For want of a plan of the fit as long as the old joints took to freeze.
    let kind = StepKind::Hold { until_s: script.fit.unwrap_or(script.plan).solid_after_s };
    Step { kind, ..step(Task::Hold, lines, &[Caution::Burns]) }
}

/// Anchors carry the plug's force; pins that can be seen are proved one by one.
pub(super) fn touch_up(script: &Script<'_>) -> Step {
    let joints = &script.board.connector.joints;
    let anchors = joints.iter().filter(|joint| !joint.is_pin());
    let (anchors, stout) =
        anchors.fold((0, false), |(count, stout), joint| (count + 1, stout || joint.shape.is_hole()));
    let choices = tips_of(script.fit.unwrap_or(script.plan), script.board);
    let widest = choices.iter().filter(|choice| choice.role == Role::Anchor).map(|choice| choice.tip_mm);
    // Where no tip does on a cold board the widest that there is does on a warm one.
    let tip_mm = widest.map(|tip| tip.unwrap_or(WIDEST_MM)).fold(0.0, f64::max);
    let seen = joints.iter().filter(|joint| joint.is_pin() && !joint.hidden).count();
    let mut lines = Vec::new();
    lines.extend(script.small_runs(&[SmallWork::FlowAnchor]).into_iter().map(|run| FitLine::Timed { run }));
    if anchors > 0 {
        lines.push(FitLine::Anchors { anchors, tip_mm, from_far_side: stout });
    }
    if seen > 0 && script.technique(&SET) != "air" {
        lines.push(FitLine::SeenPins { pins: seen });
    }
    lines.push(FitLine::DrawBridgesOff);
    step(Task::TouchUp, lines, &[Caution::Burns, Caution::Fumes])
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;

    #[test]
    fn a_part_that_drops_in_is_not_tried_dry() {
        assert!(says(&fit(&job().script()), FitLine::DryFit));
        assert!(!says(&fit(&job().by(&HOLES, "drop-in").script()), FitLine::DryFit));
    }

    #[test]
    fn a_soldered_tail_is_freed_of_its_glue_and_aligned_by_its_marks() {
        let mut job = job();
        assert!(!says(&fit(&job.script()), FitLine::AlignByMarks));
        job.bench.board.connector.family = ConnectorFamily::FlexTail;
        assert!(says(&fit(&job.script()), FitLine::AlignByMarks));
        let off = super::super::heat::until_off(&job.script());
        assert!(off.iter().any(|step| says(step, crate::planning::sequence::line::HeatLine::GlueHolds)));
    }

    #[test]
    fn anchors_or_pins_come_first_and_it_sits_home_or_back_as_wanted() {
        let step = fit(&job().script());
        assert!(says(&step, FitLine::FirstPin), "surface pins are looked at before anchors lock them");
        assert!(says(&step, FitLine::PushedHome));
        assert!(says(&fit(&job().by(&FIRST, "corners").script()), FitLine::TackAnchors));
        assert!(says(&fit(&job().by(&SEAT, "back").script()), FitLine::DrawnBack));
        let tinned = |line: &&Line| matches!(line, Line::Fit(FitLine::TinRow { mm, .. }) if *mm > 0.0);
        assert!(step.lines().iter().filter(tinned).count() >= 2, "each row of pads: {step:?}");
    }

    #[test]
    fn air_sets_and_iron_sets_are_two_tasks_and_only_air_has_a_clock() {
        let air = set(&job().script());
        assert_eq!((air.task(), &air.kind), (Some(&Task::SetWithAir), &StepKind::Set { fit: None }));
        let iron = set(&job().by(&SET, "iron").script());
        assert_eq!((iron.task(), &iron.kind), (Some(&Task::SetWithIron), &StepKind::Do));
    }

    #[test]
    fn with_a_plan_of_its_own_the_fit_has_its_own_times_and_never_the_removals() {
        let job = job();
        let mut fit = job.plan.clone();
        fit.abort.at_s = job.plan.abort.at_s + 17.0;
        fit.solid_after_s = None;
        let script = Script { fit: Some(&fit), ..job.script() };
        let set = set(&script);
        assert!(says(&set, FitLine::UntilItSinks) && !says(&set, FitLine::SameAirAgain));
        assert!(matches!(&set.kind, StepKind::Set { fit: Some(times) } if times.abort_s == fit.abort.at_s));
        assert_eq!(hold(&script).kind, StepKind::Hold { until_s: None });
        fit.purpose = Purpose::SetOn;
        assert!(says(&super::set(&Script { fit: Some(&fit), ..job.script() }), FitLine::SetOnLiquid));
    }

    #[test]
    fn plated_anchors_are_fed_from_the_far_side_and_air_alone_leaves_the_pins() {
        let step = touch_up(&job().script());
        let anchors = |line: &Line| matches!(line, Line::Fit(FitLine::Anchors { tip_mm, from_far_side: true, .. }) if *tip_mm >= 2.0);
        let pins = |line: &Line| matches!(line, Line::Fit(FitLine::SeenPins { .. }));
        assert!(step.lines().iter().any(anchors) && step.lines().iter().any(pins), "{step:?}");
        assert!(!touch_up(&job().by(&SET, "air").script()).lines().iter().any(pins));
    }
}
