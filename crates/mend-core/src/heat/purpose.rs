//! What a run of heat is for: what lies on the board then, and when it has done what it is for.

use serde::{Deserialize, Serialize};

use super::recipe::Recipe;
use crate::board::Board;

/// What a run of heat is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Purpose {
    /// The old part comes off.
    #[default]
    Remove,
    /// The new part, in its place, is soldered.
    Fit,
    /// The joints are made liquid without the new part, and it is set on them.
    SetOn,
    /// Holes are made liquid without a part, and emptied.
    Clear,
}

impl Purpose {
    /// Is a part on its joints while they are heated?
    pub const fn has_part(self) -> bool {
        matches!(self, Self::Remove | Self::Fit)
    }

    /// Is it the new part that is heated, which has to come through whole?
    pub const fn keeps_part(self) -> bool {
        matches!(self, Self::Fit)
    }

    /// Does it bring the new part on?
    pub const fn fits(self) -> bool {
        matches!(self, Self::Fit | Self::SetOn)
    }

    /// Is one joint heated after the other, each for itself? Then none need be molten with another. A part is held while it is
    /// soldered, so that an iron may go from pin to pin; it comes off by an iron so where one joint is emptied at a time, or where
    /// it is levered up joint by joint.
    pub fn in_turn(self, recipe: &Recipe, board: &Board) -> bool {
        let by_iron = recipe.air.is_none() && recipe.during.iron.is_some() && recipe.bridge.is_none();
        match self {
            Self::Remove => recipe.in_turn(board) || (by_iron && recipe.levered),
            Self::Fit | Self::Clear => by_iron,
            Self::SetOn => false,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;
    use crate::heat::recipe::HeatingAids;
    use crate::method::usual;

    #[test]
    fn an_iron_goes_from_pin_to_pin_to_fit_a_part_and_not_to_take_it_off() {
        let bench = Bench::try_new().expect("the example");
        let by_iron = Recipe::from(HeatingAids { iron: Some(usual::iron(&bench.board)), ..HeatingAids::default() });
        assert!(Purpose::Fit.in_turn(&by_iron, &bench.board) && !Purpose::Remove.in_turn(&by_iron, &bench.board));
        assert!(!Purpose::Fit.in_turn(&bench.recipe, &bench.board), "air melts all of them");
        assert!(Purpose::Remove.in_turn(&Recipe { levered: true, ..by_iron }, &bench.board), "end by end");
    }
}
