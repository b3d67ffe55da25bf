//! From runs to a plan: bands, margins, the stop line, and the steps at the bench.
//!
//! - [`band`]: quantiles over the samples; [`settings`]: can these settings be, on this station?
//! - [`stop_line`]: when to take the air away if nothing moved; [`margin`]: everything against its line
//! - [`process_window`]: every set temperature and flow of a station at once
//! - [`plan`]: all of it together; [`caution`], [`sequence`]: what the hands do; [`bench_run`]: what they have done;
//!   [`ledger`]: what was fed and wicked, and what is still in the joints

pub mod band;
pub mod bench_run;
pub mod caution;
pub mod ledger;
pub mod margin;
pub mod plan;
pub mod process_window;
pub mod sequence;
pub mod settings;
pub mod stop_line;
