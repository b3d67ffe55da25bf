//! What if: every single change of a plan that a technician might think of, with what to call it.

use super::next_move::single_changes;
use super::plan::Order;
use super::search::buys::more_alloy;
use crate::board::{Board, Neighbour};
use crate::heat::recipe::Recipe;
use crate::heat::shield::{Shield, ShieldKind};
use crate::method::subject::Subject;
use crate::method::usual;
use crate::solder::Charge;

/// Most layers of tape that still lie down (E).
const MOST_LAYERS: u32 = 6;

/// A change.
#[derive(Debug, Clone, PartialEq)]
pub struct Change {
    /// As a phrase: what it is called until somebody names it.
    pub what: String,
    /// What the joints then hold and are fed.
    pub charge: Charge,
    /// What is then done.
    pub recipe: Recipe,
}

/// All of them: settings, outlets, faces, soaks, a layer of tape more, a shield over each neighbour that has none, a feed.
pub fn changes(subject: &Subject<'_>, order: &Order<'_>) -> Vec<Change> {
    let of_recipe = |(what, recipe): (String, Recipe)| Change { what, charge: order.charge.clone(), recipe };
    let mut changes: Vec<Change> = single_changes(order).into_iter().map(of_recipe).collect();
    changes.extend(one_layer_more(order.recipe).into_iter().map(of_recipe));
    changes.extend(covers(order.board, order.recipe).into_iter().map(of_recipe));
    let fed = more_alloy(subject, order.charge).into_iter();
    changes.extend(fed.map(|(what, charge)| Change { what, charge, recipe: order.recipe.clone() }));
    if order.charge.fed().is_some() {
        let charge = Charge { feed: None, ..order.charge.clone() };
        changes.push(Change { what: "nothing fed".to_owned(), charge, recipe: order.recipe.clone() });
    }
    changes
}

/// Every tape with a layer more.
fn one_layer_more(recipe: &Recipe) -> Vec<(String, Recipe)> {
    let tape = |(k, shield): (usize, &Shield)| {
        let ShieldKind::Polyimide { layers } = shield.kind else { return None };
        let kind = ShieldKind::Polyimide { layers: layers + 1 };
        let mut recipe = recipe.clone();
        recipe.shields[k].kind = kind;
        let [x, y] = shield.at_mm;
        (layers < MOST_LAYERS).then(|| (format!("a layer of tape more at ({x}, {y}) mm"), recipe))
    };
    recipe.shields.iter().enumerate().filter_map(tape).collect()
}

/// Tape over each neighbour on a face that air meets, where none lies.
fn covers(board: &Board, recipe: &Recipe) -> Vec<(String, Recipe)> {
    let met = |n: &&Neighbour| recipe.airs().any(|air| air.face == n.face);
    let bare = |n: &&Neighbour| !recipe.shields.iter().any(|s| s.covers(n.face, &n.body) > 0.0);
    let taped = |n: &Neighbour| {
        let mut recipe = recipe.clone();
        recipe.shields.push(usual::shield_over(board, n, usual::TAPE)?);
        Some((format!("{} over {}", usual::TAPE.name(), n.name), recipe))
    };
    board.neighbours.iter().filter(met).filter(bare).filter_map(taped).collect()
}
