//! A donor's part, once it is off: its pins are cleaned and looked at; the board is spent.

use super::script::Script;
use super::step::{Duty, Step, StepKind, owned, step};
use crate::caution::Caution;

pub(super) fn steps(script: &Script<'_>) -> Vec<Step> {
    vec![cool(script), clean_part(script), bag(script)]
}

fn cool(script: &Script<'_>) -> Step {
    let lines = owned(&["Onto something that does not burn, contacts up; nothing touches it until it is cold."]);
    let kind = StepKind::Hold { until_s: script.plan.solid_after_s };
    Step { kind, ..step("Let it cool", lines, "Latch and body are hard again.", &[Caution::Burns, Caution::HotBench]) }
        .because("A hot body bends under its own weight in a pair of tweezers.")
}

fn clean_part(script: &Script<'_>) -> Step {
    let pins = script.board.connector.joints.len();
    let mut lines =
        vec![format!("Braid and flux over all {pins} feet, part held by its shell; no solder left that lifts a foot.")];
    if let Some(feed) = script.composition.fed() {
        lines.push(format!(
            "Every trace of {} off: tin with {} and wick once more.",
            feed.metal.name, script.composition.refit.name
        ));
    }
    lines.push("Alcohol and a thin brush; dry warm.".to_owned());
    let cautions = [Caution::Burns, Caution::Fumes, Caution::Alcohol];
    let step = step("Clean the part", lines, "All feet stand in one plane and shine.", &cautions);
    Step { duty: Duty::Clean, ..step }.because("What stays on its feet goes into the next customer's joints.")
}

fn bag(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let lines = vec![
        format!("Latch moves, no pin bent, body straight: {} ({}).", connector.name, connector.material.name()),
        "Bag it with its variant, the donor and the hottest that it was computed to get.".to_owned(),
        "The donor's board is waste: local rules, lead or not.".to_owned(),
    ];
    step("Look and bag", lines, "It would pass for new under the microscope.", &[Caution::Lead, Caution::Static])
        .because("Two look-alikes differ by a fraction of a millimetre: the bag says which one it is.")
}
