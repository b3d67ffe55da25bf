//! Coaxial socket on square anchors: four stout anchors round a centre pin, tight in their holes.

use super::build::{Body, Made, anchors, corners, hole};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Joint, Point, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "coaxial",
    name: "coaxial socket, square anchors",
    known_by: "four square anchors round a centre pin",
    family: ConnectorFamily::Jack,
    params: &[
        Param::mm("square", "anchors, side of their square", 5.08, 4.0..=8.0),
        Param::mm("drill", "leg hole", 1.5, 0.9..=1.9),
        Param::mm("pin", "centre hole", 1.0, 0.6..=1.2),
        Param::mm("body", "body, side", 6.5, 5.0..=12.0),
        Param::mm("height", "height", 9.0, 4.0..=16.0),
    ],
    tests: &["signal over the cable", "centre to shell is open without a cable", "the thread or lock holds"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (side, drill, pin) = (sizes.get("square"), sizes.get("drill"), sizes.get("pin"));
    let land = (drill + 0.7).min(side / 2.0 + 0.5);
    let centre = Joint {
        name: "centre".to_owned(),
        row: "centre".to_owned(),
        at: Point { x: 0.0, y: 0.0 },
        role: Role::Signal,
        shape: hole(pin, pin + 0.4),
        hidden: true,
    };
    let anchors = anchors(&corners(side, -side / 2.0, side / 2.0), hole(drill, land.max(drill + 0.2)));
    let (width, height) = (sizes.get("body"), sizes.get("height"));
    // A solid metal body, no plastic to speak of but the ring round its pin.
    let body = Body { width, depth: width, height, material: BodyMaterial::Metal, shell: true, pegs: 0 };
    Made { body, joints: std::iter::once(centre).chain(anchors).collect() }
}
