//! What a step says to do, a line each.

use mend_core::board::{ConnectorFamily, Face};
use mend_core::heat::motion::Motion;
use mend_core::planning::sequence::line::{AfterLine, BeforeLine, FitLine, HarvestLine, HeatLine, Line, PadsLine};

use super::Words;
use super::limits::margin_detail;
use super::quantity::{capital, count, shield};

impl Words {
    /// A line; what the hands do in a method may be several.
    pub(super) fn line(&self, line: &Line) -> Vec<String> {
        match line {
            Line::Before(line) => vec![self.before_line(line)],
            Line::Heat(HeatLine::MethodHands { family }) => {
                self.method(*family).heat.iter().map(|line| (*line).to_owned()).collect()
            }
            Line::Heat(line) => vec![self.heat_line(line)],
            Line::Pads(line) => vec![pads_line(line)],
            Line::Fit(line) => vec![fit_line(line)],
            Line::After(line) => vec![after_line(line)],
            Line::Harvest(line) => vec![harvest_line(line)],
        }
    }

    fn before_line(&self, line: &BeforeLine) -> String {
        match line {
            BeforeLine::Unplug => "Battery disconnected and out, mains supply out.".to_owned(),
            BeforeLine::BoardOnHolder => "Board clear of the bench on its holder, foil beneath it.".to_owned(),
            BeforeLine::ExtractionAndStrap => "Extraction on, strap on, tweezers and braid at hand.".to_owned(),
            BeforeLine::ScrewMap => {
                "Screws counted out by place, length and head onto the map: a long one in a short hole kills a board."
                    .to_owned()
            }
            BeforeLine::LatchesFirst => {
                "Every latch opened before its cable is drawn; glued cables warmed, never pulled.".to_owned()
            }
            BeforeLine::ThermalPads => {
                "Thermal pads counted; liquid metal contained and taken off before any heat.".to_owned()
            }
            BeforeLine::OffBeforeHeat { components } => format!("Off before heat: {}.", components.join(", ")),
            BeforeLine::DonorIsSpent => {
                "The donor's board is spent: only the part counts. No tape on it, nothing that can scratch it."
                    .to_owned()
            }
            BeforeLine::LayShield { shield: kind, over, width_mm, depth_mm, face } => {
                let over = if over.is_empty() { "bare board".to_owned() } else { over.join(", ") };
                format!(
                    "{} over {over}: {width_mm} x {depth_mm} mm on the {} face.",
                    capital(&shield(*kind)),
                    face.name()
                )
            }
            BeforeLine::Cover { component, detail, headroom_k } => format!(
                "Cover {component} ({}): it comes within {} of its limit.",
                margin_detail(detail),
                self.apart(*headroom_k)
            ),
            BeforeLine::NoShieldNeeded => "Nothing needs a shield by the numbers.".to_owned(),
            BeforeLine::TapeFace { face, near } => format!(
                "Polyimide tape over what stands on the {} face ({near} near), pressed down to the joints, not over them.",
                face.name()
            ),
            BeforeLine::FluxJoints { joints } => format!("Fresh flux on all {joints} joints."),
            BeforeLine::FluxSparingly => "Sparingly: flux must not run into the open contacts.".to_owned(),
            BeforeLine::FluxGenerously => "Generously, from both faces of plated legs.".to_owned(),
            BeforeLine::WickFirst => "Wick what the braid takes now: there is less to melt.".to_owned(),
            BeforeLine::FeedRow { row, joints, mm, alloy, wire_mm, rounds } => {
                let rounds =
                    if *rounds > 1 { format!(", in {rounds} rounds: feed, wick, feed") } else { String::new() };
                format!("{row}: {joints} x {mm:.1} mm of {alloy}, {wire_mm} mm wire{rounds}.")
            }
            BeforeLine::TouchEveryJoint { alloy } => {
                format!("Touch {alloy} to every joint you can reach: near is not enough.")
            }
            BeforeLine::HoldUntilHot => {
                "Hold the tip until the board itself is hot, or the alloy lies on top and never mixes.".to_owned()
            }
            BeforeLine::HiddenAsFactory { joints } => {
                format!("{joints} joints are hidden: they melt as the factory left them.")
            }
            BeforeLine::WireLength { mm, wire_mm } => {
                format!("{mm:.0} mm of tinned copper wire, {wire_mm} mm, bent to lie on every joint.")
            }
            BeforeLine::SolderWireDown => {
                "Solder it down joint by joint, from the middle outward, until solder covers it.".to_owned()
            }
        }
    }

    /// What a recipe's tools do, a line each.
    pub fn heat_line(&self, line: &HeatLine) -> String {
        let from = |onto_part: bool| if onto_part { "onto the part" } else { "from the far face" };
        match line {
            HeatLine::AirOn { face, motion, distance_mm, nozzle_mm, lpm } => format!(
                "Air on the {} face, {}, {distance_mm:.0} mm away; {nozzle_mm} mm nozzle, {lpm:.0} L/min.",
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirAndPlace { onto_part, face, motion, distance_mm, nozzle_mm, lpm } => format!(
                "Air {}, {} face, {distance_mm:.0} mm away, {nozzle_mm} mm nozzle, {lpm:.0} L/min; {}.",
                from(*onto_part),
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirPlace { onto_part, face, motion, distance_mm } => format!(
                "Air {}, {} face: {}, {distance_mm:.0} mm away.",
                from(*onto_part),
                face.name(),
                moving(*motion)
            ),
            HeatLine::AirSetting { nozzle_mm, lpm } => format!("{nozzle_mm} mm nozzle, {lpm:.0} L/min."),
            HeatLine::PreheaterOn { face, coupling } => {
                format!("Preheater under the {} face, through {}.", face.name(), coupling.name())
            }
            HeatLine::IronOnRow { tip_mm, row } => {
                format!("Iron with a {tip_mm} mm tip on {row}, from joint to joint without rest.")
            }
            HeatLine::AllOff => "Everything off: the heat spreads through the board.".to_owned(),
            HeatLine::NextToolWithin { s } => format!("Then the next tool within {s:.0} s."),
            HeatLine::MethodHands { family } => self.method(*family).heat.join(" "),
            HeatLine::DoNotPull => "No pulling, no prising: grip, and wait. It moves by itself.".to_owned(),
            HeatLine::TipOnEachLeg { tip_mm, s } => {
                format!("{tip_mm:.0} mm tip on each leg for about {s:.0} s, until its far side runs.")
            }
            HeatLine::OneAfterOther { joints } => format!("One after the other: {}.", joints.join(", ")),
            HeatLine::StraightUp => {
                "Straight up. Air away the moment it is off: a freed part deforms in seconds.".to_owned()
            }
            HeatLine::RockPegs { pegs } => {
                format!("{pegs} plastic pegs hold by friction: rock gently, only now that all solder is liquid.")
            }
        }
    }
}

/// How a nozzle is held, in a phrase.
const fn moving(motion: Motion) -> &'static str {
    match motion {
        Motion::Still => "held still",
        Motion::Circle => "moving in a small circle",
        Motion::AlongRow => "moving along the row",
        Motion::Sweeping => "always moving over the whole part",
    }
}

fn pads_line(line: &PadsLine) -> String {
    match line {
        PadsLine::EvenPads => "Pads stay as they are: even them with a clean tip and flux, no braid.".to_owned(),
        PadsLine::BraidWidePads => {
            "Braid on wide pads only; fine pitch is evened with a clean tip and flux.".to_owned()
        }
        PadsLine::BraidPads => {
            "Braid on flux, iron on braid, no weight on it. Strokes along the pads, never across.".to_owned()
        }
        PadsLine::DrawHoles { holes } => {
            format!("{}: add solder first, then draw it through with fresh braid.", count(*holes, "hole", "holes"))
        }
        PadsLine::WickPasses { passes, flood } => {
            let passes = count(*passes, "pass", "passes");
            format!("Every trace of the fed alloy out: {passes}, flooded with {flood} between.")
        }
        PadsLine::NeverClean => "Eight passes do not get this alloy out: feed another one.".to_owned(),
        PadsLine::ColdAtOnce => "The board is cold at once: iron on the braid warms one pad at a time.".to_owned(),
        PadsLine::BraidSticks => "Braid that sticks is a board gone cold: warm it, do not pull.".to_owned(),
        PadsLine::AlcoholAndBrush => "Strong alcohol and brush; let it dry.".to_owned(),
        PadsLine::LookAtPads => "Look: pads whole, mask whole, components in place.".to_owned(),
        PadsLine::PutBackNow => "A knocked part goes back now, and is measured.".to_owned(),
        PadsLine::HolesStayFilled => {
            "Holes stay filled, level with both faces: the part drops in while they are liquid.".to_owned()
        }
        PadsLine::LookFromFarSide => "Look from the far side: every hole full, none with a crater.".to_owned(),
        PadsLine::HoleCount { holes } => format!("{}.", count(*holes, "hole", "holes")),
        PadsLine::FillStarvedHoles => "Add solder first: a starved hole keeps its core.".to_owned(),
        PadsLine::LightThroughEach => "Light through each; what is not empty is filled and sucked again.".to_owned(),
        PadsLine::VacuumIron => {
            "Vacuum iron on the land, until the far side runs, then suck; tip moved round the hole.".to_owned()
        }
        PadsLine::PumpOpposite => "Iron from one side, pump on the other; fresh solder before each try.".to_owned(),
        PadsLine::BraidEnd => "A wedge-cut braid end under air or iron, drawn up from the far side.".to_owned(),
    }
}

fn fit_line(line: &FitLine) -> String {
    match line {
        FitLine::DryFit => {
            "Dry fit: flush and level, every pin on its pad. If not, the holes are not clear.".to_owned()
        }
        FitLine::HiddenDomes => {
            "Hidden row: even, domed pads, the same height everywhere. One low pad is one open pin.".to_owned()
        }
        FitLine::TinAndSeat { alloy } => format!("Tin with {alloy}, flux, part in place, pushed home."),
        FitLine::TinRow { row, joints, mm, alloy, wire_mm, hidden } => {
            let hidden = if *hidden { ", hidden: all domes alike" } else { "" };
            format!("Tin {row}: {joints} x {mm:.1} mm of {alloy}, {wire_mm} mm wire{hidden}.")
        }
        FitLine::FirstPin => "First pin, then its row, looked at; anchors last.".to_owned(),
        FitLine::TackAnchors => "Tack one anchor, then the opposite one; look; then the pins.".to_owned(),
        FitLine::DrawnBack => "Part drawn back a hair, so that the pads show.".to_owned(),
        FitLine::PushedHome => "Part pushed home.".to_owned(),
        FitLine::IronOnEachPad => "Iron on each pin with a touch of solder, from the tacked corner outward.".to_owned(),
        FitLine::PressUntilSolid => "Press flat and level until the row is solid.".to_owned(),
        FitLine::SameAirAgain => "The same air again; press flat and level until every pin sinks.".to_owned(),
        FitLine::AirOffDoNotMove => "Then air off, and do not move.".to_owned(),
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
        FitLine::DrawBridgesOff => "A bridge goes with flux and a clean tip, drawn off along the pin.".to_owned(),
    }
}

fn after_line(line: &AfterLine) -> String {
    match line {
        AfterLine::TouchUpVisible => "Touch up visible pins with a clean tip and flux.".to_owned(),
        AfterLine::RinseAndDry => "Alcohol and brush, rinse, dry warm. No flux left in the contacts.".to_owned(),
        AfterLine::ToThePinWalk => "Then to the pin walk.".to_owned(),
        AfterLine::StrongAlcohol => {
            "Strong alcohol and brush, until the brush comes away clean; rinse, dry warm.".to_owned()
        }
        AfterLine::BrushAwayFromContacts => {
            "Board upright, brushed away from the contacts: nothing dissolved runs into them.".to_owned()
        }
        AfterLine::BrushIntoShell => "Into the shell with a thin brush: no flux left on the contacts.".to_owned(),
        AfterLine::UltrasonicBath => "Sticky flux inside: ultrasonic bath, then rinse and dry warm.".to_owned(),
        AfterLine::NoBath { components } => {
            format!("No ultrasonic bath: {} would not stand it.", components.join(", "))
        }
        AfterLine::LookAtAnAngle => {
            "At an angle, against an untouched factory connector: concave from pin to pad.".to_owned()
        }
        AfterLine::NoBridgeNoBall => "No bridge, no starved joint, no ball, nothing knocked off.".to_owned(),
        AfterLine::HiddenByMeter { joints } => {
            format!("{joints} hidden joints: only the meter sees them. Diode mode, from either side.")
        }
        AfterLine::ThenPinWalk => "Then the pin walk: every pin nudged and measured.".to_owned(),
        AfterLine::OwnTest { text } => text.clone(),
        AfterLine::UsualTest { family } => usual_test(*family).to_owned(),
        AfterLine::CableThenPower => {
            "Cable first, then power; as little closed up as possible. No update, no sign-in.".to_owned()
        }
    }
}

const fn usual_test(family: ConnectorFamily) -> &'static str {
    match family {
        ConnectorFamily::Port => "Plug in both ways up; charge, data and picture, whatever this port carries.",
        ConnectorFamily::Flex | ConnectorFamily::BoardToBoard => {
            "Latch closes; everything on this cable works, every key and line."
        }
        ConnectorFamily::Jack => "Plug seats with its click; both channels or the link are there.",
        ConnectorFamily::Power => "Plug seats firm; voltage at the fuse; charges under load, nothing warms.",
    }
}

fn harvest_line(line: &HarvestLine) -> String {
    match line {
        HarvestLine::SetDown => {
            "Onto something that does not burn, contacts up; nothing touches it until it is cold.".to_owned()
        }
        HarvestLine::WickFeet { joints } => {
            format!("Braid and flux over all {joints} feet, part held by its shell; no solder left that lifts a foot.")
        }
        HarvestLine::TinOnceMore { fed, alloy } => {
            format!("Every trace of {fed} off: tin with {alloy} and wick once more.")
        }
        HarvestLine::BrushDry => "Alcohol and a thin brush; dry warm.".to_owned(),
        HarvestLine::LatchMoves { part, material } => {
            format!("Latch moves, no pin bent, body straight: {part} ({}).", material.name())
        }
        HarvestLine::BagIt => {
            "Bag it with its variant, the donor and the hottest that it was computed to get.".to_owned()
        }
        HarvestLine::BoardIsWaste => "The donor's board is waste: local rules, lead or not.".to_owned(),
    }
}
