//! A step at the bench.

use serde::{Deserialize, Serialize};

use crate::caution::Caution;
use crate::planning::band::{Band, TimeBand};

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
    /// The joints are cleaned: floods and stages are entered here.
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
        /// Time to release.
        release: TimeBand,
        /// When to stop, s.
        #[serde(alias = "stop_s")]
        abort_s: f64,
    },
    /// Air on again; the new part sinks. Nothing is predicted: the fit has no run of its own yet, and the removal's times are
    /// another part's.
    Set,
    /// A stage before the last: so long, then on.
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
    /// `air`, `preheater`, `iron`.
    pub what: String,
    /// What it is set to, °C.
    pub set_c: f64,
}

pub(super) fn step(title: &str, lines: Vec<String>, cue: &str, cautions: &[Caution]) -> Step {
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
    pub(super) fn because(self, why: &str) -> Self {
        Self { why: why.to_owned(), ..self }
    }
}

pub(super) fn owned(lines: &[&str]) -> Vec<String> {
    lines.iter().map(|line| (*line).to_owned()).collect()
}
