//! Two-stage air: the bare nozzle from below soaks the board, then a nozzle on top.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::usual;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::recipe::{HeatingStage, Recipe};
use crate::units::Duration;

/// Soaks that are tried, s (E: a board this heavy is through in one to two minutes).
const SOAKS_S: [f64; 2] = [60.0, 100.0];

/// See the head of this file.
#[derive(Debug)]
pub struct TwoStage;

impl Method for TwoStage {
    fn family(&self) -> MethodFamily {
        MethodFamily::TwoStage
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::HotBench]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let far = subject.shy_near(subject.board.hanging());
        Fit::default()
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .not(!subject.is_heavy(), Obstacle::NoSoakNeeded)
            .good(subject.is_heavy(), Advantage::WantsSoak { layers: subject.board.stack.layers })
            .mind(!far.is_empty(), Caveat::FarSideInSoak { components: far.len() })
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let plain = air(subject, unfed(subject.composition), subject.board.connector.face);
        let soaked = |seconds: f64| {
            let soak = plain.recipe.air.map(|air| usual::soak(subject.board, subject.station, &air));
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
        assert!(against(&TwoStage, &shop("usb-a")).contains(&Obstacle::NoSoakNeeded));
        let heavy = shop("usb-a").heavy();
        assert_eq!(against(&TwoStage, &heavy), []);
        let starts = TwoStage.starts(&heavy.subject());
        assert_eq!(starts.iter().map(|s| s.recipe.preheat[0].lasts.in_seconds()).collect::<Vec<_>>(), SOAKS_S);
        let faces = |s: &Start| (s.recipe.preheat[0].air.map(|a| a.face), s.recipe.air.map(|a| a.face));
        let (top, bottom) = (crate::board::Face::Top, crate::board::Face::Bottom);
        assert!(starts.iter().all(|start| faces(start) == (Some(bottom), Some(top))));
    }
}
