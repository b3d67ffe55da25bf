//! The pages. A URL is a path: `/jobs/7/heat` is `pages/jobs/heat.rs` is `templates/jobs/heat.html`.
//!
//! - [`App`]: what every page may use; [`router`]: all routes, and the headers round them
//! - `pages`: one file per page; `draw`: the pictures, as SVG; `job`: a job with everything known of it
//! - `upload`: forms with files; `photograph`: a picture as it is kept
//! - `methods`: compares and searches methods for a job; `planner`: computes and keeps plans; `computing`: long work, watched and cancelled; [`opening`]: fills an empty shop from files

pub mod app;
mod assets;
mod computing;
mod draw;
#[cfg(test)]
#[allow(clippy::expect_used)]
mod fixture;
mod job;
mod methods;
pub mod opening;
mod pages;
mod photograph;
mod planner;
mod refusal;
mod router;
mod upload;
mod visitor;

pub use app::App;
pub use router::router;
