//! The process window: for every set temperature and flow of a station, does all melt before anything is damaged, when, and
//! what binds? One unit run per flow; the set temperatures are scaled from it.

use rayon::prelude::*;

use super::damaged::Damaged;
use super::limits::limits;
use super::order::{Order, Unplanned};
use super::scaled::Scaled;
use super::window_point::WindowPoint;
use crate::finding::Finding;
use crate::finding::problem::SettingsProblem;
use crate::heat::at_work::jet;
use crate::heat::case::Case;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::Recipe;
use crate::heat::tool::HotAir;
use crate::heat::unit_run::unit_run;
use crate::solder::MeltTarget;
use crate::units::{Flow, Temperature};

/// Set temperatures and flows of the map: over a thousand candidates. A set temperature costs nothing, a flow is a run.
const SETS: usize = 41;
const FLOWS: usize = 25;
/// No joint melts below this set temperature, °C: the map begins there.
pub(super) const COOLEST_SET_C: f64 = 200.0;

/// The map.
#[derive(Debug, Clone, PartialEq)]
pub struct ProcessWindow {
    /// Set temperatures, rising.
    pub sets: Vec<Temperature>,
    /// Flows, rising.
    pub flows: Vec<Flow>,
    /// Candidates, flow by flow, in each by set temperature.
    pub candidates: Vec<WindowPoint>,
    /// What can be damaged, by place.
    pub damaged: Vec<Damaged>,
}

impl ProcessWindow {
    /// The candidate at a flow and a set temperature, by place.
    pub fn at(&self, flow: usize, set: usize) -> &WindowPoint {
        &self.candidates[flow * self.sets.len() + set]
    }
}

/// Computes the map of an order's tools, face, distance, shields and board; its own set temperature and flow do not matter.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::process_window::process_window;
/// let window = process_window(&bench.order()).expect("air blows");
/// assert_eq!(window.candidates.len(), window.sets.len() * window.flows.len());
/// let coolest = window.at(0, 0);
/// assert!(coolest.release_s.is_none(), "200 °C at the weakest flow melts nothing");
/// ```
pub fn process_window(order: &Order<'_>) -> Result<ProcessWindow, Unplanned> {
    order.checked()?;
    if order.recipe.air.is_none() {
        return Err(vec![Finding::blocking("process_window", "settings", SettingsProblem::NoAir)].into());
    }
    let melting = order.composition.targets(order.board)?;
    let even = |(low, high): (f64, f64), count: usize, k: usize| low + (high - low) * k as f64 / (count - 1) as f64;
    let set_range = order.station.set_range;
    let set_range = (set_range.0.in_celsius().max(COOLEST_SET_C), set_range.1.in_celsius());
    let sets: Vec<Temperature> = (0..SETS).map(|k| Temperature::celsius(even(set_range, SETS, k))).collect();
    let flow_range = order.station.flow_range;
    let flow_range = (flow_range.0.in_litres_per_minute(), flow_range.1.in_litres_per_minute());
    let flows: Vec<Flow> = (0..FLOWS).map(|k| Flow::litres_per_minute(even(flow_range, FLOWS, k))).collect();
    order.watch.expect(FLOWS);
    let row = |flow: &Flow| {
        let row = row(order, &melting, *flow, &sets);
        order.watch.one_done();
        row
    };
    let rows: Vec<Vec<PointAndDamaged>> = flows.par_iter().map(row).collect();
    order.watch.wanted()?;
    let mut all: Vec<Damaged> = Vec::new();
    let mut placed = |(candidate, damaged): PointAndDamaged| {
        let place = damaged.map(|damaged| {
            all.iter().position(|known| *known == damaged).unwrap_or_else(|| {
                all.push(damaged);
                all.len() - 1
            })
        });
        WindowPoint { damage: candidate.damage.zip(place).map(|((at, _), place)| (at, place)), ..candidate }
    };
    let candidates = rows.into_iter().flatten().map(&mut placed).collect();
    Ok(ProcessWindow { candidates, sets, flows, damaged: all })
}

/// A candidate, and what it damages first.
type PointAndDamaged = (WindowPoint, Option<Damaged>);

/// All set temperatures at one flow.
fn row(order: &Order<'_>, melting: &[MeltTarget], flow: Flow, sets: &[Temperature]) -> Vec<PointAndDamaged> {
    let Some(air) = order.recipe.air else { return Vec::new() };
    let at = |set: Temperature| Recipe { air: Some(HotAir { set, flow, ..air }), ..order.recipe.clone() };
    let middle = at(sets[sets.len() / 2]);
    let case = Case { recipe: &middle, ..order.case(melting) };
    let limits = limits(&Order { recipe: &middle, ..*order }, &case);
    let unit = unit_run(&case);
    let parameters = ParameterSample::middle(&case);
    let lets_go = parameters.lets_go(melting);
    let scaled = |set: &Temperature| {
        let jet = jet(&case, &HotAir { set: *set, flow, ..air }, &parameters);
        let scaled = Scaled { unit: &unit, scale: jet.exit_excess / unit.exit_excess, ambient: order.ambient };
        let candidate = scaled.candidate(&lets_go, &limits);
        (candidate, candidate.damage.map(|(_, k)| limits[k].of.clone()))
    };
    sets.iter().map(scaled).collect()
}
