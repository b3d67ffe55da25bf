//! The rows of the margin strip, from the runs.

use super::limits::LimitSubject;
use super::margin::{HotFor, Margin, MarginDetail, MarginKind, MarginMark, RowHead};
use super::runs::PlanRuns;
use super::tolerance::{LAMINATE, Tolerance};
use crate::board::{Component, row_names};
use crate::heat::run::Run;

/// How far above its melting line every joint is wanted at the abort time, K (E).
const JOINT_WANTED_K: f64 = 10.0;
/// How much of what the laminate stands is wanted left, K (E: half the way from ten minutes to one).
const LAMINATE_WANTED_K: f64 = 15.0;

/// Everything against its line, what may be lost last, else the tightest first.
pub(super) fn margins(outcome: &PlanRuns<'_>) -> Vec<Margin> {
    let mut rows = joint_rows(outcome);
    rows.extend(body_row(outcome));
    rows.extend(component_rows(outcome));
    rows.extend(laminate_row(outcome));
    rows.sort_by(|a, b| {
        (a.expendable, a.headroom_k).partial_cmp(&(b.expendable, b.headroom_k)).unwrap_or(std::cmp::Ordering::Equal)
    });
    rows
}

/// Where a curve stood at the end of each stage before the last, nominally, °C.
fn after_stages(outcome: &PlanRuns<'_>, curve: impl Fn(&Run) -> &[f32]) -> Vec<f64> {
    let curve = curve(&outcome.fine);
    let mut at = 0;
    let stages = outcome.case.recipe.preheat.iter().map(|stage| {
        at += stage.seconds();
        curve.get(at).or(curve.last()).map_or(0.0, |t| f64::from(*t))
    });
    stages.collect()
}

/// A row per row of the connector, a mark per joint: its temperature at the abort time against where it melts. Each
/// sample has a melting line of its own; the margin is taken sample by sample.
fn joint_rows(outcome: &PlanRuns<'_>) -> Vec<Margin> {
    let joints = &outcome.case.board.connector.joints;
    let names = row_names(joints);
    let at = (outcome.fine.last_from + outcome.abort.at_s) as usize;
    let in_turn = outcome.case.in_turn();
    // A run that ended before the abort time had everything molten and something damaged: its last word counts. Joints that are
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
            Some(MarginMark { name: joints[*k].name.clone(), temperature_c })
        };
        let over = |k: &usize| outcome.band(|run| Some(reached(run, *k)? - run.melts_at[*k])).map(|band| band.low);
        let headroom_k = own.iter().filter_map(over).fold(f64::INFINITY, f64::min);
        let marks: Vec<MarginMark> = own.iter().filter_map(mark).collect();
        let hidden = own.iter().any(|k| joints[*k].hidden);
        let detail = MarginDetail::Joints { joints: marks.len(), hidden };
        let line = own.first().and_then(|k| outcome.band(|run| Some(run.melts_at[*k])));
        let (line, spread) = line.map_or((0.0, 0.0), |band| (band.mid, (band.high - band.low) / 2.0));
        let row = Margin::from_marks(
            RowHead { kind: MarginKind::Joints, name: (*name).to_owned(), detail },
            marks,
            line,
            JOINT_WANTED_K,
        );
        let row = row.against_a_spread(spread, headroom_k, JOINT_WANTED_K);
        match own.first() {
            Some(k) => row.after(after_stages(outcome, |run| &run.traces.joints[*k])),
            None => row,
        }
    };
    names.iter().map(row).collect()
}

/// A row of one thing that stands its heat for a while. Its line is where its highest temperature would lie if the whole history
/// were hotter by what is left of it.
fn stood_row(outcome: &PlanRuns<'_>, head: RowHead, mark: String, stood: Stood) -> Option<Margin> {
    let Stood { watched, stands, wanted_k } = stood;
    let temperature_c = outcome.band(|run| Some(outcome.highest(run, watched)))?;
    let left = |run: &Run| stands.under(&run.parameters).headroom(outcome.history(run, watched));
    let left = outcome.band(|run| Some(left(run)))?;
    let line_c = temperature_c.mid + left.mid;
    let row = Margin::from_marks(head, vec![MarginMark { name: mark, temperature_c }], line_c, wanted_k);
    let row = row.against_a_spread(stands.spread_k(), left.low, wanted_k);
    let hot = stands.counts_from_c().map(|above_c| {
        let seconds = outcome.history(&outcome.fine, watched).filter(|t| *t >= above_c).count();
        HotFor { s: seconds as f64, above_c }
    });
    Some(Margin { hot, ..row.after(after_stages(outcome, |run| watched.curve(&run.traces))) })
}

/// What is watched of a row, what it stands, and the headroom that is wanted, K.
#[derive(Clone, Copy)]
struct Stood {
    watched: LimitSubject,
    stands: Tolerance,
    wanted_k: f64,
}

fn body_row(outcome: &PlanRuns<'_>) -> Option<Margin> {
    if !outcome.case.purpose.has_part() {
        return None;
    }
    let connector = &outcome.case.board.connector;
    let material = connector.material;
    let detail = MarginDetail::Body { material };
    let head = RowHead { kind: MarginKind::Body, name: connector.name.clone(), detail };
    let stands = Tolerance::from_material(material, material.limit());
    let stood = Stood { watched: LimitSubject::Body, stands, wanted_k: material.wanted_margin().in_kelvin() };
    let row = stood_row(outcome, head, connector.name.clone(), stood)?;
    Some(if outcome.order.keeps_part() { row } else { row.expendable() })
}

/// What belongs to a donor's board may be lost.
fn of_the_board(outcome: &PlanRuns<'_>, row: Margin) -> Margin {
    if outcome.order.keeps_board() { row } else { row.expendable() }
}

fn component_rows(outcome: &PlanRuns<'_>) -> Vec<Margin> {
    let row = |(k, n): (usize, &Component)| {
        let detail = MarginDetail::Component { material: n.material, face: n.face };
        let head = RowHead { kind: MarginKind::Component, name: n.name.clone(), detail };
        let (watched, stands) = (LimitSubject::Component(k), Tolerance::from_component(n));
        let stood = Stood { watched, stands, wanted_k: n.material.wanted_margin().in_kelvin() };
        Some(of_the_board(outcome, stood_row(outcome, head, n.name.clone(), stood)?))
    };
    outcome.case.board.components.iter().enumerate().filter_map(row).collect()
}

fn laminate_row(outcome: &PlanRuns<'_>) -> Option<Margin> {
    let head = RowHead { kind: MarginKind::Laminate, name: String::new(), detail: MarginDetail::HottestPlace };
    let stood = Stood { watched: LimitSubject::Laminate, stands: LAMINATE, wanted_k: LAMINATE_WANTED_K };
    Some(of_the_board(outcome, stood_row(outcome, head, String::new(), stood)?))
}
