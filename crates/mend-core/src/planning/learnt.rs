//! What a job teaches: its own release, and what was seen on the way, against the plan that it went by.

use super::order::{Order, Unplanned};
use crate::calibration::calibrate::calibrate;
use crate::calibration::next_release::{ReleaseBand, release_of};
use crate::calibration::observation::Observation;
use crate::heat::case::Case;
use crate::heat::known::{Belief, Knowledge};
use crate::heat::thermocouple::Thermocouple;

/// Runs of an ensemble.
const RUNS: usize = 256;

/// What was observed of a job.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Observed {
    /// Where thermocouples were taped.
    pub thermocouples: Vec<Thermocouple>,
    /// What was read and seen.
    pub observations: Vec<Observation>,
}

/// What came of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Learnt {
    /// What was believed before and after.
    pub beliefs: [Belief; 2],
    /// What it teaches.
    pub says: Knowledge,
    /// The release of the same plan before and after, s of all its heating.
    pub release_s: [ReleaseBand; 2],
}

impl Learnt {
    /// Learns from what was seen while an order was carried out.
    ///
    /// ```
    /// use mend_core::calibration::observation::Observation;
    /// use mend_core::example::Bench;
    /// use mend_core::planning::learnt::{Learnt, Observed};
    /// let bench = Bench::try_new().expect("the example");
    /// let late = Observed { observations: vec![Observation::Moved { at_s: 200.0 }], ..Observed::default() };
    /// let learnt = Learnt::try_new(&bench.order(), &late).expect("it can be computed");
    /// let [before, after] = learnt.release_s;
    /// assert!(after[0] > before[0], "the next one is expected later");
    /// ```
    pub fn try_new(order: &Order<'_>, observed: &Observed) -> Result<Self, Unplanned> {
        order.checked()?;
        let melting = order.composition.targets(order.board)?;
        let case = Case { thermocouples: &observed.thermocouples, ..order.case(&melting) };
        let found = calibrate(&case, &observed.observations, RUNS)?;
        let says = found.after.lesson(&found.before);
        let taught = found.before.taught(&says);
        let release_s = [release_of(&case, &found.before)?, release_of(&case, &taught)?];
        Ok(Self { beliefs: [found.before, found.after], says, release_s })
    }
}
