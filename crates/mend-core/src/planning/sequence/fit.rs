//! The new part: tinned, fitted, set, held, its anchors and pins.

use super::script::Script;
use super::step::{Duty, Step, StepKind, step};
use crate::board::{Face, groups};
use crate::caution::Caution;
use crate::method::techniques::{FIRST, HOLES, SEAT, SET};
use crate::solder::Wire;

pub(super) fn fit(script: &Script<'_>) -> Step {
    let hidden = script.board.connector.joints.iter().any(|j| j.hidden);
    let refit = &script.composition.refit;
    let mut lines = Vec::new();
    if script.choice.is_none() || script.technique(&HOLES) != "drop-in" || script.holes() == 0 {
        lines.push("Dry fit: flush and level, every pin on its pad. If not, the holes are not clear.".to_owned());
    }
    if hidden {
        lines.push("Hidden row: even, domed pads, the same height everywhere. One low pad is one open pin.".to_owned());
    }
    match script.choice {
        None => lines.push(format!("Tin with {}, flux, part in place, pushed home.", refit.name)),
        Some(_) => {
            lines.extend(tinning(script));
            lines.push(first_fixed(script).to_owned());
            lines.push(match script.technique(&SEAT) {
                "back" => "Part drawn back a hair, so that the pads show.".to_owned(),
                _ => "Part pushed home.".to_owned(),
            });
        }
    }
    let mut cautions = vec![Caution::Fumes];
    if refit.has_lead() {
        cautions.push(Caution::Lead);
    }
    let why = format!("{} {}", FIRST.why, SEAT.why);
    Step { duty: Duty::Fit, ..step("Fit", lines, "It sits flat before any heat.", &cautions) }.because(&why)
}

/// How much goes on each pad, by what a joint of its row holds; holes are filled when the part is in.
fn tinning(script: &Script<'_>) -> Vec<String> {
    let refit = &script.composition.refit;
    let pads = groups(script.board).into_iter().filter(|group| !group.holes);
    let line = |group: crate::board::JointGroup| {
        let mass = group.volume * refit.composition.density();
        let length = Wire::USUAL.length_of(&refit.composition, mass);
        let hidden = if group.hidden { ", hidden: all domes alike" } else { "" };
        let (name, count) = (&group.name, group.joints.len());
        format!("Tin {name}: {count} x {length:.1} mm of {}, {} mm wire{hidden}.", refit.name, Wire::USUAL.diameter_mm)
    };
    pads.map(line).collect()
}

/// Surface pins are looked at before anchors lock them; plated pins are held by their corners.
fn first_fixed(script: &Script<'_>) -> &'static str {
    let surface = script.board.connector.joints.iter().any(|joint| joint.is_pin() && !joint.shape.is_hole());
    match (script.technique(&FIRST), surface) {
        ("pins", _) | ("kind", true) => "First pin, then its row, looked at; anchors last.",
        _ => "Tack one anchor, then the opposite one; look; then the pins.",
    }
}

pub(super) fn set(script: &Script<'_>) -> Step {
    let by_iron = script.plan.recipe.air.is_none() || script.technique(&SET) == "iron";
    let kind = StepKind::Set;
    let cautions = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    if script.choice.is_some() && by_iron {
        let lines = vec![
            "Iron on each pin with a touch of solder, from the tacked corner outward.".to_owned(),
            "Press flat and level until the row is solid.".to_owned(),
        ];
        return step("Set", lines, "A concave fillet runs from every pin to its pad.", &cautions).because(SET.why);
    }
    let lines = vec![
        "The same air again; press flat and level until every pin sinks.".to_owned(),
        "Then air off, and do not move.".to_owned(),
    ];
    let cue = "The part sinks; a bright line runs round each leg.";
    Step { kind, ..step("Set", lines, cue, &cautions) }.because(SET.why)
}

pub(super) fn hold(script: &Script<'_>) -> Step {
    let side = if script.board.connector.face == Face::Top { "above" } else { "below" };
    let lines = vec![format!("Hold it still from {side}. The thickest leg freezes last.")];
    let kind = StepKind::Hold { until_s: script.plan.solid_after_s };
    Step { kind, ..step("Hold", lines, "The shine turns matt on the last leg.", &[Caution::Burns]) }
        .because("A joint that moves while it freezes is a joint that opens in a month.")
}

/// Anchors carry the plug's force; pins that can be seen are proved one by one.
pub(super) fn touch_up(script: &Script<'_>) -> Step {
    let joints = &script.board.connector.joints;
    let anchors = joints.iter().filter(|joint| !joint.is_pin());
    let (anchors, stout) =
        anchors.fold((0, false), |(count, stout), joint| (count + 1, stout || joint.shape.is_hole()));
    let seen = joints.iter().filter(|joint| joint.is_pin() && !joint.hidden).count();
    let mut lines = Vec::new();
    if anchors > 0 {
        let (tip, far) = if stout { (4, ", fed from the far side until both faces show it") } else { (2, "") };
        lines.push(format!("{anchors} anchors: {tip} mm tip{far}; a fillet, not a ball."));
    }
    if seen > 0 && script.technique(&SET) != "air" {
        lines.push(format!(
            "{seen} pins that can be seen: flux, fine clean tip over every one; ground pins want a bigger tip."
        ));
    }
    lines.push("A bridge goes with flux and a clean tip, drawn off along the pin.".to_owned());
    let cautions = [Caution::Burns, Caution::Fumes];
    step("Anchors and pins", lines, "Solder shows on both faces of each anchor; no bridge, no ball.", &cautions)
        .because("Anchors carry the plug's force; pins do not. Air sets, the iron proves.")
}
