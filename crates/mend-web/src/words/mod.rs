//! What the core found, in words: the one place where its values become sentences, in the visitor's scale.
//!
//! - `quantity`: numbers with their units; `finding`: what rules found, with `problem_*` a file for each of the core's lists
//! - `place`: where it is, as the page labels it
//! - `limits`: what can be damaged, and what limits a plan or a search; `change`: single changes and what they bring
//! - `method`: how each method works; `reason`: what speaks for it and against it; `comparison`: which is recommended, and why
//! - `job_kind`: what a job is for
//! - `tips`: a tip for each class of joints; `fit`: the ways to fit a new part; `guess`: what is guessed, and what to do about it
//! - `difficulty`: go or no-go; `step`: steps at the bench, with `line` for what each says
//! - `difference`: two revisions of a board; `alloy`: what must be known of a melt, and of a feed; `verdict`: of a pin walk
//!
//! Another reader of the same values is `mend-formats`: it writes them into JSON as they are.

mod alloy;
mod change;
mod comparison;
mod difference;
mod difficulty;
mod fault;
mod finding;
mod fit;
mod functional_test;
mod guess;
mod instrument;
mod insulation;
mod job_kind;
mod known;
mod limits;
mod line;
mod line_after;
mod line_before;
mod line_heat;
mod line_part;
mod method;
mod opening;
mod place;
pub(crate) mod practice;
mod problem_alloy;
mod problem_board;
mod problem_draft;
mod problem_joint;
mod problem_plan;
mod problem_settings;
mod problem_value;
mod quantity;
mod reading;
mod reason;
pub(crate) mod review;
mod rework;
mod step;
mod tips;
mod verdict;

use mend_core::units::Scale;

pub use difficulty::{advice, go};
pub use fault::{clue, sheet_verdict, suspicion};
pub use finding::FindingView;
pub use fit::{fit_way, small_run};
pub use functional_test::test_verdict;
pub(crate) use guess::{GuessView, guess};
pub use instrument::instrument_fault;
pub(crate) use insulation::{insulation_rework, insulation_verdict};
pub(crate) use job_kind::{after_bench, done_to_part, give_back, not_ready, price_line};
pub use known::{iron_heater, nozzle_air, release_band, teachable};
pub use limits::{damaged, margin_detail, margin_name, thing};
pub(crate) use line_before::wire_shape;
pub(crate) use line_heat::{begins_when, comes_near_when};
pub use method::MethodText;
pub use opening::{heap, order_problem};
pub use quantity::{capital, of_samples, release, seconds_band, shield};
pub(crate) use reading::reading;
pub use review::review_lines;
pub(crate) use rework::rework_loops;
pub use step::StepWords;
pub(crate) use tips::{joint_class, tip_wanted};
pub use verdict::{rework, verdict};

/// Puts values into words on a visitor's scale of temperature.
#[derive(Debug, Clone, Copy, Default)]
pub struct Words {
    /// The scale.
    pub scale: Scale,
}

/// A problem in words.
struct ProblemWords {
    /// What is wrong, with the value.
    message: String,
    /// What would mend it.
    hint: String,
}

/// A problem in words: the message, then the way out.
fn problem(message: impl Into<String>, hint: impl Into<String>) -> ProblemWords {
    ProblemWords { message: message.into(), hint: hint.into() }
}
