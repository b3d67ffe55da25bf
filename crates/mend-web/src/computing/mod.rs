//! Long computations, as one service: a bounded queue, a worker for each core, one run for a key however many wait for it.
//!
//! - [`key`]: what is computed, and where on a page it is shown; [`service`]: the queue, waiting, cancelling;
//!   [`worker`]: the threads; [`weight`]: how many bytes a result takes of the cache
//!
//! A page asks with a key and the work, and asks again while it is shown. What nobody has asked for in ten seconds is cancelled;
//! so is what a place has turned away from. Pages and presses never wait for a worker: workers are threads of their own, nicer
//! than those that answer requests.

mod key;
mod service;
mod weight;
mod worker;

use std::sync::Arc;

use mend_core::calibration::next_release::ReleaseBand;
use mend_core::calibration::probed::Probed;
use mend_core::finding::Finding;
use mend_core::planning::compare::Comparison;
use mend_core::planning::fit::FitComparison;
use mend_core::planning::learnt::Learnt;
use mend_core::planning::live::Watching;
use mend_core::planning::order::Unplanned;
use mend_core::planning::plan::Plan;
use mend_core::planning::process_window::ProcessWindow;
use mend_core::planning::put_back::PutBack;
use mend_core::planning::recheck::Recheck;
use mend_core::planning::search::SearchResult;
use mend_core::planning::watched::JudgedReplay;

use crate::refusal::Refusal;
pub(crate) use key::{Key, Viewer};
pub(crate) use service::Computing;

/// A process window with what was run again of it.
pub(crate) struct Rechecked {
    pub(crate) map: ProcessWindow,
    pub(crate) rechecked: Vec<Recheck>,
}

/// How a computation ended without a result.
#[derive(Debug, Clone)]
pub(crate) enum Failed {
    /// The inputs can't be computed on.
    Objections(Vec<Finding>),
    /// Somebody said so, or nobody wanted it any more.
    Cancelled,
    /// So many wait already that no more are taken.
    Busy,
    /// Our fault; it can be tried again.
    Broken(String),
}

impl From<Unplanned> for Failed {
    fn from(error: Unplanned) -> Self {
        match error {
            Unplanned::Objections(findings) => Self::Objections(findings),
            Unplanned::Cancelled(_) => Self::Cancelled,
        }
    }
}

/// Where a computation is.
#[derive(Debug)]
pub(crate) enum Stand<T> {
    /// Done, or failed.
    Ended(Result<Arc<T>, Failed>),
    /// Waiting or under way: share of it done, 0-1.
    Running(f64),
}

/// A part of a page that shows a computation.
#[derive(Debug)]
pub(crate) enum Progress<R> {
    /// It is there, ready to lay out.
    Ready(R),
    /// Per cent done.
    Computing(u32),
    /// Somebody cancelled it.
    Cancelled,
}

impl<T> Stand<T> {
    /// The part of a page that shows it, laid out by `ready` once it is there.
    pub(crate) fn shown<R>(self, ready: impl FnOnce(Arc<T>) -> R) -> Result<Progress<R>, Refusal> {
        match self {
            Self::Ended(Ok(result)) => Ok(Progress::Ready(ready(result))),
            Self::Ended(Err(Failed::Cancelled)) => Ok(Progress::Cancelled),
            Self::Ended(Err(Failed::Objections(findings))) => Err(Refusal::Bad(findings)),
            Self::Ended(Err(Failed::Busy)) => Err(Refusal::Busy),
            Self::Ended(Err(Failed::Broken(cause))) => Err(Refusal::Broken(cause)),
            Self::Running(share) => Ok(Progress::Computing((share * 100.0) as u32)),
        }
    }
}

/// What a computation may come back with.
pub(crate) trait Result_: weight::Weight + Send + Sync + 'static {}

impl Result_ for Plan {}
impl Result_ for Probed {}
impl Result_ for [ReleaseBand; 2] {}
impl Result_ for Watching {}
impl Result_ for Learnt {}
impl Result_ for Rechecked {}
impl Result_ for JudgedReplay {}
impl Result_ for Comparison {}
impl Result_ for FitComparison {}
impl Result_ for Option<PutBack> {}
impl Result_ for SearchResult {}
