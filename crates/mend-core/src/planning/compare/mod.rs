//! The families side by side on one board: each that applies searched, planned with its band, and timed; one recommended
//! with its reason; the others with why not.

mod lane;
mod preference;
mod recommend;

use super::order::Unplanned;
pub use super::used_up::Use;
use crate::method::MethodFamily;
use crate::method::fit::Fit;
use crate::method::reason::Obstacle;
use crate::method::subject::Subject;
use crate::planning::search::request::{Effort, SearchRequest};
use crate::units::Temperature;
use crate::watch::Watch;
pub(super) use lane::tightest;
pub use lane::{Lane, Tightest};
pub(super) use preference::AS_SURE;
use recommend::recommend;
pub use recommend::{BestLane, NextBest, Recommendation, WhyNot};

/// A family that does not apply here.
#[derive(Debug, Clone, PartialEq)]
pub struct Ruled {
    /// Which.
    pub family: MethodFamily,
    /// Why not, and what speaks for it all the same.
    pub fit: Fit,
}

/// All of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Comparison {
    /// Families that apply, in their own order.
    pub lanes: Vec<Lane>,
    /// Families that do not.
    pub ruled_out: Vec<Ruled>,
    /// The recommended lane, where any opens or at least melts.
    pub recommended: Option<usize>,
    /// Why that one; why none, where there is none.
    pub reason: Recommendation,
}

impl Comparison {
    /// The lane of a family.
    pub fn lane(&self, family: MethodFamily) -> Option<&Lane> {
        self.lanes.iter().find(|lane| lane.choice.family == family)
    }

    /// The recommended lane.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::planning::compare::{Comparison, Recommendation};
    /// let reason = Recommendation::None { nearest: None };
    /// let empty = Comparison { lanes: vec![], ruled_out: vec![], recommended: None, reason };
    /// assert!(empty.best().is_none());
    /// ```
    pub fn best(&self) -> Option<&Lane> {
        self.lanes.get(self.recommended?)
    }
}

/// Compares all families.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::example::AMBIENT;
/// use mend_core::method::MethodFamily;
/// use mend_core::planning::compare::compare;
/// let mut bench = bench;
/// bench.equipment.tips.clear();
/// bench.equipment.preheater = false;
/// let found = compare(&bench.subject(), AMBIENT, &bench.watch).expect("it can be computed");
/// assert_eq!(found.lanes.len() + found.ruled_out.len(), MethodFamily::ALL.len());
/// assert!(found.best().is_none_or(|best| best.plan.chance >= 0.3));
/// ```
pub fn compare(subject: &Subject<'_>, ambient: Temperature, watch: &Watch) -> Result<Comparison, Unplanned> {
    let sought = SearchRequest { subject, ambient, effort: Effort::Look, watch };
    let (mut lanes, mut ruled_out) = (Vec::new(), Vec::new());
    let fits: Vec<(MethodFamily, Fit)> =
        MethodFamily::ALL.into_iter().map(|family| (family, family.method().fit(subject))).collect();
    for (family, fit) in fits {
        if !fit.applies() {
            ruled_out.push(Ruled { family, fit });
            continue;
        }
        match Lane::try_new(&sought, family, fit.clone())? {
            Some(lane) => match lane.fit.unless_all_melt.clone().filter(|_| lane.stays_solid() > 0.5) {
                Some(obstacle) => ruled_out.push(Ruled { family, fit: fit.not(true, obstacle) }),
                None => lanes.push(lane),
            },
            None => ruled_out.push(Ruled { family, fit: fit.not(true, Obstacle::NothingToBeginFrom) }),
        }
    }
    let (recommended, reason) = recommend(&lanes, subject);
    Ok(Comparison { lanes, ruled_out, recommended, reason })
}
