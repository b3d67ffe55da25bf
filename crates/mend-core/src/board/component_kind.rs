//! What stands near a port, as a technician names it: each with the material, height and own joints that it usually has.
//!
//! Heights and shares are engineering estimates (E): the thing on the bench is measured where it matters.

use serde::{Deserialize, Serialize};

use crate::materials::BodyMaterial;
use crate::units::Length;

/// A kind of thing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum ComponentKind {
    /// Ceramic capacitor or chip resistor.
    CeramicChip,
    /// Common-mode filter, ferrite, small transformer of ceramic.
    Filter,
    /// Chip in a moulded package.
    Chip,
    /// Moulded tantalum or polymer capacitor.
    MouldedCapacitor,
    /// Wet electrolytic capacitor in its can.
    ElectrolyticCan,
    /// Power coil.
    Coil,
    /// Crystal or oscillator.
    Crystal,
    /// Microphone or sensor with a port.
    Microphone,
    /// Flex connector with a latch.
    FlexLatch,
    /// Board-to-board connector.
    BoardToBoard,
    /// Another port, jack or socket of plastic.
    Socket,
    /// Header or box of common plastic.
    Header,
    /// Push button or switch.
    Switch,
    /// Soldered shield can or frame.
    ShieldCan,
    /// A second board stacked on this one, joined round its rim.
    StackedBoard,
    /// Module or camera held by a connector.
    Display,
    /// Lithium cell.
    LithiumCell,
    /// Glued foam, gasket or label.
    Foam,
    /// Cable or its sheath.
    Cable,
    /// Plastic frame, speaker or holder that is screwed or clipped on.
    Frame,
}

/// What a kind usually is.
pub(super) struct Usual {
    pub(super) name: &'static str,
    pub(super) material: BodyMaterial,
    pub(super) height_mm: f64,
    /// Share of its footprint that is soldered, 0-1.
    pub(super) soldered: f64,
}

impl ComponentKind {
    /// All of them, in the order in which a person looks for one.
    pub const ALL: [Self; 20] = [
        Self::CeramicChip,
        Self::Filter,
        Self::Chip,
        Self::MouldedCapacitor,
        Self::ElectrolyticCan,
        Self::Coil,
        Self::Crystal,
        Self::Microphone,
        Self::FlexLatch,
        Self::BoardToBoard,
        Self::Socket,
        Self::Header,
        Self::Switch,
        Self::ShieldCan,
        Self::StackedBoard,
        Self::Display,
        Self::LithiumCell,
        Self::Foam,
        Self::Cable,
        Self::Frame,
    ];

    pub(super) const fn usual(self) -> Usual {
        use BodyMaterial as M;
        let (name, material, height_mm, soldered) = match self {
            Self::CeramicChip => ("ceramic chip", M::Ceramic, 0.6, 0.4),
            Self::Filter => ("filter or ferrite", M::Ceramic, 1.0, 0.3),
            Self::Chip => ("chip", M::EpoxyPackage, 0.9, 0.15),
            Self::MouldedCapacitor => ("moulded capacitor", M::EpoxyPackage, 2.8, 0.2),
            Self::ElectrolyticCan => ("electrolytic can", M::ElectrolyticCan, 7.7, 0.05),
            Self::Coil => ("power coil", M::Metal, 3.0, 0.2),
            Self::Crystal => ("crystal", M::Crystal, 0.8, 0.3),
            Self::Microphone => ("microphone or sensor", M::MemsMicrophone, 1.0, 0.3),
            Self::FlexLatch => ("flex connector with latch", M::Lcp, 1.2, 0.05),
            Self::BoardToBoard => ("board-to-board connector", M::Lcp, 0.8, 0.1),
            Self::Socket => ("port, jack or socket", M::Pa9t, 3.0, 0.03),
            Self::Header => ("header or box", M::Pa66, 5.0, 0.03),
            Self::Switch => ("switch or button", M::Lcp, 1.5, 0.05),
            Self::ShieldCan => ("shield can", M::Metal, 1.5, 0.1),
            // Pillars or solder columns round the rim: a tenth of its footprint (E, 0.05-0.2).
            Self::StackedBoard => ("stacked board", M::Laminate, 0.8, 0.1),
            Self::Display => ("display or camera", M::Display, 3.0, 0.0),
            Self::LithiumCell => ("lithium cell", M::LithiumCell, 4.0, 0.0),
            Self::Foam => ("foam, gasket or label", M::AcrylicFoam, 0.5, 0.0),
            Self::Cable => ("cable", M::Pvc, 1.5, 0.0),
            Self::Frame => ("plastic frame or speaker", M::PcAbs, 4.0, 0.0),
        };
        Usual { name, material, height_mm, soldered }
    }

    /// Its name as a technician says it.
    pub const fn name(self) -> &'static str {
        self.usual().name
    }

    /// What it is usually made of.
    pub const fn material(self) -> BodyMaterial {
        self.usual().material
    }

    /// Its usual height.
    pub const fn height(self) -> Length {
        Length::mm(self.usual().height_mm)
    }

    /// What the letters of a part number say it is; none where they say nothing.
    pub fn from_reference(reference: &str) -> Option<Self> {
        let letters: String = reference.chars().take_while(char::is_ascii_alphabetic).collect();
        Some(match letters.to_ascii_uppercase().as_str() {
            "C" | "R" | "RN" | "CN" => Self::CeramicChip,
            "FB" | "FL" | "L" => Self::Filter,
            "U" | "IC" | "Q" | "D" | "VR" => Self::Chip,
            "X" | "Y" => Self::Crystal,
            "MK" | "MIC" => Self::Microphone,
            "J" | "P" | "CON" => Self::Socket,
            "S" | "SW" => Self::Switch,
            "BT" => Self::LithiumCell,
            _ => return None,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn letters_of_a_part_number_say_what_it_is() {
        assert_eq!(ComponentKind::from_reference("C12"), Some(ComponentKind::CeramicChip));
        assert_eq!(ComponentKind::from_reference("fb3"), Some(ComponentKind::Filter));
        assert_eq!(ComponentKind::from_reference("TP4"), None);
        assert_eq!(ComponentKind::from_reference("77"), None);
    }

    #[test]
    fn what_is_not_soldered_says_so() {
        let loose = ComponentKind::ALL.into_iter().filter(|t| t.usual().soldered == 0.0);
        assert!(loose.clone().all(|t| t.material().pad_share() == 0.0), "{:?}", loose.collect::<Vec<_>>());
    }
}
