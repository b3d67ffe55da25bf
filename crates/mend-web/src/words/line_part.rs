//! Pads and holes while the board is warm, and the new part.

use mend_core::board::Face;
use mend_core::planning::sequence::line::{FitLine, PadsLine};
use mend_core::planning::small_runs::SmallRun;

use super::fit::small_run;
use super::quantity::count;
use super::tips::tips_line;

pub(super) fn pads_line(line: &PadsLine) -> String {
    match line {
        PadsLine::EvenPads => "Pads stay as they are: even them with a clean tip and flux, no braid.".into(),
        PadsLine::BraidWidePads => "Braid on wide pads only; fine pitch is evened with a clean tip and flux.".into(),
        PadsLine::BraidPads => {
            "Braid on flux, iron on braid, no weight on it. Strokes along the pads, never across.".into()
        }
        PadsLine::DrawHoles { holes } => {
            format!("{}: add solder first, then draw it through with fresh braid.", count(*holes, "hole", "holes"))
        }
        PadsLine::WickPasses { passes, flood } => {
            let passes = count(*passes, "pass", "passes");
            format!("Every trace of the fed alloy out: {passes}, flooded with {flood} between.")
        }
        PadsLine::NeverClean => "Eight passes do not get this alloy out: feed another one.".into(),
        PadsLine::ColdAtOnce => "The board is cold at once: iron on the braid warms one pad at a time.".into(),
        PadsLine::BraidSticks => "Braid that sticks is a board gone cold: warm it, do not pull.".into(),
        PadsLine::AlcoholAndBrush => "Strong alcohol and brush; let it dry.".into(),
        PadsLine::LookAtPads => "Look: pads whole, mask whole, components in place.".into(),
        PadsLine::LookFor { components } => {
            format!("Look: pads and mask whole; {} came near the limit: in place, and whole?", components.join(", "))
        }
        PadsLine::MendLands { pads, holes } => mend_lands(pads, holes),
        PadsLine::PutBackNow => "A knocked part goes back now, and is measured.".into(),
        PadsLine::HolesStayFilled => {
            "Holes stay filled, level with both faces: the part drops in while they are liquid.".into()
        }
        PadsLine::LookFromFarSide => "Look from the far side: every hole full, none with a crater.".into(),
        PadsLine::HoleCount { holes } => format!("{}.", count(*holes, "hole", "holes")),
        PadsLine::FillStarvedHoles => "Add solder first: a starved hole keeps its core.".into(),
        PadsLine::LightThroughEach => "Light through each; what is not empty is filled and sucked again.".into(),
        PadsLine::VacuumIron => {
            "Vacuum iron on the land, until the far side runs, then suck; tip moved round the hole.".into()
        }
        PadsLine::PumpOpposite => "Iron from one side, pump on the other; fresh solder before each try.".into(),
        PadsLine::Timed { run } => timed(run),
        PadsLine::BraidEnd => "A wedge-cut braid end under air or iron, drawn up from the far side.".into(),
    }
}

/// A small run of the fit's plan as a line of a step.
fn timed(run: &SmallRun) -> String {
    let (what, when) = small_run(run);
    format!("{what}: {when}.")
}

pub(super) fn fit_line(line: &FitLine) -> String {
    match line {
        FitLine::DryFit => "Dry fit: flush and level, every pin on its pad. If not, the holes are not clear.".into(),
        FitLine::HiddenDomes => {
            "Hidden row: even, domed pads, the same height everywhere. One low pad is one open pin.".into()
        }
        FitLine::AlignByMarks => {
            "Align the tail by its two marks under the microscope and tape it down; solder shows in every finger's hole.".into()
        }
        FitLine::TinAndSeat { alloy } => format!("Tin with {alloy}, flux, part in place, pushed home."),
        FitLine::TinRow { row, joints, mm, alloy, wire_mm, hidden } => {
            let hidden = if *hidden { ", hidden: all domes alike" } else { "" };
            format!("Tin {row}: {joints} x {mm:.1} mm of {alloy}, {wire_mm} mm wire{hidden}.")
        }
        FitLine::FirstPin => "First pin, then its row, looked at; anchors last.".into(),
        FitLine::TackAnchors => "Tack one anchor, then the opposite one; look; then the pins.".into(),
        FitLine::DrawnBack => "Part drawn back a hair, so that the pads show.".into(),
        FitLine::PushedHome => "Part pushed home.".into(),
        FitLine::IronOnEachPad => "Iron on each pin with a touch of solder, from the tacked corner outward.".into(),
        FitLine::PressUntilSolid => "Press flat and level until the row is solid.".into(),
        FitLine::SameAirAgain => "The same air again; press flat and level until every pin sinks.".into(),
        FitLine::UntilItSinks => "Press flat and level until every pin sinks.".into(),
        FitLine::SetOnLiquid => "All joints bright: set the part on, let it settle, nudge it once.".into(),
        FitLine::IronRound { tip_mm, dwell_s } => {
            format!("A {tip_mm} mm tip from pin to pin with a touch of solder, {dwell_s:.0} s on each.")
        }
        FitLine::Tips { choices } => tips_line(choices),
        FitLine::Timed { run } => timed(run),
        FitLine::AirOffDoNotMove => "Then air off, and do not move.".into(),
        FitLine::HoldStill { face } => {
            let side = if *face == Face::Top { "above" } else { "below" };
            format!("Hold it still from {side}. The thickest leg freezes last.")
        }
        FitLine::Anchors { anchors, tip_mm, from_far_side } => {
            let far = if *from_far_side { ", fed from the far side until both faces show it" } else { "" };
            format!("{}: {tip_mm} mm tip{far}; a fillet, not a ball.", count(*anchors, "anchor", "anchors"))
        }
        FitLine::SeenPins { pins } => format!(
            "{} that can be seen: flux, fine clean tip over every one; ground pins want a bigger tip.",
            count(*pins, "pin", "pins")
        ),
        FitLine::DrawBridgesOff => "A bridge goes with flux and a clean tip, drawn off along the pin.".into(),
    }
}

/// A trace is laid to a pad; of a hole the far side has to carry.
fn mend_lands(pads: &[String], holes: &[String]) -> String {
    let pads = (!pads.is_empty())
        .then(|| format!("Mend {} before the new part: glued down, a trace where it is torn.", pads.join(", ")));
    let holes =
        (!holes.is_empty()).then(|| format!("{}: the far side has to carry, prove it from there.", holes.join(", ")));
    pads.into_iter().chain(holes).collect::<Vec<_>>().join(" ")
}
