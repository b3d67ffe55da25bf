//! Instruments at the bench, spoken to in SCPI over TCP as bench instruments speak it (IEEE 488.2, SCPI-1999).
//!
//! - [`address`]: where an instrument may be
//! - [`scpi`]: a question and its answer, bounded in length and in time
//! - [`clients`]: what the core asks of instruments, over it
//! - [`stand_in`]: simulated instruments that answer the same way, for the demo and for tests
//!
//! Knows no shop and no page.

pub mod address;
pub mod clients;
pub mod scpi;
pub mod stand_in;
