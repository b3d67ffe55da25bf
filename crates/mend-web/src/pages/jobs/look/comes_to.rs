//! What a list comes to: whether the port is at fault at all, or with the new part on what is left to mend.

use mend_core::board::Joint;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::fault::{Suspicion, suspicion};
use mend_core::inspection::insulation::{InsulationVerdict, insulated};
use mend_core::inspection::sheet::{PinStanding, SheetPhase, standing};
use mend_core::inspection::{PinMark, Verdict, Walked, verdict};
use mend_store::CheckRow;

use super::LookList;
use super::tabs::counted;
use crate::job::{CONDITION, CONDITION_AFTER, Job, reference};
use crate::words;

/// A verdict and its reasons.
pub(super) struct ListVerdict {
    pub(super) title: String,
    /// `sound`, `open` or `rework`.
    pub(super) class: &'static str,
    pub(super) reasons: Vec<String>,
}

impl ListVerdict {
    fn new(title: impl Into<String>, class: &'static str) -> Self {
        Self { title: title.into(), class, reasons: Vec::new() }
    }

    fn because(self, reasons: Vec<String>) -> Self {
        Self { reasons, ..self }
    }
}

/// What the verdict is about.
pub(super) const fn over(list: LookList) -> &'static str {
    match list {
        LookList::Sheet(SheetPhase::After) => "With the new part on",
        LookList::Between => "Between neighbours",
        LookList::Bare => "What the heat did to the lands",
        _ => "Is the port the fault at all?",
    }
}

/// What the list comes to: whether the port is at fault at all, or with the new part on what is left to mend.
pub(super) fn said(job: &Job, list: LookList, good: &[CheckRow]) -> ListVerdict {
    match list {
        LookList::Sheet(SheetPhase::After) => sheet_said(&verdict(&after(job, good))),
        LookList::Between => between_said(&insulated(&job.insulation())),
        LookList::Bare => bare_said(job),
        _ => suspected(job, list, good),
    }
}

fn sheet_said(found: &Verdict) -> ListVerdict {
    let class = match found {
        found if found.is_sound() => "sound",
        Verdict::Unfinished { .. } => "open",
        _ => "rework",
    };
    ListVerdict::new(words::sheet_verdict(found), class)
}

/// The sheet with the new part on, as the marks of a pin walk.
fn after(job: &Job, good: &[CheckRow]) -> Vec<Walked> {
    let Some((_, board)) = &job.board else { return Vec::new() };
    let walked = |joint: &Joint| {
        let stands = job.reading(SheetPhase::After, &joint.name);
        let stands = stands.map(|read| standing(read, joint.role, reference(good, &joint.name).as_ref()));
        let mark = stands.map(|stands| match stands {
            PinStanding::Open => PinMark::Moves,
            PinStanding::Short => PinMark::Bridged,
            _ => PinMark::Firm,
        });
        Walked { name: joint.name.clone(), hidden: joint.hidden, mark }
    };
    board.connector.joints.iter().filter(|joint| joint.is_pin()).map(walked).collect()
}

fn between_said(found: &InsulationVerdict) -> ListVerdict {
    let class = match found {
        InsulationVerdict::Sound => "sound",
        InsulationVerdict::Unfinished { .. } => "open",
        InsulationVerdict::Bridged { .. } => "rework",
    };
    let rework = words::insulation_rework(found).to_owned();
    ListVerdict::new(words::insulation_verdict(found), class).because(vec![rework])
}

/// What the heat did to the lands: those that are worse than before.
fn bare_said(job: &Job) -> ListVerdict {
    let broken = job.broken_in(CONDITION_AFTER);
    let worse = |(joint, state): &(&Joint, Condition)| {
        let before = job.condition_in(CONDITION, &joint.name).unwrap_or(Condition::Whole);
        (*state > before).then(|| format!("{}: {}, was {}", joint.name, state.name(), before.name()))
    };
    let worse: Vec<String> = broken.iter().filter_map(worse).collect();
    match (worse.len(), counted(job, LookList::Bare)) {
        (0, counted) if counted.done < counted.of => {
            ListVerdict::new(format!("{} to look at", counted.of - counted.done), "open")
        }
        (0, _) => ListVerdict::new("The heat has hurt no land", "sound"),
        (1, _) => ListVerdict::new("One land is worse than it was", "rework").because(worse),
        (count, _) => ListVerdict::new(format!("{count} lands are worse than they were"), "rework").because(worse),
    }
}

fn suspected(job: &Job, list: LookList, good: &[CheckRow]) -> ListVerdict {
    let found = suspicion(&job.seen_pins(good));
    let class = match found.suspicion {
        Suspicion::Open { .. } => "open",
        Suspicion::Port => "sound",
        _ => "rework",
    };
    let mut reasons: Vec<String> = found.clues.iter().map(words::clue).collect();
    if good.is_empty() && list != LookList::Lands {
        reasons.push(
            "No good board of this model has been read yet: only opens on ground and shorts are plain.".to_owned(),
        );
    }
    ListVerdict::new(words::suspicion(&found.suspicion), class).because(reasons)
}
