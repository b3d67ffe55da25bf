//! From runs to a plan: bands, margins, the stop line, and the steps at the bench.
//!
//! - [`band`]: quantiles over the samples; [`settings`]: can these settings be, on this station?
//! - [`limits`]: what must not be passed; [`loose`]: what the jet and its weight do to a neighbour whose joints melt
//! - [`stop_line`]: when to take the air away if nothing moved; [`margin`]: everything against its line; [`laminate`]: what
//!   the board itself bears; [`rules`]: what else there is to say, a file each; [`usual`]: what is reached for
//!   first; [`next_move`]: the best single change
//! - [`process_window`]: every set temperature and flow of a station at once; [`recheck`]: its edges again, finely
//! - [`plan`]: all of it together; [`caution`], [`sequence`]: what the hands do; [`bench_run`]: what they have done;
//!   [`passes`]: its passes and shields in words; [`watched`]: a run to look at; [`ledger`]: what was fed and wicked, and what is still in the joints

pub mod band;
pub mod bench_run;
mod binds;
pub mod caution;
pub mod laminate;
pub mod ledger;
pub mod limits;
pub mod loose;
pub mod margin;
pub mod next_move;
mod outcome;
pub mod passes;
pub mod plan;
pub mod process_window;
pub mod recheck;
mod rows;
pub mod rules;
pub mod sequence;
pub mod settings;
pub mod stop_line;
pub mod usual;
pub mod watched;
