//! The only SQL. One writer connection and a pool of readers on one SQLite file in WAL mode.
//!
//! - [`Folder`]: the folder that a shop lives in; [`Store`]: opens, migrates, hands out [`Read`] and [`Write`]
//! - [`snapshot`]: whole copies, restored; `check`: is the database whole?
//! - one file per table: boards, drafts, photos, connectors, layouts, stations, shop (and means), jobs, job_index, charges, settings,
//!   variants, plans, lessons, runs, pins, checks, extras, job_photos, openings, people (devices, sessions, invitations), stock (items, look_alikes, stock_moves, job_items), donors, quotes (and job_times), task_pins, outcomes, waits, attempts (and attempt_events); `typed`: what was typed or said; `record`: a job's entries of all of them; `customers`: whose jobs they are

mod attempts;
mod boards;
mod check;
mod checks;
mod compositions;
mod connectors;
mod customers;
mod donors;
mod drafts;
mod error;
mod extras;
mod folder;
mod hands;
mod instruments;
mod job_index;
mod job_photos;
mod jobs;
mod layouts;
mod lessons;
mod migrations;
mod openings;
mod outcomes;
mod people;
mod photos;
mod pins;
mod plans;
mod quotes;
mod record;
mod run_states;
mod runs;
mod settings;
mod shop;
pub mod snapshot;
mod stations;
mod stock;
mod store;
mod task_pins;
mod to_learn;
mod typed;
mod variants;
mod waits;

pub use attempts::{AttemptEnd, AttemptEventRow, AttemptRow, NewAttempt, PracticeRecordRow};
pub use boards::{BoardRow, ModelRow, NewBoard, VersionRow};
pub use checks::{CheckRow, NewCheck};
pub use connectors::ConnectorRow;
pub use customers::CustomerJobRow;
pub use donors::DonorRow;
pub use drafts::{ActState, DoneAct, DraftAct, DraftRow, NewDraft};
pub use error::StoreError;
pub use extras::ExtraRow;
pub use folder::{Folder, FolderError};
pub use hands::HandRow;
pub use instruments::InstrumentRow;
pub use job_index::{IndexRow, ListedJob, ReleaseRow};
pub use job_photos::{JobPhotoRow, PhotoWords};
pub use jobs::{JobRow, LogRow};
pub use lessons::{LessonRow, MeasuringKey, NewLesson};
pub use openings::OpeningRow;
pub use people::{Invited, NewPerson, NewSession, PersonRow};
pub use photos::{NewPhoto, PhotoRow};
pub use pins::NewMark;
pub use plans::{NewPlan, PlanRow};
pub use quotes::{NewQuote, QuoteRow, TimeRow};
pub use record::RecordRow;
pub use run_states::{ReadingRow, StateRow};
pub use runs::{EventRow, Moment, NewEvent, NewRun, RunRow};
pub use stations::StationRow;
pub use stock::{ItemRow, LookAlikeRow, MoveRow, NeedRow, NewMove, ReserveOutcome};
pub use store::{Read, Store, Write};
pub use task_pins::TaskPinRow;
pub use typed::{CustomerWord, TypedField};
pub use variants::{NewVariant, VariantRow};
pub use waits::WaitRow;
