//! The rules of replacing ports and flex connectors, and the computation under them. Pure: values in, values out.
//!
//! In reading order, each looking only at those above it:
//!
//! - [`units`]: quantities as types
//! - [`finding`]: what a rule has to object, where, and the way out
//! - [`caution`]: what can hurt a person or a shop
//! - [`watch`]: how far a computation has come, and whether it is still wanted
//! - [`instrument`]: what instruments at a bench measure
//! - [`materials`]: alloys and bodies, with sources and limits
//! - [`board`]: outline, stack-up, connector, joints, components
//! - [`solder`]: what a mix of solders melts at
//! - [`heat`]: how the board heats under a tool, and when its joints melt
//! - [`calibration`]: what is learnt from what was observed; a run that is watched
//! - [`method`]: the ways to get a part off, a file each: where each fits, its recipe, its words
//! - [`planning`]: margins, the abort time, the search for settings, the methods compared, the bench sequence
//! - [`practice`]: the same solver in real time under somebody's hands, with consequences; the course
//! - [`opening`]: a device opened by its map, counted out and in; [`inspection`]: what is looked at and measured, before and after
//! - [`shop`]: the job's line of stops and what to pick up next
//! - [`example`]: a made-up bench, for the examples of this documentation

pub mod board;
pub mod calibration;
pub mod caution;
pub mod example;
pub mod finding;
pub mod heat;
pub mod inspection;
pub mod instrument;
pub mod materials;
pub mod method;
pub mod opening;
pub mod planning;
pub mod practice;
pub mod shop;
pub mod solder;
pub mod units;
pub mod watch;
