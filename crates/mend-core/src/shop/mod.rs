//! The shop: where each job stands and what to pick up next.
//!
//! - [`estimate`]: how long a job takes, and what it costs
//! - [`people`]: roles and what each may do
//! - [`review`]: what the past says, and what to change
//! - [`stock`]: what is on the shelf, what is promised, what to order
//! - [`schedule`]: which task of which job when, by whom and with what
//!
//! Derives states and orders from facts that are handed in. It stores nothing and knows no date.

pub mod estimate;
mod intake;
mod kinds;
pub mod people;
pub mod review;
pub mod schedule;
pub mod stock;
mod stop;
mod stops;

pub use intake::{FieldKind, IntakeField, check_field, consent_terms};
pub use kinds::{call_of, name_of, path_of, stops_of};
pub use stop::Stop;
pub use stops::{Facts, PinState, RunState, StopState, next, rank, state};
