//! What a rule found, in words.

use mend_core::finding::problem::Problem;
use mend_core::finding::{Finding, Severity};

use super::place::label;
use super::{ProblemWords, Words, problem};

/// A finding as a page shows it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FindingView {
    /// How much it weighs.
    pub severity: Severity,
    /// What it is about, as files and the command line name it.
    pub place: String,
    /// What it is about, as the page labels it.
    pub label: String,
    /// What is wrong, with the value.
    pub message: String,
    /// What would mend it; empty where there is nothing to do.
    pub hint: String,
}

impl Words {
    /// A finding.
    pub fn finding(&self, finding: &Finding) -> FindingView {
        let ProblemWords { message, hint } = self.problem(&finding.problem);
        let (place, label) = (finding.place.clone(), label(&finding.place));
        FindingView { severity: finding.severity, place, label, message, hint }
    }

    /// All of them.
    pub fn findings(&self, findings: &[Finding]) -> Vec<FindingView> {
        findings.iter().map(|finding| self.finding(finding)).collect()
    }

    /// The first of them in a line: `thickness_mm: -1 mm can't be`; empty where there is none.
    pub fn first(&self, findings: &[Finding]) -> String {
        let line = |FindingView { place, message, .. }: FindingView| format!("{place}: {message}");
        findings.first().map_or(String::new(), |finding| line(self.finding(finding)))
    }

    fn problem(&self, found: &Problem) -> ProblemWords {
        match found {
            Problem::Value(value) => self.value_problem(value),
            Problem::Board(board) => self.board_problem(board),
            Problem::Draft(draft) => self.draft_problem(draft),
            Problem::Settings(settings) => self.settings_problem(settings),
            Problem::Plan(plan) => self.plan_problem(plan),
            Problem::Alloy(alloy) => self.alloy_problem(alloy),
            Problem::Joint(joint) => self.joint_problem(joint),
            Problem::Written { message, hint } => problem(message, hint),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::finding::problem::{SettingsProblem, ValueProblem};
    use mend_core::units::{Scale, Unit};

    #[test]
    fn a_finding_names_place_value_and_remedy_on_the_visitors_scale() {
        let too_hot = ValueProblem::outside(500.0, (100.0, 450.0), Unit::Celsius).expect("outside");
        let finding = Finding::blocking("settings", "set_c", too_hot);
        let view = |scale| Words { scale }.finding(&finding);
        let celsius = view(Scale::Celsius);
        assert_eq!((celsius.message.as_str(), celsius.hint.as_str()), ("500 °C can't be", "between 100 and 450 °C"));
        let fahrenheit = view(Scale::Fahrenheit);
        assert_eq!(fahrenheit.message, "932 °F can't be");
        assert_eq!(fahrenheit.hint, "between 212 and 842 °F");
    }

    #[test]
    fn the_first_of_many_is_said_in_a_line() {
        let findings = [
            Finding::warning("settings", "shields", SettingsProblem::TooManyShields { count: 41, most: 40 }),
            Finding::written("file", "line 3", "has no colon"),
        ];
        assert_eq!(Words::default().first(&findings), "shields: 41 shields");
        assert_eq!(Words::default().first(&findings[1..]), "line 3: has no colon");
        assert_eq!(Words::default().first(&[]), "");
    }
}
