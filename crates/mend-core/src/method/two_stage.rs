//! Two-stage air: the bare nozzle from below soaks the board, then a nozzle on top.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::usual;
use super::{Method, MethodFamily, MethodText};
use crate::caution::Caution;
use crate::heat::recipe::{HeatingStage, Recipe};
use crate::units::Duration;

/// Soaks that are tried, s (E: a board this heavy is through in one to two minutes).
const SOAKS_S: [f64; 2] = [60.0, 100.0];

/// See the head of this file.
#[derive(Debug)]
pub struct TwoStage;

static WORDS: MethodText = MethodText {
    name: "Two-stage air",
    how: "The bare nozzle soaks the board from below; then a nozzle on top brings the last degrees.",
    danger: "a long soak: laminate, far-side parts",
    early: &[
        "Mask browns or the board bows during the soak: shorter, further away.",
        "Joints shine before the nozzle is on: lift it now.",
    ],
    clean_up: "As the factory left it; the board stays warm long enough to wick everything.",
    heat: &["From soak to nozzle without a pause; then over the joints, always moving."],
    cue: "Flux runs during the soak; joints turn shiny within a minute of the nozzle.",
    not_coming: &["A longer soak.", "More alloy in the joints.", "The iron on the anchors at the same time."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::HotBench],
    level: SkillLevel::Trained,
};

impl Method for TwoStage {
    fn family(&self) -> MethodFamily {
        MethodFamily::TwoStage
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let far = subject.shy_near(subject.board.hanging());
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air nozzle at this station")
            .not(!subject.is_heavy(), "a light board needs no soak: one stage does it")
            .good(
                subject.is_heavy(),
                format!("{} layers draw the heat away from a nozzle alone", subject.board.stack.layers),
            )
            .mind(!far.is_empty(), format!("{} on the far side sit through the soak", far.len()))
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let plain = air(subject, unfed(subject.composition), subject.board.connector.face);
        let soaked = |seconds: f64| {
            let soak = plain.recipe.air.map(|air| usual::soak((subject.board, subject.station), &air));
            let lasts = Duration::seconds(seconds);
            let preheat = soak.into_iter().map(|soak| HeatingStage { lasts, ..soak }).collect();
            Start { recipe: Recipe { preheat, ..plain.recipe.clone() }, ..plain.clone() }
        };
        SOAKS_S.map(soaked).into()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn a_heavy_board_is_soaked_for_two_lengths_and_a_light_one_not_at_all() {
        assert!(against(&TwoStage, &shop("usb-a")).contains("a light board needs no soak"));
        let heavy = shop("usb-a").heavy();
        assert_eq!(against(&TwoStage, &heavy), "");
        let starts = TwoStage.starts(&heavy.subject());
        assert_eq!(starts.iter().map(|s| s.recipe.preheat[0].lasts.in_seconds()).collect::<Vec<_>>(), SOAKS_S);
        let faces = |s: &Start| (s.recipe.preheat[0].air.map(|a| a.face), s.recipe.air.map(|a| a.face));
        let (top, bottom) = (crate::board::Face::Top, crate::board::Face::Bottom);
        assert!(starts.iter().all(|start| faces(start) == (Some(bottom), Some(top))));
    }
}
