//! What speaks for a method and against it, in words.

use mend_core::method::reason::{Advantage, Caveat, Obstacle};

use super::Words;
use super::quantity::count;

impl Words {
    /// Why a method can't be done here, as a phrase.
    pub fn obstacle(&self, reason: &Obstacle) -> String {
        match reason {
            Obstacle::WantsPractisedHands { level } => {
                format!("one try: it wants practised hands, these are {}", level.name())
            }
            Obstacle::HiddenFromTip { joints } => format!("{joints} joints are hidden: no tip gets there"),
            Obstacle::HiddenFromFlood { joints } => {
                format!("{joints} joints are hidden: the flood does not reach them")
            }
            Obstacle::HiddenFromWire { joints } => format!("{joints} joints are hidden: no wire reaches them"),
            Obstacle::TooManyForTip { joints } => {
                format!("{joints} joints: the first is solid before the last melts")
            }
            Obstacle::TooLongForFlood { mm } => {
                format!("{mm:.0} mm long: one end sets while the tip is at the other")
            }
            Obstacle::TooLongForWire { mm } => format!("{mm:.0} mm long: the far end stays solid"),
            Obstacle::TooFewForWire { joints } => format!("{joints} joints need no wire"),
            Obstacle::SurfaceJointsInPool { joints } => {
                format!("{joints} surface joints do not drop out of a pool")
            }
            Obstacle::TooManyForPool { joints } => format!("{joints} anchors: no pool joins so many"),
            Obstacle::TooManyLegsAtOnce { holes } => format!("{holes} legs do not find their holes in one try"),
            Obstacle::SurfaceJointsForPump { joints } => {
                format!("{joints} surface joints do not come with a pump")
            }
            Obstacle::TooManyHoles { holes } => {
                format!("{holes} holes, one by one: too many to get all of them empty")
            }
            Obstacle::TipsTooWide { pitch_mm } => {
                format!("every tip is wider than twice the pitch of {pitch_mm:.1} mm: none touches one joint alone")
            }
            Obstacle::AnchorsFreeze { joints } => {
                format!(
                    "{}: a flood does not keep them molten together",
                    count(*joints, "anchor in this heavy board", "anchors in this heavy board")
                )
            }
            Obstacle::NoIronTip => "no iron tip in the shop".to_owned(),
            Obstacle::NoNozzle => "no hot-air nozzle at this station".to_owned(),
            Obstacle::NoWire => "no tinned copper wire in the shop".to_owned(),
            Obstacle::NoPreheater => "no preheater in the shop".to_owned(),
            Obstacle::NoSucker => "neither pump nor vacuum iron in the shop".to_owned(),
            Obstacle::NoLowMelt => "no low-melt alloy in stock".to_owned(),
            Obstacle::NoFloodAlloy => "neither leaded nor low-melt alloy in stock".to_owned(),
            Obstacle::AllHidden => "every joint is hidden: no tip gets the alloy in".to_owned(),
            Obstacle::OnlyHoles => "plated legs: the flood does not mix down the holes".to_owned(),
            Obstacle::PoolTears => "the anchors stand too far apart: the pool tears between them".to_owned(),
            Obstacle::PegsHold => "plastic feet hold it: it does not drop".to_owned(),
            Obstacle::PegsTilt => "plastic feet need a push that would tilt it while liquid".to_owned(),
            Obstacle::NoSoakNeeded => "a light board needs no soak: one stage does it".to_owned(),
            Obstacle::TakesNoAlloy => "the joints take none of the alloys in stock".to_owned(),
            Obstacle::DonorBoard => "nothing new goes on a donor's board".to_owned(),
            Obstacle::SamePartGoesBack => "the same part goes back: there is nothing to swap".to_owned(),
            Obstacle::NoHole => "no plated hole to empty".to_owned(),
            Obstacle::NothingToBeginFrom => "nothing to begin from on this board".to_owned(),
        }
    }

    /// What speaks for it.
    pub fn advantage(&self, reason: &Advantage) -> String {
        match reason {
            Advantage::AllWithinReach { joints } => format!("{joints} joints, all within reach of the tip"),
            Advantage::LegsOnOneWire { holes } => format!("{holes} legs in holes melt together on one wire"),
            Advantage::StoutAnchors { joints } => format!("{joints} stout anchors close together"),
            Advantage::PartOnCoolSide { material } => {
                format!("the part's {} is shy of heat and stays on the cool side", material.name())
            }
            Advantage::HiddenGetSameHeat { joints } => {
                format!("{joints} hidden joints get the same heat as the others")
            }
            Advantage::WantsSoak { layers } => format!("{layers} layers draw the heat away from a nozzle alone"),
            Advantage::MixSparesComponents { components } => {
                format!("{components} components shy of heat stay cool: the mix melts far below the factory's metal")
            }
            Advantage::LightBoard => "the board does not draw the heat away".to_owned(),
            Advantage::TipSparesLatch => {
                "a small latch connector: the tip's heat goes into the joints, not into the plastic".to_owned()
            }
            Advantage::NoAirOnPlastics => "no air on the plastics beside it".to_owned(),
            Advantage::NoAirOnShyPart => "no air comes near a part that is shy of heat".to_owned(),
            Advantage::HeatedThrough => "a heavy board is heated through where its copper is".to_owned(),
            Advantage::ThinBoard => "a thin board: the joints melt before the heat spreads".to_owned(),
            Advantage::ShellTakesJet => "a metal shell takes the jet before the plastic does".to_owned(),
            Advantage::LatchWithoutJet => "a latch connector that no jet should touch".to_owned(),
            Advantage::PreheaterForHeavyBoard => "the preheater gives a heavy board what the air can't".to_owned(),
            Advantage::MixSparesPart => {
                "the part is to be kept intact and is shy of heat: the mix melts far below its limit".to_owned()
            }
            Advantage::MixSparesHeavyBoard => "a heavy board need not get to the factory's melting point".to_owned(),
            Advantage::DonorKeepsAlloy => "alloy left on a donor's board damages nobody".to_owned(),
            Advantage::StaysLiquid => "the board is light enough to stay liquid at a touch of air".to_owned(),
            Advantage::OneHeat => "one heat instead of two".to_owned(),
            Advantage::EveryJointAlone => "every joint is a hole: none need be liquid with another".to_owned(),
            Advantage::BodyStaysCool => "the part's body stays cool: only one leg is hot at a time".to_owned(),
        }
    }

    /// What to mind.
    pub fn caveat(&self, reason: &Caveat) -> String {
        match reason {
            Caveat::BarrelPasses { component } => format!("the iron's barrel passes {component}"),
            Caveat::FarSideInJet { components } => format!("{components} on the far side take the jet"),
            Caveat::UnderJet { component, mm } => format!("{component} stands {mm:.0} mm from it, under the jet"),
            Caveat::FarSideInSoak { components } => format!("{components} on the far side sit through the soak"),
            Caveat::FarSideOverPreheater { components } => {
                format!("{components} on the far side stand over the preheater")
            }
            Caveat::HiddenNotFed { joints } => {
                format!("{joints} hidden joints can't be fed and melt as the factory left them")
            }
            Caveat::HeavyForTip => "a heavy board: the tip may not hold all joints".to_owned(),
            Caveat::PartFirstInJet => "the part to be kept intact is first in the jet".to_owned(),
            Caveat::LeftoversWeaken => {
                "what stays behind makes the new joints weak: the passes are arithmetic".to_owned()
            }
            Caveat::PlanesDrawHeat => "planes draw the heat off each barrel: the far side may not run".to_owned(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::materials::BodyMaterial;
    use mend_core::method::equipment::SkillLevel;

    #[test]
    fn reasons_are_phrases_with_their_figures() {
        let words = Words::default();
        let hands = Obstacle::WantsPractisedHands { level: SkillLevel::Learning };
        assert_eq!(words.obstacle(&hands), "one try: it wants practised hands, these are learning");
        assert_eq!(words.obstacle(&Obstacle::TooLongForWire { mm: 41.6 }), "42 mm long: the far end stays solid");
        let cool = Advantage::PartOnCoolSide { material: BodyMaterial::Lcp };
        assert!(words.advantage(&cool).contains(BodyMaterial::Lcp.name()));
        let under = Caveat::UnderJet { component: "latch".to_owned(), mm: 2.0 };
        assert_eq!(words.caveat(&under), "latch stands 2 mm from it, under the jet");
        for phrase in [
            words.obstacle(&Obstacle::NoIronTip),
            words.obstacle(&Obstacle::PoolTears),
            words.advantage(&Advantage::OneHeat),
            words.caveat(&Caveat::PlanesDrawHeat),
        ] {
            assert!(!phrase.ends_with('.') && phrase.starts_with(char::is_lowercase), "{phrase}");
        }
    }
}
