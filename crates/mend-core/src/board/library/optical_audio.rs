//! Optical audio port: three thin anchors, two plastic feet, all of it plastic that softens early.

use super::build::{Body, Made, PinRow, all, anchors, hole, hole_in, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "optical-audio",
    name: "optical audio port",
    known_by: "a square plastic port with a flap, three thin anchors",
    family: ConnectorFamily::Jack,
    params: &[
        Param::mm("pitch", "anchors, next to next", 2.54, 2.0..=3.0),
        Param::mm("drill", "leg hole", 0.8, 0.6..=1.2),
        Param::choice("anchors", "soldered anchors", 0.0, &[(0.0, "none"), (2.0, "two")]),
        Param::mm("height", "height", 9.8, 7.0..=12.0),
    ],
    tests: &["red light in the mouth", "sound in every format the device gives", "the flap closes"],
    build,
};

/// Ground, supply, signal (E: the usual order).
fn role(number: usize, _: usize) -> Role {
    [Role::Ground, Role::Power, Role::Signal][(number - 1).min(2)]
}

fn build(sizes: &Sizes<'_>) -> Made {
    let pitch = sizes.get("pitch");
    let shape = hole_in(sizes.get("drill"), pitch);
    let pins = PinRow { name: "", count: 3, pitch, at: (0.0, 4.9), shape, hidden: false, role };
    let places: &[(f64, f64)] = if sizes.count("anchors") == 2 { &[(-4.6, 1.0), (4.6, 1.0)] } else { &[] };
    let height = sizes.get("height");
    let body = Body { width: 9.7, depth: 13.5, height, material: BodyMaterial::Pbt, shell: false, pegs: 2 };
    Made { body, joints: all(vec![row(&pins), anchors(places, hole(1.4, 2.2))]) }
}
