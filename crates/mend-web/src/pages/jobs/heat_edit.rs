//! What the heat plan's buttons change in a recipe: passes, helpers and shields come and go.

use mend_core::board::{Board, Neighbour};
use mend_core::heat::iron::Iron;
use mend_core::heat::motion::Motion;
use mend_core::heat::plate::{Coupling, Plate};
use mend_core::heat::recipe::{Helpers, Pass, Recipe};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{HotAir, Station};
use mend_core::planning::loose::hanging;
use mend_core::planning::margin::Kind;
use mend_core::planning::next_move::shield_over;
use mend_core::planning::plan::Plan;
use mend_core::units::{Duration, Flow, Length, Temperature};

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
            recipe.shields.extend(shield_over(self.board, neighbour, ShieldKind::Polyimide { layers: 3 }));
        } else if let Some(kind) = act.strip_prefix("add-shield-").and_then(shield_kind) {
            recipe.shields.push(self.new_shield(recipe, kind));
        } else {
            self.edit_tools(recipe, act);
        }
    }

    fn edit_tools(&self, recipe: &mut Recipe, act: &str) {
        let warm =
            |with: Helpers| Pass { air: None, with, lasts: Duration::seconds(120.0), change: Duration::default() };
        match act {
            "add-soak" => recipe.before.push(self.soak(recipe)),
            "add-warm" => recipe.before.push(warm(Helpers { plate: Some(self.plate()), iron: None })),
            "add-pause" => recipe.before.push(Pass { lasts: Duration::seconds(20.0), ..warm(Helpers::default()) }),
            "add-plate" => recipe.with.plate = Some(self.plate()),
            "remove-plate" => recipe.with.plate = None,
            "add-iron" => recipe.with.iron = Some(self.iron()),
            "remove-iron" => recipe.with.iron = None,
            "move" => {
                if let Some(next) = self.plan.and_then(|plan| plan.next_move.as_ref()) {
                    *recipe = next.recipe.clone();
                }
            }
            _ => {}
        }
    }

    /// The bare outlet from below at no more than 350 °C.
    fn soak(&self, recipe: &Recipe) -> Pass {
        let flow = self.station.map_or(recipe.air.flow, |s| s.flow_range.1).in_litres_per_minute() * 0.8;
        let nozzles = self.station.map(|s| s.nozzles.clone()).unwrap_or_default();
        let air = HotAir {
            set: Temperature::celsius(recipe.air.set.in_celsius().min(350.0)),
            flow: Flow::litres_per_minute(flow.round()),
            nozzle: nozzles.into_iter().fold(recipe.air.nozzle, |a, b| if b > a { b } else { a }),
            distance: Length::mm(25.0),
            face: hanging(self.board),
            motion: Motion::Still,
            aim: [0.0, 0.0],
        };
        let (lasts, change) = (Duration::seconds(45.0), Duration::seconds(5.0));
        Pass { air: Some(air), with: Helpers::default(), lasts, change }
    }

    fn plate(&self) -> Plate {
        let (set, side) = (Temperature::celsius(180.0), Length::mm(120.0));
        Plate { set, coupling: Coupling::Gap, face: hanging(self.board), side }
    }

    /// On the anchors where there are any.
    fn iron(&self) -> Iron {
        let joints = &self.board.connector.joints;
        let row = joints.iter().find(|j| !j.is_pin()).or(joints.first()).map(|j| j.row.clone()).unwrap_or_default();
        Iron { set: Temperature::celsius(380.0), tip: Length::mm(4.0), row }
    }

    /// Over the tightest neighbour that has none yet, else beside the part.
    fn new_shield(&self, recipe: &Recipe, kind: ShieldKind) -> Shield {
        let margins = self.plan.map(|plan| plan.margins.as_slice()).unwrap_or_default();
        let tight = margins.iter().filter(|m| m.kind == Kind::Neighbour);
        let named = tight.filter_map(|m| self.board.neighbours.iter().find(|n| n.name == m.name));
        let covered = |n: &Neighbour| {
            recipe.shields.iter().any(|s| s.face == n.face && s.area().shared(&n.body) > 0.5 * n.body.area())
        };
        let over = named.filter(|n| !covered(n)).find_map(|n| shield_over(self.board, n, kind));
        over.unwrap_or_else(|| {
            let body = self.board.connector.body;
            let at_mm = [body.centre.x, body.far() + 5.0];
            Shield { kind, face: recipe.air.face, at_mm, width_mm: 8.0, depth_mm: 6.0 }
        })
    }
}

fn shield_kind(name: &str) -> Option<ShieldKind> {
    Some(match name {
        "polyimide" => ShieldKind::Polyimide { layers: 3 },
        "aluminium-tape" => ShieldKind::AluminiumTape,
        "foil-tent" => ShieldKind::FoilTent { gap_mm: 2.0 },
        "metal-block" => ShieldKind::MetalBlock { height_mm: 5.0 },
        _ => return None,
    })
}
