//! The fit as a run of its own: what the joints hold then, what must come through, and how it begins.

#![allow(clippy::expect_used)]

mod common;

use common::{WANTED, below, board, fed, sac305, station};
use mend_core::board::{Board, KeepIntact};
use mend_core::heat::iron::{EVERY_ROW, Iron};
use mend_core::heat::known::Knowledge;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::{HeatingAids, Recipe};
use mend_core::materials::Metal;
use mend_core::method::usual;
use mend_core::planning::make_plan::plan;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::order::Order;
use mend_core::planning::plan::Plan;
use mend_core::planning::small_runs::SmallWork;
use mend_core::solder::JointComposition;
use mend_core::units::{Duration, Length, Temperature};

fn planned(board: &Board, recipe: &Recipe, composition: &JointComposition, purpose: Purpose) -> Plan {
    let ambient = Temperature::celsius(23.0);
    let (station, watch, keep_intact) = (station(), &WANTED, KeepIntact::Board);
    let order = Order {
        board,
        composition,
        station: &station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose,
        keep_intact,
        watch,
    };
    plan(&order).expect("it can be planned")
}

fn mid(plan: &Plan) -> f64 {
    plan.release.mid_s.expect("it melts")
}

#[test]
fn after_low_melt_a_fit_with_lead_free_takes_longer_than_the_removal_did() {
    let (board, recipe) = (board(), below(440.0));
    let low = fed("Sn42Bi58", 0.5, &["A", "anchors"]);
    let removal = planned(&board, &recipe, &low, Purpose::Remove);
    let lead_free = planned(&board, &recipe, &low.for_fit(&board), Purpose::Fit);
    let refit = Metal::parse("refit", "Sn63Pb37").expect("in the table");
    let leaded = JointComposition { refit, ..low.clone() }.for_fit(&board);
    let leaded = planned(&board, &recipe, &leaded, Purpose::Fit);
    assert!(mid(&lead_free) >= mid(&removal), "{} after {}", mid(&lead_free), mid(&removal));
    assert!(mid(&lead_free) > mid(&leaded) + 2.0, "{} against {}", mid(&lead_free), mid(&leaded));
    assert!(lead_free.melts_at_c > leaded.melts_at_c + 10.0);
}

#[test]
fn a_new_part_must_come_through_whole_and_a_removed_one_need_not() {
    let (board, recipe) = (board(), below(440.0));
    let body = |plan: &Plan| plan.margins.iter().find(|m| m.kind == MarginKind::Body).map(|m| m.expendable);
    let composition = sac305().for_fit(&board);
    assert_eq!(body(&planned(&board, &recipe, &sac305(), Purpose::Remove)), Some(true));
    let fit = planned(&board, &recipe, &composition, Purpose::Fit);
    assert_eq!((body(&fit), fit.purpose, fit.alloy.as_str()), (Some(false), Purpose::Fit, "SAC305"));
    let set_on = planned(&board, &recipe, &composition, Purpose::SetOn);
    assert_eq!(body(&set_on), None, "the part is in the hand");
    let works: Vec<SmallWork> = fit.small_runs.iter().map(|run| run.work).collect();
    assert!(works.contains(&SmallWork::FlowAnchor), "{works:?}");
}

#[test]
fn a_warm_board_is_fitted_sooner_than_a_cold_one() {
    let (board, cold) = (board(), below(440.0));
    let composition = sac305().for_fit(&board);
    let warm = Recipe { begins_at: Some(Temperature::celsius(120.0)), ..cold.clone() };
    let at = |recipe: &Recipe| mid(&planned(&board, recipe, &composition, Purpose::Fit));
    let (cold, warm) = (at(&cold), at(&warm));
    assert!(warm < 0.9 * cold && warm > 0.3 * cold, "{warm} s against {cold} s");
}

#[test]
fn pin_by_pin_each_joint_counts_for_itself() {
    // The hidden row is out of a tip's reach: the rest is a part of its own here.
    let mut board = board();
    board.connector.joints.retain(|joint| !joint.hidden);
    let composition = sac305().for_fit(&board);
    let fine =
        Iron { row: EVERY_ROW.to_owned(), tip: Length::mm(1.0), dwell: Duration::seconds(4.0), ..usual::iron(&board) };
    let places = fine.visits(&board).len();
    let longest = Duration::seconds(2.0 * 4.0 * places as f64);
    let recipe = Recipe { longest, ..Recipe::from(HeatingAids { iron: Some(fine), ..HeatingAids::default() }) };
    let fit = planned(&board, &recipe, &composition, Purpose::Fit);
    let removal = planned(&board, &recipe, &sac305(), Purpose::Remove);
    assert!(fit.release.share > 0.9, "every joint has been liquid once: {:?}", fit.release);
    assert!(removal.release.share < 0.1, "never all at once: {:?}", removal.release);
}
