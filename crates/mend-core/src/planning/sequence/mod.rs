//! The steps at the bench, written from the plan and the chosen method: what to do, what to see, how long, what to beware of,
//! and why.
//!
//! - [`before`]: opening, protecting, flux, alloy; [`passes`]: soaks, helpers and shields in words; [`heat`]: until it is off;
//!   [`pads`]: wicking, holes; [`fit`]: tinning, setting, holding, anchors; [`after`]: cleaning, looking, testing;
//!   [`harvest`]: what becomes of a donor's part instead
//!
//! Steps are written when a run is opened and stored with it: a later version shows an old run as it was. A run whose plan
//! names no method has the steps that such runs always had.

mod after;
mod before;
mod fit;
mod harvest;
mod heat;
mod pads;
pub mod passes;

use serde::{Deserialize, Serialize};

use super::band::{Band, TimeBand};
use super::plan::Plan;
use crate::board::{Board, MustLive};
use crate::caution::Caution;
use crate::method::means::Sucker;
use crate::method::schools::Question;
use crate::method::{Choice, Family};
use crate::solder::Charge;

/// A step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Step {
    /// Short name, as it stands on the screen.
    pub title: String,
    /// What to do, a line each.
    pub lines: Vec<String>,
    /// What to watch for.
    pub cue: String,
    /// Cautions of this very step.
    pub cautions: Vec<Caution>,
    /// What kind of step, and its times.
    pub kind: StepKind,
    /// What it has to do with the cleaning ledger.
    #[serde(default)]
    pub duty: Duty,
    /// Why it is done so, on request; empty where there is nothing to say.
    #[serde(default)]
    pub why: String,
    /// What to do if it does not come.
    #[serde(default)]
    pub otherwise: Vec<String>,
    /// Is the map with its shields shown?
    #[serde(default)]
    pub map: bool,
}

/// What a step has to do with the cleaning ledger.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Duty {
    /// Nothing.
    #[default]
    None,
    /// Alloy is fed: it is entered here.
    Feed,
    /// The joints are cleaned: floods and passes are entered here.
    Clean,
    /// Closed until the ledger is within limits.
    Fit,
}

/// Kinds of steps.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case", tag = "what")]
pub enum StepKind {
    /// Done when it is done.
    Do,
    /// Air on; the part moves within a band; a line at which to stop.
    Heat {
        /// When it comes away.
        release: TimeBand,
        /// When to stop, s.
        stop_s: f64,
    },
    /// Air on again; the new part sinks. Nothing is predicted: the fit has no run of its own yet, and the removal's times are
    /// another part's.
    Set,
    /// A pass before the last: so long, then on.
    Soak {
        /// How long, s.
        lasts_s: f64,
        /// What is on, and what each is set to.
        tools: Vec<HotTool>,
    },
    /// Work while the board is warm: a window that closes.
    WhileWarm {
        /// How long it stays warm, s.
        window_s: Option<Band>,
    },
    /// Hold still until everything is solid.
    Hold {
        /// Until then, s.
        until_s: Option<Band>,
    },
}

impl StepKind {
    /// Is it done under air, from "air on" to "it moved"?
    pub const fn is_heating(&self) -> bool {
        matches!(self, Self::Heat { .. } | Self::Set)
    }
}

/// A tool that is hot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct HotTool {
    /// `air`, `plate`, `iron`.
    pub what: String,
    /// What it is set to, °C.
    pub set_c: f64,
}

/// What the sequence is written from.
#[derive(Debug, Clone, Copy)]
pub struct Script<'a> {
    /// The board.
    pub board: &'a Board,
    /// The plan.
    pub plan: &'a Plan,
    /// What the joints hold, are fed, and are soldered with in the end.
    pub charge: &'a Charge,
    /// What was chosen; none: hot air as it is set, nothing else said.
    pub choice: Option<&'a Choice>,
    /// What must live.
    pub must_live: MustLive,
    /// What empties holes here.
    pub sucker: Sucker,
}

impl<'a> Script<'a> {
    /// Hot air as it is set, on a customer's board.
    pub fn plain(board: &'a Board, plan: &'a Plan, charge: &'a Charge) -> Self {
        Self { board, plan, charge, choice: None, must_live: MustLive::Board, sucker: Sucker::None }
    }
}

impl Script<'_> {
    fn is(&self, family: Family) -> bool {
        self.choice.is_some_and(|choice| choice.family == family)
    }

    /// The school that is followed.
    fn school(&self, question: &Question) -> &'static str {
        let ours = question.schools.first().map_or("", |(key, _)| key);
        self.choice.map_or(ours, |choice| choice.schools.of(question))
    }

    fn holes(&self) -> usize {
        self.board.connector.joints.iter().filter(|joint| joint.shape.is_hole()).count()
    }
}

/// All steps, in order.
pub fn sequence(script: &Script<'_>) -> Vec<Step> {
    let mut steps = vec![before::ready()];
    steps.extend(script.choice.map(|_| before::open(script)));
    steps.extend([before::protect(script), before::flux(script), before::alloy(script)]);
    steps.extend(before::wire(script));
    steps.extend(heat::until_off(script));
    match (script.choice, script.must_live) {
        (Some(_), MustLive::Part) => steps.extend(harvest::steps(script)),
        (Some(_), _) => steps.extend(fitted(script)),
        (None, _) => steps.extend([
            pads::wick(script),
            pads::clean_pads(),
            fit::fit(script),
            fit::set(script),
            fit::hold(script),
            after::clean_all(),
        ]),
    }
    steps
}

/// From the bare pads to the tested port.
fn fitted(script: &Script<'_>) -> Vec<Step> {
    let mut steps = Vec::new();
    if !script.is(Family::HotSwap) {
        steps.push(pads::wick(script));
        steps.extend(pads::holes(script));
        steps.extend([pads::clean_pads(), fit::fit(script), fit::set(script)]);
    }
    steps.extend([fit::hold(script), fit::touch_up(script)]);
    steps.extend([after::clean(script), after::look(script), after::test(script)]);
    steps
}

fn step(title: &str, lines: Vec<String>, cue: &str, cautions: &[Caution]) -> Step {
    Step {
        title: title.to_owned(),
        lines,
        cue: cue.to_owned(),
        cautions: cautions.to_vec(),
        kind: StepKind::Do,
        duty: Duty::None,
        why: String::new(),
        otherwise: Vec::new(),
        map: false,
    }
}

impl Step {
    fn because(self, why: &str) -> Self {
        Self { why: why.to_owned(), ..self }
    }
}

fn owned(lines: &[&str]) -> Vec<String> {
    lines.iter().map(|line| (*line).to_owned()).collect()
}
