//! What things are made of: each value with its source and how sure it is.

mod alloy;
mod alloy_table;
mod body;

pub use alloy::{Alloy, Confidence, ELEMENTS};
pub use alloy_table::ALLOYS;
pub use body::BodyMaterial;
