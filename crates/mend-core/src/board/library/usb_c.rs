//! USB-C: 24 contacts in two rows 0.5 mm apart (D); the far row of a top-mount is hidden under the shell.

use super::build::{Body, Made, PinRow, all, anchors, corners, hole, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Joint, Role};
use crate::materials::BodyMaterial;

const CONTACTS: &[(f64, &str)] = &[(6.0, "6, charging only"), (16.0, "16, one row"), (24.0, "24, two rows")];
const TESTS: &[&str] = &[
    "charges with the plug either way up",
    "data at full speed, either way up",
    "picture over the port, where the device gives one",
    "the plug latches and does not rock",
];

/// Its shell stands on the board.
pub(super) const TOP_MOUNT: LibraryConnector = LibraryConnector {
    key: "usb-c-top",
    name: "USB-C port, top mount",
    known_by: "the whole shell stands on the board, pins behind it",
    family: ConnectorFamily::Port,
    params: &[
        Param::choice("contacts", "contacts", 24.0, CONTACTS),
        Param::mm("across", "anchors, left to right", 8.64, 8.0..=10.0),
        Param::mm("along", "anchors, front to back", 4.18, 3.0..=6.0),
        Param::mm("drill", "leg hole", 0.7, 0.5..=1.2),
        Param::mm("depth", "body depth", 7.35, 6.0..=11.0),
    ],
    tests: TESTS,
    build: top,
};

/// Its shell is let into a cut-out of the board.
pub(super) const MID_MOUNT: LibraryConnector = LibraryConnector {
    key: "usb-c-mid",
    name: "USB-C port, mid mount",
    known_by: "the board is cut out round the shell, half of it lies below",
    family: ConnectorFamily::Port,
    params: &[
        Param::choice("contacts", "contacts", 24.0, CONTACTS),
        Param::mm("across", "anchors, left to right", 10.2, 9.0..=12.0),
        Param::mm("along", "anchors, front to back", 3.6, 2.5..=6.0),
        Param::mm("drill", "leg hole", 0.7, 0.5..=1.2),
        Param::mm("depth", "body depth", 7.9, 6.0..=11.0),
        Param::mm("above", "height above the board", 1.7, 0.8..=2.6),
    ],
    tests: TESTS,
    build: mid,
};

/// Ground outside, supply at 4 and 9 (D: the interface's own order).
fn role(number: usize, count: usize) -> Role {
    match (number, count) {
        (1 | 12, 12) => Role::Ground,
        (4 | 9, 12) => Role::Power,
        (1 | 6, 6) | (1 | 16, 16) => Role::Ground,
        (2 | 5, 6) | (2 | 15, 16) => Role::Power,
        _ => Role::Signal,
    }
}

fn pins(contacts: usize, y: f64, hidden: bool) -> Vec<Joint> {
    let line = |name, (count, pitch), y, hidden| {
        let shape = pad(0.6 * pitch, if hidden { 0.8 } else { 1.0 });
        row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden, role })
    };
    match contacts {
        6 => line("A", (6, 0.8), y, false),
        16 => line("A", (16, 0.4), y, false),
        _ => all(vec![line("A", (12, 0.5), y, false), line("B", (12, 0.5), y - 1.3, hidden)]),
    }
}

fn body(width: f64, depth: f64, height: f64) -> Body {
    Body { width, depth, height, material: BodyMaterial::Lcp, shell: true, pegs: 0 }
}

fn joints(sizes: &Sizes<'_>, hidden: bool) -> Vec<Joint> {
    let (depth, drill) = (sizes.get("depth"), sizes.get("drill"));
    let near = 1.6 - depth / 2.0;
    let places = corners(sizes.get("across"), near, near + sizes.get("along"));
    let pins = pins(sizes.count("contacts"), depth / 2.0 + 0.35, hidden);
    all(vec![pins, anchors(&places, hole(drill, drill + 0.55))])
}

fn top(sizes: &Sizes<'_>) -> Made {
    Made { body: body(8.94, sizes.get("depth"), 3.26), joints: joints(sizes, true) }
}

fn mid(sizes: &Sizes<'_>) -> Made {
    Made { body: body(8.94, sizes.get("depth"), sizes.get("above")), joints: joints(sizes, false) }
}
