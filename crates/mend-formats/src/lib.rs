//! Bytes to core types and back. Each folder is one open format, documented under docs/formats with its schema.
//!
//! - [`board`]: a board model, `urgent-mend/board/1`
//! - [`station`]: a hot-air station, `urgent-mend/station/1`
//! - [`connector`]: a connector of the shop's own library, `urgent-mend/connector/1`
//! - [`draft`]: a board while it is described, `urgent-mend/draft/1`
//! - [`kicad`]: boards and footprints of an open layout format, read only
//! - [`placement`]: tables of where parts stand, read only
//! - [`bundle`]: everything one plan needs, `urgent-mend/bundle/1`
//! - [`charge`]: what the joints hold and are fed, within a bundle or a job
//! - [`melt`]: a computed melting curve, `urgent-mend/melt/1`
//! - [`means`]: what a shop has and can, `urgent-mend/means/1`
//! - [`comparison`]: methods compared and searched, `urgent-mend/comparison/1` and `urgent-mend/search/1`
//! - [`plan`]: a computed plan, `urgent-mend/plan/1`
//! - [`shop_settings`]: a shop's own settings, `urgent-mend/shop/1`
//! - [`record`]: a job with all that is on record of it, `urgent-mend/job/2`; [`export`]: how exported files belong together,
//!   `urgent-mend/export/1`
//! - [`shop`]: a job as the demo ships it, `urgent-mend/job/1`

pub mod board;
pub mod bundle;
pub mod charge;
pub mod comparison;
pub mod connector;
pub mod draft;
pub mod export;
pub mod kicad;
pub mod means;
pub mod melt;
pub mod placement;
pub mod plan;
mod reading;
pub mod record;
pub mod shop;
pub mod shop_settings;
pub mod station;

pub use reading::format_of;
