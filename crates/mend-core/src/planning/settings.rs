//! Can these settings be computed, and does this station give them?

use crate::board::Board;
use crate::finding::Finding;
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::heat::shield::ShieldKind;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;

const RULE: &str = "settings";
/// More than anybody lays or does.
const MOST_SHIELDS: usize = 40;
const MOST_PASSES: usize = 12;

/// A value that was entered: of what, and in which unit.
struct EnteredValue<'a> {
    what: &'a str,
    value: f64,
    unit: &'a str,
}

const fn entered<'a>(what: &'a str, value: f64, unit: &'a str) -> EnteredValue<'a> {
    EnteredValue { what, value, unit }
}

/// Collects objections to values out of range.
struct Ranges<'a> {
    found: Vec<Finding>,
    owner: &'a str,
}

impl Ranges<'_> {
    fn within(&mut self, place: &str, entered: EnteredValue<'_>, (low, high): (f64, f64)) {
        let EnteredValue { what, value, unit } = entered;
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
    ranges.owner = "a stage";
    ranges.within("longest_s", entered("longest heating", recipe.longest.in_seconds(), "s"), (20.0, 600.0));
    for (k, stage) in recipe.preheat.iter().enumerate() {
        let place = format!("preheat[{k}].");
        ranges.within(&format!("{place}lasts_s"), entered("a stage", stage.lasts.in_seconds(), "s"), (1.0, 600.0));
        ranges.within(&format!("{place}change_s"), entered("a change", stage.change.in_seconds(), "s"), (0.0, 120.0));
        if let Some(air) = &stage.air {
            ranges.owner = &station.name;
            check_air(air, (station, &place), &mut ranges);
            ranges.owner = "a stage";
        }
        check_helpers(&stage.during, (board, &place), &mut ranges);
    }
    check_helpers(&recipe.during, (board, ""), &mut ranges);
    check_shields(recipe, &mut ranges);
    check_bridge(recipe, &mut ranges);
    let mut found = ranges.found;
    if recipe.air.is_none() && recipe.during.is_none() {
        let object = Finding::blocking(RULE, "settings", "nothing is hot in the last stage");
        found.push(object.hint("put air, a preheater or an iron to work"));
    }
    if recipe.preheat.len() > MOST_PASSES {
        let object = Finding::blocking(RULE, "preheat", format!("{} stages before the last", recipe.preheat.len()));
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
    ranges.within(&at("set_c"), entered("air", air.set.in_celsius(), "°C"), (low.in_celsius(), high.in_celsius()));
    let (low, high) = station.flow_range;
    let flows = (low.in_litres_per_minute(), high.in_litres_per_minute());
    ranges.within(&at("flow_lpm"), entered("flow", air.flow.in_litres_per_minute(), "L/min"), flows);
    ranges.within(&at("nozzle_mm"), entered("nozzle", air.nozzle.in_mm(), "mm"), (2.0, 40.0));
    ranges.within(&at("distance_mm"), entered("distance", air.distance.in_mm(), "mm"), (3.0, 120.0));
    for aim in air.aim {
        ranges.within(&at("aim_mm"), entered("an aim", aim, "mm"), (-100.0, 100.0));
    }
    if !station.nozzles.iter().any(|owned| (owned.in_mm() - air.nozzle.in_mm()).abs() < 0.05) {
        let owned: Vec<String> = station.nozzles.iter().map(|n| format!("{} mm", n.in_mm())).collect();
        let message = format!("{} has no {} mm nozzle", station.name, air.nozzle.in_mm());
        ranges
            .found
            .push(Finding::warning(RULE, at("nozzle_mm"), message).hint(format!("it owns {}", owned.join(", "))));
    }
}

fn check_helpers(during: &HeatingAids, (board, place): (&Board, &str), ranges: &mut Ranges<'_>) {
    let at = |field: &str| format!("{place}{field}");
    if let Some(preheater) = &during.preheater {
        ranges.within(&at("preheater.set_c"), entered("a preheater", preheater.set.in_celsius(), "°C"), (30.0, 350.0));
        ranges.within(&at("preheater.side_mm"), entered("a preheater", preheater.side.in_mm(), "mm"), (10.0, 400.0));
    }
    let Some(iron) = &during.iron else { return };
    ranges.within(&at("iron.set_c"), entered("an iron", iron.set.in_celsius(), "°C"), (150.0, 480.0));
    ranges.within(&at("iron.tip_mm"), entered("a tip", iron.tip.in_mm(), "mm"), (0.2, 12.0));
    if !board.connector.joints.iter().any(|joint| iron.is_on(joint)) {
        let object = Finding::blocking(RULE, at("iron.row"), format!("“{}” is no row here", iron.row));
        ranges.found.push(object.hint("name a row as the board does"));
    }
}

fn check_bridge(recipe: &Recipe, ranges: &mut Ranges<'_>) {
    let Some(bridge) = &recipe.bridge else { return };
    ranges.owner = "a bridge";
    ranges.within("bridge.wire_mm", entered("a wire", bridge.wire_mm, "mm"), (0.0, 2.0));
    ranges.within("bridge.bead_mm2", entered("solder", bridge.bead_mm2, "mm²"), (0.1, 12.0));
}

fn check_shields(recipe: &Recipe, ranges: &mut Ranges<'_>) {
    if recipe.shields.len() > MOST_SHIELDS {
        let object = Finding::blocking(RULE, "shields", format!("{} shields", recipe.shields.len()));
        ranges.found.push(object.hint("up to 40"));
    }
    for (k, shield) in recipe.shields.iter().enumerate() {
        let at = |field: &str| format!("shields[{k}].{field}");
        ranges.owner = "a shield";
        ranges.within(&at("width_mm"), entered("a shield", shield.width_mm, "mm"), (1.0, 300.0));
        ranges.within(&at("depth_mm"), entered("a shield", shield.depth_mm, "mm"), (1.0, 300.0));
        for place in shield.at_mm {
            ranges.within(&at("at_mm"), entered("a place", place, "mm"), (-600.0, 600.0));
        }
        match shield.kind {
            ShieldKind::Polyimide { layers } => {
                ranges.within(&at("layers"), entered("tape", f64::from(layers), "layers"), (1.0, 6.0));
            }
            ShieldKind::FoilTent { gap_mm } => {
                ranges.within(&at("gap_mm"), entered("a gap", gap_mm, "mm"), (0.5, 10.0))
            }
            ShieldKind::MetalBlock { height_mm } => {
                ranges.within(&at("height_mm"), entered("a block", height_mm, "mm"), (1.0, 30.0));
            }
            ShieldKind::AluminiumTape => {}
        }
    }
}
