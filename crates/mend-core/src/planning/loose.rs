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
    board.components.iter().map(|n| becomes(board, n, (air, shields))).collect()
}

fn becomes(board: &Board, n: &Component, (air, shields): (Option<&Blowing>, &[Shield])) -> Loose {
    let held = shields.iter().any(|s| s.covers(n.face, &n.body) > HELD_BY_COVER);
    match n.soldered() > 0.0 && !held {
        true if n.face == board.hanging() && hang(n) >= 1.0 => Loose::Drops,
        true if air.is_some_and(|air| n.face == air.face && push(air, n) >= 1.0) => Loose::Blown,
        _ => Loose::Stays,
    }
}
