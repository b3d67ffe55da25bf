//! Whole runs on a board: R8-R11 of the heat design, and what physics promises.

mod common;

use common::{air_below, below, board, with_case};
use mend_core::board::{Board, Face, Point};
use mend_core::heat::at_work::jet;
use mend_core::heat::blowing::Blowing;
use mend_core::heat::boundary::{Ambient, BoundaryConditions, HeatedBoard, LOSS_SCALE, Radiation, covered};
use mend_core::heat::coefficients::RIM_LOSS;
use mend_core::heat::mesh::{Mesh, Resolution};
use mend_core::heat::motion::Motion;
use mend_core::heat::network::Network;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::run::{Run, run};
use mend_core::heat::shielding::Shielding;
use mend_core::heat::simulation::Simulation;
use mend_core::heat::tool::HotAir;
use mend_core::heat::unit_run::unit_run;
use mend_core::solder::Melts;
use mend_core::units::{Flow, Length, Temperature};

fn nominal(board: &Board, recipe: &Recipe) -> Run {
    with_case(board, recipe, |case| run(case, &ParameterSample::nominal(), Resolution::COARSE))
}

fn last_melt(run: &Run) -> Option<f64> {
    run.melted.iter().copied().try_fold(0.0, |last: f64, t| t.map(|t| last.max(t)))
}

#[test]
fn r8_hotter_air_melts_sooner_and_most_steeply_near_the_lowest_that_melts() {
    let sets = [320.0, 360.0, 400.0, 440.0, 480.0];
    let times = |board: &Board| sets.map(|set| last_melt(&nominal(board, &below(set))));
    let plain = times(&board());
    let melting: Vec<f64> = plain.iter().flatten().copied().collect();
    assert!(melting.len() >= 3, "{plain:?}");
    assert!(plain.iter().skip_while(|t| t.is_none()).all(Option::is_some), "once it melts, hotter air melts it too");
    assert!(melting.windows(2).all(|w| w[1] < w[0]), "{melting:?}");
    let falls: Vec<f64> = melting.windows(2).map(|w| w[0] - w[1]).collect();
    assert!(falls.windows(2).all(|w| w[1] < w[0]), "steeper near the lowest: {falls:?}");

    let mut heavy = board();
    heavy.stack.foil_um *= 2.0;
    for (light, heavy) in plain.iter().zip(times(&heavy)) {
        assert!(
            light.unwrap_or(f64::INFINITY) < heavy.unwrap_or(f64::INFINITY) || (light.is_none() && heavy.is_none())
        );
    }
}

/// When the last joint passes its liquidus in a linear run (no melting, radiation about 400 K), the rise scaled.
fn scaled_melt(from: f64, to: f64) -> f64 {
    let (board, air) = (board(), below(from));
    with_case(&board, &air, |case| {
        let unit = unit_run(case);
        let scale = (to - case.ambient.in_celsius()) / (from - case.ambient.in_celsius());
        let liquidus = (ParameterSample::nominal().melts(&case.melting[0]).lets_go - case.ambient).in_kelvin();
        let coldest = |second: usize| {
            scale * unit.jet.joints.iter().map(|curve| f64::from(curve[second])).fold(f64::INFINITY, f64::min)
        };
        for second in 1..unit.jet.laminate.len() {
            let (before, now) = (coldest(second - 1), coldest(second));
            if now >= liquidus {
                return (second - 1) as f64 + (liquidus - before) / (now - before);
            }
        }
        f64::INFINITY
    })
}

#[test]
fn r9_one_linear_run_serves_every_set_temperature() {
    for set in [440.0, 480.0] {
        let full = last_melt(&nominal(&board(), &below(set))).expect("melts");
        let scaled = scaled_melt(400.0, set);
        assert!((scaled / full - 1.0).abs() < 0.03, "set {set}: scaled {scaled} s, full {full} s");
    }
}

#[test]
fn r10_the_same_run_twice_is_equal_to_the_bit() {
    let bits = || {
        let r = nominal(&board(), &below(420.0));
        let curves = r.traces.joints.iter().chain(&r.traces.components).chain([&r.traces.body, &r.traces.laminate]);
        (curves.flatten().map(|t| t.to_bits()).collect::<Vec<_>>(), r.melted, r.release)
    };
    assert_eq!(bits(), bits());
}

#[test]
fn a_latch_under_the_jet_gets_hotter_than_on_the_far_side() {
    let (nozzle, flow) = (Length::mm(10.0), Flow::litres_per_minute(50.0));
    let above = Recipe::from(HotAir { face: Face::Top, nozzle, flow, ..air_below(380.0) });
    let hottest = |recipe: &Recipe| {
        let run = nominal(&board(), recipe);
        let at = last_melt(&run).expect("melts") as usize;
        run.traces.body[at]
    };
    assert!(hottest(&above) > hottest(&below(440.0)), "the part's own body at its release");
}

#[test]
fn the_fine_grid_agrees_with_the_screening_grid_within_a_tenth() {
    let (board, air) = (board(), below(440.0));
    let at = |resolution| with_case(&board, &air, |case| run(case, &ParameterSample::nominal(), resolution).release);
    let (fine, coarse) = (at(Resolution::FINE).expect("melts"), at(Resolution::COARSE).expect("melts"));
    assert!((coarse / fine - 1.0).abs() < 0.10, "fine {fine} s, coarse {coarse} s");
}

#[test]
fn after_release_the_joints_freeze_and_the_board_stays_warm_for_longer() {
    let run = nominal(&board(), &below(440.0));
    let cooling = run.cooling.expect("released");
    let hold = cooling.hold.expect("freezes");
    assert!(hold > 0.0 && cooling.warm > hold, "hold {hold} s, warm {} s", cooling.warm);
    let at_release = run.traces.body[run.release.expect("released") as usize];
    assert!(cooling.traces.body.iter().any(|t| *t >= at_release - 2.0));
}

#[test]
fn samples_are_the_same_every_time_and_centred() {
    let (board, recipe) = (board(), below(440.0));
    let draw = || with_case(&board, &recipe, |case| ParameterSample::samples(20, case));
    assert_eq!(draw(), draw());
    let mean = draw().iter().map(|u| u.jet.ln()).sum::<f64>() / 20.0;
    assert!(mean.abs() < 0.03, "{mean}");
    let ambient = Temperature::celsius(23.0);
    assert!(ambient.in_kelvin() > 296.0);
}

/// Joint temperatures after a minute under a nozzle swept over the part from above, K over ambient: the mean of the last
/// period where the nozzle is followed from place to place, twice round a second.
fn swept(followed: bool) -> Vec<f64> {
    let air = HotAir { nozzle: Length::mm(8.0), face: Face::Top, motion: Motion::Sweeping, ..air_below(380.0) };
    let (board, recipe) = (board(), Recipe::from(air));
    with_case(&board, &recipe, |case| {
        let mesh = Mesh::from_board(&board, Resolution::COARSE, 1.0);
        let nominal = ParameterSample::nominal();
        let melts: Vec<Melts> = case.melting.iter().map(|target| nominal.melts(target)).collect();
        let network = Network::from_board(&board, &mesh, &melts, case.ambient);
        let ambient = Ambient { temperature: case.ambient, loss: LOSS_SCALE, radiation: Radiation::Full };
        let (covered, body) = (covered(&board, true, &mesh), board.connector.body);
        let (places, shielding) = (air.path(&body), Shielding::default());
        let scene =
            HeatedBoard { mesh: &mesh, nodes: &network.nodes, covered: &covered, shielding: &shielding, ambient };
        let blown = |path: Vec<Point>| {
            let jet = jet(case, &air, &nominal);
            scene.with(&Blowing { jet, face: Face::Top, path, tilt: None }.into())
        };
        let courses: Vec<BoundaryConditions> = match followed {
            true => places.iter().map(|place| blown(vec![*place])).collect(),
            false => vec![blown(places.clone())],
        };
        let (period, seconds) = (places.len(), 60);
        let step = 0.5 / period as f64;
        let mut s: Simulation<f32> =
            Simulation::new(mesh.clone(), network.nodes.clone(), (RIM_LOSS, case.ambient.in_kelvin()), step);
        let mut means = vec![0.0; network.joints.len()];
        for tick in 0..2 * seconds * period {
            s.set_air(&courses[tick % courses.len()]);
            s.advance();
            if tick >= (2 * seconds - 1) * period {
                let joints = means.iter_mut().zip(&network.joints);
                joints.for_each(|(mean, k)| *mean += s.node(*k) / period as f64);
            }
        }
        means
    })
}

#[test]
fn r11_a_swept_nozzle_heats_as_its_averaged_footprint() {
    let (followed, averaged) = (swept(true), swept(false));
    assert!(averaged.iter().all(|t| *t > 60.0), "{averaged:?}");
    let off = followed.iter().zip(&averaged).map(|(f, a)| (f - a).abs()).fold(0.0, f64::max);
    assert!(off < 3.0, "{off} K");
}
