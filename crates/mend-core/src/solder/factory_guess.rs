//! What the factory soldered with, guessed from the board's age and the mark on it.

use serde::{Deserialize, Serialize};

/// First year in which new consumer devices had to be lead-free in the larger markets (sure: July 2006).
const LEAD_FREE_SINCE: u32 = 2006;
/// For some years after that, stock and exempt makers still used lead (E).
const MIXED_UNTIL: u32 = 2008;

/// What the board says of its solder.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum MakersMark {
    /// Nothing found, or not looked.
    #[default]
    None,
    /// A lead-free mark.
    LeadFree,
    /// A mark that names lead, or a maker known to use it.
    Leaded,
    /// A mark for low-temperature solder.
    LowTemperature,
}

impl MakersMark {
    /// All of them.
    pub const ALL: [Self; 4] = [Self::None, Self::LeadFree, Self::Leaded, Self::LowTemperature];

    /// As it is stored and sent.
    pub const fn name(self) -> &'static str {
        match self {
            Self::None => "none",
            Self::LeadFree => "lead-free",
            Self::Leaded => "leaded",
            Self::LowTemperature => "low-temperature",
        }
    }

    /// As it is read.
    pub const fn label(self) -> &'static str {
        match self {
            Self::None => "not seen",
            Self::LeadFree => "lead-free",
            Self::Leaded => "leaded",
            Self::LowTemperature => "low-melt",
        }
    }
}

/// A guess.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Guess {
    /// A row of the alloy table.
    pub alloy: &'static str,
    /// Why, in words.
    pub why: &'static str,
    /// Is it more than a guess?
    pub sure: bool,
}

/// The guess: a mark beats the year; without either it is what factories use today.
///
/// ```
/// use mend_core::solder::{MakersMark, factory_guess};
/// assert_eq!(factory_guess(Some(2021), MakersMark::None).alloy, "SAC305");
/// assert_eq!(factory_guess(Some(2021), MakersMark::Leaded).alloy, "Sn63Pb37");
/// ```
pub fn factory_guess(year: Option<u32>, mark: MakersMark) -> Guess {
    let guess = |alloy, why, sure| Guess { alloy, why, sure };
    match (mark, year) {
        (MakersMark::LeadFree, _) => guess("SAC305", "the board says lead-free", true),
        (MakersMark::Leaded, _) => guess("Sn63Pb37", "the board says leaded", true),
        (MakersMark::LowTemperature, _) => guess("Sn42Bi57.6Ag0.4", "the board says low-temperature solder", true),
        (MakersMark::None, Some(year)) if year < LEAD_FREE_SINCE => {
            guess("Sn63Pb37", "built before lead-free solder was the rule", true)
        }
        (MakersMark::None, Some(year)) if year <= MIXED_UNTIL => {
            guess("SAC305", "built when makers were changing over: look how the joints shine", false)
        }
        (MakersMark::None, Some(_)) => guess("SAC305", "built since lead-free solder is the rule", true),
        (MakersMark::None, None) => guess("SAC305", "what most factories use today", false),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::materials::Alloy;

    #[test]
    fn a_mark_beats_the_year_and_every_guess_is_an_alloy() {
        let of = |year, mark| factory_guess(year, mark).alloy;
        assert_eq!(of(Some(1998), MakersMark::None), "Sn63Pb37");
        assert_eq!(of(Some(1998), MakersMark::LeadFree), "SAC305");
        assert_eq!(of(Some(2020), MakersMark::None), "SAC305");
        assert!(!factory_guess(Some(2007), MakersMark::None).sure);
        for mark in MakersMark::ALL {
            assert!(Alloy::named(of(None, mark)).is_some(), "{mark:?}");
        }
    }
}
