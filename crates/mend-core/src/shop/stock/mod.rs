//! Stock: a ledger of moves, what follows from it, and what to order.
//!
//! - [`MoveKind`], [`StockLevel`]: what is there, what of it is promised to jobs, what is on its way
//! - [`order_point`]: how many to hold so that 95 of 100 lead times are got through, from the shop's own use
//! - [`part_kept_for`]: is a job's part there?
//!
//! A move is never changed: a miscount is put right by another. It knows no date: days are counted by whoever asks.

mod level;
pub mod order_point;
mod part_need;

pub use level::{MoveKind, StockLevel};
pub use part_need::{PartNeed, PartState, part_kept_for};
