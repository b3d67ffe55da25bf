//! The process window: for every set temperature and flow of a station, does all melt before anything is hurt, when, and
//! what binds? One unit run per flow; the set temperatures are scaled from it.

use rayon::prelude::*;

use super::plan::Order;
use super::stop_line::{LAMINATE_MINUTE_C, LAMINATE_MINUTE_S, LAMINATE_NEVER_C};
use crate::finding::Finding;
use crate::heat::run::{Case, handling, jet};
use crate::heat::tool::HotAir;
use crate::heat::unit_run::{UnitRun, unit_run};
use crate::heat::unknowns::Unknowns;
use crate::solder::MeltTarget;
use crate::units::{Flow, Temperature};

/// Set temperatures and flows of the map: over a thousand candidates. A set temperature costs nothing, a flow is a run.
const SETS: usize = 41;
const FLOWS: usize = 25;
/// No joint melts below this set temperature, °C: the map begins there.
const COOLEST_SET_C: f64 = 200.0;

/// A setting and what comes of it, nominally.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Candidate {
    /// When the part comes away, s; none: not within the longest heating.
    pub release_s: Option<f64>,
    /// When the first limit is passed, s, and whose: its place in [`ProcessWindow::names`].
    pub harm: Option<(f64, usize)>,
    /// The joint that melts last: its place in the connector.
    pub last_joint: usize,
}

/// What comes of a candidate.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Outcome {
    /// All melts before anything is hurt.
    Works,
    /// Something is hurt first.
    Hurts,
    /// Not everything melts, and nothing is hurt.
    TooCool,
}

impl Candidate {
    /// What comes of it.
    pub fn outcome(&self) -> Outcome {
        match (self.release_s, self.harm) {
            (Some(release), Some((harm, _))) if harm <= release => Outcome::Hurts,
            (Some(_), _) => Outcome::Works,
            (None, Some(_)) => Outcome::Hurts,
            (None, None) => Outcome::TooCool,
        }
    }
}

/// The map.
#[derive(Debug, Clone, PartialEq)]
pub struct ProcessWindow {
    /// Set temperatures, rising.
    pub sets: Vec<Temperature>,
    /// Flows, rising.
    pub flows: Vec<Flow>,
    /// Candidates, flow by flow, in each by set temperature.
    pub candidates: Vec<Candidate>,
    /// What can be hurt, by place.
    pub names: Vec<String>,
}

impl ProcessWindow {
    /// The candidate at a flow and a set temperature, by place.
    pub fn at(&self, flow: usize, set: usize) -> &Candidate {
        &self.candidates[flow * self.sets.len() + set]
    }
}

/// Something with a limit.
struct Limit {
    name: String,
    /// Over the room, K.
    rise: f64,
    curve: fn(&UnitRun, usize) -> &[f32],
    place: usize,
    /// Stood for so many seconds before it counts.
    stands_s: usize,
}

/// Computes the map of an order's tool, face, distance and board; its own set temperature and flow do not matter.
pub fn process_window(order: &Order<'_>) -> Result<ProcessWindow, Vec<Finding>> {
    let Order { board, charge, station, air, room, .. } = *order;
    order.checked()?;
    let melting = charge.targets(board)?;
    let limits = limits(order);
    let even = |(low, high): (f64, f64), count: usize, k: usize| low + (high - low) * k as f64 / (count - 1) as f64;
    let (low, high) = (station.set_range.0.in_celsius().max(COOLEST_SET_C), station.set_range.1.in_celsius());
    let sets: Vec<Temperature> = (0..SETS).map(|k| Temperature::celsius(even((low, high), SETS, k))).collect();
    let range = (station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute());
    let flows: Vec<Flow> = (0..FLOWS).map(|k| Flow::litres_per_minute(even(range, FLOWS, k))).collect();
    let row = |flow: &Flow| -> Vec<Candidate> {
        let at = |set: Temperature| HotAir { set, flow: *flow, ..*air };
        // The unit is run in the middle: the jet's law bends a little with the air's temperature.
        let middle = at(sets[SETS / 2]);
        let case = Case { board, melting: &melting, station, air: &middle, room };
        let unit = unit_run(&case);
        let scaled = |set: &Temperature| {
            let air = at(*set);
            let jet = jet(&Case { air: &air, ..case }, &Unknowns::nominal(&board.stack));
            candidate(&unit, jet.outlet_excess / unit.outlet, (&melting, room, &limits))
        };
        sets.iter().map(scaled).collect()
    };
    let candidates = flows.par_iter().map(row).collect::<Vec<_>>().concat();
    Ok(ProcessWindow { candidates, sets, flows, names: limits.into_iter().map(|limit| limit.name).collect() })
}

fn limits(order: &Order<'_>) -> Vec<Limit> {
    let over = |celsius: f64| celsius - order.room.in_celsius();
    let connector = &order.board.connector;
    let mut limits: Vec<Limit> = Vec::new();
    for (place, n) in order.board.neighbours.iter().enumerate() {
        let (name, rise) = (n.name.clone(), over(n.limit().in_celsius()));
        limits.push(Limit { name, rise, curve: |run, k| &run.neighbours[k], place, stands_s: 0 });
    }
    if order.part_must_live {
        let rise = over(connector.material.limit().in_celsius());
        limits.push(Limit {
            name: "the part's body".to_owned(),
            rise,
            curve: |run, _| &run.body,
            place: 0,
            stands_s: 0,
        });
    }
    for (celsius, stands_s) in [(LAMINATE_NEVER_C, 0), (LAMINATE_MINUTE_C, LAMINATE_MINUTE_S)] {
        let (name, rise) = ("the laminate".to_owned(), over(celsius));
        limits.push(Limit { name, rise, curve: |run, _| &run.laminate, place: 0, stands_s });
    }
    limits
}

/// When a rising curve, scaled, first reaches a rise: between the seconds on a straight line.
fn reaches(curve: &[f32], scale: f64, rise: f64) -> Option<f64> {
    let wanted = (rise / scale) as f32;
    let at = curve.iter().position(|value| *value >= wanted)?;
    let Some(before) = at.checked_sub(1).map(|k| curve[k]) else { return Some(0.0) };
    Some(at as f64 - f64::from((curve[at] - wanted) / (curve[at] - before)))
}

fn candidate(unit: &UnitRun, scale: f64, (melting, room, limits): (&[MeltTarget], Temperature, &[Limit])) -> Candidate {
    let melts = unit.joints.iter().zip(melting);
    let melts = melts.map(|(curve, target)| reaches(curve, scale, (target.melted - room).in_kelvin()));
    let times: Vec<f64> = melts.map(|t| t.unwrap_or(f64::INFINITY)).collect();
    let last_joint = (0..times.len()).max_by(|a, b| times[*a].total_cmp(&times[*b])).unwrap_or(0);
    let molten = times.get(last_joint).copied().filter(|t| t.is_finite());
    let harm = |(k, limit): (usize, &Limit)| {
        let at = reaches((limit.curve)(unit, limit.place), scale, limit.rise)? + limit.stands_s as f64;
        (at < unit.laminate.len() as f64).then_some((at, k))
    };
    let harms = limits.iter().enumerate().filter_map(harm);
    let harm = harms.min_by(|a, b| a.0.total_cmp(&b.0));
    Candidate { release_s: molten.map(|t| t + handling(t)), harm, last_joint }
}
