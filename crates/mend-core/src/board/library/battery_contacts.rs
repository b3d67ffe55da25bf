//! Battery contacts: a few stout blades, each on a pad or in a slot of its own.

use super::build::{Body, Made, PinRow, hole_in, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, Role};
use crate::materials::BodyMaterial;

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "battery-contacts",
    name: "battery contacts",
    known_by: "two to eight stout blades in a plastic comb",
    family: ConnectorFamily::Power,
    params: &[
        Param::count("blades", "blades", 5.0, 2.0..=8.0),
        Param::mm("pitch", "pitch", 2.5, 1.8..=5.0),
        Param::choice("mount", "mount", 1.0, &[(1.0, "on pads"), (2.0, "through holes")]),
        Param::mm("depth", "body depth", 6.0, 3.0..=12.0),
        Param::mm("height", "height", 5.0, 2.0..=12.0),
    ],
    tests: &["starts from the battery alone", "charges it", "reads its charge and its temperature"],
    build,
};

/// Plus outside, minus at the other end, thermistor and data between (E: the usual order).
fn role(number: usize, count: usize) -> Role {
    match number {
        1 => Role::Power,
        n if n == count => Role::Ground,
        _ => Role::Signal,
    }
}

fn build(sizes: &Sizes<'_>) -> Made {
    let (count, pitch, depth) = (sizes.count("blades"), sizes.get("pitch"), sizes.get("depth"));
    let shape = if sizes.count("mount") == 1 { pad(0.6 * pitch, 2.6) } else { hole_in(0.5 * pitch, pitch) };
    let joints = row(&PinRow { name: "", count, pitch, at: (0.0, depth / 2.0), shape, hidden: false, role });
    let (width, height) = (pitch * count as f64 + 1.0, sizes.get("height"));
    Made { body: Body { width, depth, height, material: BodyMaterial::Pa66, shell: false, pegs: 2 }, joints }
}
