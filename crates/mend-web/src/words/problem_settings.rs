//! What is wrong with settings, in words.

use mend_core::finding::problem::SettingsProblem;

use super::quantity::{list, place};
use super::{ProblemWords, Words, problem};

impl Words {
    pub(super) fn settings_problem(&self, found: &SettingsProblem) -> ProblemWords {
        match found {
            SettingsProblem::NoAir => problem("no air blows in the last stage", "a window of air settings needs air"),
            SettingsProblem::NothingHot => {
                problem("nothing is hot in the last stage", "put air, a preheater or an iron to work")
            }
            SettingsProblem::TooManyStages { count, most } => {
                problem(format!("{count} stages before the last"), format!("up to {most}"))
            }
            SettingsProblem::TooManyShields { count, most } => {
                problem(format!("{count} shields"), format!("up to {most}"))
            }
            SettingsProblem::CoveredJoints { shield, joints, x_mm, y_mm } => problem(
                format!("shield {} at {} lies over {}", shield + 1, place(*x_mm, *y_mm), list(joints)),
                "a covered joint will not melt: draw the shield back from it",
            ),
            SettingsProblem::NotMeasured { station } => problem(
                format!("{station} has not been measured: the bands are wide"),
                "time a bag of known volume for the flow, and hold a thermocouple in the jet",
            ),
            SettingsProblem::NoSuchNozzle { station, nozzle_mm, owned_mm } => {
                let owned: Vec<String> = owned_mm.iter().map(|mm| format!("{mm} mm")).collect();
                problem(format!("{station} has no {nozzle_mm} mm nozzle"), format!("it owns {}", owned.join(", ")))
            }
        }
    }
}
