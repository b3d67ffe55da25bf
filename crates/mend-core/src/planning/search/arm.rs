//! An arm: a beginning with one nozzle. Bare first; where that leaves no open window, shields of one kind, each over what is
//! tightest, one after the other until it opens.

use rayon::prelude::*;

use super::super::order::Unplanned;
use super::request::{Effort, SearchRequest, Tried};
use super::screen::{SETS, Setting, Soaked, best, soak};
use crate::heat::covered_joint::covered_joints;
use crate::heat::recipe::Recipe;
use crate::heat::shield::ShieldKind;
use crate::heat::tool::HotAir;
use crate::method::start::{AirSpace, Start};
use crate::method::usual;
use crate::units::Length;

/// A plan with more shields than this is another plan (E: an hour of taping).
const MOST_SHIELDS: usize = 4;
/// Of each nozzle's settings so many are shielded.
const SHIELDED: usize = 3;

/// Everything an air beginning leads to: the best bare setting of each nozzle and, where it is not open, the best of each
/// kind of shield. And how many candidates were judged.
pub(super) fn all(
    sought: &SearchRequest<'_>,
    start: &Start,
    space: &AirSpace,
) -> Result<(Vec<Tried>, usize), Unplanned> {
    let settings = space.distances.len() * space.flows.len() * space.motions.len();
    sought.watch.expect(space.nozzles.len() * settings);
    let soak = soak(sought, start)?;
    let arm =
        |nozzle: &Length| arm(sought, &Arm { start, space, nozzle: *nozzle, soaked: Soaked::Known(soak.as_ref()) });
    let arms: Vec<(Vec<Tried>, usize)> = space.nozzles.par_iter().map(arm).collect::<Result<_, _>>()?;
    let count = arms.iter().map(|(_, count)| count).sum();
    Ok((arms.into_iter().flat_map(|(tried, _)| tried).collect(), count))
}

/// A beginning with one nozzle.
struct Arm<'a> {
    start: &'a Start,
    space: &'a AirSpace,
    nozzle: Length,
    soaked: Soaked<'a>,
}

fn arm(sought: &SearchRequest<'_>, arm: &Arm<'_>) -> Result<(Vec<Tried>, usize), Unplanned> {
    let &Arm { start, space, nozzle, soaked } = arm;
    let recipes = recipes(start, space, nozzle);
    let screened = |recipe: &Recipe| {
        let tried = best(sought, &Setting { composition: &start.composition, recipe, hottest: space.hottest, soaked });
        sought.watch.one_done();
        tried
    };
    let mut bare: Vec<Tried> =
        recipes.par_iter().map(screened).collect::<Result<Vec<_>, _>>()?.into_iter().flatten().collect();
    sought.watch.wanted()?;
    bare.sort_by(|a, b| b.score.order(&a.score));
    let mut count = recipes.len() * SETS;
    let mut all: Vec<Tried> = bare.first().cloned().into_iter().collect();
    if all.iter().all(|tried| !tried.score.is_open()) {
        bare.truncate(if sought.effort == Effort::Look { 1 } else { SHIELDED });
        let kinds = sought.subject.equipment.shields.par_iter();
        let shielded = kinds.map(|kind| shielded(sought, &bare, space, *kind)).collect::<Result<Vec<_>, _>>()?;
        count += shielded.iter().map(|(_, runs)| runs * SETS).sum::<usize>();
        all.extend(shielded.into_iter().filter_map(|(tried, _)| tried));
    }
    Ok((all, count))
}

fn recipes(start: &Start, space: &AirSpace, nozzle: Length) -> Vec<Recipe> {
    let Some(air) = start.recipe.air else { return Vec::new() };
    let mut recipes = Vec::new();
    for distance in &space.distances {
        for flow in &space.flows {
            for motion in &space.motions {
                let air = HotAir { nozzle, distance: *distance, flow: *flow, motion: *motion, ..air };
                recipes.push(Recipe { air: Some(air), ..start.recipe.clone() });
            }
        }
    }
    recipes
}

/// The best of these settings with shields of a kind, and how many runs that took.
fn shielded(
    sought: &SearchRequest<'_>,
    bare: &[Tried],
    space: &AirSpace,
    kind: ShieldKind,
) -> Result<(Option<Tried>, usize), Unplanned> {
    let mut runs = 0;
    let mut best_of_all: Option<Tried> = None;
    for from in bare {
        let mut now = from.clone();
        for _ in 0..MOST_SHIELDS {
            let Some(recipe) = one_more(sought, &now, kind) else { break };
            sought.watch.wanted()?;
            // A shield lies there from the first stage on.
            let (composition, hottest, soaked) = (&now.composition, space.hottest, Soaked::Unknown);
            let Some(next) = best(sought, &Setting { composition, recipe: &recipe, hottest, soaked })? else { break };
            runs += 1;
            now = next;
            if best_of_all.as_ref().is_none_or(|best| now.score.order(&best.score).is_gt()) {
                best_of_all = Some(now.clone());
            }
            if now.score.is_open() {
                break;
            }
        }
    }
    Ok((best_of_all, runs))
}

/// The same with a shield over what is tightest; none where that is no component, or has one, or none can lie there.
pub(super) fn one_more(sought: &SearchRequest<'_>, tried: &Tried, kind: ShieldKind) -> Option<Recipe> {
    let board = sought.subject.board;
    let component = board.components.get(tried.tightest_component?)?;
    let covered = tried.recipe.shields.iter().any(|s| s.covers(component.face, &component.body) > 0.5);
    let shield = usual::shield_over(board, component, kind).filter(|_| !covered)?;
    let mut recipe = tried.recipe.clone();
    recipe.shields.push(shield);
    covered_joints(board, &recipe.shields).is_empty().then_some(recipe)
}
