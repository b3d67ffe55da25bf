//! The plan as a whole, on the made-up board of the tests.

#![allow(clippy::expect_used)]

mod common;

use common::{WANTED, air_below, below, board, component, fed, sac305, station};
use mend_core::board::{Board, Face, KeepIntact};
use mend_core::caution::Caution;
use mend_core::finding::Finding;
use mend_core::finding::problem::{BoardProblem, Named, Problem, ValueProblem};
use mend_core::heat::known::Knowledge;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::tool::HotAir;
use mend_core::materials::BodyMaterial;
use mend_core::planning::limited_by::{LastMelt, LimitedBy};
use mend_core::planning::make_plan::plan;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::order::{Order, Unplanned};
use mend_core::planning::plan::{Plan, WindowState};
use mend_core::planning::runs::SAMPLES;
use mend_core::planning::sequence::line::{FeedLine, Line, PadsLine};
use mend_core::planning::sequence::script::Script;
use mend_core::planning::sequence::sequence;
use mend_core::planning::sequence::step::{Step, StepKind};
use mend_core::planning::sequence::task::Task;
use mend_core::solder::JointComposition;
use mend_core::units::{Duration, Flow, Length, Temperature, Unit};

fn order_with(board: &Board, recipe: &Recipe, composition: &JointComposition) -> Result<Plan, Vec<Finding>> {
    let ambient = Temperature::celsius(23.0);
    let (station, watch) = (station(), &WANTED);
    let order = Order {
        board,
        composition,
        station: &station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        watch,
    };
    plan(&order).map_err(Unplanned::objections)
}

fn planned(board: &Board, recipe: &Recipe) -> Plan {
    order_with(board, recipe, &sac305()).expect("can be planned")
}

#[test]
fn a_plan_has_a_band_for_everything_and_is_sorted_by_tightness() {
    let plan = planned(&board(), &below(440.0));
    assert_eq!(plan.samples, SAMPLES);
    assert_eq!(plan.joints.len(), 28);
    let (low, mid) = (plan.release.low_s.expect("some release"), plan.release.mid_s.expect("most release"));
    assert!(low < mid);
    // Two rows, anchors, body, two components, laminate.
    assert_eq!(plan.margins.len(), 7);
    let binding: Vec<f64> = plan.margins.iter().filter(|m| !m.expendable).map(|m| m.headroom_k).collect();
    assert!(binding.is_sorted(), "{binding:?}");
    assert!(plan.margins.iter().flat_map(|m| &m.marks).all(|m| m.temperature_c.low <= m.temperature_c.high));
    assert!(plan.solid_after_s.is_some_and(|h| h.low > 0.0));
}

#[test]
fn cool_air_never_melts_it_and_the_plan_says_so() {
    let plan = planned(&board(), &below(260.0));
    assert_eq!(plan.window, WindowState::Closed);
    assert_eq!(plan.release.share, 0.0);
    let LimitedBy::Found { last: Some(last), .. } = &plan.limited_by else { panic!("{:?}", plan.limited_by) };
    assert!(matches!(last.melts, LastMelt::NotWithin { .. }), "{last:?}");
    assert!(plan.solid_after_s.is_none());
    let joints = plan.margins.iter().filter(|m| m.kind == MarginKind::Joints);
    assert!(joints.into_iter().all(|m| m.headroom_k < 0.0));
}

#[test]
fn a_frail_component_pulls_the_stop_line_forward() {
    let mut frail = board();
    frail.components.push(component("foam", [30.0, 12.0, 6.0, 3.0], Face::Bottom, BodyMaterial::AcrylicFoam));
    let (plain, frail) = (planned(&board(), &below(440.0)), planned(&frail, &below(440.0)));
    assert!(frail.abort.at_s < plain.abort.at_s);
    assert_eq!(frail.abort.spares.as_ref().and_then(|of| of.component()), Some("foam"));
    assert!(frail.chance < plain.chance || plain.chance == 0.0);
}

#[test]
fn impossible_settings_are_refused_all_at_once() {
    let air = HotAir {
        set: Temperature::celsius(900.0),
        flow: Flow::litres_per_minute(0.0),
        distance: Length::mm(-3.0),
        ..air_below(400.0)
    };
    let recipe = Recipe { longest: Duration::seconds(1e9), ..Recipe::from(air) };
    let refused = order_with(&board(), &recipe, &sac305()).expect_err("refused");
    let places: Vec<&str> = refused.iter().map(|f| f.place.as_str()).collect();
    for place in ["set_c", "flow_lpm", "distance_mm", "longest_s"] {
        assert!(places.contains(&place), "{places:?}");
    }
}

#[test]
fn an_impossible_board_is_refused_by_name() {
    let mut odd = board();
    odd.stack.thickness = Length::mm(-1.0);
    odd.connector.joints[3].at.x = 500.0;
    odd.connector.joints[5].name = "A5".to_owned();
    let refused = order_with(&odd, &below(400.0), &sac305()).expect_err("refused");
    let has = |place: &str, problem: Problem| refused.iter().any(|f| f.place == place && f.problem == problem);
    let thin = ValueProblem::outside(-1.0, (0.1, 5.0), Unit::Millimetres).expect("outside");
    assert!(has("thickness_mm", thin.into()), "{refused:?}");
    assert!(has("joint A4", BoardProblem::OutsideOutline { x_mm: 500.0, y_mm: 8.0 }.into()), "{refused:?}");
    assert!(has("joint A5", BoardProblem::NameTwice { what: Named::Joint }.into()), "{refused:?}");
}

#[test]
fn the_steps_carry_the_plans_own_figures() {
    let (board, plan) = (board(), planned(&board(), &below(440.0)));
    let steps = sequence(&Script::plain(&board, &plan, &sac305()));
    let (family, limited_by) = (None, plan.limited_by.clone());
    let tasks: Vec<&Task> = steps.iter().filter_map(Step::task).collect();
    let heat = Task::Heat { family, limited_by };
    assert_eq!(tasks[..5], [&Task::MakeReady, &Task::Protect, &Task::Flux, &Task::AddAlloy, &heat]);
    let StepKind::Heat { release, abort_s } = &steps[4].kind else { panic!("heat") };
    assert_eq!((*release, *abort_s), (plan.release, plan.abort.at_s));
    let StepKind::Hold { until_s } = &steps[10].kind else { panic!("hold") };
    assert_eq!(*until_s, plan.solid_after_s);
}

#[test]
fn feeding_low_melt_moves_the_line_and_the_release() {
    let anchors = fed("Sn42Bi58", 0.6, &["A", "anchors"]);
    let (plain, fed) =
        (planned(&board(), &below(440.0)), order_with(&board(), &below(440.0), &anchors).expect("planned"));
    let row = |plan: &Plan, name: &str| plan.margins.iter().find(|m| m.name == name).expect("a row").clone();
    let (before, after) = (row(&plain, "anchors"), row(&fed, "anchors"));
    let near = |t: f64| (t - 219.6).abs() < 1.0;
    assert!(near(before.line_c) && before.line_spread_k < 1.5, "{} ± {}", before.line_c, before.line_spread_k);
    assert!(after.line_c < 200.0 && after.line_spread_k > 4.0, "{} ± {}", after.line_c, after.line_spread_k);
    assert!(after.headroom_k > before.headroom_k + 10.0);
    assert_eq!(row(&fed, "B").line_c, row(&plain, "B").line_c, "the hidden row melts as the factory left it");
    assert!(
        fed.melts_at_c < plain.melts_at_c,
        "the last to melt are its pads, which let go sooner than the factory's holes"
    );
    let steps = sequence(&Script::plain(&board(), &fed, &anchors));
    let anchors = |line: &Line| matches!(line, Line::Feed(FeedLine::FeedRow { row, joints: 4, alloy, .. }) if row == "anchors" && alloy == "Sn42Bi58");
    assert!(steps[3].lines().iter().any(anchors), "{:?}", steps[3]);
    let passes =
        |line: &Line| matches!(line, Line::Pads(PadsLine::WickPasses { passes: 2.., flood }) if flood == "SAC305");
    assert!(steps[6].lines().iter().any(passes), "{:?}", steps[6]);
    assert!(!steps[6].cautions.contains(&Caution::Lead), "there is no lead in it");
    let leaded = common::fed("Sn63Pb37", 0.6, &["anchors"]);
    let steps = sequence(&Script::plain(&board(), &fed, &leaded));
    for (k, task) in [(3, Task::AddAlloy), (6, Task::Wick)] {
        assert!(
            steps[k].task() == Some(&task) && steps[k].cautions.contains(&Caution::Lead),
            "{task:?}: lead on hands and in waste"
        );
    }
}
