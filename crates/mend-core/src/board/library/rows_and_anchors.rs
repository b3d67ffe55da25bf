//! Anything else: up to two rows of pins and up to four anchors, by their sizes.

use super::build::{Body, Made, PinRow, all, anchors, corners, ground_at_ends, hole, hole_in, pad, row};
use super::kind::{LibraryConnector, Param, Sizes};
use crate::board::{ConnectorFamily, JointShape};
use crate::materials::BodyMaterial;

const MOUNTS: &[(f64, &str)] = &[(1.0, "on pads"), (2.0, "through holes")];
/// By the choice's number.
const MATERIALS: [BodyMaterial; 6] = [
    BodyMaterial::Lcp,
    BodyMaterial::Pa9t,
    BodyMaterial::Pa46,
    BodyMaterial::Pa66,
    BodyMaterial::Pbt,
    BodyMaterial::Pps,
];
const PLASTICS: &[(f64, &str)] =
    &[(0.0, "LCP"), (1.0, "PA9T"), (2.0, "PA46"), (3.0, "PA66"), (4.0, "PBT"), (5.0, "PPS")];

pub(super) const KIND: LibraryConnector = LibraryConnector {
    key: "rows-and-anchors",
    name: "other connector",
    known_by: "anything else: count its rows and anchors, measure it",
    family: ConnectorFamily::Port,
    params: &[
        Param::mm("width", "body width", 10.0, 1.0..=80.0),
        Param::mm("depth", "body depth", 7.0, 1.0..=60.0),
        Param::mm("height", "height", 3.0, 0.3..=30.0),
        Param::choice("plastic", "plastic (PA66 where unknown)", 3.0, PLASTICS),
        Param::choice("shell", "metal shell", 1.0, &[(0.0, "no"), (1.0, "yes")]),
        Param::choice("mount", "pins", 1.0, MOUNTS),
        Param::mm("pitch", "pitch", 1.0, 0.3..=8.0),
        Param::count("far", "pins at the far edge", 6.0, 1.0..=60.0),
        Param::count("near", "pins at the near edge", 0.0, 0.0..=60.0),
        Param::choice("hidden", "near row hidden", 0.0, &[(0.0, "no"), (1.0, "yes")]),
        Param::choice("anchors", "shell anchors", 2.0, &[(0.0, "none"), (2.0, "two"), (4.0, "four")]),
        Param::mm("drill", "leg hole", 1.0, 0.5..=3.0),
        Param::count("pegs", "pegs", 0.0, 0.0..=6.0),
    ],
    tests: &["everything that it connects works", "and works while it is moved a little"],
    build,
};

fn pin(sizes: &Sizes<'_>) -> JointShape {
    let pitch = sizes.get("pitch");
    if sizes.count("mount") == 1 {
        pad(0.6 * pitch, pitch.clamp(0.8, 2.0))
    } else {
        hole_in((0.5 * pitch).min(1.2), pitch)
    }
}

fn build(sizes: &Sizes<'_>) -> Made {
    let (pitch, shape) = (sizes.get("pitch"), pin(sizes));
    let (width, depth) = (sizes.get("width"), sizes.get("depth"));
    let hidden = sizes.count("hidden") == 1;
    // Rows stand clear of each other and of the anchors, however small the body is entered.
    let edge = (depth / 2.0).max(2.5);
    let line =
        |name, count, y, hidden| row(&PinRow { name, count, pitch, at: (0.0, y), shape, hidden, role: ground_at_ends });
    let drill = sizes.get("drill");
    let widest = pitch * sizes.count("far").max(sizes.count("near")) as f64;
    let across = width.max(widest) + drill + 1.0;
    let places = corners(across, -edge / 2.0 - drill / 2.0, edge / 2.0 + drill / 2.0);
    let anchors = anchors(&places[..sizes.count("anchors").min(4)], hole(drill, drill + 0.6));
    let rows = vec![line("A", sizes.count("far"), edge, false), line("B", sizes.count("near"), -edge, hidden), anchors];
    let (height, shell, pegs) = (sizes.get("height"), sizes.count("shell") == 1, sizes.count("pegs") as u32);
    let material = MATERIALS[sizes.count("plastic").min(MATERIALS.len() - 1)];
    Made { body: Body { width, depth, height, material, shell, pegs }, joints: all(rows) }
}
