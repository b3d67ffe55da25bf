//! Hot swap: the old part lifted and the new one set while everything is still liquid.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Obstacle};
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::board::KeepIntact;
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct HotSwap;

impl Method for HotSwap {
    fn family(&self) -> MethodFamily {
        MethodFamily::HotSwap
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Practised
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let level = subject.equipment.level;
        Fit::default()
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .not(level < SkillLevel::Practised, Obstacle::WantsPractisedHands { level })
            .not(subject.keep_intact == KeepIntact::Part, Obstacle::DonorBoard)
            .not(subject.keep_intact == KeepIntact::Both, Obstacle::SamePartGoesBack)
            .not(subject.board.connector.pegs > 0, Obstacle::PegsTilt)
            .not(subject.holes() > 6, Obstacle::TooManyLegsAtOnce { holes: subject.holes() })
            .good(!subject.is_heavy(), Advantage::StaysLiquid)
            .good(true, Advantage::OneHeat)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let faces = [subject.board.hanging(), subject.board.connector.face];
        faces.into_iter().map(|face| air(subject, unfed(subject.composition), face)).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn it_wants_practised_hands_and_a_new_part_for_a_customers_board() {
        let mut port = shop("usb-c-top");
        assert!(against(&HotSwap, &port).contains(&Obstacle::WantsPractisedHands { level: SkillLevel::Trained }));
        port.equipment.level = SkillLevel::Practised;
        assert_eq!(against(&HotSwap, &port), []);
        assert_eq!(HotSwap.starts(&port.subject()).len(), 2, "from either face");
        port.keep_intact = KeepIntact::Both;
        assert_eq!(against(&HotSwap, &port), [Obstacle::SamePartGoesBack]);
        port.keep_intact = KeepIntact::Part;
        assert_eq!(against(&HotSwap, &port), [Obstacle::DonorBoard]);
        port.keep_intact = KeepIntact::Board;
        port.board.connector.pegs = 2;
        assert!(against(&HotSwap, &port).contains(&Obstacle::PegsTilt));
    }
}
