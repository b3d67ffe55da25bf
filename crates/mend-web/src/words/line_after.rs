//! Cleaning, looking, testing; and what becomes of a donor's part.

use mend_core::board::ConnectorFamily;
use mend_core::planning::sequence::line::{AfterLine, HarvestLine};

pub(super) fn after_line(line: &AfterLine) -> String {
    match line {
        AfterLine::TouchUpVisible => "Touch up visible pins with a clean tip and flux.".into(),
        AfterLine::RinseAndDry => "Alcohol and brush, rinse, dry warm. No flux left in the contacts.".into(),
        AfterLine::ToThePinWalk => "Then to the pin walk.".into(),
        AfterLine::StrongAlcohol => {
            "Strong alcohol and brush, until the brush comes away clean; rinse, dry warm.".into()
        }
        AfterLine::BrushAwayFromContacts => {
            "Board upright, brushed away from the contacts: nothing dissolved runs into them.".into()
        }
        AfterLine::BrushIntoShell => "Into the shell with a thin brush: no flux left on the contacts.".into(),
        AfterLine::UltrasonicBath => "Sticky flux inside: ultrasonic bath, then rinse and dry warm.".into(),
        AfterLine::NoBath { components } => {
            format!("No ultrasonic bath: {} would not stand it.", components.join(", "))
        }
        AfterLine::LookAtAnAngle => {
            "At an angle, against an untouched factory connector: concave from pin to pad.".into()
        }
        AfterLine::NoBridgeNoBall => "No bridge, no starved joint, no ball, nothing knocked off.".into(),
        AfterLine::HiddenByMeter { joints } => {
            format!("{joints} hidden joints: only the meter sees them. Diode mode, from either side.")
        }
        AfterLine::ThenPinWalk => "Then the pin walk: every pin nudged and measured.".into(),
        AfterLine::OwnTest { text } => text.clone(),
        AfterLine::UsualTest { family } => usual_test(*family).into(),
        AfterLine::CableThenPower => {
            "Cable first, then power; as little closed up as possible. No update, no sign-in.".into()
        }
        AfterLine::EveryLand { joints } => {
            format!("All {joints} pads and holes under the microscope: whole, bare, level; what is not is noted.")
        }
        AfterLine::NothingBridged => "Meter between neighbours: nothing joined that should be apart.".into(),
    }
}

const fn usual_test(family: ConnectorFamily) -> &'static str {
    match family {
        ConnectorFamily::Port => "Plug in both ways up; charge, data and picture, whatever this port carries.",
        ConnectorFamily::Flex | ConnectorFamily::FlexTail | ConnectorFamily::BoardToBoard => {
            "Latch closes; everything on this cable works, every key and line."
        }
        ConnectorFamily::Jack => "Plug seats with its click; both channels or the link are there.",
        ConnectorFamily::Power => "Plug seats firm; voltage at the fuse; charges under load, nothing warms.",
    }
}

pub(super) fn harvest_line(line: &HarvestLine) -> String {
    match line {
        HarvestLine::SetDown => {
            "Onto something that does not burn, contacts up; nothing touches it until it is cold.".into()
        }
        HarvestLine::WickFeet { joints } => {
            format!("Braid and flux over all {joints} feet, part held by its shell; no solder left that lifts a foot.")
        }
        HarvestLine::TinOnceMore { fed, alloy } => {
            format!("Every trace of {fed} off: tin with {alloy} and wick once more.")
        }
        HarvestLine::BrushDry => "Alcohol and a thin brush; dry warm.".into(),
        HarvestLine::LatchMoves { part, material } => {
            format!("Latch moves, no pin bent, body straight: {part} ({}).", material.name())
        }
        HarvestLine::BagIt => "Bag it with its variant, the donor and the hottest that it was computed to get.".into(),
        HarvestLine::OtherBoardReady { joints } => {
            format!("All {joints} pads and holes of the other board: old part off, wicked flat, whole.")
        }
        HarvestLine::SameFootprint => "Held over them, every foot stands on its pad: it is the same part.".into(),
        HarvestLine::BoardIsWaste => "The donor's board is waste: local rules, lead or not.".into(),
    }
}
