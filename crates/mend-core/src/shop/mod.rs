//! The shop: where each job stands and what to pick up next.
//!
//! Derives states and orders from facts that are handed in. It stores nothing and knows no date.

mod intake;
mod stops;

pub use intake::{FieldKind, IntakeField, check_field, consent_terms};
pub use stops::{Facts, PinState, RunState, Stop, StopState, next, rank, state};
