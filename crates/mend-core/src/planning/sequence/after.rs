//! After the heat: cleaned, looked at, tested.

use super::script::Script;
use super::step::{Step, owned, step};
use crate::board::{ComponentKind, ConnectorFamily};
use crate::caution::Caution;
use crate::materials::BodyMaterial;

/// All of it in one step, where no method is chosen.
pub(super) fn clean_all() -> Step {
    let lines = [
        "Touch up visible pins with a clean tip and flux.",
        "Alcohol and brush, rinse, dry warm. No flux left in the contacts.",
        "Then to the pin walk.",
    ];
    step("Clean", owned(&lines), "Concave fillets, no bridges, no balls.", &[Caution::Alcohol, Caution::Burns])
}

/// By what the flux could have run into, and by what a bath would hurt.
pub(super) fn clean(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let delicate =
        |material| matches!(material, BodyMaterial::MemsMicrophone | BodyMaterial::Crystal | BodyMaterial::Display);
    let shaken: Vec<&str> = script
        .board
        .components
        .iter()
        .filter(|n| delicate(n.material) || n.what == Some(ComponentKind::Microphone))
        .map(|n| n.name.as_str())
        .collect();
    let mut lines = owned(&["Strong alcohol and brush, until the brush comes away clean; rinse, dry warm."]);
    lines.push(if connector.family.has_open_contacts() {
        "Board upright, brushed away from the contacts: nothing dissolved runs into them.".to_owned()
    } else {
        "Into the shell with a thin brush: no flux left on the contacts.".to_owned()
    });
    lines.push(match shaken.is_empty() {
        true => "Sticky flux inside: ultrasonic bath, then rinse and dry warm.".to_owned(),
        false => format!("No ultrasonic bath: {} would not stand it.", shaken.join(", ")),
    });
    step("Clean", lines, "No shine of flux under and round the part.", &[Caution::Alcohol, Caution::Burns])
        .because("“No-clean” is cleaned all the same: residue under a part eats joints months later.")
}

pub(super) fn look(script: &Script<'_>) -> Step {
    let hidden = script.board.connector.joints.iter().filter(|joint| joint.hidden).count();
    let mut lines = owned(&[
        "At an angle, against an untouched factory connector: concave from pin to pad.",
        "No bridge, no starved joint, no ball, nothing knocked off.",
    ]);
    if hidden > 0 {
        lines.push(format!("{hidden} hidden joints: only the meter sees them. Diode mode, from either side."));
    }
    lines.push("Then the pin walk: every pin nudged and measured.".to_owned());
    step("Inspect", lines, "Every fillet looks like its neighbour.", &[Caution::Static])
        .because("What is found here is one touch of the iron; found after closing it is the whole job again.")
}

/// What the connector names, else what its kind wants.
pub(super) fn test(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let mut lines = connector.tests.clone();
    if lines.is_empty() {
        lines = owned(match connector.family {
            ConnectorFamily::Port => &["Plug in both ways up; charge, data and picture, whatever this port carries."],
            ConnectorFamily::Flex | ConnectorFamily::BoardToBoard => {
                &["Latch closes; everything on this cable works, every key and line."]
            }
            ConnectorFamily::Jack => &["Plug seats with its click; both channels or the link are there."],
            ConnectorFamily::Power => &["Plug seats firm; voltage at the fuse; charges under load, nothing warms."],
        });
    }
    lines.push("Cable first, then power; as little closed up as possible. No update, no sign-in.".to_owned());
    step("Test", lines, "Everything that this port is for works.", &[Caution::Mains, Caution::Static])
        .because("Tested open, a fault costs minutes.")
}
