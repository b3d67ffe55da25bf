//! The search: for a family, the settings and the fewest shields that open the window, within what the station gives and
//! all limits.
//!
//! - [`score`]: what is better; `screen`: one run for all set temperatures of a setting, judged for a weak, a usual and a
//!   strong jet; `arm`: settings that share a tool, and shields one by one; `irons`: where no air blows
//! - [`buys`]: what one more shield or more alloy would bring
//!
//! The search goes along arms: a beginning with one nozzle and one kind of shield. An arm knows nothing of the others, so a
//! tool or a shield more in the shop only adds arms, and the best of all can't become worse. The best in order are run
//! again on the fine grid, and the first of which that run says that everything melts and nothing is damaged is the answer:
//! a plan of which its own fine run says otherwise is never given.

mod arm;
pub mod buys;
mod irons;
mod judged;
pub mod request;
pub mod score;
mod screen;

use rayon::prelude::*;

use super::damaged::Damaged;
use super::limits::{first_damage_of, in_time, limits};
use super::order::Unplanned;
use crate::heat::mesh::Resolution;
use crate::heat::parameters::ParameterSample;
use crate::heat::run::run_to_release;
use crate::method::reason::Obstacle;
use crate::method::start::{Start, Vary};
use crate::method::{Method, MethodFamily};
use buys::Buy;
use request::{SearchRequest, Tried};
use score::Score;
use serde::Serialize;

/// What a search comes back with.
#[derive(Debug, Clone, PartialEq)]
pub struct SearchResult {
    /// The best that its own fine run bears out.
    pub best: Option<Tried>,
    /// Where there is none, what came nearest.
    pub nearest: Option<Tried>,
    /// Settings that were judged.
    pub candidates: usize,
    /// Of the best ones, how many the fine run turned down.
    pub turned_down: usize,
    /// What one more shield or more alloy would buy.
    pub buys: Vec<Buy>,
}

/// What stands in the way of better settings.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "how", rename_all = "kebab-case")]
pub enum SearchLimit {
    /// This, with so much headroom left, K, at release after so many seconds.
    Inside { of: Damaged, headroom_k: f64, release_s: f64 },
    /// Nothing near; release after so many seconds.
    Nothing { release_s: f64 },
    /// This is past its limit by so much, K, when the last joint melts.
    Past { of: Damaged, by_k: f64 },
    /// The coldest joint lacks so much at the longest heating, K.
    Cold { lacks_k: f64 },
}

impl SearchResult {
    /// The best, or what came nearest.
    pub fn told(&self) -> Option<&Tried> {
        self.best.as_ref().or(self.nearest.as_ref())
    }

    /// What stands in the way of a better one; none where nothing was tried.
    pub fn limited_by(&self) -> Option<SearchLimit> {
        let told = self.told()?;
        let Score { headroom_k, release_s, .. } = told.score;
        Some(match (&told.tightest, release_s, self.best.is_some()) {
            (Some(of), Some(release_s), true) => SearchLimit::Inside { of: of.clone(), headroom_k, release_s },
            (None, Some(release_s), true) => SearchLimit::Nothing { release_s },
            (Some(of), Some(_), false) => SearchLimit::Past { of: of.clone(), by_k: -headroom_k },
            _ => SearchLimit::Cold { lacks_k: -headroom_k - score::NEVER_K },
        })
    }
}

/// Searches a family. The same inputs give the same answer to the bit.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::MethodFamily;
/// use mend_core::planning::search::search;
/// let subject = bench.subject();
/// let found = search(&bench.search_request(&subject), MethodFamily::FromBelow.method()).expect("it can be computed");
/// assert!(found.candidates > 100 && found.told().is_some());
/// ```
pub fn search(sought: &SearchRequest<'_>, method: &dyn Method) -> Result<SearchResult, Unplanned> {
    search_from(sought, method.starts(sought.subject))
}

/// Searches from some beginnings.
pub(super) fn search_from(sought: &SearchRequest<'_>, starts: Vec<Start>) -> Result<SearchResult, Unplanned> {
    let starts: Vec<Start> = starts.into_iter().map(|start| sought.thinned(start)).collect();
    let mut tried: Vec<Tried> = Vec::new();
    let mut candidates = 0;
    for start in &starts {
        sought.order(&start.composition, &start.recipe).checked()?;
        let (found, count) = match &start.vary {
            Vary::Air(space) => arm::all(sought, start, space)?,
            Vary::Iron { sets, tips } => irons::all(sought, start, sets, tips)?,
        };
        tried.extend(found);
        candidates += count;
    }
    sought.watch.wanted()?;
    tried.sort_by(|a, b| b.score.order(&a.score));
    let (best, turned_down) = first_that_holds(sought, &tried)?;
    let nearest = best.is_none().then(|| tried.first().cloned()).flatten();
    let told = best.as_ref().or(nearest.as_ref());
    let buys = told.map(|tried| buys::buys(sought, tried)).transpose()?.unwrap_or_default();
    sought.watch.wanted()?;
    Ok(SearchResult { best, nearest, candidates, turned_down, buys })
}

/// Every family in its order: searched, or the reasons why it does not apply.
pub type OfFamily = (MethodFamily, Result<SearchResult, Vec<Obstacle>>);

/// Searches every family that applies.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::method::MethodFamily;
/// use mend_core::planning::search::search_all;
/// let mut bench = bench;
/// bench.equipment.tips.clear();
/// bench.equipment.preheater = false;
/// let subject = bench.subject();
/// let found = search_all(&bench.search_request(&subject)).expect("it can be computed");
/// let (_, iron) = found.iter().find(|(family, _)| *family == MethodFamily::IronOnly).expect("every family is named");
/// assert!(iron.is_err(), "no iron in the shop");
/// ```
pub fn search_all(sought: &SearchRequest<'_>) -> Result<Vec<OfFamily>, Unplanned> {
    let one = |family: MethodFamily| {
        let fit = family.method().fit(sought.subject);
        if !fit.applies() {
            return Ok((family, Err(fit.against)));
        }
        Ok((family, Ok(search(sought, family.method())?)))
    };
    MethodFamily::ALL.into_iter().map(one).collect()
}

/// The first, best first, of which the nominal fine run says that it works; and how many before it did not. Two at a time:
/// that is what a shop's computer has.
fn first_that_holds(sought: &SearchRequest<'_>, tried: &[Tried]) -> Result<(Option<Tried>, usize), Unplanned> {
    let works: Vec<&Tried> = tried.iter().filter(|tried| tried.score.works_as_computed()).collect();
    for (round, pair) in works.chunks(2).enumerate() {
        let holds: Vec<bool> = pair.par_iter().map(|tried| holds(sought, tried)).collect::<Result<_, _>>()?;
        if let Some(at) = holds.iter().position(|holds| *holds) {
            return Ok((Some(pair[at].clone()), round * 2 + at));
        }
    }
    Ok((None, works.len()))
}

/// Does the fine run say that everything melts before anything is damaged?
fn holds(sought: &SearchRequest<'_>, tried: &Tried) -> Result<bool, Unplanned> {
    let order = sought.order(&tried.composition, &tried.recipe);
    if order.checked().is_err() {
        return Ok(false);
    }
    let melting = tried.composition.targets(sought.subject.board)?;
    let case = order.case(&melting);
    let limits = limits(&order, &case);
    let nominal = ParameterSample::middle(&case);
    // What is damaged after the release is none of this question. It once ran on to the longest heating, and cooled.
    let run = run_to_release(&case, &nominal, Resolution::FINE);
    sought.watch.wanted()?;
    Ok(in_time(&run, first_damage_of(&limits, &run).as_ref()))
}
