//! A recipe in a few lines, and its shields drawn.

use mend_core::board::{Board, Face};
use mend_core::heat::recipe::Recipe;
use mend_core::heat::shield::Shield;
use mend_core::heat::station::Station;
use mend_core::heat::tool::{ComesNearWhen, HotAir};
use mend_core::planning::sequence::stages::helpers;
use mend_core::solder::JointComposition;
use mend_core::units::{Scale, Temperature};

use crate::draw::board_map::{BoardMap, Drawing, MapExtent};
use crate::draw::overlay::Overlay;
use crate::words::comes_near_when;
use crate::words::{Words, shield};

/// What is fed, what comes before, the air, what helps, the shields: a line each.
pub(super) fn recipe_lines(composition: &JointComposition, recipe: &Recipe, words: Words) -> Vec<String> {
    let scale = words.scale;
    let degrees = |t: Temperature| Words { scale }.temperature(t.in_celsius());
    let mut lines = Vec::new();
    if let Some(feed) = composition.fed() {
        lines.push(format!(
            "{:.0} % {} fed to {}",
            feed.mixing_fraction * 100.0,
            feed.metal.name,
            feed.rows.join(", ")
        ));
    }
    let stages = recipe.preheat.iter().map(|stage| {
        let air = stage.air.map_or(String::new(), |air| format!(" at {}", degrees(air.set)));
        let preheater =
            stage.during.preheater.map_or(String::new(), |preheater| format!(" at {}", degrees(preheater.set)));
        format!("First {}{air}{preheater} for {:.0} s", stage.name(), stage.lasts.in_seconds())
    });
    lines.extend(stages);
    lines.extend(recipe.air.as_ref().map(|air| blown(air, &degrees)));
    lines.extend(helpers(&recipe.during).iter().map(|line| words.heat_line(line)));
    lines.extend(recipe.during.iron.as_ref().map(|iron| format!("Iron set to {}", degrees(iron.set))));
    let over = |of: &Shield| {
        format!("{} at ({:.0}, {:.0}) mm, {} face", shield(of.kind), of.at_mm[0], of.at_mm[1], of.face.name())
    };
    lines.extend(recipe.shields.iter().map(over));
    lines
}

fn blown(air: &HotAir, degrees: &dyn Fn(Temperature) -> String) -> String {
    format!(
        "{}, {:.0} L/min, {} mm nozzle at {:.0} mm, {} face, {}",
        degrees(air.set),
        air.flow.in_litres_per_minute(),
        air.nozzle.in_mm(),
        air.distance.in_mm(),
        air.face.name(),
        air.motion.name()
    ) + &way(air)
}

/// How the nozzle comes near and leans, where it does.
fn way(air: &HotAir) -> String {
    let near = air.approach.map_or(String::new(), |approach| {
        let way = format!(", from {:.0} mm within {:.0} s", approach.from.in_mm(), approach.over.in_seconds());
        match approach.when {
            ComesNearWhen::AtOnce => way,
            when => format!("{way} once {}", comes_near_when(when)),
        }
    });
    let leans = air.tilt.filter(|tilt| tilt.lean_deg > 0.0);
    near + &leans.map_or(String::new(), |tilt| format!(", leaning by {:.0}°", tilt.lean_deg))
}

/// The faces that a recipe works on or covers, with its shields and its jet.
pub(super) fn shield_maps(board: &Board, station: Option<&Station>, recipe: &Recipe, scale: Scale) -> Vec<BoardMap> {
    let overlay =
        station.map_or_else(|| Overlay::laid(recipe, board), |station| Overlay::from_recipe(recipe, board, station));
    let worked = |face: &Face| recipe.face(board) == *face || recipe.shields.iter().any(|s| s.face == *face);
    let draw = |face: Face| {
        let drawing = Drawing {
            photos: &[],
            board,
            face,
            window: MapExtent::Near(16.0),
            margins: &[],
            scale,
            lettering: 3.6,
            overlay: Some(&overlay),
        };
        drawing.draw(None)
    };
    [Face::Top, Face::Bottom].into_iter().filter(worked).map(draw).collect()
}

#[cfg(test)]
mod tests {
    use mend_core::method::usual;

    use super::*;
    use crate::fixture::{bundle, gull, planned, power_board};

    #[test]
    fn a_recipe_is_said_in_lines_and_each_face_that_it_touches_is_drawn() {
        let (inputs, _) = planned();
        let (bundle, board) = (bundle(inputs), power_board());
        let mut recipe = bundle.recipe.clone();
        let far = &board.components.iter().find(|n| n.face != recipe.face(&board)).expect("on the other face");
        recipe.shields.extend(usual::shield_over(&board, far, usual::TENT));
        let lines = recipe_lines(&bundle.composition, &recipe, Words { scale: Scale::Fahrenheit });
        assert!(lines[0].contains("Sn63Pb37 fed to pins, anchors"), "{lines:?}");
        assert!(lines.iter().any(|line| line.contains("°F") && line.contains("L/min")), "{lines:?}");
        assert!(lines.last().is_some_and(|line| line.contains("foil tent")), "{lines:?}");
        assert_eq!(shield_maps(&board, Some(&gull()), &recipe, Scale::Celsius).len(), 2);
        recipe.shields.clear();
        assert_eq!(shield_maps(&board, Some(&gull()), &recipe, Scale::Celsius).len(), 1);
    }
}
