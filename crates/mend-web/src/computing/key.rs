//! What is computed, and where it is shown.

use std::fmt;
use std::marker::PhantomData;
use std::sync::Arc;

use mend_core::calibration::next_release::ReleaseBand;
use mend_core::calibration::probed::Probed;
use mend_core::planning::compare::Comparison;
use mend_core::planning::fit::FitComparison;
use mend_core::planning::learnt::Learnt;
use mend_core::planning::live::Watching;
use mend_core::planning::plan::Plan;
use mend_core::planning::put_back::PutBack;
use mend_core::planning::search::SearchResult;
use mend_core::planning::watched::JudgedReplay;

use super::Rechecked;
use crate::job::HeatWork;

/// What a key is for, without its type: two kinds never share a result.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) struct Bare {
    kind: &'static str,
    of: Arc<str>,
}

impl Bare {
    pub(super) fn kind(&self) -> &'static str {
        self.kind
    }
}

/// A computation by everything that its result depends on. The type is that of the result.
pub(crate) struct Key<T> {
    pub(super) bare: Bare,
    result: PhantomData<fn() -> T>,
}

impl<T> Clone for Key<T> {
    fn clone(&self) -> Self {
        Self { bare: self.bare.clone(), result: PhantomData }
    }
}

impl<T> fmt::Debug for Key<T> {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.bare.fmt(f)
    }
}

impl<T> Key<T> {
    pub(super) fn new(kind: &'static str, of: impl Into<Arc<str>>) -> Self {
        Self { bare: Bare { kind, of: of.into() }, result: PhantomData }
    }
}

impl<T> Key<T> {
    /// What its result depends on, for the key of a result that depends on more.
    pub(crate) fn of(&self) -> &str {
        &self.bare.of
    }
}

impl Key<Plan> {
    /// The plan of these inputs.
    pub(crate) fn plan(of: String) -> Self {
        Self::new("plan", of)
    }
}

impl Key<Probed> {
    /// What a probe with these readings teaches.
    pub(crate) fn probe(of: String) -> Self {
        Self::new("probe", of)
    }
}

impl Key<[ReleaseBand; 2]> {
    /// When a part comes away before and after a measurement.
    pub(crate) fn releases(of: String) -> Self {
        Self::new("releases", of)
    }
}

impl Key<Watching> {
    /// What a run with these inputs is watched with.
    pub(crate) fn watching(of: String) -> Self {
        Self::new("watching", of)
    }
}

impl Key<Learnt> {
    /// What a job that went like this teaches.
    pub(crate) fn learnt(of: String) -> Self {
        Self::new("learnt", of)
    }
}

impl Key<Rechecked> {
    /// The process window of these inputs.
    pub(crate) fn window(of: String) -> Self {
        Self::new("window", of)
    }
}

impl Key<JudgedReplay> {
    /// The replay of these inputs.
    pub(crate) fn replay(of: String) -> Self {
        Self::new("replay", of)
    }
}

impl Key<Comparison> {
    /// The comparison of methods on these inputs.
    pub(crate) fn comparison(of: String) -> Self {
        Self::new("comparison", of)
    }
}

impl Key<FitComparison> {
    /// The ways to fit the new part on these inputs.
    pub(crate) fn fits(of: String) -> Self {
        Self::new("fits", of)
    }
}

impl Key<Option<PutBack>> {
    /// How a component goes back.
    pub(crate) fn put_back(of: String) -> Self {
        Self::new("put-back", of)
    }
}

impl Key<SearchResult> {
    /// The thorough search of a family on these inputs.
    pub(crate) fn search(of: String) -> Self {
        Self::new("search", of)
    }
}

/// Where a result is shown. A place shows one result of a kind at a time: when it asks for another, it has turned away from
/// the one before.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(crate) enum Viewer {
    /// A page of a job.
    Job(i64),
    /// A page of its fit.
    Fit(i64),
    /// A family's page of a job.
    Family(i64, &'static str),
    /// A variant's column.
    Variant(i64),
    /// The probe of a station.
    Probe(i64),
    /// The twin of a run, drawn anew.
    Twin(i64),
    /// The debrief of an attempt.
    Attempt(i64),
}

impl Viewer {
    /// The pages of one of a job's two runs of heat.
    pub(crate) const fn heat(work: HeatWork, job: i64) -> Self {
        match work {
            HeatWork::Removal => Self::Job(job),
            HeatWork::Fit => Self::Fit(job),
        }
    }
}
