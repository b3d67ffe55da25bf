//! The shop: where each job stands and what to pick up next.

mod intake;
mod stops;

pub use intake::{FieldKind, IntakeField, check_field, consent_terms};
pub use stops::{Facts, PinState, RunState, Stop, StopState, next, rank, state};
