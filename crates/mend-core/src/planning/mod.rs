//! From an order to a plan, one way: order, runs, readings of them, margins, plan; then the steps at the bench.
//!
//! - [`plan_inputs`]: what is entered for a plan; [`order`]: what is to be planned; [`settings`]: can these settings
//!   be, on this station?
//! - [`tolerance`]: what a thing stands and for how long; [`limits`]: what must not be passed; [`damaged`]: what is damaged then; [`loose`]: what the jet and its weight do
//!   to a component whose joints melt
//! - [`runs`]: every run of an order; [`band`]: quantiles over the samples
//! - readings: [`abort_time`]: when to take the air away if nothing moved; [`laminate`]: what the board itself bears;
//!   [`margin`]: everything against its line; [`sensitivity`]: which guess widens the band; [`rules`]: what else there is to say, a file each; [`next_move`]: the
//!   best of the [`single_changes`]; [`limited_by`]: what limits the plan
//! - [`plan`]: what comes of it; [`make_plan`]: from the order to it
//! - [`process_window`]: every set temperature and flow of a station at once; [`recheck`]: its edges again, finely
//! - [`search`]: the settings and the fewest shields that open a family's window; [`compare`]: the families side by
//!   side; [`bench_time`]: how long each keeps the hands busy; [`difficulty`]: go or no-go; [`fit`]: the ways to solder
//!   the new part on; [`small_runs`]: holes cleared and anchors flowed through; [`put_back`]: a component
//!   that was knocked off; [`tips`]: a tip for
//!   each class of joint
//! - [`sequence`]: what the hands do; [`bench_event`], [`bench_run`]: what they have done; [`ledger`]: what was fed and
//!   wicked, and what is still in the joints; [`watched`]: a run to look at; [`what_if`]: single changes of a plan
//! - [`bath`]: what an ultrasonic bath would hurt
//! - [`used_up`]: wire, braid, flux, shields, alcohol and the nozzle's hours, as expected and as done
//! - [`translated`]: a recipe on another station
//! - [`live`]: what a run at the bench is watched with; [`learnt`]: what it taught once it is over
//!
//! Does not compute: prices. What hands take is an estimate until the shop's own times replace it.

pub mod abort_time;
pub mod band;
pub mod bath;
pub mod bench_event;
pub mod bench_run;
pub mod bench_time;
pub mod change;
pub mod compare;
pub mod damaged;
pub mod difficulty;
pub mod fit;
pub mod laminate;
pub mod learnt;
pub mod ledger;
pub mod limited_by;
pub mod limits;
pub mod live;
pub mod loose;
pub mod make_plan;
pub mod margin;
pub mod next_move;
pub mod order;
pub mod plan;
pub mod plan_inputs;
pub mod process_window;
pub mod put_back;
pub mod recheck;
mod rows;
pub mod rules;
pub mod runs;
mod scaled;
pub mod search;
pub mod sensitivity;
pub mod sequence;
pub mod settings;
pub mod single_changes;
pub mod small_runs;
pub mod tips;
pub mod tolerance;
pub mod translated;
pub mod used_up;
pub mod watched;
pub mod what_if;
pub mod window_point;
