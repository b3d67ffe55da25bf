//! Can these settings be computed, and does this station give them?

use crate::board::Board;
use crate::finding::Finding;
use crate::finding::problem::{SettingsProblem, ValueProblem};
use crate::heat::iron::Iron;
use crate::heat::known::{Knowledge, Teachable};
use crate::heat::recipe::{HeatingAids, Recipe};
use crate::heat::shield::ShieldKind;
use crate::heat::station::Station;
use crate::heat::tool::HotAir;
use crate::units::Unit;

const RULE: &str = "settings";
/// More than anybody lays or does.
const MOST_SHIELDS: usize = 40;
const MOST_STAGES: usize = 12;

/// A value that was entered, and what the station takes.
struct StationValue {
    value: f64,
    unit: Unit,
    range: (f64, f64),
}

/// Collects values out of range.
#[derive(Default)]
struct Ranges {
    found: Vec<Finding>,
}

/// A field, and what is found of it.
struct RangeAt<'a> {
    found: &'a mut Vec<Finding>,
    place: &'a str,
}

impl RangeAt<'_> {
    fn within(self, value: f64, unit: Unit, range: (f64, f64)) {
        let outside = ValueProblem::outside(value, range, unit);
        self.found.extend(outside.map(|problem| Finding::blocking(RULE, self.place, problem)));
    }
}

impl Ranges {
    const fn at<'a>(&'a mut self, place: &'a str) -> RangeAt<'a> {
        RangeAt { found: &mut self.found, place }
    }

    /// The same, where the range is that station's own.
    fn of_station(&mut self, station: &Station, place: &str, entered: StationValue) {
        let StationValue { value, unit, range: (low, high) } = entered;
        if !(low..=high).contains(&value) {
            let problem = ValueProblem::OutOfRange { value, low, high, unit, owner: Some(station.name.clone()) };
            self.found.push(Finding::blocking(RULE, place, problem));
        }
    }
}

/// What a board is at before the first tool, °C: from a cold shop to what a pass before may leave.
const WARM_C: (f64, f64) = (-10.0, 180.0);

/// All objections to a recipe. A blocking one means that there is nothing to compute.
pub(crate) fn check(recipe: &Recipe, station: &Station, known: &Knowledge, board: &Board) -> Vec<Finding> {
    let mut ranges = Ranges::default();
    recipe.air.iter().for_each(|air| check_air(air, station, "", &mut ranges));
    ranges.at("longest_s").within(recipe.longest.in_seconds(), Unit::Seconds, (20.0, 600.0));
    if let Some(begins) = recipe.begins_at {
        ranges.at("begins_at_c").within(begins.in_celsius(), Unit::Celsius, WARM_C);
    }
    for (k, stage) in recipe.preheat.iter().enumerate() {
        let place = format!("preheat[{k}].");
        ranges.at(&format!("{place}lasts_s")).within(stage.lasts.in_seconds(), Unit::Seconds, (1.0, 600.0));
        ranges.at(&format!("{place}change_s")).within(stage.change.in_seconds(), Unit::Seconds, (0.0, 120.0));
        if let Some(air) = &stage.air {
            check_air(air, station, &place, &mut ranges);
        }
        check_helpers(&stage.during, board, &place, &mut ranges);
    }
    check_helpers(&recipe.during, board, "", &mut ranges);
    check_shields(recipe, &mut ranges);
    check_bridge(recipe, &mut ranges);
    let mut found = ranges.found;
    if recipe.air.is_none() && recipe.during.is_none() {
        found.push(Finding::blocking(RULE, "settings", SettingsProblem::NothingHot));
    }
    if recipe.preheat.len() > MOST_STAGES {
        let problem = SettingsProblem::TooManyStages { count: recipe.preheat.len(), most: MOST_STAGES };
        found.push(Finding::blocking(RULE, "preheat", problem));
    }
    if !station.is_measured() && !known.teaches(Teachable::Jet) {
        let problem = SettingsProblem::NotMeasured { station: station.name.clone() };
        found.push(Finding::warning(RULE, "station", problem));
    }
    found
}

fn check_air(air: &HotAir, station: &Station, place: &str, ranges: &mut Ranges) {
    check_way(air, place, ranges);
    let at = |field: &str| format!("{place}{field}");
    let (low, high) = station.set_range;
    let (value, range) = (air.set.in_celsius(), (low.in_celsius(), high.in_celsius()));
    ranges.of_station(station, &at("set_c"), StationValue { value, unit: Unit::Celsius, range });
    let (low, high) = station.flow_range;
    let (value, range) = (air.flow.in_litres_per_minute(), (low.in_litres_per_minute(), high.in_litres_per_minute()));
    ranges.of_station(station, &at("flow_lpm"), StationValue { value, unit: Unit::LitresPerMinute, range });
    ranges.at(&at("nozzle_mm")).within(air.nozzle.in_mm(), Unit::Millimetres, (2.0, 40.0));
    ranges.at(&at("distance_mm")).within(air.distance.in_mm(), Unit::Millimetres, (3.0, 120.0));
    for aim in air.aim {
        ranges.at(&at("aim_mm")).within(aim, Unit::Millimetres, (-100.0, 100.0));
    }
    if !station.nozzles.iter().any(|owned| (owned.in_mm() - air.nozzle.in_mm()).abs() < 0.05) {
        let owned_mm = station.nozzles.iter().map(|n| n.in_mm()).collect();
        let (station, nozzle_mm) = (station.name.clone(), air.nozzle.in_mm());
        let problem = SettingsProblem::NoSuchNozzle { station, nozzle_mm, owned_mm };
        ranges.found.push(Finding::warning(RULE, at("nozzle_mm"), problem));
    }
}

/// A nozzle that comes near, or leans.
fn check_way(air: &HotAir, place: &str, ranges: &mut Ranges) {
    let at = |field: &str| format!("{place}{field}");
    if let Some(approach) = &air.approach {
        ranges.at(&at("approach.from_mm")).within(approach.from.in_mm(), Unit::Millimetres, (3.0, 200.0));
        ranges.at(&at("approach.over_s")).within(approach.over.in_seconds(), Unit::Seconds, (1.0, 300.0));
    }
    if let Some(tilt) = &air.tilt {
        ranges.at(&at("tilt.lean_deg")).within(tilt.lean_deg, Unit::Degrees, (0.0, 60.0));
        ranges.at(&at("tilt.towards_deg")).within(tilt.towards_deg, Unit::Degrees, (-360.0, 360.0));
    }
}

fn check_helpers(during: &HeatingAids, board: &Board, place: &str, ranges: &mut Ranges) {
    let at = |field: &str| format!("{place}{field}");
    if let Some(preheater) = &during.preheater {
        ranges.at(&at("preheater.set_c")).within(preheater.set.in_celsius(), Unit::Celsius, (30.0, 350.0));
        ranges.at(&at("preheater.side_mm")).within(preheater.side.in_mm(), Unit::Millimetres, (10.0, 400.0));
    }
    for (iron, name) in
        during.iron.iter().map(|iron| (iron, "iron")).chain(during.second_iron.iter().map(|iron| (iron, "second_iron")))
    {
        check_iron(iron, board, &at(name), ranges);
    }
}

fn check_iron(iron: &Iron, board: &Board, place: &str, ranges: &mut Ranges) {
    let at = |field: &str| format!("{place}.{field}");
    ranges.at(&at("set_c")).within(iron.set.in_celsius(), Unit::Celsius, (150.0, 480.0));
    ranges.at(&at("tip_mm")).within(iron.tip.in_mm(), Unit::Millimetres, (0.2, 12.0));
    ranges.at(&at("dwell_s")).within(iron.dwell.in_seconds(), Unit::Seconds, (1.0, 30.0));
    if let Some((joint, pitch_mm)) = iron.one_joint(board).zip(iron.too_wide_for(board)) {
        let problem = SettingsProblem::TipTooWide { joint: joint.name.clone(), tip_mm: iron.tip.in_mm(), pitch_mm };
        ranges.found.push(Finding::warning(RULE, at("tip_mm"), problem));
    }
    if !board.connector.joints.iter().any(|joint| iron.is_on(joint)) {
        let problem = ValueProblem::NoSuchRow { row: iron.row.clone() };
        ranges.found.push(Finding::blocking(RULE, at("row"), problem));
    }
}

fn check_bridge(recipe: &Recipe, ranges: &mut Ranges) {
    let Some(bridge) = &recipe.bridge else { return };
    ranges.at("bridge.wire_mm").within(bridge.wire_mm, Unit::Millimetres, (0.0, 2.0));
    ranges.at("bridge.bead_mm2").within(bridge.bead_mm2, Unit::SquareMillimetres, (0.1, 12.0));
}

fn check_shields(recipe: &Recipe, ranges: &mut Ranges) {
    if recipe.shields.len() > MOST_SHIELDS {
        let problem = SettingsProblem::TooManyShields { count: recipe.shields.len(), most: MOST_SHIELDS };
        ranges.found.push(Finding::blocking(RULE, "shields", problem));
    }
    for (k, shield) in recipe.shields.iter().enumerate() {
        let at = |field: &str| format!("shields[{k}].{field}");
        ranges.at(&at("width_mm")).within(shield.width_mm, Unit::Millimetres, (1.0, 300.0));
        ranges.at(&at("depth_mm")).within(shield.depth_mm, Unit::Millimetres, (1.0, 300.0));
        for place in shield.at_mm {
            ranges.at(&at("at_mm")).within(place, Unit::Millimetres, (-600.0, 600.0));
        }
        match shield.kind {
            ShieldKind::Polyimide { layers } => {
                ranges.at(&at("layers")).within(f64::from(layers), Unit::Layers, (1.0, 6.0));
            }
            ShieldKind::FoilTent { gap_mm } => ranges.at(&at("gap_mm")).within(gap_mm, Unit::Millimetres, (0.5, 10.0)),
            ShieldKind::MetalBlock { height_mm } => {
                ranges.at(&at("height_mm")).within(height_mm, Unit::Millimetres, (1.0, 30.0));
            }
            ShieldKind::AluminiumTape | ShieldKind::HolderJaw | ShieldKind::Finger => {}
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::Face;
    use crate::example::Bench;
    use crate::finding::problem::Problem;
    use crate::heat::bridge::Bridge;
    use crate::heat::shield::Shield;
    use crate::method::usual;
    use crate::units::{Duration, Flow, Length, Temperature};

    /// Places of everything that blocks after a change.
    fn blocked(change: impl FnOnce(&mut Bench)) -> Vec<String> {
        let mut bench = Bench::try_new().expect("the example");
        change(&mut bench);
        let found = check(&bench.recipe, &bench.station, &Knowledge::NOTHING, &bench.board);
        let blocking = found.into_iter().filter(|f| f.severity == crate::finding::Severity::Blocking);
        blocking.map(|f| f.place).collect()
    }

    fn air(change: impl FnOnce(&mut HotAir)) -> impl FnOnce(&mut Bench) {
        move |bench| change(bench.recipe.air.as_mut().expect("hot air"))
    }

    #[test]
    fn every_setting_out_of_range_is_named_by_its_field() {
        assert!(blocked(|_| {}).is_empty());
        assert_eq!(blocked(air(|a| a.set = Temperature::celsius(900.0))), ["set_c"]);
        assert_eq!(blocked(air(|a| a.flow = Flow::litres_per_minute(f64::NAN))), ["flow_lpm"]);
        assert_eq!(blocked(air(|a| a.distance = Length::mm(0.0))), ["distance_mm"]);
        assert_eq!(blocked(air(|a| a.aim = [500.0, 0.0])), ["aim_mm"]);
        assert_eq!(blocked(|b| b.recipe.longest = Duration::seconds(1e9)), ["longest_s"]);
        assert_eq!(blocked(|b| b.recipe.air = None), ["settings"]);
        assert_eq!(blocked(|b| b.recipe.begins_at = Some(Temperature::celsius(300.0))), ["begins_at_c"]);
        let wire = Bridge { wire_mm: 9.0, bead_mm2: 2.0 };
        assert_eq!(blocked(|b| b.recipe.bridge = Some(wire)), ["bridge.wire_mm"]);
    }

    #[test]
    fn stages_helpers_and_shields_are_named_by_their_place_in_the_recipe() {
        let late = |bench: &mut Bench| {
            let stage = usual::warm(HeatingAids::default());
            bench.recipe.preheat =
                vec![stage.clone(), crate::heat::recipe::HeatingStage { lasts: Duration::seconds(0.0), ..stage }];
        };
        assert_eq!(blocked(late), ["preheat[1].lasts_s"]);
        let iron = |bench: &mut Bench| {
            let iron = crate::heat::iron::Iron { row: "attic".to_owned(), ..usual::iron(&bench.board) };
            bench.recipe.during.iron = Some(iron);
        };
        assert_eq!(blocked(iron), ["iron.row"]);
        let tape = Shield {
            kind: ShieldKind::Polyimide { layers: 9 },
            face: Face::Top,
            at_mm: [30.0, 16.0],
            width_mm: 0.0,
            depth_mm: 4.0,
        };
        assert_eq!(blocked(|b| b.recipe.shields = vec![tape]), ["shields[0].width_mm", "shields[0].layers"]);
        assert_eq!(
            blocked(|b| b.recipe.shields = vec![Shield { width_mm: 4.0, kind: ShieldKind::AluminiumTape, ..tape }; 41]),
            ["shields"]
        );
    }

    #[test]
    fn a_range_of_the_stations_own_names_it_and_a_nozzle_that_it_lacks_only_warns() {
        let mut bench = Bench::try_new().expect("the example");
        let air = bench.recipe.air.as_mut().expect("hot air");
        (air.set, air.nozzle) = (Temperature::celsius(900.0), Length::mm(15.0));
        let found = check(&bench.recipe, &bench.station, &Knowledge::NOTHING, &bench.board);
        let own = found.iter().any(|f| {
            matches!(&f.problem, Problem::Value(ValueProblem::OutOfRange { owner: Some(owner), .. }) if *owner == bench.station.name)
        });
        assert!(own, "{found:?}");
        let missing = |f: &Finding| matches!(&f.problem, Problem::Settings(SettingsProblem::NoSuchNozzle { owned_mm, .. }) if owned_mm.len() == 2);
        assert!(found.iter().any(missing), "{found:?}");
    }
}
