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
