//! What each land, pin or pair shows: its colour, its mark, its words.

use mend_core::board::Joint;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::insulation::{Insulation, Neighbours};
use mend_core::inspection::sheet::{DiodeReading, PinReference, PinStanding, SheetPhase, standing};
use mend_store::CheckRow;

use crate::draw::pin_rows::PinFace;
use crate::job::{CONDITION, CONDITION_AFTER, Job, reference};
use crate::words;

pub(super) fn land_face(state: Option<Condition>) -> PinFace {
    let (class, glyph) = match state {
        None => ("unwalked", ""),
        Some(Condition::Whole) => ("firm", "✓"),
        Some(Condition::Corroded) => ("moves", "≈"),
        Some(Condition::Lifted) => ("moves", "⌒"),
        Some(Condition::Torn) => ("missing", "⁄"),
        Some(Condition::Missing) => ("missing", "✕"),
    };
    PinFace::new(class, glyph, state.map_or("not looked at", Condition::name))
}

/// A land with the part off, held against how it was found.
pub(super) fn bare_face(job: &Job, joint: &Joint) -> PinFace {
    let face = land_face(job.condition_in(CONDITION_AFTER, &joint.name));
    let before = job.condition_in(CONDITION, &joint.name).map(|state| format!(", {} with the part on", state.name()));
    PinFace { says: face.says + &before.unwrap_or_default(), ..face }
}

/// A pin and the one to its right.
pub(super) fn between_face(pairs: &[(Neighbours, Option<Insulation>)], joint: &Joint) -> PinFace {
    let Some((pair, found)) = pairs.iter().find(|(pair, _)| pair.left == joint.name) else {
        return PinFace::new("unwalked", "", "");
    };
    let (class, glyph) = match found {
        None if pair.may_be_joined => ("read", ""),
        None => ("unwalked", ""),
        Some(Insulation::Apart) => ("firm", "‖"),
        Some(Insulation::Joined) if pair.may_be_joined => ("read", "∞"),
        Some(Insulation::Joined) => ("missing", "∞"),
    };
    let may = if pair.may_be_joined { ", the board may join them" } else { "" };
    let says = format!("to {}: {}{may}", pair.right, found.map_or("not measured", Insulation::name));
    PinFace::new(class, glyph, says)
}

pub(super) fn pin_face(job: &Job, phase: SheetPhase, joint: &Joint, good: &[CheckRow]) -> PinFace {
    let reference = reference(good, &joint.name);
    let like = reference.as_ref().map_or(String::new(), |good| {
        let boards = if good.boards == 1 { "a good board".to_owned() } else { format!("{} good boards", good.boards) };
        format!(", {boards}: {}", measured(good.middle))
    });
    // With the new part on, what the old one read stands beside it.
    let before = job.reading(SheetPhase::Before, &joint.name).filter(|_| phase == SheetPhase::After);
    let was = before.map_or(String::new(), |before| format!(", with the old part {}", measured(before)));
    let below = beside(before, reference.as_ref());
    let Some(reading) = job.reading(phase, &joint.name) else {
        return PinFace { below, ..PinFace::new("unwalked", "", format!("not read{like}{was}")) };
    };
    let (class, stands) = match standing(reading, joint.role, reference.as_ref()) {
        PinStanding::LikeOthers => ("firm", "like the others"),
        PinStanding::High => ("moves", "high"),
        PinStanding::Low => ("moves", "low"),
        PinStanding::Open => ("missing", "open"),
        PinStanding::Short => ("missing", "short"),
        PinStanding::Unknown => ("read", "read"),
    };
    let says = format!("{}, {stands}{like}{was}", measured(reading));
    PinFace { below, ..PinFace::new(class, words::reading(reading), says) }
}

/// With its unit.
fn measured(reading: DiodeReading) -> String {
    if reading == DiodeReading::Open { "OL".to_owned() } else { format!("{} mV", words::reading(reading)) }
}

/// What was read before, and what good boards read: `548 · =552`.
fn beside(before: Option<DiodeReading>, good: Option<&PinReference>) -> String {
    let good = good.map(|good| format!("={}", words::reading(good.middle)));
    before.map(words::reading).into_iter().chain(good).collect::<Vec<_>>().join(" · ")
}
