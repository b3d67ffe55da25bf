//! A donor's part, once it is off: its pins are cleaned and looked at; the board is spent.

use super::line::HarvestLine;
use super::script::Script;
use super::step::{Duty, Step, StepKind, step};
use super::task::Task;
use crate::caution::Caution;

pub(super) fn steps(script: &Script<'_>) -> Vec<Step> {
    vec![cool(script), clean_part(script), bag(script)]
}

fn cool(script: &Script<'_>) -> Step {
    let kind = StepKind::Hold { until_s: script.plan.solid_after_s };
    Step { kind, ..step(Task::CoolPart, vec![HarvestLine::SetDown], &[Caution::Burns, Caution::HotBench]) }
}

fn clean_part(script: &Script<'_>) -> Step {
    let mut lines = vec![HarvestLine::WickFeet { joints: script.board.connector.joints.len() }];
    if let Some(feed) = script.composition.fed() {
        let alloy = script.composition.refit.name.clone();
        lines.push(HarvestLine::TinOnceMore { fed: feed.metal.name.clone(), alloy });
    }
    lines.push(HarvestLine::BrushDry);
    let step = step(Task::CleanPart, lines, &[Caution::Burns, Caution::Fumes, Caution::Alcohol]);
    Step { duty: Duty::Clean, ..step }
}

/// The board that a part moves over to: ready before the part is held over it.
pub(super) fn other_board(script: &Script<'_>) -> Step {
    let joints = script.board.connector.joints.len();
    let lines = vec![HarvestLine::OtherBoardReady { joints }, HarvestLine::SameFootprint];
    Step { duty: Duty::Clean, ..step(Task::OtherBoard, lines, &[Caution::Burns, Caution::Fumes, Caution::Static]) }
}

fn bag(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let looks = HarvestLine::LatchMoves { part: connector.name.clone(), material: connector.material };
    step(Task::BagPart, vec![looks, HarvestLine::BagIt, HarvestLine::BoardIsWaste], &[Caution::Lead, Caution::Static])
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;

    #[test]
    fn a_donors_part_is_cooled_cleaned_and_bagged_and_its_feed_comes_off() {
        let plain = job();
        let tasks: Vec<Task> = steps(&plain.script()).iter().filter_map(|step| step.task().cloned()).collect();
        assert_eq!(tasks, [Task::CoolPart, Task::CleanPart, Task::BagPart]);
        let (fed, alloy) = ("Sn42Bi58".to_owned(), "SAC305".to_owned());
        assert!(says(&steps(&job().fed().script())[1], HarvestLine::TinOnceMore { fed, alloy }));
    }
}
