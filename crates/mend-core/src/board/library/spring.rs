//! Spring connectors: leaf or plunger contacts that press against a part, on pads.

use super::build::{Body, Made, PinRow, all, ground_at_ends, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "spring",
    name: "spring connector",
    known_by: "leaves or plungers that press against a speaker, an antenna or a dock",
    family: ConnectorFamily::Jack,
    params: &[
        Param::count("contacts", "contacts", 4.0, 1.0..=20.0),
        Param::mm("pitch", "pitch", 2.0, 1.0..=4.0),
        Param::choice("pads", "pads of each contact", 1.0, &[(1.0, "one"), (2.0, "one at either end")]),
        Param::mm("depth", "body depth", 4.0, 2.0..=8.0),
        Param::mm("height", "height at rest", 2.5, 0.8..=8.0),
    ],
    tests: &[
        "every spring moves and comes back",
        "what it presses on works",
        "and works while it is pressed by a finger",
    ],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (count, pitch, depth) = (sizes.count("contacts"), sizes.get("pitch"), sizes.get("depth"));
    let shape = pad(0.6 * pitch, 1.2);
    let line = |name, y| row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden: false, role: ground_at_ends });
    let mut joints = vec![line("", depth / 2.0)];
    if sizes.count("pads") == 2 {
        joints.push(line("front ", -depth / 2.0));
    }
    let (width, height) = (pitch * count as f64, sizes.get("height"));
    let body = Body { width, depth, height, material: BodyMaterial::Lcp, shell: false, pegs: 0 };
    Made { body, joints: all(joints) }
}
