//! What the hot-air station says of itself while the air is on, beside what the plan has.

use mend_core::heat::display::Shows;
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::instrument::HotAirReading;
use mend_formats::bundle::Bundle;

use crate::App;
use crate::pages::instruments::socket;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::instrument_fault;

/// A knob that stands nearer than this to what the plan has is set as the plan has it: K, and of a flow.
const SAME_SET_K: f64 = 5.0;
const SAME_FLOW: f64 = 0.08;

/// What it says, in a line.
pub(super) struct Readout {
    pub(super) line: String,
    /// Is it set as the plan has it? Else that is said before all else.
    pub(super) as_planned: bool,
}

/// None where no station is read at the heat step, or it has not answered yet.
pub(super) async fn read(app: &App, bundle: &Bundle, visitor: Visitor) -> Result<Option<Readout>, Refusal> {
    let row = app.reading(|read| read.bench_instrument("readout")).await?;
    let reached = row.and_then(|row| Some((socket(&row.address).ok()?, row.name)));
    let Some((address, name)) = reached else { return Ok(None) };
    Ok(app.instruments.station(address, app.clocks()).map(|read| match read {
        Ok(read) => StationRead { name: &name, read: &read }.said(&bundle.station, bundle.recipe.air.as_ref(), visitor),
        Err(fault) => Readout { line: format!("{name}: {}", instrument_fault(&fault)), as_planned: false },
    }))
}

/// What a station said of itself.
struct StationRead<'a> {
    name: &'a str,
    read: &'a HotAirReading,
}

impl StationRead<'_> {
    fn said(&self, station: &Station, air: Option<&HotAir>, visitor: Visitor) -> Readout {
        let Self { name, read } = self;
        let words = visitor.words();
        let knob = |flow: f64| match station.display.shows() {
            Shows::Flow => format!("{flow:.0} L/min"),
            Shows::Percent => format!("{flow:.0} %"),
            Shows::Dial => format!("{flow:.1} on its dial"),
        };
        let knobs = |set_c: f64, flow: f64| format!("{}, {}", words.temperature(set_c), knob(flow));
        let shown = |air: &HotAir| station.display.value(air.flow).unwrap_or_else(|| air.flow.in_litres_per_minute());
        let wanted = air.map(|air| (air.set.in_celsius(), shown(air)));
        let off = |(set_c, flow): &(f64, f64)| {
            (read.set_c - set_c).abs() > SAME_SET_K || (read.shown_flow - flow).abs() > SAME_FLOW * flow.max(1.0)
        };
        match wanted.filter(off) {
            Some((set_c, flow)) => {
                let is = knobs(read.set_c, read.shown_flow);
                Readout {
                    line: format!("{name} is set to {is}: the plan has {}", knobs(set_c, flow)),
                    as_planned: false,
                }
            }
            None => Readout {
                line: format!("Set as planned, outlet {}", words.temperature(read.outlet_c)),
                as_planned: true,
            },
        }
    }
}

#[cfg(test)]
mod tests {
    use mend_core::example::Bench;
    use mend_core::heat::display::Display;
    use mend_core::units::{Flow, Scale};

    use super::*;

    #[test]
    fn a_station_that_is_set_otherwise_is_told_from_one_as_planned() {
        let bench = Bench::try_new().expect("the example");
        let air = bench.recipe.air.expect("hot air");
        let (set_c, flow) = (air.set.in_celsius(), air.flow.in_litres_per_minute());
        let of = |set_c: f64, shown_flow: f64| {
            let read = HotAirReading { outlet_c: set_c - 12.0, set_c, shown_flow };
            StationRead { name: "Gull", read: &read }
                .said(&bench.station, Some(&air), Visitor { scale: Scale::Celsius })
                .line
        };
        assert_eq!(of(set_c + 2.0, flow), format!("Set as planned, outlet {:.0} °C", set_c - 10.0));
        assert!(of(set_c - 40.0, flow).contains(": the plan has "), "{}", of(set_c - 40.0, flow));
        assert!(of(set_c, 0.7 * flow).contains("L/min: the plan has "));
    }

    #[test]
    fn a_dial_below_one_that_stands_as_planned_is_as_planned() {
        let bench = Bench::try_new().expect("the example");
        let air = bench.recipe.air.expect("hot air");
        let steps = vec![(0.0, Flow::litres_per_minute(0.0)), (0.8, air.flow)];
        let dial = Display::try_new(Shows::Dial, steps).expect("it climbs");
        let station = Station { display: dial, ..bench.station };
        let of = |shown_flow: f64| {
            let set_c = air.set.in_celsius();
            let read = HotAirReading { outlet_c: set_c, set_c, shown_flow };
            StationRead { name: "Gull", read: &read }.said(&station, Some(&air), Visitor { scale: Scale::Celsius })
        };
        assert!(of(0.8).as_planned);
        assert!(of(0.5).line.ends_with("0.8 on its dial"), "{}", of(0.5).line);
    }
}
