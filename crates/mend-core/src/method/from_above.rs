//! Hot air from above, the nozzle moving all the time.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily};
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct FromAbove;

impl Method for FromAbove {
    fn family(&self) -> MethodFamily {
        MethodFamily::FromAbove
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let face = subject.board.connector.face;
        let near = subject.shy_near(face);
        let nearest = near.first().map(|(n, mm)| Caveat::UnderJet { component: n.name.clone(), mm: *mm });
        Fit::default()
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .good(!subject.is_heavy(), Advantage::ThinBoard)
            .good(subject.board.connector.shell, Advantage::ShellTakesJet)
            .mind_any(nearest)
            .mind(subject.keep_intact.part() && subject.is_shy(), Caveat::PartFirstInJet)
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        vec![air(subject, unfed(subject.composition), subject.board.connector.face)]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::super::start::Vary;
    use super::*;
    use crate::heat::motion::Motion;

    #[test]
    fn it_minds_the_plastic_under_the_jet_and_a_part_to_be_kept_intact() {
        let mut jack = shop("power-jack").latch(2.0);
        let fit = FromAbove.fit(&jack.subject());
        assert!(fit.applies());
        assert_eq!(fit.minds, [Caveat::UnderJet { component: "latch".to_owned(), mm: 2.0 }]);
        jack.keep_intact = crate::board::KeepIntact::Part;
        assert!(FromAbove.fit(&jack.subject()).minds.contains(&Caveat::PartFirstInJet));
        let start = &FromAbove.starts(&jack.subject())[0];
        let Vary::Air(space) = &start.vary else { panic!("it varies air") };
        assert!(!space.motions.contains(&Motion::Still), "always moving");
    }

    #[test]
    fn without_an_nozzle_there_is_no_air() {
        let mut jack = shop("power-jack");
        jack.station.nozzles.clear();
        assert_eq!(against(&FromAbove, &jack), [Obstacle::NoNozzle]);
    }
}
