//! The ways to get a part off a board, one file each: whether it fits here, and what it begins from.
//!
//! - [`equipment`]: what the shop has and can; [`subject`]: what is to be done; [`fit`]: what speaks for a way and
//!   against it, by [`reason`]
//! - [`start`]: where the search for settings begins; [`usual`]: what is reached for first
//! - [`JobKind`]: what a job is for, before any way is weighed
//! - [`techniques`]: where good practitioners disagree, and what is done here unless somebody says otherwise
//! - the families, in the order of [`MethodFamily::ALL`]: [`iron_only`] to [`pump`]
//!
//! A good family file says in `fit` every reason that a practitioner would give, computes nothing that the heat run
//! computes better, and begins from a recipe that a hand can do.
//!
//! Weighs and begins; it does not search settings and does not rank: [`crate::planning`] does both.

pub mod blob;
pub mod bridge_wire;
pub mod equipment;
pub mod fit;
#[cfg(test)]
#[allow(clippy::expect_used)]
pub(crate) mod fixture;
pub mod from_above;
pub mod from_below;
pub mod hot_swap;
pub mod iron_flood;
pub mod iron_only;
mod job_kind;
pub mod low_melt_air;
pub mod preheater_and_air;
pub mod pump;
pub mod reason;
pub mod start;
pub mod subject;
pub mod techniques;
pub mod two_stage;
pub mod usual;

use serde::{Deserialize, Serialize};

use crate::caution::Caution;
use equipment::SkillLevel;
use fit::Fit;
use start::Start;
use subject::Subject;
use techniques::{Question, Techniques};

pub use job_kind::JobKind;

/// The families.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum MethodFamily {
    /// Joint by joint with the iron.
    IronOnly,
    /// All joints flooded, rocked loose with the iron.
    IronFlood,
    /// A wire laid along all joints.
    BridgeWire,
    /// All legs in one pool.
    Blob,
    /// Hot air through the board.
    FromBelow,
    /// Hot air onto the part.
    FromAbove,
    /// A soak from below, then a nozzle on top.
    TwoStage,
    /// A preheater, and slow air beside the part.
    #[serde(alias = "plate-and-air")]
    PreheaterAndAir,
    /// Low-melt alloy, then mild air.
    LowMeltAir,
    /// Old off and new on in one heat.
    HotSwap,
    /// Each hole emptied for itself.
    Pump,
}

/// A family of methods.
pub trait Method: Sync {
    /// Which.
    fn family(&self) -> MethodFamily;
    /// Whose hands it wants.
    fn level(&self) -> SkillLevel;
    /// Cautions of its own at the heat.
    fn cautions(&self) -> &'static [Caution];
    /// What speaks for it on this subject, and against it.
    fn fit(&self, subject: &Subject<'_>) -> Fit;
    /// Recipes that the search begins from; asked only where it fits.
    fn starts(&self, subject: &Subject<'_>) -> Vec<Start>;
    /// Questions on which techniques differ and that bear on it.
    fn questions(&self) -> &'static [&'static Question] {
        techniques::ALL
    }
}

/// What was chosen for a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct MethodChoice {
    /// The family.
    pub family: MethodFamily,
    /// Where somebody differs from us.
    #[serde(default, alias = "schools", skip_serializing_if = "Techniques::is_recommended")]
    pub techniques: Techniques,
}

impl MethodFamily {
    /// All of them, irons first.
    pub const ALL: [Self; 11] = [
        Self::IronOnly,
        Self::IronFlood,
        Self::BridgeWire,
        Self::Blob,
        Self::FromBelow,
        Self::FromAbove,
        Self::TwoStage,
        Self::PreheaterAndAir,
        Self::LowMeltAir,
        Self::HotSwap,
        Self::Pump,
    ];

    /// Its file.
    pub fn method(self) -> &'static dyn Method {
        match self {
            Self::IronOnly => &iron_only::IronOnly,
            Self::IronFlood => &iron_flood::IronFlood,
            Self::BridgeWire => &bridge_wire::BridgeWire,
            Self::Blob => &blob::Blob,
            Self::FromBelow => &from_below::FromBelow,
            Self::FromAbove => &from_above::FromAbove,
            Self::TwoStage => &two_stage::TwoStage,
            Self::PreheaterAndAir => &preheater_and_air::PreheaterAndAir,
            Self::LowMeltAir => &low_melt_air::LowMeltAir,
            Self::HotSwap => &hot_swap::HotSwap,
            Self::Pump => &pump::Pump,
        }
    }

    /// As it is written.
    pub const fn key(self) -> &'static str {
        match self {
            Self::IronOnly => "iron-only",
            Self::IronFlood => "iron-flood",
            Self::BridgeWire => "bridge-wire",
            Self::Blob => "blob",
            Self::FromBelow => "from-below",
            Self::FromAbove => "from-above",
            Self::TwoStage => "two-stage",
            Self::PreheaterAndAir => "preheater-and-air",
            Self::LowMeltAir => "low-melt-air",
            Self::HotSwap => "hot-swap",
            Self::Pump => "pump",
        }
    }

    /// Read back.
    pub fn named(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|family| family.key() == key)
    }
}
