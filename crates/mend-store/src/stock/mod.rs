//! What a shop keeps and what becomes of it.
//!
//! - [`items`]: parts and consumables, and what is taken for what
//! - [`moves`]: what came, went and was promised; nothing of it is ever changed
//! - [`needs`]: what jobs need of it

mod items;
mod moves;
mod needs;

pub use items::{ItemRow, LookAlikeRow};
pub use moves::{MoveRow, NewMove};
pub use needs::{NeedRow, ReserveOutcome};
