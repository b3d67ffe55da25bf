//! The only SQL. One writer connection and a pool of readers on one SQLite file in WAL mode.
//!
//! - [`Store`]: opens, migrates, hands out [`Read`] and [`Write`]
//! - one file per table: boards, stations, jobs, plans, runs, pins

mod boards;
mod error;
mod jobs;
mod migrations;
mod pins;
mod plans;
mod runs;
mod stations;
mod store;

pub use boards::BoardRow;
pub use error::StoreError;
pub use jobs::JobRow;
pub use plans::{NewPlan, PlanRow};
pub use runs::{PressRow, RunRow};
pub use stations::StationRow;
pub use store::{Read, Store, Write};
