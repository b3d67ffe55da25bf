//! Bytes to core types and back. Each folder is one open format, documented under docs/formats with its schema.
//!
//! - [`board`]: a board model, `urgent-mend/board/2`
//! - [`station`]: a hot-air station, `urgent-mend/station/1`
//! - [`connector`]: a connector of the shop's own library, `urgent-mend/connector/1`
//! - [`draft`]: a board while it is described, `urgent-mend/draft/2`
//! - [`kicad`]: boards and footprints of an open layout format, read only
//! - [`placement`]: tables of where parts stand, read only
//! - [`bundle`]: everything one plan needs, `urgent-mend/bundle/2`
//! - [`composition`]: what the joints hold and are fed, within a bundle or a job
//! - [`melt`]: a computed melting curve, `urgent-mend/melt/2`
//! - [`equipment`]: what a shop has and can, `urgent-mend/equipment/2`
//! - [`comparison`]: methods compared and searched, `urgent-mend/comparison/2` and `urgent-mend/search/2`
//! - [`fits`]: ways to fit a new part compared, `urgent-mend/fits/1`
//! - [`plan`]: a computed plan, `urgent-mend/plan/2`
//! - [`floor`]: people, stock, quotes and donors within an export, `urgent-mend/floor/1`
//! - [`item`]: a part or consumable, `urgent-mend/item/1`
//! - [`opening`]: the opening map of a device model, `urgent-mend/opening/1`
//! - [`review`]: what a shop's past says, `urgent-mend/review/1`
//! - [`schedule`]: what there is to do at the benches, and when, `urgent-mend/schedule/1`
//! - [`shop_settings`]: a shop's own settings, `urgent-mend/shop/1`
//! - [`record`]: a job with all that is on record of it, `urgent-mend/job/3`; [`export`]: how exported files belong together,
//!   `urgent-mend/export/2`
//! - [`renewal`]: what was stored under older names, as it is written today
//! - [`shop`]: a job as the demo ships it, `urgent-mend/demo-job/2`

pub mod board;
pub mod bundle;
pub mod calibration;
pub mod comparison;
pub mod composition;
pub mod connector;
pub mod draft;
pub mod equipment;
pub mod export;
pub mod fits;
pub mod floor;
pub mod item;
pub mod kicad;
pub mod lesson;
pub mod live;
pub mod melt;
pub mod opening;
pub mod placement;
pub mod plan;
pub mod practice;
mod reading;
pub mod readings;
pub mod record;
pub mod renewal;
pub mod review;
pub mod schedule;
pub mod shop;
pub mod shop_settings;
pub mod station;

pub use reading::{FileKind, file_kind};
