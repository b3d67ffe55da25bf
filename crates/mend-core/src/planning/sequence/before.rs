//! Before any heat: opening, what is protected, flux, alloy, and the wire where one is laid.

use super::super::margin::{LimitStatus, Margin, MarginKind};
use super::script::Script;
use super::stages;
use super::step::{Duty, Step, owned, step};
use crate::board::{ComponentKind, JointGroup, KeepIntact, groups};
use crate::caution::Caution;
use crate::method::techniques::{FLUX, THIN};
use crate::solder::{JointComposition, amount};

pub(super) fn ready() -> Step {
    let lines = [
        "Battery disconnected and out, mains supply out.",
        "Board clear of the bench on its holder, foil beneath it.",
        "Extraction on, strap on, tweezers and braid at hand.",
    ];
    let cautions =
        [Caution::Lithium, Caution::Mains, Caution::Fumes, Caution::SmokeAlarm, Caution::Static, Caution::HotBench];
    step("Make ready", owned(&lines), "Nothing on the board is live.", &cautions)
        .because("A cell in heat burns, a live board dies of a slipped tip, and a part that can drop comes off clean.")
}

/// What comes out before heat, by what stands near; and how a case is opened so that it closes again.
pub(super) fn open(script: &Script<'_>) -> Step {
    let out = |thing| {
        matches!(
            thing,
            ComponentKind::LithiumCell
                | ComponentKind::Foam
                | ComponentKind::Cable
                | ComponentKind::Frame
                | ComponentKind::Display
        )
    };
    let near = script.board.components.iter().filter(|n| n.what.is_some_and(out) || n.material.name().contains("foam"));
    let names: Vec<&str> = near.map(|n| n.name.as_str()).collect();
    let mut lines = owned(&[
        "Screws counted out by place, length and head onto the map: a long one in a short hole kills a board.",
        "Every latch opened before its cable is drawn; glued cables warmed, never pulled.",
        "Thermal pads counted; liquid metal contained and taken off before any heat.",
    ]);
    if !names.is_empty() {
        lines.push(format!("Off before heat: {}.", names.join(", ")));
    }
    let cautions = [Caution::Static, Caution::Lithium, Caution::LiquidMetal];
    step("Open", lines, "The board lies free; what came out is counted and bagged.", &cautions)
        .because("Most broken flex connectors were broken here, by pulling without opening the latch.")
}

pub(super) fn protect(script: &Script<'_>) -> Step {
    let close =
        |m: &&Margin| matches!(m.kind, MarginKind::Component) && m.status != LimitStatus::Inside && !m.expendable;
    let face = script.plan.recipe.face(script.board);
    let mut lines = stages::shields(script);
    if script.choice.is_some() && script.keep_intact == KeepIntact::Part {
        lines.push(
            "The donor's board is spent: only the part counts. No tape on it, nothing that can scratch it.".to_owned(),
        );
        return step("Protect", lines, "Nothing touches the part's contacts.", &[Caution::Static])
            .because("What need not live is no longer in the way: fewer shields, less time, less heat on the part.");
    }
    if lines.is_empty() {
        let tight = script.plan.margins.iter().filter(close);
        lines.extend(tight.map(|m| {
            format!("Cover {} ({}): it comes within {:.0} K of its limit.", m.name, m.detail, m.headroom_k.max(0.0))
        }));
    }
    let near = script.board.components.iter().filter(|n| n.face == face).count();
    if lines.is_empty() {
        lines.push("Nothing needs a shield by the numbers.".to_owned());
    }
    lines.push(format!(
        "Polyimide tape over what stands on the {} face ({near} near), pressed down to the joints, not over them.",
        face.name()
    ));
    let cue = "No tape on any joint of the part: a covered joint will not melt.";
    let map = script.choice.is_some() && !script.plan.recipe.shields.is_empty();
    Step { map, ..step("Protect", lines, cue, &[Caution::Static]) }
        .because("A shield delays; it does not prevent. It stands where the plan says that delay is needed.")
}

pub(super) fn flux(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let sparing = match script.technique(&FLUX) {
        "flood" => false,
        "sparing" => true,
        _ => connector.family.has_open_contacts(),
    };
    let how = if sparing {
        "Sparingly: flux must not run into the open contacts."
    } else {
        "Generously, from both faces of plated legs."
    };
    let mut lines = vec![format!("Fresh flux on all {} joints.", connector.joints.len()), how.to_owned()];
    if script.choice.is_some() && script.technique(&THIN) == "wick" {
        lines.push("Wick what the braid takes now: there is less to melt.".to_owned());
    }
    step("Flux", lines, "Every joint is wet with flux.", &[Caution::Fumes]).because(FLUX.why)
}

pub(super) fn alloy(script: &Script<'_>) -> Step {
    let Script { board, composition, .. } = script;
    let metal = composition.fed().map_or(&composition.refit, |feed| &feed.metal);
    let groups = groups(board);
    let mut lines: Vec<String> = groups.iter().filter_map(|group| fed_line(composition, group)).collect();
    let fed = !lines.is_empty();
    if lines.is_empty() {
        lines.push(format!("Touch {} to every joint you can reach: near is not enough.", metal.name));
    }
    if fed {
        lines.push("Hold the tip until the board itself is hot, or the alloy lies on top and never mixes.".to_owned());
    }
    let left = groups.iter().filter(|group| group.hidden && composition.feeds(group).is_none());
    let hidden: usize = left.map(|group| group.joints.len()).sum();
    if hidden > 0 {
        lines.push(format!("{hidden} joints are hidden: they melt as the factory left them."));
    }
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if metal.has_lead() {
        cautions.push(Caution::Lead);
    }
    let why = "Fresh metal carries the tip's heat into the joint, and what mixes in decides where it melts.";
    Step { duty: Duty::Feed, ..step("Add alloy", lines, "Fresh metal shines on each joint.", &cautions) }.because(why)
}

/// `legs: 4 x 12 mm of Sn42Bi58, 0.5 mm wire`.
fn fed_line(composition: &JointComposition, group: &JointGroup) -> Option<String> {
    let (feed, fed) = (composition.feeds(group)?, amount(composition, group)?);
    let rounds = if fed.rounds > 1 { format!(", in {} rounds: feed, wick, feed", fed.rounds) } else { String::new() };
    let (count, alloy, wire) = (group.joints.len(), &feed.metal.name, feed.wire.diameter_mm);
    Some(format!("{}: {count} x {:.1} mm of {alloy}, {wire} mm wire{rounds}.", group.name, fed.length_mm))
}

/// Laying the wire, where the recipe has one.
pub(super) fn wire(script: &Script<'_>) -> Option<Step> {
    let bridge = script.plan.recipe.bridge.filter(|bridge| bridge.wire_mm > 0.0)?;
    let long: f64 = bridge.spans(script.board).iter().map(|(_, _, apart)| apart).sum();
    let lines = vec![
        format!("{:.0} mm of tinned copper wire, {} mm, bent to lie on every joint.", long + 5.0, bridge.wire_mm),
        "Solder it down joint by joint, from the middle outward, until solder covers it.".to_owned(),
    ];
    let cautions = [Caution::Burns, Caution::Fumes];
    let why = "Copper carries eight times what solder does: one tip on the wire is on all joints.";
    Some(step("Lay the wire", lines, "The wire is drowned in solder and touches every joint.", &cautions).because(why))
}
