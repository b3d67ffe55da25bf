//! What is left of a metal after wicking, as a range: every pass leaves a share, every flood dilutes it.

use super::amount::{amount, factory_mg};
use super::braid::Left;
use super::flags::{by_amount, flags, may_stay};
use super::joint_composition::JointComposition;
use crate::board::JointGroup;
use crate::finding::Finding;
use crate::finding::problem::AlloyProblem;
use crate::materials::{Composition, Element, Metal};

/// Film that braid never takes, mm, intermetallic included: least, usual, most (E, 5-25 µm).
const FILM_MM: [f64; 3] = [0.005, 0.012, 0.025];
/// More cycles than this are no plan.
const MOST_CYCLES: usize = 8;
/// What lies on one joint of a group, as three courses of events: good passes, usual ones, poor ones.
#[derive(Debug, Clone, PartialEq)]
pub struct Residue {
    tracks: [(f64, Composition); 3],
    left: Left,
    floor_mm3: [f64; 3],
    /// What a joint in use holds: a flood brings that, and the final soldering.
    full_mm3: f64,
}

impl Residue {
    /// Of a group as the factory left it.
    pub fn from_group(composition: &JointComposition, group: &JointGroup) -> Self {
        Self {
            tracks: [(factory_mg(composition, group), composition.factory.composition); 3],
            left: Left::with_part_off(group),
            floor_mm3: FILM_MM.map(|film| film * group.wetted),
            full_mm3: group.volume,
        }
    }

    /// The same with what was fed to it.
    pub fn fed_group(composition: &JointComposition, group: &JointGroup) -> Self {
        let mut residue = Self::from_group(composition, group);
        if let Some((feed, fed)) = composition.feeds(group).zip(amount(composition, group)) {
            residue.fed(&feed.metal.composition, fed.mass_mg);
        }
        residue
    }

    /// Metal comes to it, mg; all that is there melts and mixes.
    pub fn fed(&mut self, metal: &Composition, mass_mg: f64) {
        for (mass, composition) in &mut self.tracks {
            if let Some(mix) = Composition::mixed(&[(*composition, *mass), (*metal, mass_mg)]) {
                (*mass, *composition) = (*mass + mass_mg, mix);
            }
        }
    }

    /// Fresh metal up to what a joint holds in use: a flood before the next pass.
    pub fn flooded(&mut self, metal: &Composition) {
        self.fed(metal, self.full_mm3 * metal.density());
    }

    /// One pass of braid.
    pub fn wicked(&mut self) {
        let Left { least, usual, most } = self.left;
        for (((mass, composition), left), floor) in self.tracks.iter_mut().zip([least, usual, most]).zip(self.floor_mm3)
        {
            *mass = (*mass * left).max((floor * composition.density()).min(*mass));
        }
    }

    /// The finished joint if it were soldered now with `refit`: after good, usual and poor passes.
    pub fn finished(&self, refit: &Composition) -> [Composition; 3] {
        let fresh = self.full_mm3 * refit.density();
        self.tracks.map(|(mass, old)| Composition::mixed(&[(old, mass), (*refit, fresh)]).unwrap_or(old))
    }

    /// wt% of an element in the finished joint: least and most.
    pub fn range(&self, refit: &Composition, element: Element) -> (f64, f64) {
        let shares = self.finished(refit).map(|joint| joint.wt(element));
        (shares.into_iter().fold(f64::INFINITY, f64::min), shares.into_iter().fold(0.0, f64::max))
    }

    /// May it be soldered with `refit` and left so? After usual passes nothing must be flagged at all, and after poor ones
    /// nothing worse than a caution.
    pub fn is_clean(&self, refit: &Composition) -> bool {
        let [_, usual, poor] = self.finished(refit);
        by_amount(&usual).is_empty() && may_stay(&poor)
    }

    /// What is wrong with the finished joint should every pass have been a poor one.
    pub fn flags(&self, refit: &Composition) -> Vec<Finding> {
        flags(&self.finished(refit)[2])
    }
}

/// Flood-and-wick cycles after the part is off until a group's finished joint is within limits; none: not within eight.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::groups;
/// use mend_core::solder::cycles;
/// assert!(groups(&bench.board).iter().all(|group| cycles(&bench.composition, group) == Some(0)), "nothing was fed");
/// ```
pub fn cycles(composition: &JointComposition, group: &JointGroup) -> Option<usize> {
    composition.feeds(group).map_or(Some(0), |_| cleaned(composition, group).1)
}

/// What lies on a joint of a group after as many cycles as its finished joint needs, one at least; and how many these are, none
/// where eight do not do.
pub(super) fn cleaned(composition: &JointComposition, group: &JointGroup) -> (Residue, Option<usize>) {
    let refit = composition.refit.composition;
    let mut residue = Residue::fed_group(composition, group);
    // Whatever was fed comes out again, and a factory's joint makes room for the new one: one pass at least, no exception.
    for cycle in 1..=MOST_CYCLES {
        if cycle > 1 {
            residue.flooded(&refit);
        }
        residue.wicked();
        if composition.feeds(group).is_none() || residue.is_clean(&refit) {
            return (residue, Some(cycle));
        }
    }
    (residue, None)
}

/// Lead from the fed or the final alloy in a joint that had none: the shop decides, local rules apply.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::materials::Metal;
/// use mend_core::solder::leaded_into_lead_free;
/// assert!(leaded_into_lead_free(&bench.composition).is_none());
/// let refit = Metal::parse("refit", "Sn63Pb37").expect("in the table");
/// let leaded = mend_core::solder::JointComposition { refit, ..bench.composition.clone() };
/// assert!(leaded_into_lead_free(&leaded).is_some());
/// ```
pub fn leaded_into_lead_free(composition: &JointComposition) -> Option<Finding> {
    let brings = |metal: &Metal| metal.has_lead();
    let fed = composition.fed().map(|feed| &feed.metal).filter(|metal| brings(metal));
    let bringer = fed.or(Some(&composition.refit).filter(|metal| brings(metal)))?;
    (!composition.factory.has_lead())
        .then(|| Finding::note("lead_free", "alloy", AlloyProblem::LeadIntoLeadFree { alloy: bringer.name.clone() }))
}
