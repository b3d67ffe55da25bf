//! The probe: a warm-up that harms nothing and measures station and board. Air far below any melting point for a minute, then a
//! minute without, and a thermocouple beside the port all the while (heating.md, section 6).

use super::observation::Observation;
use super::reading_fault::APART_S;
use crate::board::{Board, Face, Point};
use crate::heat::motion::Motion;
use crate::heat::recipe::{HeatingAids, HeatingStage, Held, Recipe};
use crate::heat::station::Station;
use crate::heat::thermocouple::Thermocouple;
use crate::heat::tool::HotAir;
use crate::units::{Duration, Length, Temperature};

/// Set temperature, °C: no plastic, cell or joint of any kind minds it for a minute.
pub const SET: Temperature = Temperature::celsius(150.0);
/// Air on, and off again, s.
pub const ON_S: f64 = 60.0;
/// Nozzle to board, mm.
const DISTANCE_MM: f64 = 25.0;
/// Where the thermocouple is taped: across the board from the middle of the part, and inboard, mm.
const TAPED_MM: [f64; 2] = [12.0, 6.0];

/// The probe with the bare nozzle and full flow, from the face that the part does not stand on.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::calibration::probe;
/// let recipe = probe::recipe(&bench.station, &bench.board);
/// assert!(recipe.air.is_none() && recipe.preheat.len() == 1, "air on, then off");
/// ```
pub fn recipe(station: &Station, board: &Board) -> Recipe {
    let face = match board.connector.face {
        Face::Top => Face::Bottom,
        Face::Bottom => Face::Top,
    };
    let set = Temperature::celsius(SET.in_celsius().max(station.set_range.0.in_celsius()));
    let (flow, nozzle, distance) = (station.flow_range.1, station.widest_nozzle(), Length::mm(DISTANCE_MM));
    let air = HotAir {
        set,
        flow,
        nozzle,
        distance,
        face,
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    };
    let during = HeatingAids::default();
    let (lasts, change) = (Duration::seconds(ON_S), Duration::seconds(0.0));
    Recipe {
        air: None,
        longest: Duration::seconds(ON_S),
        preheat: vec![HeatingStage { air: Some(air), during: during.clone(), lasts, change }],
        during,
        shields: Vec::new(),
        bridge: None,
        held: Held::Stand,
        begins_at: None,
        levered: false,
    }
}

/// Where the thermocouple is taped unless somebody says otherwise: on the part's face, inboard of it, and on the board.
pub fn place(board: &Board) -> Thermocouple {
    let (middle, bounds) = (board.connector.body.centre, board.outline.bounds());
    let inboard = |from: f64, centre: f64, by: f64| if from <= centre { from + by } else { from - by };
    let (x, y) = (bounds.centre.x, bounds.centre.y);
    let [across, inwards] = TAPED_MM;
    let at = Point { x: inboard(middle.x, x, across), y: inboard(middle.y, y, inwards) };
    let inset = |value: f64, low: f64, high: f64| value.clamp(low.min(high) + 1.0, (high - 1.0).max(low + 1.0));
    let at = Point { x: inset(at.x, bounds.left(), bounds.right()), y: inset(at.y, bounds.near(), bounds.far()) };
    Thermocouple { at, face: board.connector.face, on: None }
}

/// Readings as observations: thinned, those before the air left out. Seconds count from the moment at which the air came on; the
/// bead lies within so many mm of where it is said to.
pub fn observations(readings: &[[f64; 2]], within_mm: f64) -> Vec<Observation> {
    let mut kept: Vec<Observation> = Vec::new();
    let mut last = f64::NEG_INFINITY;
    for &[at_s, celsius] in readings {
        if at_s >= last + APART_S && (APART_S..=2.0 * ON_S).contains(&at_s) {
            kept.push(Observation::Reading { thermocouple: 0, at_s, celsius, within_mm });
            last = at_s;
        }
    }
    kept
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    #[test]
    fn the_bead_is_on_the_board_wherever_the_port_is() {
        let mut bench = Bench::try_new().expect("the example");
        for (x, y) in [(30.0, 6.0), (3.0, 36.0), (57.0, 38.0)] {
            bench.board.connector.body.centre = Point { x, y };
            let taped = place(&bench.board);
            let bounds = bench.board.outline.bounds();
            assert!(taped.at.x > bounds.left() && taped.at.x < bounds.right(), "{taped:?}");
            assert!(taped.at.y > bounds.near() && taped.at.y < bounds.far(), "{taped:?}");
        }
    }

    #[test]
    fn readings_of_every_second_count_one_in_five() {
        let every: Vec<[f64; 2]> = (0..200).map(|k| [f64::from(k), 25.0]).collect();
        assert_eq!(observations(&every, 1.0).len(), 24, "from 5 to 120 s");
    }
}
