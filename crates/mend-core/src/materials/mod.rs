//! What things are made of: each value with its source and how sure it is.
//!
//! Holds published alloys, elements, and what plastics, ceramics and laminates stand. It computes no melting (see
//! [`crate::solder`]) and no heat (see [`crate::heat`]); a value without a source marked D or E is not in here.

mod alloy;
mod alloy_table;
mod body;
mod composition;
mod element;
mod metal;

pub use alloy::{Alloy, Confidence};
pub use alloy_table::ALLOYS;
pub use body::BodyMaterial;
pub use composition::Composition;
pub use element::Element;
pub use metal::Metal;
