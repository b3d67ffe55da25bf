//! Some air at work on a case's board: the jet of its station under what a run takes for true, and where it blows.

use super::blowing::Blowing;
use super::case::Case;
use super::jet::{Jet, JetLaw};
use super::parameters::ParameterSample;
use super::station::Station;
use super::tool::HotAir;
use crate::board::Rect;
use crate::units::{Flow, Length, Temperature};

/// The jet of some air at a case's station under some parameters.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{at_work::jet, parameters::ParameterSample};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, air) = (bench.order(), bench.recipe.air.expect("hot air"));
/// let leaves = jet(&order.case(&melting), &air, &ParameterSample::nominal());
/// assert!(leaves.exit_excess > 100.0 && leaves.exit_excess < 420.0, "cooler than what is set, by what the nozzle loses");
/// ```
pub fn jet(case: &Case<'_>, air: &HotAir, parameters: &ParameterSample) -> Jet {
    jet_of(case.station, case.ambient, air, parameters)
}

/// The same of a station in a room, whatever it blows at.
pub(crate) fn jet_of(station: &Station, ambient: Temperature, air: &HotAir, parameters: &ParameterSample) -> Jet {
    let flow = Flow::litres_per_minute(air.flow.in_litres_per_minute() * parameters.flow);
    let distance = Length::mm(air.distance.in_mm() * parameters.distance);
    let law = station.law(parameters.jet);
    let back_pressure = law.back_pressure * parameters.back_pressure;
    let law = JetLaw { back_pressure, exit_shift: parameters.outlet_k, ..law };
    Jet::new(&HotAir { flow, distance, ..*air }, &law, ambient)
}

/// Some air of a station on a part with this body, nominally and in a usual room: to be drawn.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::at_work::usual_blowing;
/// let air = bench.recipe.air.expect("hot air");
/// let blowing = usual_blowing(&bench.station, &air, &bench.board.connector.body);
/// assert_eq!(blowing.face, air.face);
/// ```
pub fn usual_blowing(station: &Station, air: &HotAir, body: &Rect) -> Blowing {
    const USUAL_AMBIENT: Temperature = Temperature::celsius(23.0);
    let jet = Jet::new(air, &station.law(1.0), USUAL_AMBIENT);
    Blowing { jet, face: air.face, path: air.path(body), tilt: air.tilt }
}

/// Some air at work on a case's board.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::{at_work::blowing, parameters::ParameterSample};
/// let melting = bench.composition.targets(&bench.board).expect("computed");
/// let (order, air) = (bench.order(), bench.recipe.air.expect("hot air"));
/// let at_work = blowing(&order.case(&melting), &air, &ParameterSample::nominal());
/// assert!(at_work.nearest(bench.board.connector.body.centre) < 1.0, "held still over the middle of the part, mm");
/// ```
pub fn blowing(case: &Case<'_>, air: &HotAir, parameters: &ParameterSample) -> Blowing {
    let [x, y] = air.aim;
    let aimed = HotAir { aim: [x + parameters.aim_mm[0], y + parameters.aim_mm[1]], ..*air };
    let path = aimed.path(&case.board.connector.body);
    Blowing { jet: jet(case, air, parameters), face: air.face, path, tilt: air.tilt }
}
