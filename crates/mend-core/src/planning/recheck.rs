//! The fine recheck of a process window: its edges and its best setting, run in full on the plan's own grid.

use rayon::prelude::*;

use super::limits::{first_damage_of, limits};
use super::order::{Order, Unplanned};
use super::process_window::ProcessWindow;
use super::window_point::WindowCell;
use crate::heat::case::Case;
use crate::heat::mesh::Resolution;
use crate::heat::parameters::ParameterSample;
use crate::heat::recipe::Recipe;
use crate::heat::run::{Run, run_until};
use crate::heat::tool::HotAir;

/// A setting that was run in full.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Recheck {
    /// Place of its flow and of its set temperature.
    pub at: (usize, usize),
    /// What comes of it on the fine grid.
    pub outcome: WindowCell,
    /// When the part comes away there, s of the last pass.
    pub release_s: Option<f64>,
}

/// Runs the corners of the window again: the coolest and the hottest setting that works at its weakest, middle and strongest
/// flow, and the one with most time between release and damage. None where nothing works.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::{process_window::process_window, recheck::recheck};
/// let (order, window) = (bench.order(), process_window(&bench.order()).expect("air blows"));
/// let edges = recheck(&order, &window).expect("nobody cancels");
/// assert!(edges.len() <= 7, "two at each of three flows, and the roomiest");
/// ```
pub fn recheck(order: &Order<'_>, map: &ProcessWindow) -> Result<Vec<Recheck>, Unplanned> {
    let melting = order.composition.targets(order.board)?;
    let chosen = chosen(map);
    order.watch.expect(chosen.len());
    let again = |at: &(usize, usize)| {
        let air = order.recipe.air.map(|air| HotAir { flow: map.flows[at.0], set: map.sets[at.1], ..air });
        let recipe = Recipe { air, ..order.recipe.clone() };
        let case = Case { recipe: &recipe, ..order.case(&melting) };
        let limits = limits(&Order { recipe: &recipe, ..*order }, &case);
        let damaged = |run: &Run| first_damage_of(&limits, run);
        let nominal = ParameterSample::middle(&case);
        let run = run_until(&case, &nominal, Resolution::FINE, &|run| damaged(run).is_some());
        order.watch.one_done();
        let outcome = WindowCell::from_times(run.release, damaged(&run).map(|damage| damage.at_s));
        Recheck { at: *at, outcome, release_s: run.release.map(|t| (t - run.last_from).max(0.0)) }
    };
    let rechecked = chosen.par_iter().map(again).collect();
    order.watch.wanted()?;
    Ok(rechecked)
}

fn chosen(map: &ProcessWindow) -> Vec<(usize, usize)> {
    let works = |flow: usize| {
        let works = move |set: &usize| map.at(flow, *set).outcome() == WindowCell::Works;
        (0..map.sets.len()).filter(works).collect::<Vec<usize>>()
    };
    let open: Vec<usize> = (0..map.flows.len()).filter(|flow| !works(*flow).is_empty()).collect();
    let (Some(first), Some(last)) = (open.first(), open.last()) else { return Vec::new() };
    let mut chosen: Vec<(usize, usize)> = Vec::new();
    for flow in [*first, open[open.len() / 2], *last] {
        let sets = works(flow);
        chosen.extend([sets.first(), sets.last()].into_iter().flatten().map(|set| (flow, *set)));
    }
    let slack = |(flow, set): &(usize, usize)| {
        let candidate = map.at(*flow, *set);
        candidate.damage.map_or(1e3, |(at, _)| at) - candidate.release_s.unwrap_or(f64::INFINITY)
    };
    let all = open.iter().flat_map(|flow| works(*flow).into_iter().map(|set| (*flow, set)));
    chosen.extend(all.max_by(|a, b| slack(a).total_cmp(&slack(b))));
    chosen.sort_unstable();
    chosen.dedup();
    chosen
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::planning::damaged::Damaged;
    use crate::planning::window_point::WindowPoint;
    use crate::units::{Flow, Temperature};

    /// Five flows of six sets; at each flow from the first on one set more works, beginning with the second.
    fn window(flows_that_work: usize) -> ProcessWindow {
        let point = |k: usize| {
            let (flow, set) = (k / 6, k % 6);
            let works = flow < flows_that_work && (1..=1 + flow).contains(&set);
            WindowPoint {
                release_s: (set > 0).then_some(100.0 - 10.0 * set as f64),
                damage: (!works && set > 0).then_some((5.0, 0)),
                last_joint: 0,
            }
        };
        ProcessWindow {
            sets: (0..6).map(|k| Temperature::celsius(300.0 + f64::from(k) * 20.0)).collect(),
            flows: (0..5).map(|k| Flow::litres_per_minute(40.0 + f64::from(k) * 20.0)).collect(),
            candidates: (0..30).map(point).collect(),
            damaged: vec![Damaged::Laminate],
        }
    }

    #[test]
    fn the_edges_at_weakest_middle_and_strongest_flow_are_run_again_and_the_roomiest_setting() {
        let chosen = chosen(&window(5));
        assert_eq!(chosen, [(0, 1), (2, 1), (2, 3), (4, 1), (4, 5)]);
        assert!(chosen.len() <= 7);
    }

    #[test]
    fn where_nothing_works_nothing_is_run_again() {
        assert!(chosen(&window(0)).is_empty());
    }
}
