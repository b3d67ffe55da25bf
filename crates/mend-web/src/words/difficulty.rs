//! Go or no-go, in words.

use mend_core::method::equipment::SkillLevel;
use mend_core::planning::difficulty::{Advice, Difficulty, Go, Hardship};

use super::Words;
use super::limits::damaged;
use super::quantity::{list, of_samples};

/// The reading, in two words.
pub const fn go(go: Go) -> &'static str {
    match go {
        Go::Go => "Go",
        Go::WithCare => "Go with care",
        Go::No => "No go",
    }
}

/// What to do about it, and whose hands it wants.
pub fn advice(difficulty: &Difficulty) -> String {
    let advice = match difficulty.advice {
        Advice::Usual => "Usual price, usual consent.",
        Advice::SayTheRisk => "Say the risk before the price, and have consent on record.",
        Advice::OtherMeans => "Take another tool, alloy or shield first, or decline.",
        Advice::OtherHands => "Give it to practised hands, or decline before a price is agreed.",
    };
    let hands = match difficulty.wants {
        SkillLevel::Learning => "Somebody who is learning can do it beside one who knows.",
        SkillLevel::Trained => "It wants trained hands.",
        SkillLevel::Practised => "It wants practised hands.",
    };
    format!("{advice} {hands}")
}

impl Words {
    /// What makes a job hard, as a phrase.
    pub fn hardship(&self, hardship: &Hardship) -> String {
        match hardship {
            Hardship::HeavyBoard { layers, bare_g } => format!("a heavy board: {layers} layers, {bare_g:.0} g bare"),
            Hardship::HiddenJoints { joints } => {
                format!("{joints} joints are hidden: nobody sees them, one low pad is one open pin")
            }
            Hardship::ManyPins { pins } => format!("{pins} pins to set and to walk"),
            Hardship::PlasticFeet { feet } => format!("{feet} plastic feet want a pull while all is liquid"),
            Hardship::ThickBoard { mm } => format!("{mm} mm thick"),
            Hardship::RareComponents { components } => {
                format!("hard to come by if it is cooked: {}", list(components))
            }
            Hardship::BrokenLands { lands: 1 } => {
                "a land is not whole: it is mended first, and may not hold".to_owned()
            }
            Hardship::BrokenLands { lands } => {
                format!("{lands} lands are not whole: they are mended first, and may not hold")
            }
            Hardship::NoWay => "no way here melts everything before something is damaged".to_owned(),
            Hardship::NearLimit { of, headroom_k } => {
                format!("{} comes within {} of its limit", damaged(of), self.apart(*headroom_k))
            }
            Hardship::WorksSeldom { works_in } => {
                format!("everything melts before anything is damaged in {} runs only", of_samples(*works_in))
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::planning::damaged::Damaged;
    use mend_core::units::Scale;

    #[test]
    fn a_reading_is_said_with_what_to_do_and_whose_hands_it_wants() {
        let (wants, reasons) = (SkillLevel::Practised, vec![Hardship::NoWay]);
        let reading = Difficulty { go: Go::No, wants, reasons, advice: Advice::OtherMeans };
        assert_eq!(go(reading.go), "No go");
        assert!(advice(&reading).ends_with("It wants practised hands."));
        let near = Hardship::NearLimit { of: Damaged::PartBody, headroom_k: 5.0 };
        let said = |scale| Words { scale }.hardship(&near);
        assert_eq!(said(Scale::Celsius), "the part's body comes within 5 K of its limit");
        assert_eq!(said(Scale::Fahrenheit), "the part's body comes within 9 °F of its limit");
    }
}
