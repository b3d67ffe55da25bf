//! Recipes of several stages, shields, preheaters and irons on the made-up board: what physics promises of them.
#![allow(clippy::expect_used)]

mod common;

use common::{WANTED, air_below, below, board, component, sac305, station, with_case};
use mend_core::board::{Board, Face, KeepIntact};
use mend_core::finding::Severity;
use mend_core::finding::problem::{PlanProblem, Problem, SettingsProblem};
use mend_core::heat::iron::{Iron, USUAL_DWELL};
use mend_core::heat::known::Knowledge;
use mend_core::heat::mesh::Resolution;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::preheater::{Coupling, Preheater};
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::{HeatingAids, HeatingStage, Recipe};
use mend_core::heat::replay::replay;
use mend_core::heat::rig::{Model, Rig};
use mend_core::heat::run::{Run, run};
use mend_core::heat::shield::{Shield, ShieldKind};
use mend_core::heat::tool::HotAir;
use mend_core::materials::BodyMaterial;
use mend_core::planning::damaged::Damaged;
use mend_core::planning::make_plan::plan;
use mend_core::planning::order::{Order, Unplanned};
use mend_core::planning::plan::{Plan, WindowState};
use mend_core::planning::process_window::process_window;
use mend_core::planning::sequence::line::{BeforeLine, HeatLine, Line};
use mend_core::planning::sequence::script::Script;
use mend_core::planning::sequence::sequence;
use mend_core::planning::sequence::step::{Step, StepKind};
use mend_core::planning::sequence::task::Task;
use mend_core::planning::window_point::WindowCell;
use mend_core::units::{Duration, Flow, Length, Temperature};
use mend_core::watch::{Cancelled, Watch};

fn nominal(board: &Board, recipe: &Recipe) -> Run {
    with_case(board, recipe, |case| run(case, &ParameterSample::nominal(), Resolution::COARSE))
}

fn planned(board: &Board, recipe: &Recipe, watch: &Watch) -> Result<Plan, Unplanned> {
    let (composition, station, ambient) = (&sac305(), &station(), Temperature::celsius(23.0));
    plan(&Order {
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

/// A nozzle from above, five minutes.
fn above(set: f64, flow: f64) -> Recipe {
    let (nozzle, distance) = (Length::mm(10.0), Length::mm(12.0));
    let flow = Flow::litres_per_minute(flow);
    let air = HotAir { face: Face::Top, nozzle, distance, flow, ..air_below(set) };
    Recipe { longest: Duration::seconds(120.0), ..Recipe::from(air) }
}

/// The board with a socket right beside the part.
fn beside() -> Board {
    let mut board = board();
    board.components.insert(0, component("socket", [30.0, 12.5, 8.0, 3.0], Face::Top, BodyMaterial::Pa66));
    board
}

fn with_shield(recipe: &Recipe, kind: ShieldKind) -> Recipe {
    // Over the socket of `beside`, and a little more.
    let shield = Shield { kind, face: Face::Top, at_mm: [30.0, 13.0], width_mm: 12.0, depth_mm: 6.0 };
    Recipe { shields: vec![shield], ..recipe.clone() }
}

const KINDS: [ShieldKind; 5] = [
    ShieldKind::Polyimide { layers: 1 },
    ShieldKind::Polyimide { layers: 3 },
    ShieldKind::AluminiumTape,
    ShieldKind::FoilTent { gap_mm: 2.0 },
    ShieldKind::MetalBlock { height_mm: 5.0 },
];

#[test]
fn a_shield_never_heats_what_it_covers_on_the_face_that_the_air_meets() {
    let (board, bare) = (beside(), Recipe { longest: Duration::seconds(60.0), ..above(400.0, 60.0) });
    let open = nominal(&board, &bare);
    for kind in KINDS {
        let covered = nominal(&board, &with_shield(&bare, kind));
        let pairs = covered.traces.components[0].iter().zip(&open.traces.components[0]);
        assert!(pairs.into_iter().all(|(covered, open)| *covered <= open + 0.05), "{kind:?}");
        let (early, open) = (covered.traces.components[0][15], open.traces.components[0][15]);
        assert!(early < open - 2.0, "{kind:?}: {early} of {open}");
    }
}

#[test]
fn a_shield_over_a_joint_of_the_part_is_refused_with_its_reason() {
    let mut recipe = above(400.0, 60.0);
    let kind = ShieldKind::AluminiumTape;
    recipe.shields = vec![Shield { kind, face: Face::Top, at_mm: [34.6, 6.2], width_mm: 2.0, depth_mm: 3.0 }];
    let refused = planned(&board(), &recipe, &WANTED).expect_err("covers leg 4").objections();
    let object = refused.iter().find(|f| f.rule == "covered_joint").expect("the rule");
    let names_leg_4 = |joints: &[String]| joints == ["leg 4"];
    let covered = matches!(&object.problem, Problem::Settings(SettingsProblem::CoveredJoints { shield: 0, joints, .. }) if names_leg_4(joints));
    assert!(object.severity == Severity::Blocking && covered, "{object:?}");
}

#[test]
fn more_flow_never_cools_a_joint_while_the_heater_keeps_up() {
    let board = board();
    let mut preheat: Option<Vec<f32>> = None;
    for flow in [30.0, 50.0, 70.0, 90.0, 110.0] {
        let recipe = Recipe { longest: Duration::seconds(60.0), ..above(380.0, flow) };
        let run = nominal(&board, &recipe);
        let now: Vec<f32> = run.traces.joints.iter().filter_map(|curve| curve.last().copied()).collect();
        if let Some(preheat) = &preheat {
            assert!(now.iter().zip(preheat).all(|(now, preheat)| now >= preheat), "{flow} L/min");
        }
        preheat = Some(now);
    }
}

#[test]
fn a_soak_brings_the_release_forward_and_its_end_is_where_the_next_stage_begins() {
    let board = board();
    let lasts = Duration::seconds(40.0);
    let soak = |change: f64| HeatingStage {
        air: Some(air_below(300.0)),
        during: HeatingAids::default(),
        lasts,
        change: Duration::seconds(change),
    };
    let soaked = Recipe { preheat: vec![soak(0.0)], ..below(440.0) };
    let paused = Recipe { preheat: vec![soak(20.0)], ..below(440.0) };
    let since = |run: &Run| run.release.expect("melts") - run.last_from;
    let (plain, warm, pause) = (nominal(&board, &below(440.0)), nominal(&board, &soaked), nominal(&board, &paused));
    assert_eq!((warm.last_from, pause.last_from), (40.0, 60.0));
    assert!(since(&warm) < since(&plain) - 5.0, "{} of {}", since(&warm), since(&plain));
    assert!(since(&warm) < since(&pause) && since(&pause) < since(&plain), "what cools in a pause is lost");
}

#[test]
fn a_preheater_and_an_iron_help_and_each_stays_below_what_it_is_set_to() {
    let board = board();
    let preheater = |coupling| Preheater {
        set: Temperature::celsius(160.0),
        coupling,
        face: Face::Bottom,
        side: Length::mm(120.0),
    };
    let warmed = |coupling| {
        let during = HeatingAids { preheater: Some(preheater(coupling)), ..HeatingAids::default() };
        let stage = HeatingStage { air: None, during, lasts: Duration::seconds(240.0), change: Duration::seconds(0.0) };
        let run = nominal(&board, &Recipe { preheat: vec![stage], ..below(440.0) });
        run.traces.pads[240]
    };
    let (gap, air, pad) = (warmed(Coupling::Gap), warmed(Coupling::ForcedAir), warmed(Coupling::Pad));
    assert!(60.0 < gap && gap < air && air < pad && pad <= 160.5, "{gap} {air} {pad}");

    let iron =
        Iron { set: Temperature::celsius(380.0), tip: Length::mm(4.0), row: "anchors".to_owned(), dwell: USUAL_DWELL };
    let helped = Recipe { during: HeatingAids { iron: Some(iron), ..HeatingAids::default() }, ..below(360.0) };
    let (alone, helped) = (nominal(&board, &below(360.0)), nominal(&board, &helped));
    let leg = |run: &Run, at: usize| run.traces.joints[24][at];
    assert!(leg(&helped, 30) > leg(&alone, 30) + 8.0, "{} of {}", leg(&helped, 30), leg(&alone, 30));
    assert!(helped.traces.joints[24].iter().all(|t| *t < 380.0));
}

#[test]
fn energy_is_kept_when_a_block_and_a_tip_are_joined_on() {
    // With nothing to lose heat to, what the tip brought is in the board, the lumps and the tip itself.
    let board = board();
    let iron =
        Iron { set: Temperature::celsius(380.0), tip: Length::mm(4.0), row: "anchors".to_owned(), dwell: USUAL_DWELL };
    let recipe = Recipe { during: HeatingAids { iron: Some(iron), ..HeatingAids::default() }, ..below(360.0) };
    let recipe = with_shield(&recipe, ShieldKind::MetalBlock { height_mm: 5.0 });
    with_case(&board, &recipe, |case| {
        let mut rig =
            Rig::new(case, &ParameterSample::nominal(), Model { resolution: Resolution::COARSE, linear: false });
        let tip = rig.network.tips[0][0][0];
        rig.begin(0);
        let [mut air] = rig.stages[0].air.clone();
        air.faces.iter_mut().flatten().for_each(|a| *a = Default::default());
        air.nodes.iter_mut().for_each(|n| *n = (0.0, 0.0));
        rig.simulation.set_air(&air);
        let before = rig.simulation.heat();
        (0..20).for_each(|_| rig.one_second());
        // The rim alone loses a little.
        let kept = rig.simulation.heat() / before;
        assert!((0.98..=1.0005).contains(&kept), "{kept}");
        assert!(rig.simulation.node(tip) < 357.0, "the tip has given its heat away");
    });
}

#[test]
fn a_microphone_under_the_jet_a_cell_nearby_and_an_idle_shield_are_named() {
    let mut crowded = board();
    crowded.components.push(component("mic", [36.5, 10.5, 3.0, 2.0], Face::Top, BodyMaterial::MemsMicrophone));
    crowded.components.push(component("cell", [70.0, 40.0, 30.0, 30.0], Face::Top, BodyMaterial::LithiumCell));
    let mut recipe = above(400.0, 60.0);
    let tape = ShieldKind::Polyimide { layers: 2 };
    recipe.shields = vec![Shield { kind: tape, face: Face::Bottom, at_mm: [48.0, 9.0], width_mm: 6.0, depth_mm: 6.0 }];
    let plan = planned(&crowded, &recipe, &WANTED).expect("planned");
    let found = |is: fn(&PlanProblem) -> bool| {
        plan.findings.iter().any(|f| matches!(&f.problem, Problem::Plan(problem) if is(problem)))
    };
    assert!(
        found(|p| matches!(p, PlanProblem::BlownInto { component, .. } if component == "mic")),
        "{:?}",
        plan.findings
    );
    assert!(
        found(|p| matches!(p, PlanProblem::NearJet { component, .. } if component == "cell")),
        "{:?}",
        plan.findings
    );
    assert!(found(|p| matches!(p, PlanProblem::IdleShield { shield: 0 })), "{:?}", plan.findings);
}

#[test]
fn a_small_part_under_a_strong_jet_is_blown_away_and_that_binds() {
    let mut crowded = board();
    let mut chip = component("C9", [30.0, 9.9, 1.6, 0.8], Face::Top, BodyMaterial::Ceramic);
    chip.height = Length::mm(0.8);
    crowded.components = vec![chip];
    let harsh = |flow: f64| {
        let mut recipe = above(360.0, flow);
        recipe.air.iter_mut().for_each(|air| air.nozzle = Length::mm(8.0));
        planned(&crowded, &recipe, &WANTED).expect("planned")
    };
    let spared = harsh(110.0).abort.spares.expect("something");
    let blown = Damaged::BlownAway { name: "C9".to_owned() };
    assert_eq!(spared, blown);
    assert_ne!(harsh(25.0).abort.spares, Some(blown));
}

#[test]
fn what_lags_and_what_the_laminate_bears_is_said() {
    let plan = planned(&board(), &below(440.0), &WANTED).expect("planned");
    let (lift, laminate) = (plan.pad_lift.expect("melts"), plan.laminate.expect("samples"));
    // The joint that is named is the one that melts last as computed: over the samples, too, none comes much later.
    let mid = |name: &str| plan.joints.iter().find(|j| j.joint == name).and_then(|j| j.melts.mid_s).expect("melts");
    let last = plan.joints.iter().filter_map(|j| j.melts.mid_s).fold(0.0, f64::max);
    assert!(last - mid(&lift.last) < 0.25, "{lift:?}: {} s of {last} s", mid(&lift.last));
    assert!(lift.lag_s.high >= lift.lag_s.low && lift.over_tg_k.mid > 30.0, "{lift:?}");
    assert!(laminate.peak_c.high > 200.0 && laminate.ramp_k_per_s.mid > 0.5, "{laminate:?}");
}

#[test]
fn stages_and_shields_become_steps_and_words_at_the_bench() {
    let mut recipe = with_shield(&above(400.0, 60.0), ShieldKind::FoilTent { gap_mm: 2.0 });
    let iron =
        Iron { set: Temperature::celsius(380.0), tip: Length::mm(4.0), row: "anchors".to_owned(), dwell: USUAL_DWELL };
    recipe.during = HeatingAids { iron: Some(iron), ..HeatingAids::default() };
    let air = Some(air_below(300.0));
    let (lasts, change) = (Duration::seconds(30.0), Duration::seconds(5.0));
    recipe.preheat = vec![HeatingStage { air, during: HeatingAids::default(), lasts, change }];
    let (board, composition) = (beside(), sac305());
    let plan = planned(&board, &recipe, &WANTED).expect("planned");
    let steps = sequence(&Script::plain(&board, &plan, &composition));
    let tasks: Vec<&Task> = steps.iter().filter_map(Step::task).collect();
    assert!(matches!(tasks[3..6], [Task::AddAlloy, Task::Soak { air: true }, Task::Heat { .. }]), "{tasks:?}");
    let StepKind::Soak { lasts_s, tools } = &steps[4].kind else { panic!("{:?}", steps[4].kind) };
    assert_eq!((*lasts_s, tools.len(), tools[0].set_c), (30.0, 1, 300.0));
    let (shield, over) = (ShieldKind::FoilTent { gap_mm: 2.0 }, vec!["socket".to_owned()]);
    let tent = BeforeLine::LayShield { shield, over, width_mm: 12.0, depth_mm: 6.0, face: Face::Top };
    assert_eq!(steps[1].lines()[0], Line::Before(tent));
    let iron = HeatLine::IronOnRow { tip_mm: 4.0, row: "anchors".to_owned() };
    assert_eq!(steps[5].lines()[0], Line::Heat(iron));
    let socket = plan.margins.iter().find(|m| m.name == "socket").expect("a row");
    assert!(socket.stages_c.len() == 1 && socket.stages_c[0] > 40.0, "{:?}", socket.stages_c);
}

#[test]
fn a_closed_window_has_a_next_best_move_that_does_better() {
    let plan = planned(&board(), &above(300.0, 40.0), &WANTED).expect("planned");
    assert_eq!(plan.window, WindowState::Closed);
    let next = plan.next_move.expect("a move");
    let then = planned(&board(), &next.recipe, &WANTED).expect("planned");
    assert!(then.chance > plan.chance, "{:?}: {} from {}", next.what, then.chance, plan.chance);
}

#[test]
fn a_soaked_window_is_what_the_full_run_says() {
    let mut board = board();
    board.components.retain(|n| n.name != "C7");
    let soak = HeatingStage {
        air: Some(air_below(300.0)),
        during: HeatingAids::default(),
        lasts: Duration::seconds(30.0),
        change: Duration::seconds(5.0),
    };
    let recipe = Recipe { preheat: vec![soak], longest: Duration::seconds(120.0), ..below(400.0) };
    let (composition, station, ambient) = (&sac305(), &station(), Temperature::celsius(23.0));
    let order = Order {
        board: &board,
        composition,
        station,
        recipe: &recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        watch: &WANTED,
    };
    let map = process_window(&order).expect("computed");
    let flow = map.flows.iter().position(|f| f.in_litres_per_minute() >= 90.0).expect("in range");
    let mut compared = 0;
    for set in (20..map.sets.len()).step_by(6) {
        let air = HotAir { set: map.sets[set], flow: map.flows[flow], ..recipe.air.unwrap() };
        let full = nominal(&board, &Recipe { air: Some(air), ..recipe.clone() });
        if let (Some(full_at), Some(scaled)) = (full.release, map.at(flow, set).release_s) {
            let full_at = full_at - full.last_from;
            assert!((full_at - scaled).abs() < 0.08 * full_at + 1.0, "{full_at} against {scaled}");
            compared += 1;
        }
    }
    assert!(compared >= 2, "{compared}");
    assert!(map.candidates.iter().any(|c| c.outcome() == WindowCell::Works));
}

#[test]
fn a_replay_ends_at_the_release_that_the_run_found() {
    let (board, recipe) = (board(), below(440.0));
    with_case(&board, &recipe, |case| {
        let full = run(case, &ParameterSample::nominal(), Resolution::FINE);
        let replay = replay(case, 60).expect("not cancelled");
        assert_eq!(replay.melted, full.melted);
        assert_eq!(replay.off, full.release.expect("melts").ceil());
        assert!(replay.released && replay.frames.len() <= 60 && replay.frames.len() > 30);
        let shared = replay.off as usize + 1;
        assert_eq!(replay.traces.joints[0][..shared], full.traces.joints[0][..shared]);
        assert!(replay.traces.pads.last() < replay.traces.pads.get(replay.off as usize), "it cools");
    });
}

#[test]
fn what_nobody_wants_any_more_ends_without_a_plan() {
    let watch = Watch::new();
    watch.cancel();
    let cancelled = planned(&board(), &below(440.0), &watch);
    assert_eq!(cancelled, Err(Unplanned::Cancelled(Cancelled)));
    let (composition, station, ambient, recipe) = (&sac305(), &station(), Temperature::celsius(23.0), &below(440.0));
    let order = Order {
        board: &board(),
        composition,
        station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        watch: &watch,
    };
    assert_eq!(process_window(&order), Err(Unplanned::Cancelled(Cancelled)));
}
