//! The process window against the plan's own runs, and what physics promises of it.
#![allow(clippy::expect_used)]

mod common;

use common::{WANTED, air_below, below, board, component, sac305, station, with_case};
use mend_core::board::{Board, Face, KeepIntact};
use mend_core::heat::known::Knowledge;
use mend_core::heat::mesh::Resolution;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::run::run;
use mend_core::heat::tool::HotAir;
use mend_core::materials::BodyMaterial;
use mend_core::planning::order::{Order, Unplanned};
use mend_core::planning::process_window::{ProcessWindow, process_window};
use mend_core::planning::window_point::WindowCell;
use mend_core::units::{Duration, Temperature};

fn window_of(board: &Board, recipe: &Recipe) -> Result<ProcessWindow, Unplanned> {
    let (composition, station, watch) = (&sac305(), &station(), &WANTED);
    let ambient = Temperature::celsius(23.0);
    process_window(&Order {
        board,
        composition,
        station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        watch,
    })
}

fn window(board: &Board) -> ProcessWindow {
    window_of(board, &two_minutes(400.0)).expect("can be computed")
}

fn two_minutes(set: f64) -> Recipe {
    Recipe { longest: Duration::seconds(120.0), ..below(set) }
}

#[test]
fn a_candidate_is_what_the_full_run_says() {
    let (board, map) = (board(), window(&board()));
    assert!(map.candidates.len() >= 1000, "{}", map.candidates.len());
    let flow = map.flows.iter().position(|f| f.in_litres_per_minute() >= 90.0).expect("within range");
    let mut compared = 0;
    for (k, set) in map.sets.iter().enumerate().step_by(3) {
        let air = HotAir { set: *set, flow: map.flows[flow], ..air_below(400.0) };
        let recipe = Recipe { air: Some(air), ..two_minutes(400.0) };
        let full = with_case(&board, &recipe, |case| run(case, &ParameterSample::nominal(), Resolution::COARSE));
        if let (Some(full), Some(scaled)) = (full.release, map.at(flow, k).release_s) {
            // The pause of the hand is in both; near the lowest that melts a per cent of heat is many of time.
            assert!((full - scaled).abs() < 0.08 * full + 1.0, "{set:?}: {full} against {scaled}");
            compared += 1;
        }
    }
    assert!(compared >= 3, "{compared}");
}

#[test]
fn hotter_air_never_comes_later_and_the_coolest_never_melts_it() {
    let map = window(&board());
    for flow in 0..map.flows.len() {
        assert_eq!(map.at(flow, 0).outcome(), WindowCell::TooCool, "200 °C melts nothing");
        let times: Vec<f64> = (0..map.sets.len()).map(|k| map.at(flow, k).release_s.unwrap_or(f64::INFINITY)).collect();
        assert!(times.windows(2).all(|pair| pair[1] <= pair[0]), "{times:?}");
    }
}

#[test]
fn a_frail_component_shuts_the_window_and_is_named() {
    let mut sturdy = board();
    sturdy.components.retain(|n| n.name != "C7");
    let mut frail = sturdy.clone();
    frail.components.push(component("foam", [30.0, 12.0, 6.0, 3.0], Face::Bottom, BodyMaterial::AcrylicFoam));
    let works = |map: &ProcessWindow| map.candidates.iter().filter(|c| c.outcome() == WindowCell::Works).count();
    let (plain, shut) = (window(&sturdy), window(&frail));
    assert!(works(&plain) > 0 && works(&shut) == 0, "{} {}", works(&plain), works(&shut));
    let damaged = shut.candidates.iter().filter_map(|c| c.damage).map(|(_, k)| &shut.damaged[k]);
    assert!(damaged.filter(|of| of.component() == Some("foam")).count() > 100);
}

#[test]
fn what_can_not_be_set_has_no_window() {
    let recipe = Recipe { longest: Duration::seconds(1e9), ..below(400.0) };
    let refused = window_of(&board(), &recipe).expect_err("refused").objections();
    assert_eq!(refused[0].place, "longest_s");
}
