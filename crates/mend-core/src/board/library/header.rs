//! Pin header or socket: one row or two, through holes.

use super::build::{Body, Made, PinRow, all, ground_at_ends, hole_in, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::ConnectorFamily;
use crate::materials::BodyMaterial;

pub(super) const PITCHES: &[(f64, &str)] = &[(1.0, "1.0 mm"), (1.27, "1.27 mm"), (2.0, "2.0 mm"), (2.54, "2.54 mm")];

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "header",
    name: "pin header",
    known_by: "straight pins through the board, one row or two",
    family: ConnectorFamily::Power,
    params: &[
        Param::choice("rows", "rows", 1.0, &[(1.0, "one"), (2.0, "two")]),
        Param::count("ways", "pins in all", 10.0, 2.0..=64.0),
        Param::choice("pitch", "pitch", 2.54, PITCHES),
        Param::mm("height", "height of the plastic", 2.5, 1.0..=12.0),
    ],
    tests: &["the plug goes home on every pin", "everything that hangs on it works", "no pin leans"],
    build,
};

fn build(sizes: &Sizes<'_>) -> Made {
    let (rows, pitch) = (sizes.count("rows"), sizes.get("pitch"));
    let count = sizes.count("ways").div_ceil(rows);
    let joints = through(rows, count, pitch);
    let (width, depth) = (pitch * count as f64, pitch * rows as f64);
    let height = sizes.get("height");
    Made { body: Body { width, depth, height, material: BodyMaterial::Pa66, shell: false, pegs: 0 }, joints }
}

/// Rows of square pins in round holes: 0.4 of the pitch (E).
pub(super) fn through(rows: usize, count: usize, pitch: f64) -> Vec<crate::board::Joint> {
    let shape = hole_in(0.4 * pitch, pitch);
    let line = |(k, name): (usize, &'static str)| {
        let y = pitch * (rows as f64 - 1.0) / 2.0 - pitch * k as f64;
        row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden: false, role: ground_at_ends })
    };
    all(["A", "B"].into_iter().take(rows).enumerate().map(line).collect())
}
