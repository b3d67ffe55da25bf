//! What can be said of a nozzle, a board and what holds it, and what each does to the heat.

#![allow(clippy::expect_used)]

mod common;

use common::{air_below, below, board, with_case};
use mend_core::board::{Board, Crowding, Face, Stiffener, StiffenerMaterial};
use mend_core::heat::mesh::Resolution;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::run::{Run, run, run_batch};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::{Approach, ComesNearWhen, HotAir, Tilt};
use mend_core::units::{Duration, Length};

fn nominal(board: &Board, recipe: &Recipe) -> Run {
    with_case(board, recipe, |case| run(case, &ParameterSample::nominal(), Resolution::COARSE))
}

#[test]
fn a_nozzle_that_comes_near_heats_later_and_one_that_leans_heats_to_its_side() {
    let board = board();
    let melted = |air: HotAir| nominal(&board, &Recipe::from(air)).release;
    let near = air_below(440.0);
    let approach = Approach { from: Length::mm(80.0), over: Duration::seconds(30.0), when: ComesNearWhen::AtOnce };
    let (straight, slowly) = (melted(near), melted(HotAir { approach: Some(approach), ..near }));
    let (straight, slowly) = (straight.expect("it melts"), slowly.expect("it melts as well"));
    assert!(slowly > straight + 3.0 && slowly < straight + 30.0, "{slowly} s against {straight} s");
    // The latch stands behind the part: blown towards, it is hotter than blown away from.
    let latch = |towards_deg: f64| {
        let tilt = Some(Tilt { lean_deg: 40.0, towards_deg });
        let air = HotAir { face: Face::Top, tilt, ..near };
        nominal(&board, &Recipe::from(air)).traces.components[0][30]
    };
    assert!(latch(90.0) > latch(-90.0) + 5.0, "{} and {}", latch(90.0), latch(-90.0));
}

/// From 45 mm, whence it smokes and melts as well, only later.
fn once(when: ComesNearWhen) -> Recipe {
    let approach = Approach { from: Length::mm(45.0), over: Duration::seconds(6.0), when };
    let air = HotAir { approach: Some(approach), ..air_below(440.0) };
    Recipe { longest: Duration::seconds(300.0), ..Recipe::from(air) }
}

#[test]
fn a_hand_that_waits_for_smoke_comes_near_when_the_board_is_so_warm_and_one_that_waits_for_solder_later() {
    let board = board();
    let [at_once, smokes, shines] = ComesNearWhen::ALL.map(|when| nominal(&board, &once(when)));
    let far = HotAir { distance: Length::mm(45.0), ..air_below(440.0) };
    let far = nominal(&board, &Recipe { longest: Duration::seconds(300.0), ..Recipe::from(far) });
    let parts = |run: &Run| {
        let together = run.traces.pads.iter().zip(&far.traces.pads);
        together.into_iter().position(|(near, far)| near > far).expect("they part")
    };
    let smoke = far.traces.pads.iter().position(|t| *t >= 180.0).expect("it smokes");
    assert_eq!(parts(&smokes), smoke + 1, "the same as far away until it smokes, and hotter from then on");
    let shine = shines.melted.iter().flatten().copied().fold(f64::INFINITY, f64::min);
    assert_eq!(parts(&shines), shine.ceil() as usize + 1);
    assert!(parts(&at_once) <= 4, "within the first piece of its way");
    let off = [at_once, smokes, shines].map(|run| run.release.expect("it melts"));
    assert!(off.is_sorted(), "{off:?}");
}

#[test]
fn in_a_batch_each_run_waits_for_its_own_smoke() {
    let board = board();
    with_case(&board, &once(ComesNearWhen::FluxSmokes), |case| {
        let mut runs = [ParameterSample::nominal(); 8];
        runs.iter_mut().enumerate().for_each(|(k, run)| run.capacity *= 0.9 + 0.03 * k as f64);
        let batch = run_batch(case, &runs, Resolution::COARSE, &|_| false);
        for (alone, among) in runs.iter().zip(&batch) {
            let alone = run(case, alone, Resolution::COARSE).release.expect("it melts");
            let among = among.release.expect("it melts");
            assert!((alone - among).abs() < 1e-3 * alone, "{alone} s alone, {among} s in a batch");
        }
    });
}

#[test]
fn a_crowded_board_takes_longer_and_a_stiffener_keeps_a_thin_one_cool() {
    let melted = |board: &Board| nominal(board, &below(440.0)).release.expect("it melts");
    let usual = board();
    let mut crowded = usual.clone();
    crowded.stack.crowding = Crowding::Crowded;
    assert!(melted(&crowded) > 1.03 * melted(&usual));
    let mut flex = usual.clone();
    (flex.stack.thickness, flex.stack.layers, flex.stack.planes) = (Length::mm(0.1), 2, 0);
    let bare = melted(&flex);
    let stiffener = |material| Some(Stiffener { material, thickness: Length::mm(0.5) });
    flex.stack.stiffener = stiffener(StiffenerMaterial::Film);
    let film = melted(&flex);
    flex.stack.stiffener = stiffener(StiffenerMaterial::Steel);
    assert!(bare < film && film < melted(&flex), "{bare} s bare, {film} s on film, {} s on steel", melted(&flex));
}

#[test]
fn a_holder_beside_the_part_draws_heat_off_and_a_finger_less() {
    let board = board();
    let by = |kind| Shield { kind, face: Face::Top, at_mm: [65.0, 6.0], width_mm: 6.0, depth_mm: 8.0 };
    let melted = |shields: Vec<Shield>| nominal(&board, &Recipe { shields, ..below(440.0) }).release.expect("it melts");
    let bare = melted(Vec::new());
    let (finger, jaw) = (melted(vec![by(ShieldKind::Finger)]), melted(vec![by(ShieldKind::HolderJaw)]));
    assert!(bare < finger && finger < jaw, "{bare} s, {finger} s, {jaw} s");
    let written = serde_json::to_string(&by(ShieldKind::Finger)).expect("written");
    assert_eq!(serde_json::from_str::<Shield>(&written).expect("read"), by(ShieldKind::Finger));
}
