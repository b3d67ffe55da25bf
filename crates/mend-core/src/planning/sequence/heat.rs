//! Heat, until the part is off.

use super::super::band::TimeBand;
use super::script::Script;
use super::stages;
use super::step::{Step, StepKind, owned, step};
use crate::caution::Caution;
use crate::heat::iron::Iron;
use crate::heat::recipe::HeatingStage;
use crate::heat::tool::HotAir;
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
    let mut lines = stages::helpers(&recipe.during);
    lines.extend(recipe.air.as_ref().map(|air| blown(script, air)).into_iter().flatten());
    let words = script.choice.map(|choice| choice.family.words());
    lines.extend(words.into_iter().flat_map(|words| owned(words.heat)));
    lines.push("No pulling, no prising: grip, and wait. It moves by itself.".to_owned());
    let usual = "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.";
    let cue = words.map_or(usual, |words| words.cue);
    let kind = StepKind::Heat { release: script.plan.release, abort_s: script.plan.abort.at_s };
    let mut cautions = vec![Caution::Burns, Caution::Fumes, Caution::Alcohol];
    cautions.extend(
        words.into_iter().flat_map(|words| words.cautions).filter(|c| !cautions.contains(c)).collect::<Vec<_>>(),
    );
    let title = if script.is(MethodFamily::HotSwap) { "Heat and swap" } else { "Heat" };
    Step { kind, otherwise: otherwise(script), ..step(title, lines, cue, &cautions) }.because(&why(script))
}

/// Two lines where nothing else is said of the heat; one where a method has a line of its own: a screen that is read from two
/// metres holds four.
fn blown(script: &Script<'_>, air: &HotAir) -> Vec<String> {
    let motion = stages::moving(air.motion);
    let from = if air.face == script.board.connector.face { "onto the part" } else { "from the far face" };
    let (face, away, nozzle) = (air.face.name(), air.distance.in_mm(), air.nozzle.in_mm());
    let flow = air.flow.in_litres_per_minute();
    match script.choice {
        Some(_) => {
            vec![format!("Air {from}, {face} face, {away:.0} mm away, {nozzle} mm nozzle, {flow:.0} L/min; {motion}.")]
        }
        None => vec![
            format!("Air {from}, {face} face: {motion}, {away:.0} mm away."),
            format!("{nozzle} mm nozzle, {flow:.0} L/min."),
        ],
    }
}

fn otherwise(script: &Script<'_>) -> Vec<String> {
    match script.choice {
        Some(choice) => owned(choice.family.words().not_coming),
        None => owned(&["More alloy, a wider nozzle or the other face beat more heat for longer."]),
    }
}

fn why(script: &Script<'_>) -> String {
    let words = script.choice.map_or(String::new(), |choice| format!("{} ", choice.family.words().how));
    format!("{words}{}", script.plan.limited_by)
}

/// One hole after the other: the time is that of all of them.
fn empty_holes(script: &Script<'_>) -> Step {
    let recipe = &script.plan.recipe;
    let each: Vec<&HeatingStage> = recipe.preheat.iter().filter(|stage| stage.during.iron.is_some()).collect();
    let before: f64 = each.iter().map(|stage| stage.seconds() as f64).sum();
    let joints = each.iter().filter_map(|stage| stage.during.iron.as_ref()).chain(&recipe.during.iron);
    let named: Vec<&str> = joints.clone().map(|iron| iron.row.as_str()).collect();
    let dwell = each.first().map_or(0.0, |stage| stage.lasts.in_seconds());
    let mut lines: Vec<String> = recipe.during.iron.iter().map(|iron: &Iron| tip(iron, dwell)).collect();
    lines.push(format!("One after the other: {}.", named.join(", ")));
    let words = MethodFamily::Pump.words();
    lines.extend(owned(words.heat));
    let later = |t: Option<f64>| t.map(|t| t + before);
    let TimeBand { low_s, mid_s, high_s, share } = script.plan.release;
    let release = TimeBand { low_s: later(low_s), mid_s: later(mid_s), high_s: later(high_s), share };
    let kind = StepKind::Heat { release, abort_s: before + script.plan.abort.at_s };
    let title = "Empty the holes";
    Step { kind, otherwise: otherwise(script), ..step(title, lines, words.cue, words.cautions) }.because(&why(script))
}

fn tip(iron: &Iron, dwell: f64) -> String {
    format!("{:.0} mm tip on each leg for about {dwell:.0} s, until its far side runs.", iron.tip.in_mm())
}

fn lift(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let mut lines = vec!["Straight up. Air away the moment it is off: a freed part deforms in seconds.".to_owned()];
    if connector.pegs > 0 {
        lines.push(format!(
            "{} plastic pegs hold by friction: rock gently, only now that all solder is liquid.",
            connector.pegs
        ));
    }
    step("Lift", lines, "If it needs force, it is not ready.", &[Caution::Burns])
        .because("Force takes pads and barrels; a joint that holds is a joint that is solid.")
}
