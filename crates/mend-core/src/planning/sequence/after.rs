//! After the heat: cleaned, looked at, tested.

use super::line::AfterLine;
use super::script::Script;
use super::step::{Step, step};
use super::task::Task;
use crate::caution::Caution;
use crate::planning::bath::hurt_by_bath;

/// All of it in one step, where no method is chosen.
pub(super) fn clean_all() -> Step {
    let lines = vec![AfterLine::TouchUpVisible, AfterLine::RinseAndDry, AfterLine::ToThePinWalk];
    step(Task::CleanAll, lines, &[Caution::Alcohol, Caution::Burns])
}

/// By what the flux could have run into, and by what a bath would hurt.
pub(super) fn clean(script: &Script<'_>) -> Step {
    let open = script.board.connector.family.has_open_contacts();
    let mut lines =
        vec![AfterLine::StrongAlcohol, if open { AfterLine::BrushAwayFromContacts } else { AfterLine::BrushIntoShell }];
    lines.extend(script.bath.then(|| match hurt_by_bath(script.board) {
        components if components.is_empty() => AfterLine::UltrasonicBath,
        components => AfterLine::NoBath { components },
    }));
    step(Task::Clean, lines, &[Caution::Alcohol, Caution::Burns])
}

pub(super) fn look(script: &Script<'_>) -> Step {
    let hidden = script.board.connector.joints.iter().filter(|joint| joint.hidden).count();
    let mut lines = vec![AfterLine::LookAtAnAngle, AfterLine::NoBridgeNoBall];
    if hidden > 0 {
        lines.push(AfterLine::HiddenByMeter { joints: hidden });
    }
    lines.push(AfterLine::ThenPinWalk);
    step(Task::Inspect, lines, &[Caution::Static])
}

/// Pads and holes that stay bare: what the next one has to know of them.
pub(super) fn bare(script: &Script<'_>) -> Step {
    let joints = script.board.connector.joints.len();
    step(Task::LookAtLands, vec![AfterLine::EveryLand { joints }, AfterLine::NothingBridged], &[Caution::Static])
}

/// What the connector names, else what its kind wants.
pub(super) fn test(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let mut lines: Vec<AfterLine> =
        connector.tests.iter().map(|text| AfterLine::OwnTest { text: text.clone() }).collect();
    if lines.is_empty() {
        lines.push(AfterLine::UsualTest { family: connector.family });
    }
    lines.push(AfterLine::CableThenPower);
    step(Task::Test, lines, &[Caution::LivePower, Caution::Static])
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;
    use crate::board::{ComponentKind, ConnectorFamily, Face, Point, Rect};

    #[test]
    fn a_bath_is_left_out_where_something_near_would_not_stand_it() {
        let mut job = job();
        assert!(says(&clean(&job.script()), AfterLine::UltrasonicBath));
        let place = Rect { centre: Point { x: 50.0, y: 30.0 }, width: 3.0, depth: 2.0 };
        job.bench.board.components.push(ComponentKind::Microphone.at("mic", Face::Top, place));
        let not_with_it = AfterLine::NoBath { components: vec!["mic".to_owned()] };
        assert!(says(&clean(&job.script()), not_with_it.clone()));
        let none = Script { bath: false, ..job.script() };
        assert!(!says(&clean(&none), not_with_it) && !says(&clean(&none), AfterLine::UltrasonicBath));
    }

    #[test]
    fn the_test_is_the_connectors_own_or_what_its_kind_wants() {
        let mut job = job();
        job.bench.board.connector.tests = vec!["charges both ways up".to_owned()];
        assert!(says(&test(&job.script()), AfterLine::OwnTest { text: "charges both ways up".to_owned() }));
        job.bench.board.connector.tests.clear();
        assert!(says(&test(&job.script()), AfterLine::UsualTest { family: ConnectorFamily::Port }));
    }

    #[test]
    fn hidden_joints_are_left_to_the_meter() {
        let mut job = job();
        for joint in &mut job.bench.board.connector.joints {
            joint.hidden = joint.row == "row B";
        }
        assert!(says(&look(&job.script()), AfterLine::HiddenByMeter { joints: 12 }));
    }
}
