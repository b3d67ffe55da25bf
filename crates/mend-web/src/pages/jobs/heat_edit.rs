//! What the heat plan's buttons change in a recipe: passes, helpers and shields come and go.

use mend_core::board::{Board, Neighbour};
use mend_core::heat::motion::Motion;
use mend_core::heat::recipe::{Helpers, Pass, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{HotAir, Station};
use mend_core::method::usual;
use mend_core::planning::margin::Kind;
use mend_core::planning::plan::Plan;
use mend_core::units::Duration;

/// A pause as it is added: until heat has spread through a board (E).
const PAUSE: Duration = Duration::seconds(20.0);

/// What a button is pressed on.
pub(crate) struct Bench<'a> {
    pub(crate) board: &'a Board,
    pub(crate) station: Option<&'a Station>,
    pub(crate) plan: Option<&'a Plan>,
}

impl Bench<'_> {
    /// Does what the button says; what it does not know changes nothing.
    pub(crate) fn edit(&self, recipe: &mut Recipe, act: &str) {
        let numbered = |prefix: &str| act.strip_prefix(prefix).and_then(|k| k.parse::<usize>().ok());
        if let Some(k) = numbered("remove-pass-").filter(|k| *k < recipe.before.len()) {
            recipe.before.remove(k);
        } else if let Some(k) = numbered("remove-shield-").filter(|k| *k < recipe.shields.len()) {
            recipe.shields.remove(k);
        } else if let Some(neighbour) = numbered("cover-").and_then(|k| self.board.neighbours.get(k)) {
            recipe.shields.extend(usual::shield_over(self.board, neighbour, usual::TAPE));
        } else if let Some(kind) = act.strip_prefix("add-shield-").and_then(usual::shield_kind) {
            recipe.shields.push(self.new_shield(recipe, kind));
        } else {
            self.edit_tools(recipe, act);
        }
    }

    fn edit_tools(&self, recipe: &mut Recipe, act: &str) {
        let plate = Helpers { plate: Some(usual::plate(self.board)), iron: None };
        match act {
            "add-soak" => {
                let air = self.station.map(|s| recipe.air.unwrap_or_else(|| usual::air(self.board, s)));
                let soak = self
                    .station
                    .zip(air)
                    .map(|(station, air)| usual::soak((self.board, station), &HotAir { motion: Motion::Still, ..air }));
                recipe.before.extend(soak);
            }
            "add-warm" => recipe.before.push(usual::warm(plate)),
            "add-pause" => recipe.before.push(Pass { lasts: PAUSE, ..usual::warm(Helpers::default()) }),
            "add-plate" => recipe.with.plate = plate.plate,
            "remove-plate" => recipe.with.plate = None,
            "add-iron" => recipe.with.iron = Some(usual::iron(self.board)),
            "remove-iron" => recipe.with.iron = None,
            "add-air" => recipe.air = self.station.map(|station| usual::air(self.board, station)),
            "remove-air" => recipe.air = None,
            "add-bridge" => recipe.bridge = Some(usual::WIRE),
            "remove-bridge" => recipe.bridge = None,
            "move" => {
                if let Some(next) = self.plan.and_then(|plan| plan.next_move.as_ref()) {
                    *recipe = next.recipe.clone();
                }
            }
            _ => {}
        }
    }

    /// Over the tightest neighbour that has none yet, else beside the part.
    fn new_shield(&self, recipe: &Recipe, kind: ShieldKind) -> Shield {
        let margins = self.plan.map(|plan| plan.margins.as_slice()).unwrap_or_default();
        let tight = margins.iter().filter(|m| m.kind == Kind::Neighbour);
        let named = tight.filter_map(|m| self.board.neighbours.iter().find(|n| n.name == m.name));
        let covered = |n: &Neighbour| recipe.shields.iter().any(|s| s.covers(n.face, &n.body) > 0.5);
        let over = named.filter(|n| !covered(n)).find_map(|n| usual::shield_over(self.board, n, kind));
        over.unwrap_or_else(|| {
            let body = self.board.connector.body;
            let at_mm = [body.centre.x, body.far() + 5.0];
            Shield { kind, face: recipe.face(self.board), at_mm, width_mm: 8.0, depth_mm: 6.0 }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{gull, planned, power_board};

    fn after(acts: &[&str]) -> Recipe {
        let ((inputs, plan), board, station) = (planned(), power_board(), gull());
        let bench = Bench { board: &board, station: Some(&station), plan: Some(plan) };
        let mut recipe = inputs.settings.clone();
        acts.iter().for_each(|act| bench.edit(&mut recipe, act));
        recipe
    }

    #[test]
    fn passes_and_helpers_come_and_go() {
        let names = |acts: &[&str]| after(acts).before.iter().map(Pass::name).collect::<Vec<_>>();
        assert_eq!(names(&["add-soak", "add-warm", "add-pause"]), ["air", "plate", "pause"]);
        assert_eq!(names(&["add-soak", "add-warm", "remove-pass-0"]), ["plate"]);
        assert_eq!(after(&["add-plate", "add-iron"]).with.iron.map(|iron| iron.row), Some("anchors".to_owned()));
        assert!(after(&["add-plate", "add-iron", "remove-plate", "remove-iron"]).with.is_none());
    }

    #[test]
    fn each_new_shield_goes_over_the_tightest_that_has_none() {
        let recipe = after(&["add-shield-foil-tent", "add-shield-metal-block"]);
        let board = power_board();
        let covered = |shield: &Shield| board.neighbours.iter().position(|n| shield.covers(n.face, &n.body) > 0.9);
        let over: Vec<Option<usize>> = recipe.shields.iter().map(covered).collect();
        assert!(over.iter().all(Option::is_some) && over[0] != over[1], "{over:?}");
        assert_eq!((recipe.shields[0].kind, recipe.shields[1].kind), (usual::TENT, usual::BLOCK));
    }

    #[test]
    fn a_named_neighbour_is_covered_and_the_proposal_taken() {
        let taped = after(&["cover-2"]).shields;
        let socket = &power_board().neighbours[2];
        assert!(taped.len() == 1 && taped[0].covers(socket.face, &socket.body) > 0.99);
        let next = planned().1.next_move.as_ref().expect("the demo's window is not open");
        assert_eq!(after(&["move"]), next.recipe);
    }

    #[test]
    fn what_no_button_says_changes_nothing() {
        let plain = planned().0.settings.clone();
        for act in ["", "remove-pass-0", "remove-shield-7", "cover-99", "add-shield-glue", "launch", "remove-pass-x"] {
            assert_eq!(after(&[act]), plain, "{act}");
        }
    }
}
