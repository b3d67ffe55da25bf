//! Preheater plus indirect air: a plate below, slow air aimed at bare copper beside the part.

use super::fit::Fit;
use super::means::Level;
use super::start::{AirSpace, Start, Vary, unfed};
use super::subject::Subject;
use super::usual;
use super::{Family, Method, Words};
use crate::caution::Caution;
use crate::heat::motion::Motion;
use crate::heat::plate::Plate;
use crate::heat::recipe::{Helpers, Pass, Recipe};
use crate::heat::tool::HotAir;
use crate::units::{Duration, Temperature};

/// From the part's edge to where the air is aimed, mm (E: bare copper beside it).
const BESIDE_MM: f64 = 4.0;
/// The plate, °C: under what laminate and far-side joints mind (E).
const PLATE: Temperature = Temperature::celsius(170.0);
/// On the plate before the air comes, s (E: until the board follows the plate).
const WARM_S: f64 = 180.0;

/// See the head of this file.
#[derive(Debug)]
pub struct PlateAndAir;

static WORDS: Words = Words {
    name: "Plate and indirect air",
    how: "A plate warms the board from below; slow air beside the part brings it the rest through the copper.",
    danger: "patience; bumping it while liquid",
    early: &[
        "Nothing shines after the expected end: the air is too far off, bring it nearer, not hotter.",
        "The latch goes soft to the tweezers: aim further away.",
    ],
    clean_up: "As the factory left it; the warm board lets braid glide.",
    heat: &["Nothing touches the board; the air stays on bare copper, never on the latch."],
    cue: "One end shines first, then the other; the part settles by itself.",
    not_coming: &["The plate ten degrees up.", "Air on the other side of the part.", "Alloy in the joints."],
    cautions: &[Caution::Burns, Caution::Fumes, Caution::HotBench],
    level: Level::Trained,
};

impl Method for PlateAndAir {
    fn family(&self) -> Family {
        Family::PlateAndAir
    }

    fn words(&self) -> &'static Words {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let open = subject.board.connector.family.has_open_contacts();
        let far = subject.shy_near(subject.board.hanging());
        Fit::default()
            .not(!subject.means.plate, "no plate in the shop")
            .not(subject.station.nozzles.is_empty(), "no hot-air outlet at this station")
            .good(open, "a latch connector that no jet should touch")
            .good(subject.is_heavy(), "the plate gives a heavy board what the air can't")
            .mind(!far.is_empty(), format!("{} on the far side stand over the plate", far.len()))
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let body = subject.board.connector.body;
        let aim = [0.0, body.depth / 2.0 + BESIDE_MM];
        let inward = [aim, [0.0, -aim[1]]];
        let plate = Plate { set: PLATE, ..usual::plate(subject.board) };
        let with = Helpers { plate: Some(plate), iron: None };
        let warm = Pass { lasts: Duration::seconds(WARM_S), ..usual::warm(with.clone()) };
        let space = AirSpace::of(subject, (&[15.0, 25.0], &[Motion::Still, Motion::AlongRow]));
        let start = |aim: [f64; 2]| {
            let air = HotAir { face: subject.board.connector.face, aim, ..usual::air(subject.board, subject.station) };
            let recipe = Recipe { before: vec![warm.clone()], with: with.clone(), ..Recipe::from(air) };
            Start { charge: unfed(subject.charge), recipe, vary: Vary::Air(space.clone()) }
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
    fn it_wants_a_plate_and_aims_beside_the_part_where_there_is_board() {
        let mut flex = shop("flex");
        assert_eq!(against(&PlateAndAir, &flex), "");
        assert!(PlateAndAir.fit(&flex.subject()).speaks_for[0].contains("latch connector"));
        let starts = PlateAndAir.starts(&flex.subject());
        assert_eq!(starts.len(), 2, "either side of a part in the middle of the board");
        assert!(starts.iter().all(|s| s.recipe.with.plate.is_some() && s.recipe.air.is_some_and(|a| a.aim[1] != 0.0)));
        flex.means.plate = false;
        assert_eq!(against(&PlateAndAir, &flex), "no plate in the shop");
    }

    #[test]
    fn a_part_at_the_rim_is_aimed_at_from_inside_only() {
        let mut port = shop("usb-c-top");
        let down = port.board.connector.body.near();
        port.board.connector.body.centre.y -= down;
        assert_eq!(PlateAndAir.starts(&port.subject()).len(), 1);
    }
}
