//! The ways to fit a new part compared, `urgent-mend/fits/1`: written only, as values with their kinds and units.

use mend_core::heat::recipe::Recipe;
use mend_core::planning::band::{Band, TimeBand};
use mend_core::planning::compare::Tightest;
use mend_core::planning::fit::{FitComparison, FitLane, FitObstacle, FitWay};
use serde::Serialize;

/// The format.
pub const FORMAT: &str = "urgent-mend/fits/1";

#[derive(Serialize)]
struct FitsFile<'a> {
    format: &'static str,
    recommended: Option<FitWay>,
    ways: Vec<WayFile<'a>>,
    ruled_out: Vec<RuledWayFile<'a>>,
}

#[derive(Serialize)]
struct WayFile<'a> {
    way: FitWay,
    chance: f64,
    liquid: TimeBand,
    solid_after_s: Option<Band>,
    tightest: Option<&'a Tightest>,
    settings: &'a Recipe,
}

#[derive(Serialize)]
struct RuledWayFile<'a> {
    way: FitWay,
    why: &'a FitObstacle,
}

fn way(lane: &FitLane) -> WayFile<'_> {
    WayFile {
        way: lane.way,
        chance: lane.plan.chance,
        liquid: lane.plan.release,
        solid_after_s: lane.plan.solid_after_s,
        tightest: lane.tightest.as_ref(),
        settings: &lane.recipe,
    }
}

/// The comparison as JSON.
pub fn write(found: &FitComparison) -> Result<String, serde_json::Error> {
    serde_json::to_string_pretty(&FitsFile {
        format: FORMAT,
        recommended: found.preferred.map(|k| found.lanes[k].way),
        ways: found.lanes.iter().map(way).collect(),
        ruled_out: found.ruled_out.iter().map(|(way, why)| RuledWayFile { way: *way, why }).collect(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_can_not_be_done_is_written_with_its_kind() {
        let ruled_out = vec![(FitWay::PinByPin, FitObstacle::HiddenFromTip { joints: 12 })];
        let found = FitComparison { lanes: vec![], ruled_out, preferred: None };
        let json: serde_json::Value = serde_json::from_str(&write(&found).expect("written")).expect("JSON");
        assert_eq!(json["ruled_out"][0]["way"], "pin-by-pin");
        assert_eq!(json["ruled_out"][0]["why"]["joints"], 12);
        assert_eq!((&json["format"], json["recommended"].is_null()), (&FORMAT.into(), true));
    }
}
