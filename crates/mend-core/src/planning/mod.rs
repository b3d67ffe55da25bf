//! From runs to a plan: bands, margins, the stop line, and the steps at the bench.
//!
//! - [`band`]: quantiles over the samples; [`settings`]: can these settings be, on this station?
//! - [`limits`]: what must not be passed; [`loose`]: what the jet and its weight do to a neighbour whose joints melt
//! - [`stop_line`]: when to take the air away if nothing moved; [`margin`]: everything against its line; [`laminate`]: what
//!   the board itself bears; [`rules`]: what else there is to say, a file each; [`next_move`]: the best single change
//! - [`process_window`]: every set temperature and flow of a station at once; [`recheck`]: its edges again, finely
//! - [`plan`]: all of it together; [`search`]: the settings and the fewest shields that open a family's window; [`compare`]:
//!   the families side by side; [`bench_time`]: how long each keeps the hands busy; [`difficulty`]: go or no-go, in words
//! - [`sequence`]: what the hands do; [`bench_run`]: what they have done;
//!   [`watched`]: a run to look at; [`what_if`]: single changes of a plan; [`ledger`]: what was fed and wicked, and what is still in the joints

pub mod band;
pub mod bench_run;
pub mod bench_time;
mod binds;
pub mod compare;
pub mod difficulty;
pub mod laminate;
pub mod ledger;
pub mod limits;
pub mod loose;
pub mod margin;
pub mod next_move;
mod outcome;
pub mod plan;
pub mod process_window;
pub mod recheck;
mod rows;
pub mod rules;
mod scaled;
pub mod search;
pub mod sequence;
pub mod settings;
pub mod stop_line;
pub mod watched;
pub mod what_if;
