//! What a recipe lays over a board: its shields, and the footprint of the jet of its last stage.

use mend_core::board::{Board, Face};
use mend_core::heat::at_work::usual_blowing;
use mend_core::heat::blowing::Blowing;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::shield::Shield;
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::heat::wire_path::WirePath;

use super::n;
use crate::words::wire_shape;

/// A shield on paper.
pub(crate) struct ShieldShape {
    /// Its place in the recipe.
    pub(crate) k: usize,
    pub(crate) name: String,
    pub(crate) x: String,
    pub(crate) y: String,
    pub(crate) width: String,
    pub(crate) height: String,
}

/// The jet on paper.
pub(crate) struct ToolShape {
    pub(crate) name: String,
    pub(crate) x: String,
    pub(crate) y: String,
    /// Radius of the nozzle.
    pub(crate) nozzle: String,
    /// Where half of the heat that comes down on the axis still does.
    pub(crate) half: String,
    /// The way that the axis goes.
    pub(crate) way: String,
}

/// A bridge wire on paper.
pub(crate) struct WireLine {
    pub(crate) name: String,
    /// The way that it goes.
    pub(crate) way: String,
    pub(crate) width: String,
}

/// Shields, wire and jet of a recipe.
pub(crate) struct Overlay {
    shields: Vec<Shield>,
    /// The wire, where one is laid: its face, its diameter and its way.
    wire: Option<(Face, f64, WirePath)>,
    /// The air of the last stage and how it blows, where there is any.
    air: Option<(HotAir, Blowing)>,
}

impl Overlay {
    /// What is laid on the board, without the jet.
    pub(crate) fn laid(recipe: &Recipe, board: &Board) -> Self {
        let laid = recipe.bridge.filter(|bridge| bridge.wire_mm > 0.0).zip(WirePath::from_board(board));
        let wire = laid.map(|(bridge, path)| (recipe.face(board), bridge.wire_mm, path));
        Self { shields: recipe.shields.clone(), wire, air: None }
    }

    pub(crate) fn from_recipe(recipe: &Recipe, board: &Board, station: &Station) -> Self {
        let air = recipe.air.map(|air| (air, usual_blowing(station, &air, &board.connector.body)));
        Self { air, ..Self::laid(recipe, board) }
    }

    pub(crate) fn wire(&self, face: Face) -> Option<WireLine> {
        let (_, diameter, path) = self.wire.as_ref().filter(|(on, _, _)| *on == face)?;
        Some(WireLine {
            name: format!("Wire, {:.0} mm, {}", path.length_mm, wire_shape(path.shape)),
            way: path.places.iter().map(|p| format!("{},{}", n(p.x), n(-p.y))).collect::<Vec<_>>().join(" "),
            width: n(*diameter),
        })
    }

    pub(crate) fn shields(&self, face: Face) -> Vec<ShieldShape> {
        let on = self.shields.iter().enumerate().filter(|(_, shield)| shield.face == face);
        let shape = |(k, shield): (usize, &Shield)| {
            let area = shield.area();
            let (w, d) = (area.width, area.depth);
            ShieldShape {
                k,
                name: format!(
                    "{}, {w} x {d} mm. Arrow keys move it by half a millimetre, with Shift they size it.",
                    crate::words::shield(shield.kind)
                ),
                x: n(area.left()),
                y: n(-area.far()),
                width: n(w),
                height: n(d),
            }
        };
        on.map(shape).collect()
    }

    pub(crate) fn tool(&self, face: Face) -> Option<ToolShape> {
        let (air, blowing) = self.air.as_ref()?;
        let axes = &blowing.path;
        let middle = |of: fn(&mend_core::board::Point) -> f64| axes.iter().map(of).sum::<f64>() / axes.len() as f64;
        let nozzle = air.nozzle.in_mm() / 2.0;
        let half = blowing.half_heat_mm();
        let way = axes.iter().map(|p| format!("{},{}", n(p.x), n(-p.y))).collect::<Vec<_>>().join(" ");
        (air.face == face).then(|| ToolShape {
            name: format!(
                "Air, {} mm nozzle, {}; half of its heat falls within {half:.0} mm. Arrow keys move its aim by half a millimetre.",
                air.nozzle.in_mm(),
                air.motion.name()
            ),
            x: n(middle(|p| p.x)),
            y: n(-middle(|p| p.y)),
            nozzle: n(nozzle),
            half: n(half),
            way,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{gull, planned, power_board};
    use mend_core::method::usual::{TENT, shield_over};

    #[test]
    fn a_wire_is_drawn_over_the_joints_that_it_passes_with_its_length() {
        let board = power_board();
        let mut recipe = planned().0.settings.clone();
        assert!(Overlay::laid(&recipe, &board).wire(recipe.face(&board)).is_none());
        recipe.bridge = Some(mend_core::method::usual::WIRE);
        let wire = Overlay::laid(&recipe, &board).wire(recipe.face(&board)).expect("on its face");
        assert_eq!(wire.way.split(' ').count(), board.connector.joints.len());
        assert!(wire.name.starts_with("Wire, ") && wire.name.contains(" mm, "), "{}", wire.name);
    }

    #[test]
    fn shields_and_jet_are_drawn_on_their_own_face_true_to_scale() {
        let (board, station) = (power_board(), gull());
        let mut recipe = planned().0.settings.clone();
        recipe.air.iter_mut().for_each(|air| air.aim = [3.0, -1.0]);
        recipe.shields.extend(shield_over(&board, &board.components[0], TENT));
        let overlay = Overlay::from_recipe(&recipe, &board, &station);
        let (on, off) = (board.components[0].face, board.components[0].face.other());
        assert!(overlay.shields(off).is_empty());
        let shield = &overlay.shields(on)[0];
        let wide: f64 = shield.width.parse().expect("a number");
        assert!((wide - board.components[0].body.width - 3.0).abs() < 0.01, "{wide}");
        assert!(overlay.tool(recipe.face(&board).other()).is_none());
        let tool = overlay.tool(recipe.face(&board)).expect("on its face");
        let middle = board.connector.body.centre;
        assert_eq!((tool.x, tool.y), (n(middle.x + 3.0), n(-(middle.y - 1.0))));
        let (half, nozzle): (f64, f64) = (tool.half.parse().expect("mm"), tool.nozzle.parse().expect("mm"));
        assert!(half > nozzle && half < 6.0 * nozzle, "half of the heat within {half} mm of a {nozzle} mm nozzle");
    }
}
