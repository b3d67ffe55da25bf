//! The process window: for every set temperature and flow of a station, does all melt before anything is hurt, when, and
//! what binds? One unit run per flow; the set temperatures are scaled from it.

use rayon::prelude::*;

use super::limits::limits;
use super::plan::{Order, Unplanned};
use super::scaled::Scaled;
use crate::finding::Finding;
use crate::heat::recipe::Recipe;
use crate::heat::rig::jet;
use crate::heat::run::Case;
use crate::heat::tool::HotAir;
use crate::heat::unit_run::unit_run;
use crate::heat::unknowns::Unknowns;
use crate::solder::MeltTarget;
use crate::units::{Flow, Temperature};

/// Set temperatures and flows of the map: over a thousand candidates. A set temperature costs nothing, a flow is a run.
const SETS: usize = 41;
const FLOWS: usize = 25;
/// No joint melts below this set temperature, °C: the map begins there.
pub(super) const COOLEST_SET_C: f64 = 200.0;

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

impl Outcome {
    /// By when the part comes away and when the first limit is passed, both counted from the same moment.
    pub fn of(release: Option<f64>, harm: Option<f64>) -> Self {
        match (release, harm) {
            (Some(release), Some(harm)) if harm <= release => Self::Hurts,
            (Some(_), _) => Self::Works,
            (None, Some(_)) => Self::Hurts,
            (None, None) => Self::TooCool,
        }
    }
}

impl Candidate {
    /// What comes of it.
    pub fn outcome(&self) -> Outcome {
        Outcome::of(self.release_s, self.harm.map(|(at, _)| at))
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

/// Computes the map of an order's tools, face, distance, shields and board; its own set temperature and flow do not matter.
pub fn process_window(order: &Order<'_>) -> Result<ProcessWindow, Unplanned> {
    order.checked()?;
    if order.recipe.air.is_none() {
        let object = Finding::blocking("process_window", "settings", "no air blows in the last pass");
        return Err(vec![object.hint("a window of air settings needs air")].into());
    }
    let melting = order.charge.targets(order.board)?;
    let even = |(low, high): (f64, f64), count: usize, k: usize| low + (high - low) * k as f64 / (count - 1) as f64;
    let set_range = order.station.set_range;
    let set_range = (set_range.0.in_celsius().max(COOLEST_SET_C), set_range.1.in_celsius());
    let sets: Vec<Temperature> = (0..SETS).map(|k| Temperature::celsius(even(set_range, SETS, k))).collect();
    let flow_range = order.station.flow_range;
    let flow_range = (flow_range.0.in_litres_per_minute(), flow_range.1.in_litres_per_minute());
    let flows: Vec<Flow> = (0..FLOWS).map(|k| Flow::litres_per_minute(even(flow_range, FLOWS, k))).collect();
    order.watch.expect(FLOWS);
    let row = |flow: &Flow| {
        let row = row(order, &melting, (*flow, &sets));
        order.watch.one_done();
        row
    };
    let rows: Vec<Vec<(Candidate, Option<String>)>> = flows.par_iter().map(row).collect();
    order.watch.wanted()?;
    let mut names: Vec<String> = Vec::new();
    let mut named = |(candidate, name): (Candidate, Option<String>)| {
        let place = name.map(|name| {
            names.iter().position(|n| *n == name).unwrap_or_else(|| {
                names.push(name);
                names.len() - 1
            })
        });
        Candidate { harm: candidate.harm.zip(place).map(|((at, _), place)| (at, place)), ..candidate }
    };
    let candidates = rows.into_iter().flatten().map(&mut named).collect();
    Ok(ProcessWindow { candidates, sets, flows, names })
}

/// All set temperatures at one flow, each with the name of what it hurts.
fn row(
    order: &Order<'_>,
    melting: &[MeltTarget],
    (flow, sets): (Flow, &[Temperature]),
) -> Vec<(Candidate, Option<String>)> {
    let Some(air) = order.recipe.air else { return Vec::new() };
    let at = |set: Temperature| Recipe { air: Some(HotAir { set, flow, ..air }), ..order.recipe.clone() };
    let middle = at(sets[sets.len() / 2]);
    let case = Case { recipe: &middle, ..order.case(melting) };
    let limits = limits(&Order { recipe: &middle, ..*order }, &case);
    let unit = unit_run(&case);
    let unknowns = Unknowns::nominal(&order.board.stack);
    let scaled = |set: &Temperature| {
        let jet = jet(&case, &HotAir { set: *set, flow, ..air }, &unknowns);
        let scaled = Scaled { unit: &unit, scale: jet.outlet_excess / unit.outlet, room: order.room };
        let candidate = scaled.candidate(melting, &limits);
        (candidate, candidate.harm.map(|(_, k)| limits[k].name.clone()))
    };
    sets.iter().map(scaled).collect()
}
