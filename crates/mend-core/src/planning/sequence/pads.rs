//! Pads and holes, while the board is warm.

use super::super::bench_time;
use super::script::Script;
use super::step::{Duty, Step, StepKind, owned, step};
use crate::caution::Caution;
use crate::method::MethodFamily;
use crate::method::equipment::Sucker;
use crate::method::techniques::{BRAID, HOLES, THIN};

/// A window shorter than this is none: nobody gets the braid out in time, s (E).
const COLD_S: f64 = 8.0;

pub(super) fn wick(script: &Script<'_>) -> Step {
    let holes = script.holes();
    let fed = script.composition.fed().is_some();
    let mut lines = match script.technique(&BRAID) {
        "holes-only" if !fed => owned(&["Pads stay as they are: even them with a clean tip and flux, no braid."]),
        "not-fine" if !fed => owned(&["Braid on wide pads only; fine pitch is evened with a clean tip and flux."]),
        _ => owned(&["Braid on flux, iron on braid, no weight on it. Strokes along the pads, never across."]),
    };
    // Where a method is chosen the holes have a step of their own.
    if holes > 0 && script.choice.is_none() {
        lines.push(format!("{holes} holes: add solder first, then draw it through with fresh braid."));
    }
    lines.extend(passes(script));
    let cold = script.plan.wickable_for_s.is_some_and(|warm| warm.high < COLD_S);
    lines.push(match cold {
        true => "The board is cold at once: iron on the braid warms one pad at a time.".to_owned(),
        false => "Braid that sticks is a board gone cold: warm it, do not pull.".to_owned(),
    });
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if script.composition.has_lead() {
        cautions.push(Caution::Lead);
    }
    let kind = StepKind::WhileWarm { window_s: script.plan.wickable_for_s };
    let step = step("Wick while warm", lines, "Braid glides; pads are flat and bright.", &cautions);
    Step { kind, duty: Duty::Clean, ..step }.because(BRAID.why)
}

/// How many flood-and-wick passes by the arithmetic of residues.
fn passes(script: &Script<'_>) -> Option<String> {
    script.composition.fed()?;
    Some(match bench_time::passes(script.board, script.composition) {
        Some(most) => {
            let refit = &script.composition.refit.name;
            let passes = if most <= 1 { "1 pass".to_owned() } else { format!("{most} passes") };
            format!("Every trace of the fed alloy out: {passes}, flooded with {refit} between.")
        }
        None => "Eight passes do not get this alloy out: feed another one.".to_owned(),
    })
}

/// The holes, by the technique that is followed; none where there are none.
pub(super) fn holes(script: &Script<'_>) -> Option<Step> {
    let holes = script.holes();
    if holes == 0 {
        return None;
    }
    let cautions = [Caution::Burns, Caution::Fumes];
    if script.technique(&HOLES) == "drop-in" {
        let lines = owned(&[
            "Holes stay filled, level with both faces: the part drops in while they are liquid.",
            "Look from the far side: every hole full, none with a crater.",
        ]);
        let step = step("Leave the holes filled", lines, "Every hole is a flat, bright disc on both faces.", &cautions);
        return Some(
            step.because("Dropping in saves the clearing; it wants practised hands, and no dry fit is possible."),
        );
    }
    let how = match script.sucker {
        _ if script.is(MethodFamily::Pump) => "Light through each; what is not empty is filled and sucked again.",
        Sucker::Vacuum => "Vacuum iron on the land, until the far side runs, then suck; tip moved round the hole.",
        Sucker::Pump => "Iron from one side, pump on the other; fresh solder before each try.",
        Sucker::None => "A wedge-cut braid end under air or iron, drawn up from the far side.",
    };
    let thin = if script.technique(&THIN) == "wick" { "" } else { "Add solder first: a starved hole keeps its core." };
    let lines = [thin, how].into_iter().filter(|line| !line.is_empty()).map(str::to_owned);
    let lines = [format!("{holes} holes.")].into_iter().chain(lines).collect();
    Some(step("Clear the holes", lines, "Light shows through every hole.", &cautions).because(HOLES.why))
}

pub(super) fn clean_pads() -> Step {
    let lines = [
        "Strong alcohol and brush; let it dry.",
        "Look: pads whole, mask whole, components in place.",
        "A knocked part goes back now, and is measured.",
    ];
    let step = step("Clean and look", owned(&lines), "Every pad and hole is bare and whole.", &[Caution::Alcohol]);
    Step { duty: Duty::Clean, ..step }
        .because("A lifted pad found now is mended in minutes; found after the port it is another job.")
}
