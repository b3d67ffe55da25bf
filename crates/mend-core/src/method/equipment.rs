//! What the shop has and can: tools, alloys, shields, and whose hands do it.

use serde::{Deserialize, Serialize};

use crate::heat::shield::ShieldKind;
use crate::materials::{Element, Metal};
use crate::solder::MeltTarget;
use crate::units::{Length, Temperature};

/// Melts below this: it is for getting out, not for leaving in, °C (E).
const LOW_MELT: Temperature = Temperature::celsius(160.0);
/// Tin-lead melts below this, °C.
const LEADED: Temperature = Temperature::celsius(200.0);

/// Whose hands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum SkillLevel {
    /// Works beside somebody who knows.
    Learning,
    /// Does the usual jobs alone.
    #[default]
    Trained,
    /// Has done many of this kind.
    Practised,
}

impl SkillLevel {
    /// All of them.
    pub const ALL: [Self; 3] = [Self::Learning, Self::Trained, Self::Practised];

    /// Its name.
    pub const fn name(self) -> &'static str {
        match self {
            Self::Learning => "learning",
            Self::Trained => "trained",
            Self::Practised => "practised",
        }
    }

    /// Time at the bench against a trained hand's (E).
    pub const fn pace(self) -> f64 {
        match self {
            Self::Learning => 1.7,
            Self::Trained => 1.0,
            Self::Practised => 0.8,
        }
    }
}

/// What empties holes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Sucker {
    /// Braid alone.
    #[default]
    None,
    /// A spring pump beside the iron.
    Pump,
    /// An iron with a vacuum.
    Vacuum,
}

/// What the shop has and can.
#[derive(Debug, Clone, PartialEq)]
pub struct Equipment {
    /// Whose hands.
    pub level: SkillLevel,
    /// Iron tips owned, by width.
    pub tips: Vec<Length>,
    /// A preheater to warm boards on?
    pub preheater: bool,
    /// What empties holes.
    pub sucker: Sucker,
    /// Tinned copper wire of 0.8-1.2 mm?
    pub wire: bool,
    /// Shields at hand.
    pub shields: Vec<ShieldKind>,
    /// Solder in stock.
    pub alloys: Vec<Metal>,
}

impl Equipment {
    /// Alloys that bring the melt far down: with bismuth or indium, melted below 160 °C.
    pub fn low_melt(&self) -> impl Iterator<Item = &Metal> {
        self.alloys.iter().filter(|metal| is_low_melt(metal))
    }

    /// Tin-lead in stock.
    pub fn leaded(&self) -> impl Iterator<Item = &Metal> {
        self.alloys.iter().filter(|metal| metal.has_lead() && !is_low_melt(metal) && melts_below(metal, LEADED))
    }

    /// The stoutest tip.
    pub fn stoutest(&self) -> Option<Length> {
        stoutest(&self.tips)
    }
}

/// The stoutest of some tips.
pub(crate) fn stoutest(tips: &[Length]) -> Option<Length> {
    tips.iter().copied().max_by(|a, b| a.in_mm().total_cmp(&b.in_mm()))
}

/// Is it one for getting out?
pub(crate) fn is_low_melt(metal: &Metal) -> bool {
    let bears = |element| metal.composition.wt(element) > 5.0;
    (bears(Element::Bi) || bears(Element::In)) && melts_below(metal, LOW_MELT)
}

fn melts_below(metal: &Metal, line: Temperature) -> bool {
    MeltTarget::melted_of(metal).is_some_and(|melted| melted < line)
}
