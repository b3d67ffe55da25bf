//! Cautions, shown at the step where they apply. Local codes and licensed practice come first.
//!
//! Names each hazard with one line of what to do. It does not judge a workplace, and replaces no local code.

use serde::{Deserialize, Serialize};

/// Something that can hurt a person or a shop.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Caution {
    /// Flux fumes.
    Fumes,
    /// Lead in alloy and waste.
    Lead,
    /// Hot parts, tips, boards.
    Burns,
    /// Alcohol near heat.
    Alcohol,
    /// Lithium cells.
    Lithium,
    /// Mains supplies and their capacitors.
    Mains,
    /// Tried under power with the device open.
    LivePower,
    /// Static discharge.
    Static,
    /// Smoke alarms.
    SmokeAlarm,
    /// A hot board on a bench that burns.
    HotBench,
    /// Liquid metal: conductive, attacks aluminium.
    LiquidMetal,
}

/// Shown once with every list of cautions.
pub const DEFERENCE: &str = "Local codes and licensed practice come first.";

impl Caution {
    /// All of them.
    pub const ALL: [Self; 11] = [
        Self::Fumes,
        Self::Lead,
        Self::Burns,
        Self::Alcohol,
        Self::Lithium,
        Self::Mains,
        Self::LivePower,
        Self::Static,
        Self::SmokeAlarm,
        Self::HotBench,
        Self::LiquidMetal,
    ];

    /// What to do about it, in one line.
    pub const fn text(self) -> &'static str {
        match self {
            Self::Fumes => "Fume extraction on, eyes protected. Flux smoke damages lungs.",
            Self::Lead => "Lead on hands and in waste: wash, no food here, dispose by local rules.",
            Self::Burns => "Tip, nozzle and board burn skin for minutes after the air is off.",
            Self::Alcohol => "Alcohol burns: let it dry before any hot air or iron comes near.",
            Self::Lithium => "Lithium cells out before any heat.",
            Self::Mains => "Unplugged, mains supply out, capacitors given time to empty.",
            Self::LivePower => "Under power and open: hands off mains parts; off at once if anything warms or smells.",
            Self::Static => "Wrist strap on, mat grounded.",
            Self::SmokeAlarm => "Smoke alarms stay on. Ventilate instead.",
            Self::HotBench => "Foil or stone under the board: a hot board scorches wood and mats.",
            Self::LiquidMetal => {
                "Liquid metal conducts and eats aluminium: contain it, take it off before soldering near it."
            }
        }
    }

    /// Its name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Fumes => "Fumes",
            Self::Lead => "Lead",
            Self::Burns => "Burns",
            Self::Alcohol => "Alcohol",
            Self::Lithium => "Lithium",
            Self::Mains => "Mains",
            Self::LivePower => "Live",
            Self::Static => "Static",
            Self::SmokeAlarm => "Alarms",
            Self::HotBench => "Hot board",
            Self::LiquidMetal => "Liquid metal",
        }
    }
}
