//! The practice bench in words.

use mend_core::practice::debrief::DebriefPoint;
use mend_core::practice::goal::{GoalObstacle, PracticeGoal};
use mend_core::practice::harm::Harmed;

use crate::pages::word;

/// A task's name, and what it is about.
pub(crate) fn task_words(key: &str) -> (&'static str, &'static str) {
    match key {
        "thin-shell" => (
            "A metal shell on a thin board",
            "Five pins and a shell. Learn when it is free: grip it, and wait until it moves.",
        ),
        "latch-beside" => (
            "A latch beside the port",
            "The plastic behind the port goes before the joints do, from above. From below it has time.",
        ),
        "jack-in-holes" => {
            ("A jack in plated holes", "Legs through the board: one that is not molten takes its barrel along.")
        }
        "ten-layers" => (
            "Two rows, ten layers",
            "Copper drinks the heat, a latch stands over the rows, and a filter swims beside them.",
        ),
        "iron-and-wire" => (
            "By iron and wire",
            "No air: a wire lies along eight pins. Go along it until all of them are liquid at once.",
        ),
        "new-port" => ("A new port goes on", "Its joints are wetted, then it is left alone until they are dull again."),
        "full-holes" => ("Four full holes", "Iron and braid: liquid first, then fresh braid, then lift it."),
        "low-melt" => {
            ("Lands with low-melt", "What was fed comes off again: braid, fresh wire, braid, until it may stay.")
        }
        _ => ("A task that is no longer there", ""),
    }
}

/// What an attempt is of.
pub(crate) fn subject_words(task: &str, job: Option<i64>, goal: PracticeGoal) -> String {
    let of = match (task, job) {
        ("", Some(job)) => format!("Rehearsal of job {job}"),
        ("", None) => "Free practice".to_owned(),
        (task, _) => return task_words(task).0.to_owned(),
    };
    if goal == PracticeGoal::Remove { of } else { format!("{of}: {}", own_goal_words(goal)) }
}

/// What is done on a board of one's own, as a choice.
const fn own_goal_words(goal: PracticeGoal) -> &'static str {
    match goal {
        PracticeGoal::Remove => "take the part off",
        PracticeGoal::Fit => "solder the new part",
        PracticeGoal::ClearHoles => "empty the holes",
        PracticeGoal::CleanUp => "clean up what was fed",
    }
}

/// The choice as a form sends it, and in words.
pub(crate) fn goal_choice(goal: PracticeGoal) -> (String, &'static str) {
    (word(&goal), own_goal_words(goal))
}

/// Why that can't be done on a board, and what can.
pub(crate) const fn goal_obstacle(obstacle: GoalObstacle) -> (&'static str, &'static str) {
    match obstacle {
        GoalObstacle::NoHole => {
            ("this board's part has no plated hole", "choose another board, or something else to practise")
        }
        GoalObstacle::NothingFed => {
            ("nothing is fed to the joints of this job", "feed an alloy at its alloy stop first")
        }
    }
}

/// What is to be done.
pub(crate) fn goal_words(goal: PracticeGoal) -> &'static str {
    match goal {
        PracticeGoal::Remove => "Take the part off. Everything else stays whole.",
        PracticeGoal::Fit => "Solder the new part: every joint shiny, then hands off until all are dull.",
        PracticeGoal::ClearHoles => "Empty every hole with iron and braid.",
        PracticeGoal::CleanUp => "Take off what was fed, land by land, until what stays may stay.",
    }
}

/// A kind of harm, for a record.
pub(crate) fn harmed_kind(what: &Harmed) -> &'static str {
    match what {
        Harmed::PadLifted { .. } => "land lifted",
        Harmed::BarrelPulled { .. } => "barrel pulled",
        Harmed::Part => "part damaged",
        Harmed::Component { .. } => "neighbour damaged by heat",
        Harmed::Floated { .. } => "neighbour shifted",
        Harmed::BlownAway { .. } => "neighbour blown away",
        Harmed::Dropped { .. } => "neighbour fell",
        Harmed::Laminate => "board blistered",
        Harmed::AlloyLeft { .. } => "alloy left in",
        Harmed::ColdJoint { .. } => "joint not wetted",
        Harmed::PartMoved => "part moved while liquid",
    }
}

/// A harm with its name.
pub(crate) fn harmed(what: &Harmed) -> String {
    match what {
        Harmed::PadLifted { joint } => format!("the land of {joint} came off"),
        Harmed::BarrelPulled { joint } => format!("the barrel of {joint} came out"),
        Harmed::Part => "the part is damaged".to_owned(),
        Harmed::Component { name } => format!("{name} is damaged by heat"),
        Harmed::Floated { name } => format!("{name} was shifted"),
        Harmed::BlownAway { name } => format!("{name} was blown away"),
        Harmed::Dropped { name } => format!("{name} fell off"),
        Harmed::Laminate => "the board blistered".to_owned(),
        Harmed::AlloyLeft { row } => format!("too much of what was fed stays in {row}: found a week later"),
        Harmed::ColdJoint { joint } => format!("{joint} was never wetted: found a week later"),
        Harmed::PartMoved => "the new part moved while it floated".to_owned(),
    }
}

/// What to change, in a sentence.
pub(crate) fn debrief_words(point: &DebriefPoint) -> String {
    match point {
        DebriefPoint::PulledEarly { torn, joint, short_k, force_n, gripped_first } => {
            let tore = if *torn == 1 { joint.clone() } else { format!("{torn} joints, the coldest {joint},") };
            let hint = if *gripped_first {
                "Pull only once it has moved in a light grip."
            } else {
                "Grip it first, without a pull: it moves when it is free."
            };
            format!("You pulled with {force_n:.1} N on {tore} {short_k:.0} K before it let go. {hint}")
        }
        DebriefPoint::TooHot { what, at_s, seen_s, same_face, bare } => {
            too_hot(what, *at_s, *seen_s, kept_cooler(*same_face, *bare))
        }
        DebriefPoint::Moved { what, flow, distance_mm } => match what {
            Harmed::Floated { name } => {
                format!("{name} was touched while its own joints were liquid: keep the tweezers away from it.")
            }
            Harmed::Dropped { name } => {
                format!("{name} hung on liquid joints and fell: turn the board over, or hold it with tape.")
            }
            _ => format!(
                "{}: {flow:.0} L/min from {distance_mm:.0} mm is more than molten solder holds. Less flow, or tape over it.",
                capital(&harmed(what))
            ),
        },
        DebriefPoint::NeverMelted { joint, short_k } => {
            format!(
                "Joint {joint} never let go: it lacked {short_k:.0} K at its hottest. Nearer, hotter or longer, and over the coldest joint."
            )
        }
        DebriefPoint::WaitedLong { seconds } => {
            format!(
                "All was free for {seconds:.0} s before it was lifted: every second more heats what should stay whole."
            )
        }
        DebriefPoint::NotWetted { joints } => {
            format!("{joints} joints were never liquid for a whole second: wait until the last of them shines.")
        }
        DebriefPoint::MovedWhileLiquid => {
            "The part was moved or left while it floated: hands off until every joint is dull.".to_owned()
        }
        DebriefPoint::AlloyLeft { row, passes } => {
            format!(
                "{} had {passes} passes of braid at the least: flood it with fresh wire and wick once more.",
                capital(row)
            )
        }
        DebriefPoint::NotDone { goal } => not_done(*goal).to_owned(),
        DebriefPoint::Clean { seconds } => {
            format!("Nothing to change: done in {seconds:.0} s, and everything is whole.")
        }
    }
}

fn not_done(goal: PracticeGoal) -> &'static str {
    match goal {
        PracticeGoal::Remove => "Every joint let go, and nobody lifted the part: pull once it moves in a light grip.",
        PracticeGoal::Fit => "Its joints were wetted and still liquid: wait until all of them are dull.",
        PracticeGoal::ClearHoles => {
            "A hole is still full: fresh braid under the tip once it shines, and hold on for two seconds."
        }
        PracticeGoal::CleanUp => "Not every land has been wicked: fresh braid, fresh wire, and once more.",
    }
}

/// How what got too hot is kept cooler: on the face that was blown on, or bare.
const fn kept_cooler(same_face: bool, bare: bool) -> &'static str {
    match (same_face, bare) {
        (true, _) => "Blow from the other side, or keep the air moving.",
        (false, true) => "Tape over it, or a narrower nozzle.",
        (false, false) => "Less heat, or sooner away.",
    }
}

fn too_hot(what: &Harmed, at_s: f64, seen_s: Option<f64>, hint: &str) -> String {
    let seen = match seen_s {
        Some(seen) => format!("it was glossy from {seen:.0} s on"),
        None => "it gave no sign".to_owned(),
    };
    format!("At {at_s:.0} s {}; {seen}. {hint}", harmed(what))
}

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_uppercase().chain(letters).collect())
}
