//! The rows of the margin strip, from the runs.

use super::limits::{LAMINATE_MINUTE_C, LAMINATE_NEVER_C};
use super::margin::{Kind, Margin, Mark};
use super::outcome::Outcome;
use crate::board::{Neighbour, row_names};
use crate::heat::run::Run;

/// How far above its melting line every joint is wanted at the stop line, K (E).
const JOINT_WANTED_K: f64 = 10.0;

/// Everything against its line, what may be lost last, else the tightest first.
pub(super) fn margins(outcome: &Outcome<'_>) -> Vec<Margin> {
    let mut rows = joint_rows(outcome);
    rows.extend(body_row(outcome));
    rows.extend(neighbour_rows(outcome));
    rows.extend(laminate_row(outcome));
    rows.sort_by(|a, b| {
        (a.expendable, a.margin_k).partial_cmp(&(b.expendable, b.margin_k)).unwrap_or(std::cmp::Ordering::Equal)
    });
    rows
}

/// Where a curve stood at the end of each pass before the last, nominally, °C.
fn after_passes(outcome: &Outcome<'_>, curve: impl Fn(&Run) -> &[f32]) -> Vec<f64> {
    let curve = curve(&outcome.fine);
    let mut at = 0;
    let passes = outcome.case.recipe.before.iter().map(|pass| {
        at += pass.seconds();
        curve.get(at).or(curve.last()).map_or(0.0, |t| f64::from(*t))
    });
    passes.collect()
}

/// A row per row of the connector, a mark per joint: its temperature at the stop line against where it melts. Each
/// sample has a melting line of its own; the margin is taken sample by sample.
fn joint_rows(outcome: &Outcome<'_>) -> Vec<Margin> {
    let joints = &outcome.case.board.connector.joints;
    let names = row_names(joints);
    let at = (outcome.fine.last_from + outcome.stop.at_s) as usize;
    let in_turn = outcome.case.recipe.in_turn(outcome.case.board);
    // A run that ended before the stop line had everything molten and something hurt: its last word counts. Joints that are
    // emptied one after the other count where they were hottest.
    let reached = |run: &Run, k: usize| {
        let curve = &run.traces.joints[k];
        if in_turn {
            return curve.iter().copied().max_by(f32::total_cmp).map(f64::from);
        }
        curve.get(at).or(curve.last()).map(|t| f64::from(*t))
    };
    let row = |name: &&str| {
        let own: Vec<usize> = (0..joints.len()).filter(|k| joints[*k].row == **name).collect();
        let mark = |k: &usize| {
            let temperature_c = outcome.band(|run| reached(run, *k))?;
            Some(Mark { name: joints[*k].name.clone(), temperature_c })
        };
        let over = |k: &usize| outcome.band(|run| Some(reached(run, *k)? - run.melts_at[*k])).map(|band| band.low);
        let margin_k = own.iter().filter_map(over).fold(f64::INFINITY, f64::min);
        let marks: Vec<Mark> = own.iter().filter_map(mark).collect();
        let hidden = own.iter().any(|k| joints[*k].hidden);
        let detail = format!("{} joints{}", marks.len(), if hidden { ", hidden" } else { "" });
        let target = own.first().map(|k| outcome.case.melting[*k]);
        let (line, spread) = target.map_or((0.0, 0.0), |t| (t.melted.in_celsius(), t.spread.in_kelvin()));
        let row = Margin::of((Kind::Joints, (*name).to_owned(), detail), marks, (line, JOINT_WANTED_K));
        let row = row.against_a_spread((spread, margin_k), JOINT_WANTED_K);
        match own.first() {
            Some(k) => row.after(after_passes(outcome, |run| &run.traces.joints[*k])),
            None => row,
        }
    };
    names.iter().map(row).collect()
}

fn body_row(outcome: &Outcome<'_>) -> Option<Margin> {
    let connector = &outcome.case.board.connector;
    let after = |run: &Run| run.cooling.as_ref().map(|c| c.body_peak);
    let temperature_c = outcome.band(|run| Some(outcome.highest(run, &run.traces.body, after(run))))?;
    let marks = vec![Mark { name: connector.name.clone(), temperature_c }];
    let line = (connector.material.limit().in_celsius(), connector.material.wanted_margin().in_kelvin());
    let what = (Kind::Body, "part's body".to_owned(), connector.material.name().to_owned());
    let row = Margin::of(what, marks, line).after(after_passes(outcome, |run| &run.traces.body));
    Some(if outcome.order.must_live.part() { row } else { row.expendable() })
}

/// What belongs to a donor's board may be lost.
fn of_the_board(outcome: &Outcome<'_>, row: Margin) -> Margin {
    if outcome.order.must_live.board() { row } else { row.expendable() }
}

fn neighbour_rows(outcome: &Outcome<'_>) -> Vec<Margin> {
    let row = |(k, n): (usize, &Neighbour)| {
        let after = |run: &Run| run.cooling.as_ref().map(|c| c.neighbour_peaks[k]);
        let curve = |run: &Run| outcome.highest(run, &run.traces.neighbours[k], after(run));
        let temperature_c = outcome.band(|run| Some(curve(run)))?;
        let marks = vec![Mark { name: n.name.clone(), temperature_c }];
        let line = (n.limit().in_celsius(), n.material.wanted_margin().in_kelvin());
        let detail = format!("{}, {}", n.material.name(), n.face.name());
        let row = Margin::of((Kind::Neighbour, n.name.clone(), detail), marks, line);
        Some(of_the_board(outcome, row.after(after_passes(outcome, |run| &run.traces.neighbours[k]))))
    };
    outcome.case.board.neighbours.iter().enumerate().filter_map(row).collect()
}

fn laminate_row(outcome: &Outcome<'_>) -> Option<Margin> {
    let temperature_c = outcome.band(|run| Some(outcome.highest(run, &run.traces.laminate, None)))?;
    let marks = vec![Mark { name: "hottest place".to_owned(), temperature_c }];
    let what = (Kind::Laminate, "laminate".to_owned(), "hottest place, either face".to_owned());
    let row = Margin::of(what, marks, (LAMINATE_NEVER_C, LAMINATE_NEVER_C - LAMINATE_MINUTE_C));
    Some(of_the_board(outcome, row.after(after_passes(outcome, |run| &run.traces.laminate))))
}
