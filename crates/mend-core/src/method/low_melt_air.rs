//! Low-melt, then air: every joint flooded with a bismuth- or indium-bearing alloy, then mild air.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{AirSpace, Start, Vary, air, fed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::board::groups;
use crate::caution::Caution;
use crate::solder::{JointComposition, cycles};
use crate::units::Temperature;

/// Mild air (E).
const MILD: Temperature = Temperature::celsius(340.0);

/// See the head of this file.
#[derive(Debug)]
pub struct LowMeltAir;

impl LowMeltAir {
    /// Of the stock, what takes fewest passes to get out again.
    fn composition(subject: &Subject<'_>) -> Option<JointComposition> {
        let compositions = subject.equipment.low_melt().filter_map(|alloy| fed(subject, alloy));
        let passes = |composition: &JointComposition| {
            let groups = groups(subject.board);
            groups.iter().map(|group| cycles(composition, group).unwrap_or(usize::MAX / 64)).max().unwrap_or(0)
        };
        compositions.min_by_key(passes)
    }
}

impl Method for LowMeltAir {
    fn family(&self) -> MethodFamily {
        MethodFamily::LowMeltAir
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let (hidden, joints) = (subject.hidden(), subject.joints().len());
        let none = subject.equipment.low_melt().next().is_none();
        let faces = [subject.board.connector.face, subject.board.hanging()];
        let near: usize = faces.iter().map(|face| subject.shy_near(*face).len()).sum();
        let shy = subject.keep_intact.part() && subject.is_shy();
        Fit::default()
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .not(none, Obstacle::NoLowMelt)
            .not(!none && Self::composition(subject).is_none(), Obstacle::TakesNoAlloy)
            .not(hidden == joints, Obstacle::AllHidden)
            .good(shy, Advantage::MixSparesPart)
            .good(near > 0 && subject.keep_intact.board(), Advantage::MixSparesComponents { components: near })
            .good(subject.is_heavy(), Advantage::MixSparesHeavyBoard)
            .good(subject.keep_intact == crate::board::KeepIntact::Part, Advantage::DonorKeepsAlloy)
            .mind(hidden > 0, Caveat::HiddenNotFed { joints: hidden })
            .mind(subject.keep_intact.board(), Caveat::LeftoversWeaken)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let Some(composition) = Self::composition(subject) else { return Vec::new() };
        let mild = |start: Start| {
            let vary = match start.vary {
                Vary::Air(space) => Vary::Air(AirSpace::mild(space, MILD)),
                other => other,
            };
            Start { vary, ..start }
        };
        let faces = [subject.board.hanging(), subject.board.connector.face];
        faces.into_iter().map(|face| mild(air(subject, composition.clone(), face))).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn joints_are_fed_with_low_melt_and_the_air_stays_mild() {
        let mut port = shop("usb-c-top");
        port.keep_intact = crate::board::KeepIntact::Part;
        let fit = LowMeltAir.fit(&port.subject());
        assert!(fit.applies() && fit.minds.contains(&Caveat::HiddenNotFed { joints: 12 }), "{fit:?}");
        for start in LowMeltAir.starts(&port.subject()) {
            assert_eq!(start.composition.fed().map(|feed| feed.metal.name.as_str()), Some("Sn42Bi58"));
            let Vary::Air(space) = start.vary else { panic!("it varies air") };
            assert!(space.hottest <= MILD);
        }
    }

    #[test]
    fn of_the_stock_the_one_that_is_soonest_out_again_is_taken() {
        let mut jack = shop("power-jack");
        jack.equipment.alloys.push(super::super::fixture::metal("In52Sn48"));
        let passes =
            |composition: &JointComposition| groups(&jack.board).iter().filter_map(|g| cycles(composition, g)).max();
        let taken = LowMeltAir::composition(&jack.subject()).and_then(|composition| passes(&composition));
        let all = jack.equipment.low_melt().filter_map(|alloy| fed(&jack.subject(), alloy)).filter_map(|c| passes(&c));
        assert_eq!(taken, all.min());
    }

    #[test]
    fn without_such_an_alloy_it_does_not_apply() {
        let mut jack = shop("power-jack");
        jack.equipment.alloys.truncate(2);
        assert_eq!(against(&LowMeltAir, &jack), [Obstacle::NoLowMelt]);
    }
}
