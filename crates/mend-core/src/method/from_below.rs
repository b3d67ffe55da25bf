//! Hot air from below: the part hangs or stands on top, air heats the board through.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct FromBelow;

static WORDS: MethodText = MethodText {
    name: "Air from below",
    how: "Air heats the board through from the far face; the part on top comes last to the heat.",
    danger: "parts on the far side",
    early: &[
        "A far-side part slides or tilts: less flow, or a shield over it.",
        "Mask browns where the air stands: further away, or moving.",
    ],
    clean_up: "As the factory left it: braid once, fresh metal on.",
    heat: &["Look at the joints from above while the air works below; a mirror shows the far side."],
    cue: "Flux runs, then smokes; every joint turns from matt to shiny; the part twitches.",
    not_coming: &["A wider nozzle.", "More alloy in the joints.", "The iron on the anchors at the same time."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::HotBench],
    level: SkillLevel::Trained,
};

impl Method for FromBelow {
    fn family(&self) -> MethodFamily {
        MethodFamily::FromBelow
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let far = subject.shy_near(subject.board.hanging());
        let connector = &subject.board.connector;
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air nozzle at this station")
            .good(
                subject.is_shy(),
                format!("the part's {} is shy of heat and stays on the cool side", connector.material.name()),
            )
            .good(subject.is_heavy(), "a heavy board is heated through where its copper is")
            .good(subject.hidden() > 0, format!("{} hidden joints get the same heat as the others", subject.hidden()))
            .mind(!far.is_empty(), format!("{} on the far side take the jet", far.len()))
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
        assert!(fit.applies() && fit.speaks_for.iter().any(|s| s.contains("hidden joints get the same heat")));
        assert_eq!(fit.minds, ["1 on the far side take the jet"]);
        let start = &FromBelow.starts(&port.subject())[0];
        assert_eq!(start.recipe.air.map(|air| air.face), Some(far));
    }

    #[test]
    fn without_an_nozzle_there_is_no_air() {
        let mut port = shop("usb-c-top");
        port.station.nozzles.clear();
        assert_eq!(against(&FromBelow, &port), "no hot-air nozzle at this station");
    }
}
