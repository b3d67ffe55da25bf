//! A step at the bench.

use serde::{Deserialize, Serialize};

use super::line::Line;
use super::task::Task;
use crate::caution::Caution;
use crate::planning::band::{Band, TimeBand};

/// A step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Step {
    /// What it is and says.
    #[serde(flatten)]
    pub text: StepText,
    /// Cautions of this very step.
    pub cautions: Vec<Caution>,
    /// What kind of step, and its times.
    pub kind: StepKind,
    /// What it has to do with the cleaning ledger.
    #[serde(default)]
    pub duty: Duty,
    /// Is the map with its shields shown?
    #[serde(default)]
    pub map: bool,
}

/// What a step is and says.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum StepText {
    /// As values.
    Typed {
        /// What is done.
        #[serde(flatten)]
        task: Task,
        /// How, a line each.
        lines: Vec<Line>,
    },
    /// As an older version wrote it into its runs.
    Written {
        /// Short name.
        title: String,
        /// What to do, a line each.
        lines: Vec<String>,
        /// What to watch for.
        cue: String,
        /// Why it is done so.
        #[serde(default)]
        why: String,
        /// What to do if it does not come.
        #[serde(default)]
        otherwise: Vec<String>,
    },
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
    /// Heat again; the new part sinks.
    Set {
        /// What the plan of the fit says; none where there is none: the removal's times are another part's.
        #[serde(default)]
        fit: Option<FitTimes>,
    },
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
        matches!(self, Self::Heat { .. } | Self::Set { .. })
    }

    /// Does air blow while its clock runs? A fit by a plan of its own may be the iron's, a soak the preheater's.
    pub fn blows(&self) -> bool {
        match self {
            Self::Heat { .. } | Self::Set { fit: None } => true,
            Self::Soak { tools, .. } | Self::Set { fit: Some(FitTimes { tools, .. }) } => {
                tools.iter().any(|tool| tool.what == HotToolKind::Air)
            }
            Self::Do | Self::WhileWarm { .. } | Self::Hold { .. } => false,
        }
    }
}

/// What the plan of a fit says of its heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct FitTimes {
    /// When every joint is liquid.
    pub liquid: TimeBand,
    /// When to stop, s.
    pub abort_s: f64,
    /// What is hot, and what each is set to.
    pub tools: Vec<HotTool>,
}

/// Kinds of tools that are hot.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum HotToolKind {
    /// Hot air.
    Air,
    /// The preheater.
    Preheater,
    /// The iron.
    Iron,
}

/// A tool that is hot.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct HotTool {
    /// Which.
    pub what: HotToolKind,
    /// What it is set to, °C.
    pub set_c: f64,
}

pub(super) fn step<L: Into<Line>>(task: Task, lines: Vec<L>, cautions: &[Caution]) -> Step {
    let lines = lines.into_iter().map(Into::into).collect();
    Step {
        text: StepText::Typed { task, lines },
        cautions: cautions.to_vec(),
        kind: StepKind::Do,
        duty: Duty::None,
        map: false,
    }
}

impl Step {
    /// What is done; none in steps that an older version wrote.
    pub fn task(&self) -> Option<&Task> {
        match &self.text {
            StepText::Typed { task, .. } => Some(task),
            StepText::Written { .. } => None,
        }
    }

    /// How, a line each; none in steps that an older version wrote.
    pub fn lines(&self) -> &[Line] {
        match &self.text {
            StepText::Typed { lines, .. } => lines,
            StepText::Written { .. } => &[],
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::planning::sequence::line::HeatLine;

    #[test]
    fn a_step_is_read_as_it_was_written_and_as_it_used_to_be() {
        let typed = step(Task::Soak { air: true }, vec![HeatLine::NextToolWithin { s: 5.0 }], &[Caution::Burns]);
        let written = serde_json::to_string(&typed).expect("plain data");
        assert_eq!(serde_json::from_str::<Step>(&written).expect("the same"), typed);
        let older = r#"{"title":"Lift","lines":["Straight up."],"cue":"It floats.","cautions":["burns"],
            "kind":{"what":"do"},"why":"Force takes pads."}"#;
        let read: Step = serde_json::from_str(older).expect("an older one");
        assert!(matches!(&read.text, StepText::Written { title, .. } if title == "Lift"), "{read:?}");
        assert_eq!((read.task(), &read.kind), (None, &StepKind::Do));
    }
}
