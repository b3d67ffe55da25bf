//! Preheater plus indirect air: a preheater below, slow air aimed at bare copper beside the part.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::reason::{Advantage, Caveat, Obstacle};
use super::start::{AirSpace, Start, Vary, unfed};
use super::subject::Subject;
use super::usual;
use super::{Method, MethodFamily};
use crate::caution::Caution;
use crate::heat::motion::Motion;
use crate::heat::preheater::Preheater;
use crate::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use crate::heat::tool::HotAir;
use crate::units::{Duration, Temperature};

/// From the part's edge to where the air is aimed, mm (E: bare copper beside it).
const BESIDE_MM: f64 = 4.0;
/// The preheater, °C: under what laminate and far-side joints mind (E).
const PREHEATER: Temperature = Temperature::celsius(170.0);
/// On the preheater before the air comes, s (E: until the board follows the preheater).
const WARM_S: f64 = 180.0;

/// See the head of this file.
#[derive(Debug)]
pub struct PreheaterAndAir;

impl Method for PreheaterAndAir {
    fn family(&self) -> MethodFamily {
        MethodFamily::PreheaterAndAir
    }

    fn level(&self) -> SkillLevel {
        SkillLevel::Trained
    }

    fn cautions(&self) -> &'static [Caution] {
        &[Caution::Burns, Caution::Fumes, Caution::HotBench]
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let open = subject.board.connector.family.has_open_contacts();
        let far = subject.shy_near(subject.board.hanging());
        Fit::default()
            .not(!subject.equipment.preheater, Obstacle::NoPreheater)
            .not(subject.station.nozzles.is_empty(), Obstacle::NoNozzle)
            .good(open, Advantage::LatchWithoutJet)
            .good(subject.is_heavy(), Advantage::PreheaterForHeavyBoard)
            .mind(!far.is_empty(), Caveat::FarSideOverPreheater { components: far.len() })
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let body = subject.board.connector.body;
        let aim = [0.0, body.depth / 2.0 + BESIDE_MM];
        let inward = [aim, [0.0, -aim[1]]];
        let preheater = Preheater { set: PREHEATER, ..usual::preheater(subject.board) };
        let during = HeatingAids { preheater: Some(preheater), ..HeatingAids::default() };
        let warm = HeatingStage { lasts: Duration::seconds(WARM_S), ..usual::warm(during.clone()) };
        let space = AirSpace::from_subject(subject, &[15.0, 25.0], &[Motion::Still, Motion::AlongRow]);
        let start = |aim: [f64; 2]| {
            let air = HotAir { face: subject.board.connector.face, aim, ..usual::air(subject.board, subject.station) };
            let recipe = Recipe { preheat: vec![warm.clone()], during: during.clone(), ..Recipe::from(air) };
            Start { composition: unfed(subject.composition), recipe, vary: Vary::Air(space.clone()) }
        };
        // On whichever side of the part there is board.
        let on_board = |aim: &[f64; 2]| {
            subject.board.outline.holds(crate::board::Point { x: body.centre.x + aim[0], y: body.centre.y + aim[1] })
        };
        inward.into_iter().filter(on_board).map(start).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn it_wants_a_preheater_and_aims_beside_the_part_where_there_is_board() {
        let mut flex = shop("flex");
        assert_eq!(against(&PreheaterAndAir, &flex), []);
        assert!(PreheaterAndAir.fit(&flex.subject()).speaks_for[0] == Advantage::LatchWithoutJet);
        let starts = PreheaterAndAir.starts(&flex.subject());
        assert_eq!(starts.len(), 2, "either side of a part in the middle of the board");
        assert!(
            starts.iter().all(|s| s.recipe.during.preheater.is_some() && s.recipe.air.is_some_and(|a| a.aim[1] != 0.0))
        );
        flex.equipment.preheater = false;
        assert_eq!(against(&PreheaterAndAir, &flex), [Obstacle::NoPreheater]);
    }

    #[test]
    fn a_part_at_the_rim_is_aimed_at_from_inside_only() {
        let mut port = shop("usb-c-top");
        let down = port.board.connector.body.near();
        port.board.connector.body.centre.y -= down;
        assert_eq!(PreheaterAndAir.starts(&port.subject()).len(), 1);
    }
}
