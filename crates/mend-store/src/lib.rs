//! The only SQL. One writer connection and a pool of readers on one SQLite file in WAL mode.
//!
//! - [`Store`]: opens, migrates, hands out [`Read`] and [`Write`]
//! - one file per table: boards, drafts, photos, connectors, layouts, stations, jobs, charges, settings, means, variants, plans, runs,
//!   ledger, pins

mod boards;
mod charges;
mod connectors;
mod drafts;
mod error;
mod jobs;
mod layouts;
mod ledger;
mod means;
mod migrations;
mod photos;
mod pins;
mod plans;
mod runs;
mod settings;
mod stations;
mod store;
mod variants;

pub use boards::{BoardRow, NewBoard};
pub use connectors::ConnectorRow;
pub use drafts::{DraftRow, NewDraft};
pub use error::StoreError;
pub use jobs::JobRow;
pub use ledger::LedgerRow;
pub use photos::NewPhoto;
pub use plans::{NewPlan, PlanRow};
pub use runs::{PressRow, RunRow};
pub use stations::StationRow;
pub use store::{Read, Store, Write};
pub use variants::VariantRow;
