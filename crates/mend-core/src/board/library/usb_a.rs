//! USB-A, one port or two stacked: four or nine plated pins a port, stout shell anchors.

use super::build::{Body, Made, PinRow, all, anchors, corners, hole, hole_in, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Joint, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "usb-a",
    name: "USB-A port",
    known_by: "the flat rectangular port, pins through the board",
    family: ConnectorFamily::Port,
    params: &[
        Param::choice("ports", "ports", 1.0, &[(1.0, "single"), (2.0, "stacked, two")]),
        Param::choice("contacts", "contacts in each", 9.0, &[(4.0, "4"), (9.0, "9, fast")]),
        Param::mm("across", "anchors, left to right", 13.14, 12.0..=15.0),
        Param::mm("drill", "pin hole", 0.92, 0.6..=1.1),
        Param::mm("leg_drill", "leg hole", 2.3, 1.2..=2.8),
    ],
    tests: &["every port powers a device", "data at full speed at every port", "the plug does not rock"],
    build,
};

/// Supply first, ground last of the four (D).
fn role(number: usize, count: usize) -> Role {
    match (number, count) {
        (1, 4) => Role::Power,
        (4, 4) | (3, 5) => Role::Ground,
        _ => Role::Signal,
    }
}

/// The pins of the k-th port: four in a row, and behind them five more.
fn port(k: usize, sizes: &Sizes<'_>) -> Vec<Joint> {
    let y = 2.0 + 5.2 * k as f64;
    let line = |name, (count, pitch), y| {
        let shape = hole_in(sizes.get("drill"), pitch);
        row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden: false, role })
    };
    let names = [["L", "LF"], ["U", "UF"]][k.min(1)];
    let slow = line(names[0], (4, 2.0), y);
    if sizes.count("contacts") == 4 { slow } else { all(vec![slow, line(names[1], (5, 2.0), y + 2.4)]) }
}

fn build(sizes: &Sizes<'_>) -> Made {
    let ports = sizes.count("ports");
    let stacked = ports > 1;
    let drill = sizes.get("leg_drill");
    let places = corners(sizes.get("across"), -5.0, 0.7);
    let anchors = anchors(&places, hole(drill, drill + 0.8));
    let pins = (0..ports).map(|k| port(k, sizes));
    let depth = if stacked { 17.5 } else { 14.0 };
    let height = if stacked { 15.6 } else { 7.0 };
    let body = Body { width: 13.1, depth, height, material: BodyMaterial::Pa46, shell: true, pegs: 0 };
    Made { body, joints: all(pins.chain([anchors]).collect()) }
}
