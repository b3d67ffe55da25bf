//! The 19-contact video port: surface pins 0.5 mm apart (D), four shell anchors through the board.

use super::build::{Body, Made, PinRow, all, anchors, corners, hole, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "video-port",
    name: "19-contact video port",
    known_by: "one row of nineteen fine pins behind a wide shell",
    family: ConnectorFamily::Port,
    params: &[
        Param::mm("across", "anchors, left to right", 14.5, 13.5..=16.5),
        Param::mm("along", "anchors, front to back", 5.96, 4.0..=8.0),
        Param::mm("drill", "leg hole", 1.2, 0.9..=1.6),
        Param::mm("height", "height", 5.9, 4.5..=7.0),
        Param::count("pegs", "pegs", 0.0, 0.0..=2.0),
    ],
    tests: &[
        "picture at the highest resolution and rate",
        "sound over the cable",
        "found again after unplugging",
        "picture holds while the plug is moved a little",
    ],
    build,
};

/// A pair and its screen in turn; supply at 18 (D: the interface's own order).
fn role(number: usize, _: usize) -> Role {
    match number {
        2 | 5 | 8 | 11 | 17 => Role::Ground,
        18 => Role::Power,
        _ => Role::Signal,
    }
}

fn build(sizes: &Sizes<'_>) -> Made {
    let shape = pad(0.3, 1.9);
    let pins = PinRow { name: "", count: 19, pitch: 0.5, at: (0.0, 5.3), shape, hidden: false, role };
    let drill = sizes.get("drill");
    let places = corners(sizes.get("across"), 3.2 - sizes.get("along"), 3.2);
    let pegs = sizes.count("pegs") as u32;
    let height = sizes.get("height");
    let body = Body { width: 15.0, depth: 11.3, height, material: BodyMaterial::Lcp, shell: true, pegs };
    Made { body, joints: all(vec![row(&pins), anchors(&places, hole(drill, drill + 0.7))]) }
}
