//! What a rule has found: how much it weighs, where, and what the problem is, as typed values. Rules report all of them at once.
//!
//! - [`problem`]: every kind of problem, a file for each part of the core that finds it
//!
//! Nothing here is a sentence: the web puts problems into words in the visitor's scale, the formats write them as they are.

pub mod problem;

use serde::{Deserialize, Serialize};

pub use problem::Problem;

/// How much a finding weighs. Ordered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Severity {
    /// Worth knowing.
    Note,
    /// Likely to hurt; work can go on.
    Warning,
    /// Can't be computed or must not be done.
    Blocking,
}

/// What a rule has to say.
///
/// ```
/// use mend_core::finding::{Finding, problem::SettingsProblem};
/// let finding = Finding::blocking("settings", "shields", SettingsProblem::TooManyShields { count: 41, most: 40 });
/// let written = serde_json::to_value(&finding).expect("plain data");
/// assert_eq!((written["kind"].as_str(), written["count"].as_u64()), (Some("too-many-shields"), Some(41)));
/// ```
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Finding {
    /// The rule that objects, as its file is named.
    pub rule: String,
    /// How much it weighs.
    pub severity: Severity,
    /// The field, joint or component it is about, as the person entered it.
    pub place: String,
    /// What is the matter there.
    #[serde(flatten)]
    pub problem: Problem,
}

impl Finding {
    /// A blocking finding of `rule` about `place`.
    pub fn blocking(rule: &str, place: impl Into<String>, problem: impl Into<Problem>) -> Self {
        Self { rule: rule.to_owned(), severity: Severity::Blocking, place: place.into(), problem: problem.into() }
    }
    /// The same, as a warning.
    pub fn warning(rule: &str, place: impl Into<String>, problem: impl Into<Problem>) -> Self {
        Self { severity: Severity::Warning, ..Self::blocking(rule, place, problem) }
    }
    /// A blocking finding in the words of whoever read a file or a form. The core itself names its problems.
    pub fn written(rule: &str, place: impl Into<String>, message: impl Into<String>) -> Self {
        Self::blocking(rule, place, Problem::written(message, ""))
    }
    /// With the way out, where the problem was said in words.
    pub fn hint(mut self, remedy: impl Into<String>) -> Self {
        if let Problem::Written { hint, .. } = &mut self.problem {
            *hint = remedy.into();
        }
        self
    }
    /// The same, as a note.
    pub fn note(rule: &str, place: impl Into<String>, problem: impl Into<Problem>) -> Self {
        Self { severity: Severity::Note, ..Self::blocking(rule, place, problem) }
    }
}

/// Is there one among them that forbids going on?
///
/// ```
/// use mend_core::finding::{Finding, any_blocking, problem::BoardProblem};
/// let note = Finding::note("rule", "place", BoardProblem::NoJoints);
/// assert!(!any_blocking(&[note.clone()]));
/// assert!(any_blocking(&[note, Finding::blocking("rule", "place", BoardProblem::NoJoints)]));
/// ```
pub fn any_blocking(findings: &[Finding]) -> bool {
    findings.iter().any(|finding| finding.severity == Severity::Blocking)
}

#[cfg(test)]
mod tests {
    use super::problem::{BoardProblem, PlanProblem};
    use super::*;

    #[test]
    fn only_a_blocking_one_blocks() {
        let warning = Finding::warning("r", "p", BoardProblem::NoJoints);
        assert!(!any_blocking(std::slice::from_ref(&warning)));
        assert!(any_blocking(&[warning, Finding::blocking("r", "p", BoardProblem::NoJoints)]));
    }

    #[test]
    fn a_finding_is_read_as_it_was_written_and_as_it_used_to_be() {
        let steep = PlanProblem::SteepRamp { components: vec!["C7".to_owned()], k_per_s: 4.2, most_k_per_s: 3.0 };
        let finding = Finding::warning("ramp", "settings", steep);
        let written = serde_json::to_string(&finding).expect("plain data");
        assert_eq!(serde_json::from_str::<Finding>(&written).expect("the same"), finding);
        let older =
            r#"{"rule":"ramp","severity":"warning","place":"settings","message":"C7 warms fast","hint":"soak it"}"#;
        let read: Finding = serde_json::from_str(older).expect("an older one");
        assert_eq!(read.problem, Problem::Written { message: "C7 warms fast".to_owned(), hint: "soak it".to_owned() });
    }
}
