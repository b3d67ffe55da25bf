//! What is wrong with a finished joint, in words.

use mend_core::finding::problem::JointProblem;

use super::{ProblemWords, Words, problem};

const AGAIN: &str = "flood with fresh alloy and wick again";

impl Words {
    pub(super) fn joint_problem(&self, found: &JointProblem) -> ProblemWords {
        match found {
            JointProblem::LeadInBismuth { percent } => problem(
                format!(
                    "{percent:.1} % of lead in a bismuth-rich joint: its last melt freezes below {}",
                    self.temperature(100.0)
                ),
                AGAIN,
            ),
            JointProblem::BismuthWithLead { percent } => problem(
                format!(
                    "{percent:.1} % of bismuth with lead: the last melt may freeze near {}",
                    self.temperature(97.0)
                ),
                format!("below 0.5 % is sound: {AGAIN}"),
            ),
            JointProblem::BismuthInTin { percent } => problem(
                format!("{percent:.1} % of bismuth in tin: the last melt freezes at {}", self.temperature(138.0)),
                format!("fine where the joint stays below {} in service", self.temperature(100.0)),
            ),
            JointProblem::Brittle { percent } => problem(
                format!("{percent:.0} % of bismuth: brittle when dropped or knocked"),
                format!("a port takes knocks: {AGAIN}"),
            ),
            JointProblem::Soft { percent } => problem(
                format!("{percent:.0} % of indium: soft, and it creeps under load"),
                "anchors carry the plug's force: flush them with fresh alloy",
            ),
            JointProblem::LiquidWhenWarm { percent, down_to_c } => {
                let end = down_to_c.map_or(String::new(), |end| format!(", down to {}", self.temperature(end)));
                problem(
                    format!("{percent:.1} % of it may still be liquid at {}{end}", self.temperature(100.0)),
                    "such a joint lets go in service: flush it out",
                )
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use mend_core::units::Scale;

    #[test]
    fn temperatures_of_a_finished_joint_are_said_on_the_visitors_scale() {
        let said = |found: &JointProblem, scale| {
            let ProblemWords { message, hint } = Words { scale }.joint_problem(found);
            format!("{message}. {hint}.")
        };
        let warm = JointProblem::LiquidWhenWarm { percent: 2.5, down_to_c: Some(58.0) };
        assert!(said(&warm, Scale::Celsius).starts_with("2.5 % of it may still be liquid at 100 °C, down to 58 °C."));
        for found in [
            warm,
            JointProblem::LeadInBismuth { percent: 0.5 },
            JointProblem::BismuthWithLead { percent: 1.0 },
            JointProblem::BismuthInTin { percent: 8.0 },
            JointProblem::Brittle { percent: 30.0 },
            JointProblem::Soft { percent: 20.0 },
        ] {
            let fahrenheit = said(&found, Scale::Fahrenheit);
            assert!(!fahrenheit.contains("°C"), "{fahrenheit}");
        }
    }
}
