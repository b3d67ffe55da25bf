//! Micro-USB: five contacts 0.65 mm apart (D), a thin shell on two or four anchors.

use super::build::{Body, Made, PinRow, all, anchors, corners, hole, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "micro-usb",
    name: "micro-USB port",
    known_by: "five fine pins, a trapezoid mouth",
    family: ConnectorFamily::Port,
    params: &[
        Param::mm("across", "anchors, left to right", 7.2, 6.0..=9.0),
        Param::mm("along", "anchors, front to back", 2.7, 2.0..=4.0),
        Param::mm("drill", "leg hole", 0.7, 0.5..=1.2),
    ],
    tests: &["charges", "data both ways", "the plug latches and does not rock"],
    build,
};

/// Supply first, ground last (D).
fn role(number: usize, _: usize) -> Role {
    match number {
        1 => Role::Power,
        5 => Role::Ground,
        _ => Role::Signal,
    }
}

fn build(sizes: &Sizes<'_>) -> Made {
    let shape = pad(0.4, 1.35);
    let pins = PinRow { name: "", count: 5, pitch: 0.65, at: (0.0, 2.6), shape, hidden: false, role };
    let (drill, near) = (sizes.get("drill"), -1.3);
    let places = corners(sizes.get("across"), near, near + sizes.get("along"));
    let body = Body { width: 7.5, depth: 5.0, height: 2.5, material: BodyMaterial::Lcp, shell: true, pegs: 0 };
    Made { body, joints: all(vec![row(&pins), anchors(&places, hole(drill, drill + 0.5))]) }
}
