//! The words of a recipe at the bench: its soaks, its helpers and its shields.

use super::script::Script;
use super::step::{HotTool, Step, StepKind, step};
use crate::caution::Caution;
use crate::finding::capital;
use crate::heat::motion::Motion;
use crate::heat::recipe::{HeatingAids, HeatingStage};
use crate::heat::tool::HotAir;

/// How a nozzle is held, in a phrase.
pub(super) const fn moving(motion: Motion) -> &'static str {
    match motion {
        Motion::Still => "held still",
        Motion::Circle => "moving in a small circle",
        Motion::AlongRow => "moving along the row",
        Motion::Sweeping => "always moving over the whole part",
    }
}

/// A step for each stage before the last; where joints are emptied in turn, only for those without an iron.
pub(super) fn soaks(script: &Script<'_>, in_turn: bool) -> Vec<Step> {
    script.plan.recipe.preheat.iter().filter(|stage| !in_turn || stage.during.iron.is_none()).map(soak).collect()
}

fn soak(stage: &HeatingStage) -> Step {
    let mut lines: Vec<String> = stage.air.iter().map(blown).collect();
    lines.extend(helpers(&stage.during));
    let title = match (&stage.air, &stage.during.preheater, &stage.during.iron) {
        (None, None, None) => "Pause",
        (None, Some(_), _) => "Warm on the preheater",
        _ => "Soak",
    };
    if lines.is_empty() {
        lines.push("Everything off: the heat spreads through the board.".to_owned());
    }
    if stage.change.in_seconds() >= 1.0 {
        lines.push(format!("Then the next tool within {:.0} s.", stage.change.in_seconds()));
    }
    let cue = if stage.air.is_some() {
        "Flux runs; nothing is bright yet."
    } else {
        "The board feels evenly warm from above."
    };
    let kind = StepKind::Soak { lasts_s: stage.lasts.in_seconds(), tools: tools(stage.air.as_ref(), &stage.during) };
    let cautions = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    Step { kind, ..step(title, lines, cue, &cautions) }
        .because("A warm board needs less from the last tool: less time, less air, less difference across the part.")
}

fn blown(air: &HotAir) -> String {
    format!(
        "Air on the {} face, {}, {:.0} mm away; {} mm nozzle, {:.0} L/min.",
        air.face.name(),
        moving(air.motion),
        air.distance.in_mm(),
        air.nozzle.in_mm(),
        air.flow.in_litres_per_minute()
    )
}

/// What works beside the air, a line each.
pub fn helpers(during: &HeatingAids) -> Vec<String> {
    let preheater = during
        .preheater
        .as_ref()
        .map(|p| format!("Preheater under the {} face, through {}.", p.face.name(), p.coupling.name()));
    let iron = during
        .iron
        .as_ref()
        .map(|i| format!("Iron with a {} mm tip on {}, from joint to joint without rest.", i.tip.in_mm(), i.row));
    preheater.into_iter().chain(iron).collect()
}

/// What is hot in a stage.
pub fn tools(air: Option<&HotAir>, during: &HeatingAids) -> Vec<HotTool> {
    let tool = |what: &str, set_c: f64| HotTool { what: what.to_owned(), set_c };
    let air = air.map(|air| tool("air", air.set.in_celsius()));
    let preheater = during.preheater.as_ref().map(|preheater| tool("preheater", preheater.set.in_celsius()));
    let iron = during.iron.as_ref().map(|iron| tool("iron", iron.set.in_celsius()));
    air.into_iter().chain(preheater).chain(iron).collect()
}

/// Where each shield goes, a line each.
pub(super) fn shields(script: &Script<'_>) -> Vec<String> {
    let shield = |shield: &crate::heat::shield::Shield| {
        let under = script.board.components.iter().filter(|n| shield.covers(n.face, &n.body) > 0.0);
        let names: Vec<&str> = under.map(|n| n.name.as_str()).collect();
        let over = if names.is_empty() { "bare board".to_owned() } else { names.join(", ") };
        let (w, d) = (shield.width_mm, shield.depth_mm);
        format!("{} over {over}: {w} x {d} mm on the {} face.", capital(&shield.kind.name()), shield.face.name())
    };
    script.plan.recipe.shields.iter().map(shield).collect()
}
