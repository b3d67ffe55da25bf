//! How well a stack-up agrees with what was seen of a board: the odds of each observation, all of them engineering estimates (E)
//! from handling boards.

use super::StackUp;
use super::board_signs::{Beside, BoardSigns, BoardWeight, Feels, Light, Vias};

/// Relative spread of weight per area: laminate density and a caliper's hundredth on bare boards; parts add a third, give
/// or take (E).
const BARE_SPREAD: f64 = 0.04;
const PARTS: (f64, f64) = (1.35, 0.18);
/// How far apart, relative, hands feel a difference with some sureness (E).
const FEELS_SPREAD: f64 = 0.12;

/// Odds of all that was seen, 0-1 each; what was not looked at says nothing.
pub(super) fn likelihood(stack: &StackUp, seen: &BoardSigns) -> f64 {
    let light = seen.light.map_or(1.0, |light| light_odds(stack, light));
    let vias = seen.vias.map_or(1.0, |vias| via_odds(stack.layers, vias));
    let lines = seen.edge_lines.map_or(1.0, |lines| line_odds(stack.layers, lines));
    light
        * vias
        * lines
        * seen.weighed.map_or(1.0, |w| weight_odds(stack, w))
        * seen.beside.map_or(1.0, |b| feel_odds(stack, b))
}

fn light_odds(stack: &StackUp, light: Light) -> f64 {
    let odds = match stack.planes {
        0 => [0.9, 0.08, 0.02],
        1 => [0.15, 0.7, 0.15],
        2 => [0.05, 0.6, 0.35],
        _ => [0.01, 0.3, 0.69],
    };
    odds[light as usize]
}

fn via_odds(layers: u32, vias: Vias) -> f64 {
    let odds = match layers {
        0..=2 => [0.7, 0.29, 0.01],
        3..=6 => [0.4, 0.5, 0.1],
        7..=8 => [0.2, 0.45, 0.35],
        _ => [0.05, 0.25, 0.7],
    };
    odds[vias as usize]
}

/// Lines at the rim are easily missed, hardly ever seen twice.
fn line_odds(layers: u32, seen: u32) -> f64 {
    match i64::from(layers) - i64::from(seen) {
        0 => 0.55,
        1 => 0.2,
        2 => 0.15,
        3 => 0.05,
        -1 => 0.05,
        4..=6 => 0.03,
        _ => 0.005,
    }
}

fn weight_odds(stack: &StackUp, weighed: BoardWeight) -> f64 {
    let (more, spread) = if weighed.bare { (1.0, BARE_SPREAD) } else { PARTS };
    let off = (weighed.grams / weighed.area_mm2 / (stack.weight() * more)).ln() / spread;
    (-0.5 * off * off).exp()
}

/// The hands say heavier the more surely the more it is so (logistic).
fn feel_odds(stack: &StackUp, beside: Beside) -> f64 {
    let off = (stack.weight() / beside.known).ln() / FEELS_SPREAD;
    let surely = |x: f64| 1.0 / (1.0 + (-2.0 * x).exp());
    match beside.feels {
        Feels::Heavier => surely(off - 0.5),
        Feels::Lighter => surely(-off - 0.5),
        Feels::Same => 1.0 - surely(off - 0.5) - surely(-off - 0.5),
    }
}
