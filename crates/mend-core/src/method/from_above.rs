//! Hot air from above, the nozzle moving all the time.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct FromAbove;

static WORDS: MethodText = MethodText {
    name: "Air from above",
    how: "The nozzle moves over the part all the time until every joint under and round it is liquid.",
    danger: "plastics under the jet",
    early: &["The shell's edge glazes or a latch leans: further away, at once.", "A chip beside it creeps: less flow."],
    clean_up: "As the factory left it: braid once, fresh metal on.",
    heat: &["Never still: round the part along its joints, jet towards the board's edge."],
    cue: "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.",
    not_coming: &["A preheater below.", "More alloy in the joints.", "Air from the other face."],
    cautions: &[Caution::Burns, Caution::Fumes],
    level: SkillLevel::Trained,
};

impl Method for FromAbove {
    fn family(&self) -> MethodFamily {
        MethodFamily::FromAbove
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let face = subject.board.connector.face;
        let near = subject.shy_near(face);
        let nearest = near.first().map(|(n, mm)| format!("{} stands {mm:.0} mm from it, under the jet", n.name));
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air nozzle at this station")
            .good(!subject.is_heavy(), "a thin board: the joints melt before the heat spreads")
            .good(subject.board.connector.shell, "a metal shell takes the jet before the plastic does")
            .mind(nearest.is_some(), nearest.unwrap_or_default())
            .mind(subject.keep_intact.part() && subject.is_shy(), "the part to be kept intact is first in the jet")
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
        assert_eq!(fit.minds, ["latch stands 2 mm from it, under the jet"]);
        jack.keep_intact = crate::board::KeepIntact::Part;
        assert!(FromAbove.fit(&jack.subject()).minds.iter().any(|mind| mind.contains("first in the jet")));
        let start = &FromAbove.starts(&jack.subject())[0];
        let Vary::Air(space) = &start.vary else { panic!("it varies air") };
        assert!(!space.motions.contains(&Motion::Still), "always moving");
    }

    #[test]
    fn without_an_nozzle_there_is_no_air() {
        let mut jack = shop("power-jack");
        jack.station.nozzles.clear();
        assert_eq!(against(&FromAbove, &jack), "no hot-air nozzle at this station");
    }
}
