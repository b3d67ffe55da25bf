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
            SettingsProblem::TipTooWide { joint, tip_mm, pitch_mm } => problem(
                format!("a {tip_mm} mm tip touches the neighbours of {joint}, which stand {pitch_mm:.1} mm apart"),
                format!("take a tip up to {:.1} mm wide, or flood or drag the whole row", 2.0 * pitch_mm),
            ),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_covered_joint_names_the_shield_as_the_page_does_and_its_place() {
        let joints = vec!["leg 4".to_owned()];
        let covered = SettingsProblem::CoveredJoints { shield: 1, joints, x_mm: 34.6, y_mm: 6.2 };
        let ProblemWords { message, hint } = Words::default().settings_problem(&covered);
        assert_eq!(message, "shield 2 at (34.6, 6.2) mm lies over leg 4");
        assert!(hint.contains("will not melt"));
        let nozzle =
            SettingsProblem::NoSuchNozzle { station: "Gull".into(), nozzle_mm: 5.0, owned_mm: vec![22.0, 8.0] };
        assert_eq!(Words::default().settings_problem(&nozzle).hint, "it owns 22 mm, 8 mm");
        let wide = SettingsProblem::TipTooWide { joint: "A3".into(), tip_mm: 4.0, pitch_mm: 0.5 };
        assert!(Words::default().settings_problem(&wide).hint.starts_with("take a tip up to 1.0 mm wide"));
    }
}
