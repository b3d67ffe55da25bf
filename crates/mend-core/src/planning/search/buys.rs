//! What one more shield or more alloy would buy.

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::super::change::Change;
use super::super::order::Unplanned;
use super::arm::one_more;
use super::irons;
use super::request::{SearchRequest, Tried};
use super::screen::{Setting, Soaked, best};
use crate::heat::recipe::Recipe;
use crate::method::start::{Start, Vary, fed};
use crate::method::subject::Subject;
use crate::solder::{JointComposition, MOST_MIXING_FRACTION};

/// More of the same alloy: so much more of a joint (E).
const MORE: f64 = 0.2;

/// A thing more, and what it brings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Buy {
    /// What.
    pub what: Change,
    /// Margin before and after, K; below -1000: not molten.
    pub headroom_k: [f64; 2],
    /// Time to release before and after, s of the last stage; none: not molten.
    pub release_s: [Option<f64>; 2],
}

/// Every thing more that can be had, best first. Set temperatures are chosen anew with each.
pub(super) fn buys(sought: &SearchRequest<'_>, tried: &Tried) -> Result<Vec<Buy>, Unplanned> {
    let shields = sought.subject.equipment.shields.iter().filter_map(|kind| {
        let name = &sought.subject.board.components.get(tried.tightest_component?)?.name;
        Some((
            Change::Shield { shield: *kind, over: name.clone() },
            tried.composition.clone(),
            one_more(sought, tried, *kind)?,
        ))
    });
    let alloys = more_alloy(sought.subject, &tried.composition).into_iter();
    let alloys = alloys.map(|(what, composition)| (what, composition, tried.recipe.clone()));
    let more: Vec<(Change, JointComposition, Recipe)> = shields.chain(alloys).collect();
    let bought = more.par_iter().map(|(what, composition, recipe)| {
        let with = retried(sought, composition, recipe)?;
        Ok(with.map(|with| Buy {
            what: what.clone(),
            headroom_k: [&tried.score, &with.score].map(|score| score.headroom_k),
            release_s: [&tried.score, &with.score].map(|score| score.release_s),
        }))
    });
    let mut bought: Vec<Buy> = bought.collect::<Result<Vec<_>, Unplanned>>()?.into_iter().flatten().collect();
    bought.sort_by(|a, b| b.headroom_k[1].total_cmp(&a.headroom_k[1]));
    Ok(bought)
}

fn retried(
    sought: &SearchRequest<'_>,
    composition: &JointComposition,
    recipe: &Recipe,
) -> Result<Option<Tried>, Unplanned> {
    if recipe.air.is_some() {
        let hottest = sought.subject.station.set_range.1;
        return best(sought, &Setting { composition, recipe, hottest, soaked: Soaked::Unknown });
    }
    let Some(iron) = &recipe.during.iron else { return Ok(None) };
    let vary = Vary::Iron { sets: vec![iron.set], tips: vec![iron.tip] };
    let start = Start { composition: composition.clone(), recipe: recipe.clone(), vary };
    Ok(irons::all(sought, &start, &[iron.set, iron.set], &[iron.tip])?.0.pop())
}

/// More of what is fed; where nothing is, a first feed of each kind in stock.
pub(in crate::planning) fn more_alloy(
    subject: &Subject<'_>,
    composition: &JointComposition,
) -> Vec<(Change, JointComposition)> {
    let takes = |composition: &JointComposition| composition.check(subject.board).is_empty();
    if let Some(feed) = composition.fed() {
        let mut more = composition.clone();
        let share = (feed.mixing_fraction + MORE).min(MOST_MIXING_FRACTION);
        more.feed.iter_mut().for_each(|feed| feed.mixing_fraction = share);
        let instead_of = Some(feed.mixing_fraction * 100.0);
        let what = Change::Feed { percent: share * 100.0, alloy: feed.metal.name.clone(), instead_of };
        return if takes(&more) { vec![(what, more)] } else { Vec::new() };
    }
    let alloys = subject.equipment.leaded().take(1).chain(subject.equipment.low_melt().take(1));
    let first = alloys.filter_map(|alloy| {
        let composition = fed(subject, alloy)?;
        let share = composition.fed().map_or(0.0, |feed| feed.mixing_fraction);
        let what = Change::Feed { percent: share * 100.0, alloy: alloy.name.clone(), instead_of: None };
        Some((what, composition))
    });
    first.collect()
}
