//! Box header: two rows in a walled plastic box.

use super::build::{Body, Made};
use super::header::{PITCHES, through};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "box-header",
    name: "box header",
    known_by: "two rows of pins inside a plastic box with a key",
    family: ConnectorFamily::Power,
    params: &[
        Param::count("each", "pins in each row", 5.0, 2.0..=32.0),
        Param::choice("pitch", "pitch", 2.54, PITCHES),
        Param::mm("wall", "box beyond the pins, each end", 5.0, 1.0..=8.0),
        Param::mm("height", "height of the box", 9.0, 3.0..=14.0),
    ],
    tests: &["the plug goes home, key in its slot", "everything that hangs on it works", "no pin leans"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (count, pitch, wall) = (sizes.count("each"), sizes.get("pitch"), sizes.get("wall"));
    let width = pitch * (count - 1) as f64 + 2.0 * wall;
    let (depth, height) = (3.4 * pitch, sizes.get("height"));
    let body = Body { width, depth, height, material: BodyMaterial::Pbt, shell: false, pegs: 0 };
    Made { body, joints: through(2, count, pitch) }
}
