//! Hot air from above, the nozzle moving all the time.

use super::fit::Fit;
use super::means::Level;
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Family, Method, Words};
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct FromAbove;

static WORDS: Words = Words {
    name: "Air from above",
    how: "The nozzle moves over the part all the time until every joint under and round it is liquid.",
    danger: "plastics under the jet",
    early: &["The shell's edge glazes or a latch leans: further away, at once.", "A chip beside it creeps: less flow."],
    clean_up: "As the factory left it: braid once, fresh metal on.",
    heat: &["Never still: round the part along its joints, jet towards the board's edge."],
    cue: "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.",
    not_coming: &["A plate below.", "More alloy in the joints.", "Air from the other face."],
    cautions: &[Caution::Burns, Caution::Fumes],
    level: Level::Trained,
};

impl Method for FromAbove {
    fn family(&self) -> Family {
        Family::FromAbove
    }

    fn words(&self) -> &'static Words {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let face = subject.board.connector.face;
        let near = subject.shy_near(face);
        let nearest = near.first().map(|(n, mm)| format!("{} stands {mm:.0} mm from it, under the jet", n.name));
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air outlet at this station")
            .good(!subject.is_heavy(), "a thin board: the joints melt before the heat spreads")
            .good(subject.board.connector.shell, "a metal shell takes the jet before the plastic does")
            .mind(nearest.is_some(), nearest.unwrap_or_default())
            .mind(subject.must_live.part() && subject.is_shy(), "the part that must live is first in the jet")
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        vec![air(subject, unfed(subject.charge), subject.board.connector.face)]
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::super::start::Vary;
    use super::*;
    use crate::heat::motion::Motion;

    #[test]
    fn it_minds_the_plastic_under_the_jet_and_a_part_that_must_live() {
        let mut jack = shop("power-jack").latch(2.0);
        let fit = FromAbove.fit(&jack.subject());
        assert!(fit.applies());
        assert_eq!(fit.minds, ["latch stands 2 mm from it, under the jet"]);
        jack.must_live = crate::board::MustLive::Part;
        assert!(FromAbove.fit(&jack.subject()).minds.iter().any(|mind| mind.contains("first in the jet")));
        let start = &FromAbove.starts(&jack.subject())[0];
        let Vary::Air(space) = &start.vary else { panic!("it varies air") };
        assert!(!space.motions.contains(&Motion::Still), "always moving");
    }

    #[test]
    fn without_an_outlet_there_is_no_air() {
        let mut jack = shop("power-jack");
        jack.station.nozzles.clear();
        assert_eq!(against(&FromAbove, &jack), "no hot-air outlet at this station");
    }
}
