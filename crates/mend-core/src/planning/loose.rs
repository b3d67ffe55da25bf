//! What becomes of a component once its own joints are molten: surface tension holds it, or the jet takes it, or it drops.

use crate::board::{Board, Component};
use crate::heat::blowing::Blowing;
use crate::heat::draught::{hang, push};
use crate::heat::shield::Shield;

/// A shield that covers at least this much of a part keeps the jet off it and a hand from it (E).
const HELD_BY_COVER: f64 = 0.5;

/// What becomes of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Loose {
    /// Stays, unless it is bumped.
    Stays,
    /// The jet takes it.
    Blown,
    /// It hangs, and its weight takes it.
    Drops,
}

/// Every component under some air.
pub(crate) fn loose(board: &Board, air: Option<&Blowing>, shields: &[Shield]) -> Vec<Loose> {
    board.components.iter().map(|n| becomes(board, n, air, shields)).collect()
}

fn becomes(board: &Board, n: &Component, air: Option<&Blowing>, shields: &[Shield]) -> Loose {
    let held = shields.iter().any(|s| s.covers(n.face, &n.body) > HELD_BY_COVER);
    match n.soldered() > 0.0 && !held {
        true if n.face == board.hanging() && hang(n) >= 1.0 => Loose::Drops,
        true if air.is_some_and(|air| n.face == air.face && push(air, n) >= 1.0) => Loose::Blown,
        _ => Loose::Stays,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::{ComponentKind, Face, Point, Rect};
    use crate::example::Bench;
    use crate::heat::at_work::usual_blowing;
    use crate::heat::shield::ShieldKind;
    use crate::heat::tool::HotAir;
    use crate::materials::BodyMaterial;
    use crate::units::{Flow, Length};

    /// The example's board with one thing on a face beside the part, 8 mm from its middle.
    fn with(face: Face, [side, height]: [f64; 2], material: BodyMaterial) -> Bench {
        let mut bench = Bench::try_new().expect("the example");
        let body = Rect { centre: Point { x: 30.0, y: 14.0 }, width: side, depth: side / 2.0 };
        let plain = ComponentKind::Chip.at("C1", face, body);
        bench.board.components = vec![Component { height: Length::mm(height), material, own_joints: None, ..plain }];
        bench
    }

    fn harsh(bench: &Bench) -> Blowing {
        let air = bench.recipe.air.expect("hot air");
        let flow = Flow::litres_per_minute(110.0);
        let aim = [0.0, 8.0];
        let air = HotAir { face: Face::Top, nozzle: Length::mm(5.0), flow, distance: Length::mm(5.0), aim, ..air };
        usual_blowing(&bench.station, &air, &bench.board.connector.body)
    }

    #[test]
    fn what_the_jet_pushes_is_blown_away_unless_a_shield_holds_it() {
        let bench = with(Face::Top, [1.0, 0.5], BodyMaterial::Ceramic);
        let air = harsh(&bench);
        assert_eq!(loose(&bench.board, Some(&air), &[]), [Loose::Blown]);
        assert_eq!(loose(&bench.board, None, &[]), [Loose::Stays], "no air, no push");
        let [x, y] = [30.0, 14.0];
        let tape = Shield {
            kind: ShieldKind::Polyimide { layers: 1 },
            face: Face::Top,
            at_mm: [x, y],
            width_mm: 4.0,
            depth_mm: 4.0,
        };
        assert_eq!(loose(&bench.board, Some(&air), &[tape]), [Loose::Stays]);
    }

    #[test]
    fn what_hangs_too_heavy_drops_and_what_is_not_soldered_stays() {
        let mut bench = with(Face::Bottom, [7.0, 6.0], BodyMaterial::ElectrolyticCan);
        assert_eq!(loose(&bench.board, None, &[]), [Loose::Drops]);
        bench.board.components[0].own_joints = Some(0.0);
        assert_eq!(loose(&bench.board, None, &[]), [Loose::Stays]);
    }
}
