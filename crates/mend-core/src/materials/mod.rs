//! What things are made of: each value with its source and how sure it is.

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
