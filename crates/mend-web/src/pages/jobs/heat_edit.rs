//! What the heat plan's buttons change in a recipe: stages, helpers and shields come and go.

use mend_core::board::{Board, Component};
use mend_core::heat::motion::Motion;
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::method::usual;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::plan::Plan;
use mend_core::units::Duration;

/// A pause as it is added: until heat has spread through a board (E).
const PAUSE: Duration = Duration::seconds(20.0);

/// What a button is pressed on.
pub(crate) struct EditContext<'a> {
    pub(crate) board: &'a Board,
    pub(crate) station: Option<&'a Station>,
    pub(crate) plan: Option<&'a Plan>,
}

impl EditContext<'_> {
    /// Does what the button says; what it does not know changes nothing.
    pub(crate) fn edit(&self, recipe: &mut Recipe, act: &str) {
        let numbered = |prefix: &str| act.strip_prefix(prefix).and_then(|k| k.parse::<usize>().ok());
        if let Some(k) = numbered("remove-stage-").filter(|k| *k < recipe.preheat.len()) {
            recipe.preheat.remove(k);
        } else if let Some(k) = numbered("remove-shield-").filter(|k| *k < recipe.shields.len()) {
            recipe.shields.remove(k);
        } else if let Some(component) = numbered("cover-").and_then(|k| self.board.components.get(k)) {
            recipe.shields.extend(usual::shield_over(self.board, component, usual::TAPE));
        } else if let Some(kind) = act.strip_prefix("add-shield-").and_then(usual::shield_kind) {
            recipe.shields.push(self.new_shield(recipe, kind));
        } else {
            self.edit_tools(recipe, act);
        }
    }

    fn edit_tools(&self, recipe: &mut Recipe, act: &str) {
        let preheater = HeatingAids { preheater: Some(usual::preheater(self.board)), ..HeatingAids::default() };
        match act {
            "add-soak" => {
                let air = self.station.map(|s| recipe.air.unwrap_or_else(|| usual::air(self.board, s)));
                let soak = self
                    .station
                    .zip(air)
                    .map(|(station, air)| usual::soak(self.board, station, &HotAir { motion: Motion::Still, ..air }));
                recipe.preheat.extend(soak);
            }
            "add-warm" => recipe.preheat.push(usual::warm(preheater)),
            "add-pause" => recipe.preheat.push(HeatingStage { lasts: PAUSE, ..usual::warm(HeatingAids::default()) }),
            "add-preheater" => recipe.during.preheater = preheater.preheater,
            "remove-preheater" => recipe.during.preheater = None,
            "add-iron" => recipe.during.iron = Some(usual::iron(self.board)),
            "remove-iron" => recipe.during.iron = None,
            "add-second-iron" => recipe.during.second_iron = Some(usual::iron(self.board)),
            "remove-second-iron" => recipe.during.second_iron = None,
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

    /// Over the tightest component that has none yet, else beside the part.
    fn new_shield(&self, recipe: &Recipe, kind: ShieldKind) -> Shield {
        let margins = self.plan.map(|plan| plan.margins.as_slice()).unwrap_or_default();
        let tight = margins.iter().filter(|m| m.kind == MarginKind::Component);
        let named = tight.filter_map(|m| self.board.components.iter().find(|n| n.name == m.name));
        let covered = |n: &Component| recipe.shields.iter().any(|s| s.covers(n.face, &n.body) > 0.5);
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
        let bench = EditContext { board: &board, station: Some(&station), plan: Some(plan) };
        let mut recipe = inputs.settings.clone();
        acts.iter().for_each(|act| bench.edit(&mut recipe, act));
        recipe
    }

    #[test]
    fn stages_and_helpers_come_and_go() {
        let names = |acts: &[&str]| after(acts).preheat.iter().map(HeatingStage::name).collect::<Vec<_>>();
        assert_eq!(names(&["add-soak", "add-warm", "add-pause"]), ["air", "preheater", "pause"]);
        assert_eq!(names(&["add-soak", "add-warm", "remove-stage-0"]), ["preheater"]);
        assert_eq!(after(&["add-preheater", "add-iron"]).during.iron.map(|iron| iron.row), Some("anchors".to_owned()));
        assert!(after(&["add-preheater", "add-iron", "remove-preheater", "remove-iron"]).during.is_none());
    }

    #[test]
    fn each_new_shield_goes_over_the_tightest_that_has_none() {
        let recipe = after(&["add-shield-foil-tent", "add-shield-metal-block"]);
        let board = power_board();
        let covered = |shield: &Shield| board.components.iter().position(|n| shield.covers(n.face, &n.body) > 0.9);
        let over: Vec<Option<usize>> = recipe.shields.iter().map(covered).collect();
        assert!(over.iter().all(Option::is_some) && over[0] != over[1], "{over:?}");
        assert_eq!((recipe.shields[0].kind, recipe.shields[1].kind), (usual::TENT, usual::BLOCK));
    }

    #[test]
    fn a_named_component_is_covered_and_the_proposal_taken() {
        let taped = after(&["cover-2"]).shields;
        let socket = &power_board().components[2];
        assert!(taped.len() == 1 && taped[0].covers(socket.face, &socket.body) > 0.99);
        let next = planned().1.next_move.as_ref().expect("the demo's window is not open");
        assert_eq!(after(&["move"]), next.recipe);
    }

    #[test]
    fn what_no_button_says_changes_nothing() {
        let plain = planned().0.settings.clone();
        for act in ["", "remove-stage-0", "remove-shield-7", "cover-99", "add-shield-glue", "launch", "remove-stage-x"]
        {
            assert_eq!(after(&[act]), plain, "{act}");
        }
    }
}
