//! Flex connector with a latch: 0.3-1.0 mm, 4-60 ways (D), two anchors at its ends.

use super::build::{Body, Made, PinRow, all, anchors, ground_at_ends, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

const PITCHES: &[(f64, &str)] = &[(0.3, "0.3 mm"), (0.4, "0.4 mm"), (0.5, "0.5 mm"), (0.8, "0.8 mm"), (1.0, "1.0 mm")];
const FLIP: usize = 1;
const BACK_FLIP: usize = 3;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "flex",
    name: "flex connector",
    known_by: "a thin body with a latch that flips or slides",
    family: ConnectorFamily::Flex,
    params: &[
        Param::choice("latch", "latch", 1.0, &[(1.0, "flips up"), (2.0, "slides out"), (3.0, "flips at the back")]),
        Param::choice("pitch", "pitch", 0.5, PITCHES),
        Param::count("ways", "ways", 12.0, 4.0..=60.0),
    ],
    tests: &[
        "the latch closes and holds a tug",
        "everything that hangs on the cable works",
        "no fault while it is moved",
    ],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (pitch, ways, latch) = (sizes.get("pitch"), sizes.count("ways"), sizes.count("latch"));
    let span = pitch * (ways - 1) as f64;
    // Fine connectors are shallower and lower (E).
    let fine = pitch <= 0.5;
    let depth = match (latch, fine) {
        (FLIP, true) => 4.0,
        (BACK_FLIP, true) => 3.6,
        (_, true) => 4.6,
        _ => 5.5,
    };
    let height = if fine { 1.1 } else { 2.5 };
    // The pins of a back-flip come out below its latch.
    let hidden = latch == BACK_FLIP;
    let shape = pad(0.6 * pitch, if fine { 0.8 } else { 1.3 });
    let at = (0.0, depth / 2.0 + 0.2);
    let pins = PinRow { name: "", count: ways, pitch, at, shape, hidden, role: ground_at_ends };
    let x = span / 2.0 + pitch + 0.9;
    let anchors = anchors(&[(-x, -depth / 2.0 + 1.0), (x, -depth / 2.0 + 1.0)], pad(0.8, 1.6));
    let width = span + 2.0 * pitch + 3.0;
    let body = Body { width, depth, height, material: BodyMaterial::Lcp, shell: false, pegs: 0 };
    Made { body, joints: all(vec![row(&pins), anchors]) }
}
