//! The heat solver against the machine: cell-updates per second on 80 x 80 x 6, and the share of an in-cache triad
//! roofline measured in the same run, on one core. Then a whole plan with its band on all cores.
#![allow(clippy::print_stdout, clippy::unwrap_used, unsafe_code)]

#[path = "../tests/common/mod.rs"]
mod common;

use std::hint::black_box;
use std::time::Instant;

use mend_core::board::{Face, KeepIntact, Point};
use mend_core::heat::axis::Axis;
use mend_core::heat::blowing::Blowing;
use mend_core::heat::boundary::{Ambient, BoundaryConditions, HeatedBoard, LOSS_SCALE, Radiation};
use mend_core::heat::case::Case;
use mend_core::heat::ensemble::run_all;
use mend_core::heat::jet::{Jet, JetLaw};
use mend_core::heat::known::Knowledge;
use mend_core::heat::mesh::{Mesh, Slab};
use mend_core::heat::motion::Motion;
use mend_core::heat::nodes::Nodes;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::shielding::Shielding;
use mend_core::heat::simulation::{BatchBoard, Simulation};
use mend_core::heat::stepping::BATCH;
use mend_core::heat::tool::{Blower, HotAir};
use mend_core::planning::make_plan::plan;
use mend_core::planning::order::Order;
use mend_core::planning::process_window::process_window;
use mend_core::units::{Duration, Flow, Length, Temperature};

/// Bytes moved per cell and stage of a super-time-step in f32, the roofline's unit of work: five field values read (stage
/// before, stage before last, start, first rate, and the write) and per column five coefficients, shared by six layers
/// but loaded for each: (5 + 5 + 2 for up and down) x 4 = 48.
const BYTES_PER_UPDATE: f64 = 48.0;

fn main() {
    let (updates, seconds) = process();
    let rate = updates / seconds;
    let triad = in_cache_triad();
    println!("heat/process_200s_80x80x6_f32    {seconds:.3} s, {:.0} M cell-updates/s", rate / 1e6);
    println!("heat/in_cache_triad              {:.1} GB/s", triad / 1e9);
    println!("heat/share_of_roofline           {:.0} %", 100.0 * rate * BYTES_PER_UPDATE / triad);
    let (updates, seconds) = batch();
    println!("heat/batch_120s_40x40x3_f32      {seconds:.3} s, {:.0} M run-cell-updates/s", updates / seconds / 1e6);
    println!("heat/64_coarse_120s_all_cores    {:.3} s", best_of_five(sixty_four));
    println!("heat/plan_with_band_all_cores    {:.3} s", best_of_five(|order| plan(order).is_ok()));
    // 1025 candidates.
    println!("heat/process_window_all_cores    {:.3} s", best_of_five(|order| process_window(order).is_ok()));
}

/// Best of five: cell-updates and seconds of a 200 s process at 0.5 s steps.
fn process() -> (f64, f64) {
    let runs = (0..5).map(|_| {
        let mut s = reference();
        let updates = (400 * s.stages() * 80 * 80 * 6) as f64;
        let from = Instant::now();
        (0..400).for_each(|_| s.advance());
        black_box(s.hottest_face());
        (updates, from.elapsed().as_secs_f64())
    });
    runs.min_by(|a, b| a.1.total_cmp(&b.1)).unwrap()
}

fn reference() -> Simulation<f32> {
    let slab = Slab { thickness: 1.6e-3, in_plane: 35.0, through: 1.2, capacity: 2.3e6 };
    let mesh = Mesh::plate(Axis::uniform(80, 1.0), Axis::uniform(80, 1.0), 6, slab);
    let (blown, room) = (blown(&mesh), (10.0, Temperature::celsius(25.0).in_kelvin()));
    let mut s = Simulation::new(mesh, Nodes::default(), room, 0.5);
    s.set_air(&blown);
    s
}

/// Best of five: cell-updates of all runs, and seconds, of a batch of eight runs on the screening grid, 120 s.
fn batch() -> (f64, f64) {
    let slab = Slab { thickness: 1.6e-3, in_plane: 35.0, through: 1.2, capacity: 2.3e6 };
    let mesh = Mesh::plate(Axis::uniform(40, 2.0), Axis::uniform(40, 2.0), 3, slab);
    let (blown, room) = (blown(&mesh), (10.0, Temperature::celsius(25.0).in_kelvin()));
    let once = || {
        let nodes = std::array::from_fn(|_| Nodes::default());
        let mut s: Simulation<f32, BATCH> =
            Simulation::batch(BatchBoard { mesh: mesh.clone(), slabs: [slab; BATCH] }, nodes, room, 1.0);
        s.set_airs(&std::array::from_fn(|_| blown.clone()));
        let updates = (120 * s.stages() * 40 * 40 * 3 * BATCH) as f64;
        let from = Instant::now();
        (0..120).for_each(|_| s.advance());
        black_box(s.of(0).hottest_face());
        (updates, from.elapsed().as_secs_f64())
    };
    (0..5).map(|_| once()).min_by(|a, b| a.1.total_cmp(&b.1)).unwrap()
}

/// Sixty-four samples of an order for two minutes, too mild to melt anything: no run ends early, and none cools.
fn sixty_four(order: &Order<'_>) -> bool {
    let melting = order.composition.targets(order.board).unwrap();
    let recipe = Recipe { longest: Duration::seconds(120.0), ..common::below(200.0) };
    let case = Case { recipe: &recipe, ..order.case(&melting) };
    let samples = ParameterSample::samples(64, &case);
    run_all(&case, &samples, &|_| false).len() == 64
}

fn blown(mesh: &Mesh) -> BoundaryConditions {
    let tool = HotAir {
        set: Temperature::celsius(400.0),
        flow: Flow::litres_per_minute(60.0),
        nozzle: Length::mm(10.0),
        distance: Length::mm(15.0),
        face: Face::Top,
        motion: Motion::Still,
        aim: [0.0, 0.0],
        approach: None,
        tilt: None,
    };
    let room = Temperature::celsius(25.0);
    let jet = Jet::new(&tool, &JetLaw::from_blower(Blower::Fan), room);
    let blowing = Blowing { jet, face: Face::Top, path: vec![Point { x: 40.0, y: 40.0 }], tilt: None };
    let ambient = Ambient { temperature: room, loss: LOSS_SCALE, radiation: Radiation::Full };
    let open = [vec![0.0; mesh.inside.len()], vec![0.0; mesh.inside.len()]];
    let (nodes, shielding) = (Nodes::default(), Shielding::default());
    HeatedBoard { mesh, nodes: &nodes, covered: &open, shielding: &shielding, ambient }.with(&blowing.into())
}

/// Best of five on the tests' laptop board, 240 s: `what` of the order.
fn best_of_five(what: impl Fn(&Order<'_>) -> bool) -> f64 {
    let (board, composition, station) = (common::board(), common::sac305(), common::station());
    let recipe = Recipe { longest: Duration::seconds(240.0), ..common::below(440.0) };
    let watch = &common::WANTED;
    let ambient = Temperature::celsius(23.0);
    let (board, composition, station, recipe) = (&board, &composition, &station, &recipe);
    let order = Order {
        board,
        composition,
        station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        watch,
    };
    let once = || {
        let from = Instant::now();
        black_box(what(&order));
        from.elapsed().as_secs_f64()
    };
    (0..5).map(|_| once()).fold(f64::INFINITY, f64::min)
}

/// a = b + k c over arrays of the size of the solver's own working set (38 400 f32 each), bytes per second, best of five.
fn in_cache_triad() -> f64 {
    let n = 38_400;
    let (mut a, b, c) = (vec![0.0f32; n], vec![1.0f32; n], vec![2.0f32; n]);
    let rounds = 20_000;
    let once = |a: &mut [f32]| {
        let from = Instant::now();
        for round in 0..rounds {
            triad(a, &b, &c, round as f32);
            black_box(&a);
        }
        (rounds * n * 12) as f64 / from.elapsed().as_secs_f64()
    };
    (0..5).map(|_| once(&mut a)).fold(0.0, f64::max)
}

/// Compiled for the processor at hand, as the solver is.
#[multiversion::multiversion(targets("x86_64+avx512f+avx512vl+avx2+fma", "x86_64+avx2+fma", "aarch64+neon"))]
fn triad(a: &mut [f32], b: &[f32], c: &[f32], k: f32) {
    for ((a, b), c) in a.iter_mut().zip(b).zip(c) {
        *a = b + k * c;
    }
}
