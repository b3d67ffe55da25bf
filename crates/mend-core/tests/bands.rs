//! What a band promises: truths drawn from what is guessed fall into it as often as it says, and chance, abort time and headroom
//! tell one story.

mod common;

use common::{WANTED, below, board, sac305, station, with_case};
use mend_core::board::KeepIntact;
use mend_core::heat::ensemble::run_all;
use mend_core::heat::known::Knowledge;
use mend_core::heat::parameters::ParameterSample;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::{Held, Recipe};
use mend_core::heat::run::Run;
use mend_core::planning::band::TimeBand;
use mend_core::planning::make_plan::plan;
use mend_core::planning::margin::MarginKind;
use mend_core::planning::order::{Order, Unplanned};
use mend_core::planning::plan::{Plan, WindowState};
use mend_core::planning::runs::SAMPLES;
use mend_core::units::Temperature;

/// Times to release of so many samples, the hold included.
fn releases(recipe: &Recipe, count: usize) -> Vec<Option<f64>> {
    let board = board();
    with_case(&board, recipe, |case| {
        let runs = run_all(case, &ParameterSample::samples(count, case), &|_: &Run| true);
        runs.iter().map(|run| run.release).collect()
    })
}

fn holds(band: &TimeBand, truth: Option<f64>) -> bool {
    let (low, high) = (band.low_s.unwrap_or(f64::INFINITY), band.high_s.unwrap_or(f64::INFINITY));
    (low..=high).contains(&truth.unwrap_or(f64::INFINITY))
}

#[test]
fn eight_in_ten_of_three_hundred_truths_fall_into_the_band() {
    let mut held = Vec::new();
    for set in [400.0, 440.0, 470.0] {
        let recipe = below(set);
        let band = TimeBand::from_times(&releases(&recipe, SAMPLES), 1.0);
        // Three hundred are another spread over the same guesses than the plan's sixty-four.
        held.extend(releases(&recipe, 100).into_iter().map(|truth| holds(&band, truth)));
    }
    let share = held.iter().filter(|held| **held).count() as f64 / held.len() as f64;
    assert!(held.len() == 300 && (0.76..=0.84).contains(&share), "{share}");
}

#[test]
fn a_wider_guess_never_narrows_a_band() {
    let width = |held: Held| {
        let band = TimeBand::from_times(&releases(&Recipe { held, ..below(460.0) }, SAMPLES), 1.0);
        band.high_s.unwrap_or(f64::INFINITY) / band.low_s.expect("it melts")
    };
    assert!(width(Held::Hand) > width(Held::Stand));
}

fn planned(recipe: &Recipe) -> Result<Plan, Unplanned> {
    let (board, composition, station) = (board(), sac305(), station());
    let (ambient, keep_intact, watch) = (Temperature::celsius(23.0), KeepIntact::Board, &WANTED);
    plan(&Order {
        board: &board,
        composition: &composition,
        station: &station,
        recipe,
        ambient,
        known: &Knowledge::NOTHING,
        purpose: Purpose::Remove,
        keep_intact,
        watch,
    })
}

#[test]
fn chance_abort_time_and_headroom_tell_one_story() {
    for set in [340.0, 400.0, 440.0, 480.0] {
        let plan = planned(&below(set)).expect("it can be computed");
        let rows = plan.margins.iter().filter(|m| m.kind != MarginKind::Joints && !m.expendable);
        let tightest = rows.map(|m| m.headroom_k).fold(f64::INFINITY, f64::min);
        assert!(plan.chance <= plan.release.share, "what never lets go does not work");
        if plan.window == WindowState::Open {
            assert!(tightest >= 0.0, "nine in ten are whole: {tightest} K at {set} °C");
            assert!(plan.release.mid_s.is_some_and(|mid| plan.abort.at_s >= mid), "{:?}", plan.abort);
        }
        if tightest < -10.0 {
            assert!(plan.chance < 0.9, "{tightest} K and {} at {set} °C", plan.chance);
        }
    }
}
