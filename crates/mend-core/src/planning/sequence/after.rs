//! After the heat: cleaned, looked at, tested.

use super::line::AfterLine;
use super::script::Script;
use super::step::{Step, step};
use super::task::Task;
use crate::board::ComponentKind;
use crate::caution::Caution;
use crate::materials::BodyMaterial;

/// All of it in one step, where no method is chosen.
pub(super) fn clean_all() -> Step {
    let lines = vec![AfterLine::TouchUpVisible, AfterLine::RinseAndDry, AfterLine::ToThePinWalk];
    step(Task::CleanAll, lines, &[Caution::Alcohol, Caution::Burns])
}

/// By what the flux could have run into, and by what a bath would hurt.
pub(super) fn clean(script: &Script<'_>) -> Step {
    let delicate =
        |material| matches!(material, BodyMaterial::MemsMicrophone | BodyMaterial::Crystal | BodyMaterial::Display);
    let near = script.board.components.iter();
    let shaken = near.filter(|n| delicate(n.material) || n.what == Some(ComponentKind::Microphone));
    let components: Vec<String> = shaken.map(|n| n.name.clone()).collect();
    let open = script.board.connector.family.has_open_contacts();
    let lines = vec![
        AfterLine::StrongAlcohol,
        if open { AfterLine::BrushAwayFromContacts } else { AfterLine::BrushIntoShell },
        if components.is_empty() { AfterLine::UltrasonicBath } else { AfterLine::NoBath { components } },
    ];
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

/// What the connector names, else what its kind wants.
pub(super) fn test(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let mut lines: Vec<AfterLine> =
        connector.tests.iter().map(|text| AfterLine::OwnTest { text: text.clone() }).collect();
    if lines.is_empty() {
        lines.push(AfterLine::UsualTest { family: connector.family });
    }
    lines.push(AfterLine::CableThenPower);
    step(Task::Test, lines, &[Caution::Mains, Caution::Static])
}
