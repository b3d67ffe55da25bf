//! What is learnt from what was observed: an ensemble of runs, weighed by how well each agrees with it. The same mathematics serves a
//! measurement on a scrap board, a run that is watched, and a job that is over.
//!
//! - [`weights`]: the weights of an ensemble, and figures of it
//! - [`observation`]: how likely an observation is in a run
//! - [`calibrate`]: from observations to a belief, renewing the ensemble on the way
//! - [`flow_by_bag`], [`outlet`], [`iron_recovery`]: a station's flow, its air and its iron, measured; `grid` weighs what the latter two say
//! - [`next_release`]: what that does to a plan; [`lesson`]: what is kept of it, for whom, and how it ages; [`drift`]: a station that is no longer what it was
//! - [`probe`], [`probed`]: the harmless warm-up that measures a station and a board, and what it found
//! - [`twin`]: a run that is watched; [`watched_run`]: what it needs of each run of its ensemble
//!
//! Knows no clock and no device: times and readings come in as numbers. Does not compute what is damaged: that is handed in.

pub mod calibrate;
pub mod drift;
pub mod flow_by_bag;
mod grid;
pub mod iron_recovery;
pub mod lesson;
pub mod next_release;
pub mod observation;
pub mod outlet;
pub mod probe;
pub mod probed;
pub mod reading_fault;
pub mod twin;
pub mod watched_run;
pub mod weights;
