//! Can these settings be computed, and does this station give them?

use crate::board::Board;
use crate::finding::Finding;
use crate::heat::recipe::{Helpers, Recipe};
use crate::heat::shield::ShieldKind;
use crate::heat::tool::{HotAir, Station};

const RULE: &str = "settings";
/// More than anybody lays or does.
const MOST_SHIELDS: usize = 40;
const MOST_PASSES: usize = 12;

/// Collects objections to values out of range.
struct Ranges<'a> {
    found: Vec<Finding>,
    owner: &'a str,
}

impl Ranges<'_> {
    fn within(&mut self, place: &str, (what, value, unit): (&str, f64, &str), (low, high): (f64, f64)) {
        if !(low..=high).contains(&value) {
            let object = Finding::blocking(RULE, place, format!("{what} of {value} {unit}"));
            self.found.push(object.hint(format!("{} takes {low} to {high} {unit}", self.owner)));
        }
    }
}

/// All objections to a recipe. A blocking one means that there is nothing to compute.
pub fn check(recipe: &Recipe, station: &Station, board: &Board) -> Vec<Finding> {
    let mut ranges = Ranges { found: Vec::new(), owner: &station.name };
    recipe.air.iter().for_each(|air| check_air(air, (station, ""), &mut ranges));
    ranges.owner = "a pass";
    ranges.within("longest_s", ("longest heating", recipe.longest.in_seconds(), "s"), (20.0, 600.0));
    for (k, pass) in recipe.before.iter().enumerate() {
        let place = format!("before[{k}].");
        ranges.within(&format!("{place}lasts_s"), ("a pass", pass.lasts.in_seconds(), "s"), (1.0, 600.0));
        ranges.within(&format!("{place}change_s"), ("a change", pass.change.in_seconds(), "s"), (0.0, 120.0));
        if let Some(air) = &pass.air {
            ranges.owner = &station.name;
            check_air(air, (station, &place), &mut ranges);
            ranges.owner = "a pass";
        }
        check_helpers(&pass.with, (board, &place), &mut ranges);
    }
    check_helpers(&recipe.with, (board, ""), &mut ranges);
    check_shields(recipe, &mut ranges);
    check_bridge(recipe, &mut ranges);
    let mut found = ranges.found;
    if recipe.air.is_none() && recipe.with.is_none() {
        let object = Finding::blocking(RULE, "settings", "nothing is hot in the last pass");
        found.push(object.hint("put air, a plate or an iron to work"));
    }
    if recipe.before.len() > MOST_PASSES {
        let object = Finding::blocking(RULE, "before", format!("{} passes before the last", recipe.before.len()));
        found.push(object.hint("up to 12"));
    }
    if !station.is_measured() {
        found.push(
            Finding::warning(RULE, "station", format!("{} has not been measured: the bands are wide", station.name))
                .hint("time a bag of known volume for the flow, and hold a thermocouple in the jet"),
        );
    }
    found
}

fn check_air(air: &HotAir, (station, place): (&Station, &str), ranges: &mut Ranges<'_>) {
    let at = |field: &str| format!("{place}{field}");
    let (low, high) = station.set_range;
    ranges.within(&at("set_c"), ("air", air.set.in_celsius(), "°C"), (low.in_celsius(), high.in_celsius()));
    let (low, high) = station.flow_range;
    let flows = (low.in_litres_per_minute(), high.in_litres_per_minute());
    ranges.within(&at("flow_lpm"), ("flow", air.flow.in_litres_per_minute(), "L/min"), flows);
    ranges.within(&at("nozzle_mm"), ("nozzle", air.nozzle.in_mm(), "mm"), (2.0, 40.0));
    ranges.within(&at("distance_mm"), ("distance", air.distance.in_mm(), "mm"), (3.0, 120.0));
    for aim in air.aim {
        ranges.within(&at("aim_mm"), ("an aim", aim, "mm"), (-100.0, 100.0));
    }
    if !station.nozzles.iter().any(|owned| (owned.in_mm() - air.nozzle.in_mm()).abs() < 0.05) {
        let owned: Vec<String> = station.nozzles.iter().map(|n| format!("{} mm", n.in_mm())).collect();
        let message = format!("{} has no {} mm outlet", station.name, air.nozzle.in_mm());
        ranges
            .found
            .push(Finding::warning(RULE, at("nozzle_mm"), message).hint(format!("it owns {}", owned.join(", "))));
    }
}

fn check_helpers(with: &Helpers, (board, place): (&Board, &str), ranges: &mut Ranges<'_>) {
    let at = |field: &str| format!("{place}{field}");
    if let Some(plate) = &with.plate {
        ranges.within(&at("plate.set_c"), ("a plate", plate.set.in_celsius(), "°C"), (30.0, 350.0));
        ranges.within(&at("plate.side_mm"), ("a plate", plate.side.in_mm(), "mm"), (10.0, 400.0));
    }
    let Some(iron) = &with.iron else { return };
    ranges.within(&at("iron.set_c"), ("an iron", iron.set.in_celsius(), "°C"), (150.0, 480.0));
    ranges.within(&at("iron.tip_mm"), ("a tip", iron.tip.in_mm(), "mm"), (0.2, 12.0));
    if !board.connector.joints.iter().any(|joint| iron.is_on(joint)) {
        let object = Finding::blocking(RULE, at("iron.row"), format!("“{}” is no row here", iron.row));
        ranges.found.push(object.hint("name a row as the board does"));
    }
}

fn check_bridge(recipe: &Recipe, ranges: &mut Ranges<'_>) {
    let Some(bridge) = &recipe.bridge else { return };
    ranges.owner = "a bridge";
    ranges.within("bridge.wire_mm", ("a wire", bridge.wire_mm, "mm"), (0.0, 2.0));
    ranges.within("bridge.bead_mm2", ("solder", bridge.bead_mm2, "mm²"), (0.1, 12.0));
}

fn check_shields(recipe: &Recipe, ranges: &mut Ranges<'_>) {
    if recipe.shields.len() > MOST_SHIELDS {
        let object = Finding::blocking(RULE, "shields", format!("{} shields", recipe.shields.len()));
        ranges.found.push(object.hint("up to 40"));
    }
    for (k, shield) in recipe.shields.iter().enumerate() {
        let at = |field: &str| format!("shields[{k}].{field}");
        ranges.owner = "a shield";
        ranges.within(&at("width_mm"), ("a shield", shield.width_mm, "mm"), (1.0, 300.0));
        ranges.within(&at("depth_mm"), ("a shield", shield.depth_mm, "mm"), (1.0, 300.0));
        for place in shield.at_mm {
            ranges.within(&at("at_mm"), ("a place", place, "mm"), (-600.0, 600.0));
        }
        match shield.kind {
            ShieldKind::Polyimide { layers } => {
                ranges.within(&at("layers"), ("tape", f64::from(layers), "layers"), (1.0, 6.0));
            }
            ShieldKind::FoilTent { gap_mm } => ranges.within(&at("gap_mm"), ("a gap", gap_mm, "mm"), (0.5, 10.0)),
            ShieldKind::MetalBlock { height_mm } => {
                ranges.within(&at("height_mm"), ("a block", height_mm, "mm"), (1.0, 30.0));
            }
            ShieldKind::AluminiumTape => {}
        }
    }
}
