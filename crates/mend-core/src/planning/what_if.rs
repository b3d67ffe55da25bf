//! What if: every single change of a plan that a technician might think of.

use super::change::Change;
use super::order::Order;
use super::search::buys::more_alloy;
use super::single_changes::single_changes;
use crate::board::{Board, Component};
use crate::heat::recipe::Recipe;
use crate::heat::shield::{Shield, ShieldKind};
use crate::method::subject::Subject;
use crate::method::usual;
use crate::solder::JointComposition;

/// Most layers of tape that still lie down (E).
const MOST_LAYERS: u32 = 6;

/// A change.
#[derive(Debug, Clone, PartialEq)]
pub struct WhatIfChange {
    /// What is changed: what it is called by until somebody names it.
    pub what: Change,
    /// What the joints then hold and are fed.
    pub composition: JointComposition,
    /// What is then done.
    pub recipe: Recipe,
}

/// All of them: settings, nozzles, faces, soaks, a layer of tape more, a shield over each component that has none, a feed.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::{change::Change, what_if::changes};
/// let offered = changes(&bench.subject(), &bench.order());
/// assert!(offered.iter().any(|offer| offer.what == Change::Nozzle { mm: 10.0 }));
/// ```
pub fn changes(subject: &Subject<'_>, order: &Order<'_>) -> Vec<WhatIfChange> {
    let of_recipe =
        |(what, recipe): (Change, Recipe)| WhatIfChange { what, composition: order.composition.clone(), recipe };
    let mut changes: Vec<WhatIfChange> = single_changes(order).into_iter().map(of_recipe).collect();
    changes.extend(one_layer_more(order.recipe).into_iter().map(of_recipe));
    changes.extend(covers(order.board, order.recipe).into_iter().map(of_recipe));
    let fed = more_alloy(subject, order.composition).into_iter();
    changes.extend(fed.map(|(what, composition)| WhatIfChange { what, composition, recipe: order.recipe.clone() }));
    if order.composition.fed().is_some() {
        let composition = JointComposition { feed: None, ..order.composition.clone() };
        changes.push(WhatIfChange { what: Change::FeedNothing, composition, recipe: order.recipe.clone() });
    }
    changes
}

/// Every tape with a layer more.
fn one_layer_more(recipe: &Recipe) -> Vec<(Change, Recipe)> {
    let tape = |(k, shield): (usize, &Shield)| {
        let ShieldKind::Polyimide { layers } = shield.kind else { return None };
        let kind = ShieldKind::Polyimide { layers: layers + 1 };
        let mut recipe = recipe.clone();
        recipe.shields[k].kind = kind;
        let [x, y] = shield.at_mm;
        (layers < MOST_LAYERS).then_some((Change::TapeLayer { x_mm: x, y_mm: y }, recipe))
    };
    recipe.shields.iter().enumerate().filter_map(tape).collect()
}

/// Tape over each component on a face that air meets, where none lies.
fn covers(board: &Board, recipe: &Recipe) -> Vec<(Change, Recipe)> {
    let met = |n: &&Component| recipe.airs().any(|air| air.face == n.face);
    let bare = |n: &&Component| !recipe.shields.iter().any(|s| s.covers(n.face, &n.body) > 0.0);
    let taped = |n: &Component| {
        let mut recipe = recipe.clone();
        recipe.shields.push(usual::shield_over(board, n, usual::TAPE)?);
        Some((Change::Shield { shield: usual::TAPE, over: n.name.clone() }, recipe))
    };
    board.components.iter().filter(met).filter(bare).filter_map(taped).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::Face;
    use crate::example::Bench;
    use crate::heat::tool::HotAir;

    #[test]
    fn tape_gets_a_layer_more_until_it_no_longer_lies_down() {
        let mut bench = Bench::try_new().expect("the example");
        let tape = |layers| Shield {
            kind: ShieldKind::Polyimide { layers },
            face: Face::Top,
            at_mm: [30.0, 16.0],
            width_mm: 14.0,
            depth_mm: 4.0,
        };
        bench.recipe.shields = vec![tape(2), tape(MOST_LAYERS)];
        let found = one_layer_more(&bench.recipe);
        assert_eq!(found.len(), 1);
        assert_eq!(found[0].1.shields[0].kind, ShieldKind::Polyimide { layers: 3 });
    }

    #[test]
    fn only_bare_components_that_air_meets_are_offered_a_cover() {
        let mut bench = Bench::try_new().expect("the example");
        assert!(covers(&bench.board, &bench.recipe).is_empty(), "air from below does not meet the latch");
        bench.recipe.air = bench.recipe.air.map(|air| HotAir { face: Face::Top, ..air });
        let offered = covers(&bench.board, &bench.recipe);
        assert_eq!(offered[0].0, Change::Shield { shield: usual::TAPE, over: "latch".to_owned() });
        assert!(covers(&bench.board, &offered[0].1).is_empty(), "it is covered now");
    }
}
