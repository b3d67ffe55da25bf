//! What one more shield or more alloy would buy.

use rayon::prelude::*;
use serde::{Deserialize, Serialize};

use super::super::order::Unplanned;
use super::arm::one_more;
use super::irons;
use super::request::{SearchRequest, Tried};
use super::score::{NEVER_K, Score};
use super::screen::{Setting, best};
use crate::heat::recipe::Recipe;
use crate::method::start::{Start, Vary, fed};
use crate::method::subject::Subject;
use crate::solder::{JointComposition, MOST_SHARE};

/// More of the same alloy: so much more of a joint (E).
const MORE: f64 = 0.2;

/// A thing more, and what it brings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Buy {
    /// What, as a phrase.
    pub what: String,
    /// What it brings, in words.
    pub brings: String,
    /// Margin before and after, K; below -1000: not molten.
    pub headroom_k: [f64; 2],
}

/// Every thing more that can be had, best first. Set temperatures are chosen anew with each.
pub(super) fn buys(sought: &SearchRequest<'_>, tried: &Tried) -> Result<Vec<Buy>, Unplanned> {
    let shields = sought.subject.equipment.shields.iter().filter_map(|kind| {
        let name = &sought.subject.board.components.get(tried.tightest_component?)?.name;
        Some((format!("{} over {name}", kind.name()), tried.composition.clone(), one_more(sought, tried, *kind)?))
    });
    let alloys = more_alloy(sought.subject, &tried.composition).into_iter();
    let alloys = alloys.map(|(what, composition)| (what, composition, tried.recipe.clone()));
    let more: Vec<(String, JointComposition, Recipe)> = shields.chain(alloys).collect();
    let bought = more.par_iter().map(|(what, composition, recipe)| {
        let with = retried(sought, (composition, recipe))?;
        Ok(with.map(|with| Buy {
            what: what.clone(),
            brings: brings(&tried.score, &with.score),
            headroom_k: [tried.score.headroom_k, with.score.headroom_k],
        }))
    });
    let mut bought: Vec<Buy> = bought.collect::<Result<Vec<_>, Unplanned>>()?.into_iter().flatten().collect();
    bought.sort_by(|a, b| b.headroom_k[1].total_cmp(&a.headroom_k[1]));
    Ok(bought)
}

fn retried(
    sought: &SearchRequest<'_>,
    (composition, recipe): (&JointComposition, &Recipe),
) -> Result<Option<Tried>, Unplanned> {
    if recipe.air.is_some() {
        let hottest = sought.subject.station.set_range.1;
        return best(sought, &Setting { composition, recipe, hottest });
    }
    let Some(iron) = &recipe.during.iron else { return Ok(None) };
    let vary = Vary::Iron { sets: vec![iron.set], tips: vec![iron.tip] };
    let start = Start { composition: composition.clone(), recipe: recipe.clone(), vary };
    Ok(irons::all(sought, &start, (&[iron.set, iron.set], &[iron.tip]))?.0.pop())
}

/// More of what is fed; where nothing is, a first feed of each kind in stock.
pub(in crate::planning) fn more_alloy(
    subject: &Subject<'_>,
    composition: &JointComposition,
) -> Vec<(String, JointComposition)> {
    let takes = |composition: &JointComposition| composition.check(subject.board).is_empty();
    if let Some(feed) = composition.fed() {
        let mut more = composition.clone();
        let share = (feed.share + MORE).min(MOST_SHARE);
        more.feed.iter_mut().for_each(|feed| feed.share = share);
        let what =
            format!("{:.0} % {} in the joints instead of {:.0} %", share * 100.0, feed.metal.name, feed.share * 100.0);
        return if takes(&more) { vec![(what, more)] } else { Vec::new() };
    }
    let alloys = subject.equipment.leaded().take(1).chain(subject.equipment.low_melt().take(1));
    let first = alloys.filter_map(|alloy| {
        let composition = fed(subject, alloy)?;
        let share = composition.fed().map_or(0.0, |feed| feed.share);
        Some((format!("{:.0} % {} in the joints", share * 100.0, alloy.name), composition))
    });
    first.collect()
}

fn brings(before: &Score, after: &Score) -> String {
    let gains = after.headroom_k.min(NEVER_K) - before.headroom_k.min(NEVER_K);
    let time = match (before.release_s, after.release_s) {
        (Some(was), Some(is)) if (was - is).abs() >= 1.0 => {
            format!(", {:.0} s {}", (was - is).abs(), if is < was { "sooner" } else { "later" })
        }
        _ => String::new(),
    };
    match (before.release_s, after.release_s) {
        (None, Some(t)) => format!("it melts, after about {t:.0} s"),
        (_, None) => "it still does not melt".to_owned(),
        _ if gains.abs() < 1.0 => format!("no more headroom{time}"),
        _ => format!("{:.0} K {} headroom{time}", gains.abs(), if gains > 0.0 { "more" } else { "less" }),
    }
}
