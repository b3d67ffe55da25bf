//! The ways to solder the new part on, side by side on one board: each that can be done searched and planned over the ensemble
//! like a removal, and one preferred. The joints hold the refit alloy and what cleaning leaves; the part and the board have to
//! come through whole.
//!
//! Does not compute how solder wets, or the pull of a floating part towards its pads.

mod first;
mod way;

use super::compare::{AS_SURE, Tightest, tightest};
use super::make_plan::plan_alone;
use super::order::Unplanned;
use super::plan::{Plan, WindowState};
use super::search::request::{Effort, SearchRequest};
use super::search::search_from;
use crate::heat::recipe::Recipe;
use crate::method::subject::Subject;
use crate::units::Temperature;
use crate::watch::Watch;
pub use first::first_settings;
pub use way::{FitObstacle, FitWay};

/// A way that can be gone, with its best settings.
#[derive(Debug, Clone, PartialEq)]
pub struct FitLane {
    /// Which.
    pub way: FitWay,
    /// The settings, or what came nearest.
    pub recipe: Recipe,
    /// What comes of them.
    pub plan: Plan,
    /// What is tightest, joints aside.
    pub tightest: Option<Tightest>,
}

/// All of it.
#[derive(Debug, Clone, PartialEq)]
pub struct FitComparison {
    /// The ways that can be gone, in their own order.
    pub lanes: Vec<FitLane>,
    /// The others, and why not.
    pub ruled_out: Vec<(FitWay, FitObstacle)>,
    /// The preferred lane; none where none works in half of the runs.
    pub preferred: Option<usize>,
}

/// Compares the ways to fit the new part of a subject, whose joints are those of the removal.
///
/// ```
/// use mend_core::example::{AMBIENT, Bench};
/// let mut bench = Bench::try_new().expect("the example");
/// use mend_core::planning::fit::{FitWay, compare_fits};
/// bench.equipment.tips.clear();
/// let found = compare_fits(&bench.subject(), AMBIENT, &bench.watch).expect("it can be computed");
/// assert_eq!(found.lanes.len() + found.ruled_out.len(), FitWay::ALL.len());
/// assert!(found.ruled_out.iter().any(|(way, _)| *way == FitWay::PinByPin), "no iron in the shop");
/// ```
pub fn compare_fits(subject: &Subject<'_>, ambient: Temperature, watch: &Watch) -> Result<FitComparison, Unplanned> {
    let composition = subject.composition.for_fit(subject.board);
    let (mut lanes, mut ruled_out) = (Vec::new(), Vec::new());
    for way in FitWay::ALL {
        let subject = Subject { composition: &composition, purpose: way.purpose(), ..*subject };
        match way.obstacle(&subject) {
            Some(obstacle) => ruled_out.push((way, obstacle)),
            None => {
                lanes.extend(lane(way, &SearchRequest { subject: &subject, ambient, effort: Effort::Look, watch })?)
            }
        }
    }
    let preferred = preferred(&lanes);
    Ok(FitComparison { lanes, ruled_out, preferred })
}

fn lane(way: FitWay, sought: &SearchRequest<'_>) -> Result<Option<FitLane>, Unplanned> {
    let searched = search_from(sought, way.starts(sought.subject))?;
    let Some(tried) = searched.best.or(searched.nearest) else { return Ok(None) };
    let plan = plan_alone(&sought.order(&tried.composition, &tried.recipe))?;
    Ok(Some(FitLane { way, tightest: tightest(&plan.margins), recipe: tried.recipe, plan }))
}

/// The surest; of those as sure the one with headroom; of these the soonest done.
fn preferred(lanes: &[FitLane]) -> Option<usize> {
    const LEAST: f64 = 0.5;
    let surest = lanes.iter().map(|lane| lane.plan.chance).fold(0.0, f64::max);
    let sure = |k: &usize| lanes[*k].plan.chance >= (surest - AS_SURE).max(LEAST);
    let roomy = |k: usize| {
        lanes[k].plan.window == WindowState::Open && lanes[k].tightest.as_ref().is_none_or(|tightest| tightest.inside)
    };
    let heats_s =
        |k: usize| lanes[k].recipe.seconds_before() as f64 + lanes[k].plan.release.mid_s.unwrap_or(f64::INFINITY);
    (0..lanes.len()).filter(sure).min_by(|a, b| roomy(*b).cmp(&roomy(*a)).then(heats_s(*a).total_cmp(&heats_s(*b))))
}
