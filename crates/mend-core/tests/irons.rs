//! Irons and wires by geometry: what a tip touches, and that no figure depends on how the joints are listed.

#![allow(clippy::expect_used)]

mod common;

use common::{below, board, sac305, with_case};
use mend_core::board::{Board, Joint};
use mend_core::heat::bridge::Bridge;
use mend_core::heat::case::Case;
use mend_core::heat::iron::{EVERY_ROW, Iron, USUAL_DWELL};
use mend_core::heat::iron_heater::IronHeater;
use mend_core::heat::mesh::{Mesh, Resolution};
use mend_core::heat::network::MeshedBoard;
use mend_core::heat::network::Network;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::recipe::{HeatingAids, Recipe};
use mend_core::heat::run::{Run, run};
use mend_core::heat::station::Station;
use mend_core::method::usual;
use mend_core::solder::Melts;
use mend_core::units::{Length, Temperature};

fn nominal(board: &Board, recipe: &Recipe) -> Run {
    with_case(board, recipe, |case| run(case, &ParameterSample::nominal(), Resolution::COARSE))
}

fn iron(row: &str) -> Iron {
    Iron { set: Temperature::celsius(380.0), tip: Length::mm(2.0), row: row.to_owned(), dwell: USUAL_DWELL }
}

fn by_iron(row: &str) -> Recipe {
    Recipe::from(HeatingAids { iron: Some(iron(row)), ..HeatingAids::default() })
}

#[test]
fn an_iron_heats_nothing_outside_its_patch() {
    let board = board();
    let mesh = Mesh::from_board(&board, Resolution::COARSE, 1.0);
    let melts = ParameterSample::nominal();
    let targets: Vec<Melts> = sac305().targets(&board).expect("computed").iter().map(|t| melts.melts(t)).collect();
    let bare = Network::from_board(&board, &mesh, &targets, Temperature::celsius(23.0));
    for row in ["anchors", "A", EVERY_ROW] {
        let mut network = bare.clone();
        network.attach(MeshedBoard { board: &board, mesh: &mesh }, &by_iron(row), IronHeater::USUAL);
        let places = iron(row).visits(&board);
        let [tips] = network.tips[0].as_slice() else { panic!("one iron: {:?}", network.tips) };
        for (tip, joints) in tips.iter().zip(&places) {
            let under: Vec<usize> = joints.iter().map(|k| network.joints[*k]).collect();
            let touched = network.nodes.touches.iter().filter(|touch| touch.a == *tip);
            assert!(touched.clone().all(|touch| under.contains(&touch.b)), "{row}");
            assert_eq!(touched.count(), joints.len());
            // A patch is as wide as the tip and 1.5 mm deep.
            let at = |k: &usize| board.connector.joints[*k].at;
            let widest = joints.iter().flat_map(|a| joints.iter().map(move |b| at(a).distance_to(at(b))));
            assert!(widest.fold(0.0, f64::max) <= 2.0_f64.hypot(1.5) + 1e-6);
        }
        let on_nothing = |tip: &usize| network.nodes.links.iter().all(|link| link.a != *tip && link.b != *tip);
        assert!(tips.iter().all(on_nothing), "and nothing else is joined to a tip");
    }
}

#[test]
fn no_figure_depends_on_how_the_joints_are_listed() {
    let listed = board();
    let mut other = listed.clone();
    other.connector.joints.rotate_left(7);
    other.connector.joints.reverse();
    let wire = Some(Bridge { ..usual::WIRE });
    let recipes = [
        below(420.0),
        Recipe { bridge: wire, ..by_iron(EVERY_ROW) },
        Recipe { during: HeatingAids { iron: Some(iron("anchors")), ..HeatingAids::default() }, ..below(400.0) },
    ];
    let melted = |board: &Board, recipe: &Recipe| -> Vec<(String, Option<f64>)> {
        let run = nominal(board, recipe);
        let named = |(joint, t): (&Joint, &Option<f64>)| (joint.name.clone(), *t);
        let mut all: Vec<_> = board.connector.joints.iter().zip(&run.melted).map(named).collect();
        all.sort_by(|a, b| a.0.cmp(&b.0));
        all
    };
    for recipe in &recipes {
        for ((name, a), (_, b)) in melted(&listed, recipe).iter().zip(&melted(&other, recipe)) {
            let same = match (a, b) {
                (Some(a), Some(b)) => (a - b).abs() < 1e-3,
                _ => a.is_none() && b.is_none(),
            };
            assert!(same, "{name}: {a:?} and {b:?}");
        }
    }
    assert!(sac305().targets(&other).is_ok());
}

#[test]
fn a_wire_goes_from_joint_to_the_nearest_and_solder_alone_tears_where_they_stand_apart() {
    let board = board();
    let spans = usual::WIRE.spans(&board);
    let reached = board.connector.joints.iter().filter(|joint| !joint.hidden).count();
    assert_eq!(spans.len(), reached - 1, "one wire past every joint");
    let long: f64 = spans.iter().map(|(_, _, apart)| apart).sum();
    assert!(long < 40.0, "straight on, never to and fro: {long} mm");
    let pool = Bridge { wire_mm: 0.0, bead_mm2: 2.0 };
    let mut parted = board.clone();
    let middle = board.connector.body.centre.x;
    parted.connector.joints.iter_mut().filter(|joint| joint.at.x > middle).for_each(|joint| joint.at.x += 6.0);
    assert!(pool.spans(&parted).len() < usual::WIRE.spans(&parted).len());
    assert!(pool.spans(&parted).iter().all(|(_, _, apart)| *apart <= 5.0));
}

#[test]
fn two_irons_are_on_two_places_at_once_and_melt_what_one_leaves_solid() {
    let mut board = board();
    board.connector.joints.retain(|joint| !joint.is_pin());
    board.connector.joints.truncate(2);
    let names: Vec<String> = board.connector.joints.iter().map(|joint| joint.name.clone()).collect();
    let stout = |row: &str| Iron { tip: Length::mm(4.0), ..iron(row) };
    let one = Recipe::from(HeatingAids { iron: Some(stout("anchors")), ..HeatingAids::default() });
    let during =
        HeatingAids { iron: Some(stout(&names[0])), second_iron: Some(stout(&names[1])), ..HeatingAids::default() };
    let two = Recipe::from(during);
    let hottest_together = |recipe: &Recipe| {
        let run = nominal(&board, recipe);
        (2..20).map(|s| run.traces.joints.iter().map(|joint| joint[s]).fold(f32::MAX, f32::min)).fold(0.0, f32::max)
    };
    assert!(hottest_together(&two) > hottest_together(&one) + 20.0, "each keeps its own hot");
    assert!(nominal(&board, &two).release.is_some(), "and both are liquid at once");
}

#[test]
fn a_part_that_is_levered_needs_each_joint_once_and_comes_off_long_before_all_are_liquid() {
    let mut board = board();
    board.connector.joints.retain(|joint| !joint.is_pin());
    board.connector.joints.iter_mut().enumerate().for_each(|(k, joint)| joint.at.x += 4.0 * k as f64);
    let all = by_iron("anchors");
    let levered = Recipe { levered: true, ..all.clone() };
    let (levered, all) = (nominal(&board, &levered).release, nominal(&board, &all).release);
    let levered = levered.expect("each melts in its turn");
    assert!(all.is_none_or(|all| levered < 0.5 * all), "one sets while the next melts: {levered} s, {all:?}");
}

/// Twenty seconds of a tip on every joint.
fn hottest_by(heater: IronHeater) -> f32 {
    let (board, recipe) = (board(), by_iron(EVERY_ROW));
    let traces = with_case(&board, &recipe, |case| {
        let station = Station { iron: heater, ..case.station.clone() };
        run(&Case { station: &station, ..*case }, &ParameterSample::nominal(), Resolution::COARSE).traces
    });
    traces.joints.iter().filter_map(|joint| joint.get(20)).copied().fold(f32::MIN, f32::max)
}

#[test]
fn a_heater_that_gives_less_leaves_its_joints_cooler() {
    let usual = hottest_by(IronHeater::USUAL);
    assert!(hottest_by(IronHeater { most: 10.0, ..IronHeater::USUAL }) < usual - 5.0, "{usual}");
    assert!(hottest_by(IronHeater { to_tip: 5.0, ..IronHeater::USUAL }) < usual - 5.0, "{usual}");
}
