//! Every reason for a way and against it, with what it is about.

use serde::Serialize;

use super::equipment::SkillLevel;
use crate::materials::BodyMaterial;

/// Why a way can't be done here.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Obstacle {
    /// No iron tip.
    NoIronTip,
    /// No nozzle at this station.
    NoNozzle,
    /// No tinned copper wire.
    NoWire,
    /// No preheater.
    NoPreheater,
    /// Neither pump nor vacuum iron.
    NoSucker,
    /// No low-melt alloy.
    NoLowMelt,
    /// Neither leaded nor low-melt alloy.
    NoFloodAlloy,
    /// Hands that have not done many of this kind.
    WantsPractisedHands { level: SkillLevel },
    /// Hidden joints that no tip reaches.
    HiddenFromTip { joints: usize },
    /// Hidden joints that a flood does not reach.
    HiddenFromFlood { joints: usize },
    /// Hidden joints that no wire reaches.
    HiddenFromWire { joints: usize },
    /// Every joint is hidden: none can be fed.
    AllHidden,
    /// Tips that are all too wide to touch one joint at this pitch.
    TipsTooWide { pitch_mm: f64 },
    /// Plated anchors in a heavy board, which freeze under a flood while the tip is elsewhere.
    AnchorsFreeze { joints: usize },
    /// The first joint is solid before the last melts.
    TooManyForTip { joints: usize },
    /// A flood that sets at one end while the tip is at the other.
    TooLongForFlood { mm: f64 },
    /// A wire whose far end stays solid.
    TooLongForWire { mm: f64 },
    /// So few joints that no wire is needed.
    TooFewForWire { joints: usize },
    /// Plated legs down which a flood does not mix.
    OnlyHoles,
    /// Surface joints, which do not drop out of a pool.
    SurfaceJointsInPool { joints: usize },
    /// More anchors than a pool joins.
    TooManyForPool { joints: usize },
    /// Anchors between which a pool tears.
    PoolTears,
    /// Plastic feet that hold the part.
    PegsHold,
    /// Plastic feet that need a push, which would tilt the part.
    PegsTilt,
    /// A light board, which needs no soak.
    NoSoakNeeded,
    /// Joints that take none of the alloys in stock.
    TakesNoAlloy,
    /// Nothing new goes on a donor's board.
    DonorBoard,
    /// The same part goes back.
    SamePartGoesBack,
    /// Legs that do not find their holes in one try.
    TooManyLegsAtOnce { holes: usize },
    /// No plated hole.
    NoHole,
    /// Surface joints, which do not come with a pump.
    SurfaceJointsForPump { joints: usize },
    /// Too many holes to get all of them empty.
    TooManyHoles { holes: usize },
    /// Nothing to begin a search from.
    NothingToBeginFrom,
}

/// What speaks for a way.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Advantage {
    /// Every joint is within reach of the tip.
    AllWithinReach { joints: usize },
    /// A board that does not draw the heat away.
    LightBoard,
    /// A latch connector: the tip's heat goes into the joints.
    TipSparesLatch,
    /// No air on the plastics beside it.
    NoAirOnPlastics,
    /// Legs in holes that melt together on one wire.
    LegsOnOneWire { holes: usize },
    /// No air near a part that is shy of heat.
    NoAirOnShyPart,
    /// Stout anchors close together.
    StoutAnchors { joints: usize },
    /// A part shy of heat that stays on the cool side.
    PartOnCoolSide { material: BodyMaterial },
    /// A heavy board, heated through where its copper is.
    HeatedThrough,
    /// Hidden joints that get the same heat as the others.
    HiddenGetSameHeat { joints: usize },
    /// A thin board, whose joints melt before the heat spreads.
    ThinBoard,
    /// A metal shell that takes the jet before the plastic does.
    ShellTakesJet,
    /// A board that draws the heat away from a nozzle alone.
    WantsSoak { layers: u32 },
    /// A latch that no jet should touch.
    LatchWithoutJet,
    /// A heavy board, to which the preheater gives what the air can't.
    PreheaterForHeavyBoard,
    /// A part to be kept intact, far below whose limit the mix melts.
    MixSparesPart,
    /// Components shy of heat that stay cool.
    MixSparesComponents { components: usize },
    /// A heavy board that need not get to the factory's melting point.
    MixSparesHeavyBoard,
    /// Alloy left on a donor's board damages nobody.
    DonorKeepsAlloy,
    /// A board light enough to stay liquid at a touch of air.
    StaysLiquid,
    /// One heat instead of two.
    OneHeat,
    /// Every joint is a hole: none need be liquid with another.
    EveryJointAlone,
    /// The part's body stays cool.
    BodyStaysCool,
}

/// What to mind where it is done all the same.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Caveat {
    /// A heavy board, whose joints the tip may not hold.
    HeavyForTip,
    /// A component that the iron's barrel passes.
    BarrelPasses { component: String },
    /// Components on the far side that take the jet.
    FarSideInJet { components: usize },
    /// A component under the jet.
    UnderJet { component: String, mm: f64 },
    /// The part to be kept intact is first in the jet.
    PartFirstInJet,
    /// Components on the far side that sit through the soak.
    FarSideInSoak { components: usize },
    /// Components on the far side that stand over the preheater.
    FarSideOverPreheater { components: usize },
    /// Hidden joints that can't be fed.
    HiddenNotFed { joints: usize },
    /// What stays behind makes the new joints weak.
    LeftoversWeaken,
    /// Planes that draw the heat off each barrel.
    PlanesDrawHeat,
}
