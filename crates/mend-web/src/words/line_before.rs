//! Before any heat: opening and protecting, then flux, alloy and wire.

use mend_core::heat::wire_path::WireShape;
use mend_core::planning::sequence::line::{BeforeLine, FeedLine};

use super::Words;
use super::limits::margin_detail;
use super::quantity::{capital, shield};

impl Words {
    pub(super) fn before_line(&self, line: &BeforeLine) -> String {
        match line {
            BeforeLine::Unplug => "Battery disconnected and out, mains supply out.".into(),
            BeforeLine::BoardOnHolder => "Board clear of the bench on its holder, foil beneath it.".into(),
            BeforeLine::ExtractionAndStrap => "Extraction on, strap on, tweezers and braid at hand.".into(),
            BeforeLine::ScrewMap => {
                "Screws counted out by place, length and head onto the map: a long one in a short hole kills a board."
                    .into()
            }
            BeforeLine::LatchesFirst => {
                "Every latch opened before its cable is drawn; glued cables warmed, never pulled.".into()
            }
            BeforeLine::ThermalPads => {
                "Thermal pads counted; liquid metal contained and taken off before any heat.".into()
            }
            BeforeLine::OffBeforeHeat { components } => format!("Off before heat: {}.", components.join(", ")),
            BeforeLine::DonorIsSpent => {
                "The donor's board is spent: only the part counts. No tape on it, nothing that can scratch it.".into()
            }
            BeforeLine::LayShield { shield: kind, over, width_mm, depth_mm, face } => {
                let over = if over.is_empty() { "bare board".into() } else { over.join(", ") };
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
            BeforeLine::NoShieldNeeded => "Nothing needs a shield by the numbers.".into(),
            BeforeLine::TapeFace { face, near } => format!(
                "Polyimide tape over what stands on the {} face ({near} near), pressed down to the joints, not over them.",
                face.name()
            ),
        }
    }
}

pub(super) fn feed_line(line: &FeedLine) -> String {
    match line {
        FeedLine::FluxJoints { joints } => format!("Fresh flux on all {joints} joints."),
        FeedLine::FluxSparingly => "Sparingly: flux must not run into the open contacts.".into(),
        FeedLine::FluxGenerously => "Generously, from both faces of plated legs.".into(),
        FeedLine::WickFirst => "Wick what the braid takes now: there is less to melt.".into(),
        FeedLine::FeedRow { row, joints, mm, alloy, wire_mm, rounds } => {
            let rounds = if *rounds > 1 { format!(", in {rounds} rounds: feed, wick, feed") } else { String::new() };
            format!("{row}: {joints} x {mm:.1} mm of {alloy}, {wire_mm} mm wire{rounds}.")
        }
        FeedLine::TouchEveryJoint { alloy } => {
            format!("Touch {alloy} to every joint you can reach: near is not enough.")
        }
        FeedLine::HoldUntilHot => {
            "Hold the tip until the board itself is hot, or the alloy lies on top and never mixes.".into()
        }
        FeedLine::HiddenAsFactory { joints } => {
            format!("{joints} joints are hidden: they melt as the factory left them.")
        }
        FeedLine::WireLength { mm, wire_mm, shape } => {
            let bent = shape.map_or("bent to lie on every joint", wire_shape);
            format!("{mm:.0} mm of tinned copper wire, {wire_mm} mm, {bent}.")
        }
        FeedLine::SolderWireDown => {
            "Solder it down joint by joint, from the middle outward, until solder covers it.".into()
        }
    }
}
/// How a bridge wire is bent.
pub(crate) const fn wire_shape(shape: WireShape) -> &'static str {
    match shape {
        WireShape::Straight => "straight along the joints",
        WireShape::Folded => "folded along both rows",
        WireShape::U => "bent to a U round the fixing pads",
        WireShape::Cage => "bent to a cage round all sides",
    }
}
