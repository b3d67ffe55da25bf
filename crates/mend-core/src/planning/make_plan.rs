//! From an order to its plan: runs, readings of them, margins, what the rules have to say.

use super::band::TimeBand;
use super::laminate::{laminate, pad_lift};
use super::limited_by::limited_by;
use super::limits::in_time;
use super::margin::{LimitStatus, Margin};
use super::next_move::next_move;
use super::order::{Order, Unplanned};
use super::plan::{ENGINE, HeatMap, JointMelt, Plan, WindowState};
use super::rows::margins;
use super::rules;
use super::rules::input::RuleInput;
use super::runs::{PlanRuns, SAMPLES};
use super::sensitivity::sensitivities;
use super::small_runs::small_runs;
use crate::finding::Finding;
use crate::heat::at_work::blowing;
use crate::heat::mesh::{Mesh, Resolution};
use crate::heat::parameters::ParameterSample;
use crate::heat::run::Run;
use crate::solder::{MeltTarget, leaded_into_lead_free};
use crate::watch::Cancelled;

/// Is the best single change looked for, where the window is not open?
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Moves {
    /// Looked for.
    Asked,
    /// Left out: who searches all settings needs no single change.
    NotAsked,
}

/// Computes the plan, or answers every blocking objection to its inputs.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::make_plan::plan;
/// let made = plan(&bench.order()).expect("it can be computed");
/// assert!((0.0..=1.0).contains(&made.chance) && made.abort.at_s > 0.0);
/// assert_eq!(made.joints.len(), bench.board.connector.joints.len());
/// ```
pub fn plan(order: &Order<'_>) -> Result<Plan, Unplanned> {
    planned(order, Moves::Asked)
}

/// The same without looking for a better single change.
pub(super) fn plan_alone(order: &Order<'_>) -> Result<Plan, Unplanned> {
    planned(order, Moves::NotAsked)
}

fn planned(order: &Order<'_>, moves: Moves) -> Result<Plan, Unplanned> {
    let mut findings = order.checked()?;
    findings.extend(leaded_into_lead_free(order.composition));
    let melting = order.composition.targets(order.board)?;
    let runs = PlanRuns::run(order, order.case(&melting))?;
    let plan = assembled(&runs, findings, moves)?;
    Ok(Plan { small_runs: if moves == Moves::Asked { small_runs(order)? } else { Vec::new() }, ..plan })
}

fn chance(runs: &PlanRuns<'_>) -> f64 {
    // Whoever follows the abort time takes the air away then; and what is released still cools.
    let until = |run: &Run| run.last_from + runs.abort.at_s;
    let whole = |run: &Run| runs.limits.iter().all(|limit| runs.left(run, limit) > 0.0);
    let works = runs.samples.iter().zip(&runs.damages);
    let works =
        works.filter(|(run, damage)| in_time(run, damage.as_ref()) && run.release <= Some(until(run)) && whole(run));
    works.count() as f64 / runs.samples.len() as f64
}

fn joints(runs: &PlanRuns<'_>) -> Vec<JointMelt> {
    let names = runs.case.board.connector.joints.iter().enumerate();
    names
        .map(|(k, joint)| {
            let times: Vec<Option<f64>> = runs.samples.iter().map(|run| runs.since(run.melted[k])).collect();
            JointMelt { joint: joint.name.clone(), melts: TimeBand::from_times(&times, runs.time_factor()) }
        })
        .collect()
}

fn map(runs: &PlanRuns<'_>) -> HeatMap {
    let mesh = Mesh::from_board(runs.case.board, Resolution::FINE, 1.0);
    let [top_c, bottom_c] = [0, 1].map(|face| {
        let cells = runs.fine.faces[face].iter().zip(&mesh.inside);
        cells.map(|(t, inside)| inside.then(|| (t * 10.0).round() / 10.0)).collect()
    });
    HeatMap { x_mm: mesh.x.borders().to_vec(), y_mm: mesh.y.borders().to_vec(), top_c, bottom_c }
}

/// What the rules have to say of the runs.
fn findings(runs: &PlanRuns<'_>) -> Vec<Finding> {
    let nominal = ParameterSample::middle(&runs.case);
    let air = runs.case.recipe.air.map(|air| blowing(&runs.case, &air, &nominal));
    let factory = MeltTarget::melted_of(&runs.order.composition.factory).map_or(f64::INFINITY, |t| t.in_celsius());
    let off = runs.off(&runs.fine);
    rules::check(&RuleInput { order: runs.order, air: air.as_ref(), fine: &runs.fine, off, factory_melts_c: factory })
}

fn assembled(runs: &PlanRuns<'_>, mut findings: Vec<Finding>, moves: Moves) -> Result<Plan, Cancelled> {
    let Order { composition, recipe, .. } = *runs.order;
    let releases: Vec<Option<f64>> = runs.samples.iter().map(|run| runs.since(run.release)).collect();
    let (margins, chance) = (margins(runs), chance(runs));
    let window = window(&margins, chance);
    findings.extend(self::findings(runs));
    let next_move = match window {
        WindowState::Open => None,
        _ if moves == Moves::NotAsked => None,
        _ => next_move(runs),
    };
    runs.case.watch.wanted()?;
    Ok(Plan {
        engine: ENGINE,
        recipe: recipe.clone(),
        purpose: runs.order.purpose,
        small_runs: Vec::new(),
        heater: runs.case.station.iron,
        alloy: if runs.order.purpose.fits() {
            composition.refit.name.clone()
        } else {
            composition.factory.name.clone()
        },
        fed: composition.fed().map(|feed| feed.metal.name.clone()),
        melts_at_c: runs.fine.melts_at.iter().copied().fold(f64::MIN, f64::max),
        samples: SAMPLES,
        window,
        chance,
        limited_by: limited_by(runs, &margins),
        release: TimeBand::from_times(&releases, runs.time_factor()),
        solid_after_s: runs.band(|run| run.cooling.as_ref()?.hold),
        wickable_for_s: runs.band(|run| run.cooling.as_ref().map(|c| c.warm)),
        laminate: laminate(runs),
        pad_lift: pad_lift(runs),
        next_move,
        guesses: sensitivities(runs),
        joints: joints(runs),
        map: map(runs),
        abort: runs.abort.clone(),
        margins,
        findings,
    })
}

/// A window is open where so many of the samples work, and nothing is past its limit.
pub(super) const OPEN_FROM: f64 = 0.9;

fn window(margins: &[Margin], chance: f64) -> WindowState {
    let past = margins.iter().any(|m| !m.expendable && m.status == LimitStatus::Past);
    match chance {
        c if c >= OPEN_FROM && !past => WindowState::Open,
        c if c >= 0.5 => WindowState::Tight,
        _ => WindowState::Closed,
    }
}
