//! What the past says: predictions against what came, outcomes, time against estimate, and what to change.
//!
//! - [`JobOutcome`]: what is kept of a job that was given back; [`interval`]: a share with its interval
//! - [`Review`]: shares and biases by group; [`changes`]: at most three sentences, each with its figures
//!
//! It knows no date: a job's moment is days from whatever day the caller counts from.

mod changes;
pub mod interval;
mod outcome;
mod summary;

pub use changes::{ReviewChange, changes};
pub use outcome::{JobOutcome, StageTaken, WaitCause, Waited};
pub use summary::{Bias, GroupedBy, OutcomeGroup, PROBED, Reliability, Review, StageSummary, UNPROBED, WaitSummary};
