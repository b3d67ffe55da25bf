//! The steps at the bench, written from the plan: what to do, what to see, how long, what to beware of.

use serde::{Deserialize, Serialize};

use super::band::{Band, TimeBand};
use super::margin::{Kind, Standing};
use super::passes;
use super::plan::Plan;
use crate::caution::Caution;
use crate::board::{Board, Face, JointGroup, groups};
use crate::solder::{Charge, amount, cycles};

/// A step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Step {
    /// Short name, as it stands on the screen.
    pub title: String,
    /// What to do, a line each.
    pub lines: Vec<String>,
    /// What to watch for.
    pub cue: String,
    /// Cautions of this very step.
    pub cautions: Vec<Caution>,
    /// What kind of step, and its times.
    pub kind: StepKind,
    /// What it has to do with the cleaning ledger.
    #[serde(default)]
    pub duty: Duty,
}

/// What a step has to do with the cleaning ledger.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Duty {
    /// Nothing.
    #[default]
    None,
    /// Alloy is fed: it is entered here.
    Feed,
    /// The joints are cleaned: floods and passes are entered here.
    Clean,
    /// Closed until the ledger is within limits.
    Fit,
}

/// Kinds of steps.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", tag = "what")]
pub enum StepKind {
    /// Done when it is done.
    Do,
    /// Air on; the part moves within a band; a line at which to stop.
    Heat {
        /// When it comes away.
        release: TimeBand,
        /// When to stop, s.
        stop_s: f64,
    },
    /// A pass before the last: so long, then on.
    Soak {
        /// How long, s.
        lasts_s: f64,
        /// What is on, and what each is set to.
        tools: Vec<HotTool>,
    },
    /// Work while the board is warm: a window that closes.
    WhileWarm {
        /// How long it stays warm, s.
        window_s: Option<Band>,
    },
    /// Hold still until everything is solid.
    Hold {
        /// Until then, s.
        until_s: Option<Band>,
    },
}

/// A tool that is hot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct HotTool {
    /// `air`, `plate`, `iron`.
    pub what: String,
    /// What it is set to, °C.
    pub set_c: f64,
}

/// What the sequence is written from.
#[derive(Debug, Clone, Copy)]
pub struct Script<'a> {
    /// The board.
    pub board: &'a Board,
    /// The plan.
    pub plan: &'a Plan,
    /// What the joints hold, are fed, and are soldered with in the end.
    pub charge: &'a Charge,
}

/// All steps of a hot-air replacement, in order.
pub fn sequence(script: &Script<'_>) -> Vec<Step> {
    let mut steps = vec![ready(), protect(script), flux(script), alloy(script)];
    steps.extend(passes::soaks(script));
    steps.extend([
        heat(script),
        lift(script),
        wick(script),
        clean_pads(),
        fit(script),
        set(script),
        hold(script),
        clean(),
    ]);
    steps
}

fn step(title: &str, lines: Vec<String>, cue: &str, cautions: &[Caution]) -> Step {
    Step {
        title: title.to_owned(),
        lines,
        cue: cue.to_owned(),
        cautions: cautions.to_vec(),
        kind: StepKind::Do,
        duty: Duty::None,
    }
}

fn ready() -> Step {
    let lines = [
        "Battery disconnected and out, mains supply out.",
        "Board clear of the bench on its holder, foil beneath it.",
        "Extraction on, strap on, tweezers and braid at hand.",
    ];
    let cautions =
        [Caution::Lithium, Caution::Mains, Caution::Fumes, Caution::SmokeAlarm, Caution::Static, Caution::HotBench];
    step("Make ready", lines.map(str::to_owned).to_vec(), "Nothing on the board is live.", &cautions)
}

fn protect(script: &Script<'_>) -> Step {
    let close = |m: &&super::margin::Margin| matches!(m.kind, Kind::Neighbour) && m.standing != Standing::Inside;
    let face = script.plan.recipe.face(script.board);
    let mut lines = passes::shields(script);
    if lines.is_empty() {
        let tight = script.plan.margins.iter().filter(close);
        lines.extend(tight.map(|m| {
            format!("Cover {} ({}): it comes within {:.0} K of its limit.", m.name, m.detail, m.margin_k.max(0.0))
        }));
    }
    let near = script.board.neighbours.iter().filter(|n| n.face == face).count();
    if lines.is_empty() {
        lines.push("Nothing needs a shield by the numbers.".to_owned());
    }
    lines.push(format!(
        "Polyimide tape over what stands on the {} face ({near} near), pressed down to the joints, not over them.",
        face.name()
    ));
    step("Protect", lines, "No tape on any joint of the part: a covered joint will not melt.", &[Caution::Static])
}

fn flux(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let how = if connector.family.has_open_contacts() {
        "Sparingly: flux must not run into the open contacts."
    } else {
        "Generously, from both faces of plated legs."
    };
    let lines = vec![format!("Fresh flux on all {} joints.", connector.joints.len()), how.to_owned()];
    step("Flux", lines, "Every joint is wet with flux.", &[Caution::Fumes])
}

fn alloy(script: &Script<'_>) -> Step {
    let Script { board, charge, .. } = script;
    let metal = charge.fed().map_or(&charge.refit, |feed| &feed.metal);
    let groups = groups(board);
    let mut lines: Vec<String> = groups.iter().filter_map(|group| fed_line(charge, group)).collect();
    let fed = !lines.is_empty();
    if lines.is_empty() {
        lines.push(format!("Touch {} to every joint you can reach: near is not enough.", metal.name));
    }
    if fed {
        lines.push("Hold the tip until the board itself is hot, or the alloy lies on top and never mixes.".to_owned());
    }
    let left = groups.iter().filter(|group| group.hidden && charge.feeds(group).is_none());
    let hidden: usize = left.map(|group| group.joints.len()).sum();
    if hidden > 0 {
        lines.push(format!("{hidden} joints are hidden: they melt as the factory left them."));
    }
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if metal.has_lead() {
        cautions.push(Caution::Lead);
    }
    Step { duty: Duty::Feed, ..step("Add alloy", lines, "Fresh metal shines on each joint.", &cautions) }
}

/// `legs: 4 x 12 mm of Sn42Bi58, 0.5 mm wire`.
fn fed_line(charge: &Charge, group: &JointGroup) -> Option<String> {
    let (feed, fed) = (charge.feeds(group)?, amount(charge, group)?);
    let rounds = if fed.rounds > 1 { format!(", in {} rounds: feed, wick, feed", fed.rounds) } else { String::new() };
    let (count, alloy, wire) = (group.joints.len(), &feed.metal.name, feed.wire.diameter_mm);
    Some(format!("{}: {count} x {:.1} mm of {alloy}, {wire} mm wire{rounds}.", group.name, fed.length_mm))
}

/// How many flood-and-wick passes by the arithmetic of residues.
fn passes(script: &Script<'_>) -> Option<String> {
    script.charge.fed()?;
    let counts: Vec<Option<usize>> = groups(script.board).iter().map(|group| cycles(script.charge, group)).collect();
    Some(match counts.iter().copied().collect::<Option<Vec<usize>>>() {
        Some(all) => {
            let most = all.into_iter().max().unwrap_or(0).max(1);
            format!(
                "Every trace of the fed alloy out: {most} passes, flooded with {} between.",
                script.charge.refit.name
            )
        }
        None => "Eight passes do not get this alloy out: feed another one.".to_owned(),
    })
}

fn heat(script: &Script<'_>) -> Step {
    let Some(air) = &script.plan.recipe.air else { return ironed(script) };
    let motion = passes::moving(air.motion);
    let from = if air.face == script.board.connector.face { "onto the part" } else { "from the far face" };
    let lines = vec![
        format!("Air {}, {} face: {motion}, {:.0} mm away.", from, air.face.name(), air.distance.in_mm()),
        format!("{:.0} mm outlet, {:.0} L/min.", air.nozzle.in_mm(), air.flow.in_litres_per_minute()),
        "No pulling, no prising: grip, and wait. It moves by itself.".to_owned(),
    ];
    let lines = passes::helpers(&script.plan.recipe.with).into_iter().chain(lines).collect();
    let cue = "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.";
    let kind = StepKind::Heat { release: script.plan.release, stop_s: script.plan.stop.at_s };
    Step { kind, ..step("Heat", lines, cue, &[Caution::Burns, Caution::Fumes, Caution::Alcohol]) }
}

/// The last pass of a recipe without air.
fn ironed(script: &Script<'_>) -> Step {
    let lines = passes::helpers(&script.plan.recipe.with).into_iter();
    let lines = lines.chain(["No pulling, no prising: grip, and wait. It moves by itself.".to_owned()]).collect();
    let cue = "Every joint shines at the same time; the part moves under the grip.";
    let kind = StepKind::Heat { release: script.plan.release, stop_s: script.plan.stop.at_s };
    Step { kind, ..step("Heat", lines, cue, &[Caution::Burns, Caution::Fumes, Caution::Alcohol]) }
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
}

fn wick(script: &Script<'_>) -> Step {
    let holes = script.board.connector.joints.iter().filter(|j| j.shape.is_hole()).count();
    let mut lines =
        vec!["Braid on flux, iron on braid, no weight on it. Strokes along the pads, never across.".to_owned()];
    if holes > 0 {
        lines.push(format!("{holes} holes: add solder first, then draw it through with fresh braid."));
    }
    lines.extend(passes(script));
    lines.push("Braid that sticks is a board gone cold: warm it, do not pull.".to_owned());
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if script.charge.has_lead() {
        cautions.push(Caution::Lead);
    }
    let kind = StepKind::WhileWarm { window_s: script.plan.warm_s };
    let step = step("Wick while warm", lines, "Braid glides; pads are flat and bright.", &cautions);
    Step { kind, duty: Duty::Clean, ..step }
}

fn clean_pads() -> Step {
    let lines = [
        "Strong alcohol and brush; let it dry.",
        "Look: pads whole, mask whole, neighbours in place.",
        "A knocked part goes back now, and is measured.",
    ];
    let cue = "Every pad and hole is bare and whole.";
    let step = step("Clean and look", lines.map(str::to_owned).to_vec(), cue, &[Caution::Alcohol]);
    Step { duty: Duty::Clean, ..step }
}

fn fit(script: &Script<'_>) -> Step {
    let hidden = script.board.connector.joints.iter().any(|j| j.hidden);
    let mut lines = vec!["Dry fit: flush and level, every pin on its pad. If not, the holes are not clear.".to_owned()];
    if hidden {
        lines.push("Hidden row: even, domed pads, the same height everywhere. One low pad is one open pin.".to_owned());
    }
    lines.push(format!("Tin with {}, flux, part in place, pushed home.", script.charge.refit.name));
    let mut cautions = vec![Caution::Fumes];
    if script.charge.refit.has_lead() {
        cautions.push(Caution::Lead);
    }
    Step { duty: Duty::Fit, ..step("Fit", lines, "It sits flat before any heat.", &cautions) }
}

fn set(script: &Script<'_>) -> Step {
    let lines = vec![
        "The same air again; press flat and level until every pin sinks.".to_owned(),
        "Then air off, and do not move.".to_owned(),
    ];
    let kind = StepKind::Heat { release: script.plan.release, stop_s: script.plan.stop.at_s };
    Step {
        kind,
        ..step(
            "Set",
            lines,
            "The part sinks; a bright line runs round each leg.",
            &[Caution::Burns, Caution::Fumes, Caution::Alcohol],
        )
    }
}

fn hold(script: &Script<'_>) -> Step {
    let side = if script.board.connector.face == Face::Top { "above" } else { "below" };
    let lines = vec![format!("Hold it still from {side}. The thickest leg freezes last.")];
    let kind = StepKind::Hold { until_s: script.plan.hold_s };
    Step { kind, ..step("Hold", lines, "The shine turns matt on the last leg.", &[Caution::Burns]) }
}

fn clean() -> Step {
    let lines = [
        "Touch up visible pins with a clean tip and flux.",
        "Alcohol and brush, rinse, dry warm. No flux left in the contacts.",
        "Then to the pin walk.",
    ];
    step(
        "Clean",
        lines.map(str::to_owned).to_vec(),
        "Concave fillets, no bridges, no balls.",
        &[Caution::Alcohol, Caution::Burns],
    )
}
