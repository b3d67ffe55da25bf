//! Hot air from below: the part hangs or stands on top, air heats the board through.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct FromBelow;

impl Method for FromBelow {
    fn family(&self) -> MethodFamily {
        MethodFamily::FromBelow
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::HotBench]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let far = subject.shy_near(subject.board.hanging());
        let connector = &subject.board.connector;
        Fit::default()
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .good(subject.is_shy(), Advantage::PartOnCoolSide { material: connector.material })
            .good(subject.is_heavy(), Advantage::HeatedThrough)
            .good(subject.hidden() > 0, Advantage::HiddenGetSameHeat { joints: subject.hidden() })
            .mind(!far.is_empty(), Caveat::FarSideInJet { components: far.len() })
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        vec![air(subject, unfed(subject.composition), subject.board.hanging())]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn it_heats_the_hanging_face_and_says_whom_it_spares_and_whom_not() {
        let mut port = shop("usb-c-top");
        let under = crate::board::Rect { centre: port.board.connector.body.centre, width: 4.0, depth: 4.0 };
        let far = port.board.hanging();
        port.board.components.push(crate::board::ComponentKind::ElectrolyticCan.at("C9", far, under));
        let fit = FromBelow.fit(&port.subject());
        assert!(fit.applies() && fit.speaks_for.contains(&Advantage::HiddenGetSameHeat { joints: 12 }));
        assert_eq!(fit.minds, [Caveat::FarSideInJet { components: 1 }]);
        let start = &FromBelow.starts(&port.subject())[0];
        assert_eq!(start.recipe.air.map(|air| air.face), Some(far));
    }

    #[test]
    fn without_an_nozzle_there_is_no_air() {
        let mut port = shop("usb-c-top");
        port.station.nozzles.clear();
        assert_eq!(against(&FromBelow, &port), [Obstacle::NoNozzle]);
    }
}
