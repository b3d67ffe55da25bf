//! What the past says: predictions against what came, outcomes, time against estimate, and what to change.
//!
//! - [`JobOutcome`]: what is kept of a job that was given back; [`interval`]: a share with its interval
//! - [`Review`]: everything, of [`OutcomeGroup`]s with their [`Bias`], [`Reliability`] of plans, and where the time went
//! - [`changes`]: at most three sentences, each with its figures
//!
//! It knows no date: a job's moment is days from whatever day the caller counts from.

mod bias;
mod changes;
mod groups;
pub mod interval;
mod outcome;
mod reliability;
mod summary;
mod times;

pub use bias::Bias;
pub use changes::{ReviewChange, changes};
pub use groups::{GroupedBy, OutcomeGroup, PROBED, UNPROBED};
pub use outcome::{JobOutcome, StageTaken, WaitCause, Waited};
pub use reliability::Reliability;
pub use summary::Review;
pub use times::{StageSummary, WaitSummary};
