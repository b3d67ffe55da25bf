//! Can these settings be computed, and does this station give them?

use crate::finding::Finding;
use crate::heat::tool::{HotAir, Station};

const RULE: &str = "settings";

/// All objections to the settings. A blocking one means that there is nothing to compute.
pub fn check(air: &HotAir, station: &Station) -> Vec<Finding> {
    let mut found = Vec::new();
    let mut within = |place: &str, (what, value): (&str, f64), (low, high): (f64, f64), unit: &str| {
        if !(low..=high).contains(&value) {
            found.push(
                Finding::blocking(RULE, place, format!("{what} of {value} {unit}"))
                    .hint(format!("{} takes {low} to {high} {unit}", station.name)),
            );
        }
    };
    let (low, high) = station.set_range;
    within("set_c", ("air", air.set.in_celsius()), (low.in_celsius(), high.in_celsius()), "°C");
    let (low, high) = station.flow_range;
    let flows = (low.in_litres_per_minute(), high.in_litres_per_minute());
    within("flow_lpm", ("flow", air.flow.in_litres_per_minute()), flows, "L/min");
    within("nozzle_mm", ("nozzle", air.nozzle.in_mm()), (2.0, 40.0), "mm");
    within("distance_mm", ("distance", air.distance.in_mm()), (3.0, 120.0), "mm");
    within("longest_s", ("longest heating", air.longest.in_seconds()), (20.0, 600.0), "s");
    if !station.nozzles.iter().any(|owned| (owned.in_mm() - air.nozzle.in_mm()).abs() < 0.05) {
        let owned: Vec<String> = station.nozzles.iter().map(|n| format!("{} mm", n.in_mm())).collect();
        found.push(
            Finding::warning(RULE, "nozzle_mm", format!("{} has no {} mm outlet", station.name, air.nozzle.in_mm()))
                .hint(format!("it owns {}", owned.join(", "))),
        );
    }
    if !station.is_measured() {
        found.push(
            Finding::warning(RULE, "station", format!("{} has not been measured: the bands are wide", station.name))
                .hint("time a bag of known volume for the flow, and hold a thermocouple in the jet"),
        );
    }
    found
}
