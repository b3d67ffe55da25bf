//! Card connectors: a flat shell over a row of contacts, anchors at its corners.

use super::build::{Body, Made, PinRow, all, anchors, corners, ground_at_ends, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

const SMALL: usize = 1;
const FULL: usize = 2;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "card",
    name: "card connector",
    known_by: "a flat metal cover over a slot",
    family: ConnectorFamily::Port,
    params: &[
        Param::choice("card", "card", 1.0, &[(1.0, "small memory"), (2.0, "full-size memory"), (3.0, "subscriber")]),
        Param::choice("switch", "card switch", 2.0, &[(0.0, "none"), (2.0, "two contacts")]),
        Param::mm("height", "height", 1.5, 1.0..=3.5),
    ],
    tests: &["the card is found", "its full capacity reads and writes", "it clicks in and comes out"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let card = sizes.count("card");
    // Contacts, their pitch, body width and depth (D: the cards' own contact pitches; E: the bodies).
    let (count, pitch, width, depth): (usize, f64, f64, f64) = match card {
        SMALL => (8, 1.1, 14.0, 15.0),
        FULL => (9, 2.5, 28.0, 27.0),
        _ => (6, 2.54, 16.5, 18.0),
    };
    let (shape, at) = (pad(0.6 * pitch.min(1.2), 1.2), (0.0, depth / 2.0 - 0.4));
    let pins = PinRow { name: "", count, pitch, at, shape, hidden: false, role: ground_at_ends };
    let switch = sizes.count("switch");
    let at = (-width / 2.0 + 2.6, -depth / 2.0 + 0.4);
    let sw = PinRow { name: "switch ", count: switch, pitch: 1.6, at, shape, hidden: false, role: ground_at_ends };
    let anchors = anchors(&corners(width + 0.6, -depth / 2.0 + 3.0, depth / 2.0 - 3.0), pad(1.2, 1.6));
    let height = sizes.get("height");
    let body = Body { width, depth, height, material: BodyMaterial::Lcp, shell: true, pegs: 2 };
    Made { body, joints: all(vec![row(&pins), row(&sw), anchors]) }
}
