//! The pages. A URL is a path: `/jobs/7/heat` is `pages/jobs/heat.rs` is `templates/jobs/heat.html`.
//!
//! - [`App`]: what every page may use; [`router`]: all routes, and the headers round them; `door`: who is let in
//! - `pages`: one file per page; `draw`: the pictures, as SVG; `pictures`: those of boards, kept; `job`: a job with everything
//!   known of it; `known`: what lessons say of a station and a board; `learning`: what a job
//!   taught; `jet_drift`: a jet that is no longer what it was
//! - `arrived`: the moment of a request; `extract`: forms and addresses; `upload`: forms with files; `photograph`: a picture as it
//!   is kept; [`words`]: what the core found, in sentences
//! - `people`: who asks, what they may, and how they sign in
//! - `scheduling`: what the benches have before them, and when
//! - `instruments`: thermometers that are being read
//! - `methods`: compares and searches methods for a job; `planner`: computes and keeps plans; `computing`: the service that
//!   computes; [`filling`]: fills an empty shop from files; [`transfer`]: a shop as files, out and in

pub mod app;
mod arrived;
mod assets;
mod computing;
mod door;
mod draw;
mod extract;
pub mod filling;
#[cfg(test)]
#[allow(clippy::expect_used)]
mod fixture;
mod instruments;
mod jet_drift;
mod job;
mod known;
mod learning;
mod meter;
mod methods;
mod pages;
mod people;
mod photograph;
mod pictures;
mod planner;
mod practice;
mod refusal;
mod renewals;
mod router;
mod scheduling;
pub mod transfer;
mod upload;
mod visitor;
pub mod words;

pub use app::{App, Clocks};
pub use door::Door;
pub use router::router;
