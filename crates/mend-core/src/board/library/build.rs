//! Rows of pins, anchors and bodies, as the kinds put them together.

use crate::board::geometry::Point;
use crate::board::{Joint, JointShape, Role};
use crate::materials::BodyMaterial;

/// What a kind makes.
pub(super) struct Made {
    pub(super) body: Body,
    pub(super) joints: Vec<Joint>,
}

/// A connector's body, mm.
pub(super) struct Body {
    pub(super) width: f64,
    pub(super) depth: f64,
    pub(super) height: f64,
    pub(super) material: BodyMaterial,
    pub(super) shell: bool,
    pub(super) pegs: u32,
}

/// A row of like pins along x, centred on x = 0 unless moved.
pub(super) struct PinRow {
    /// Its name, and the beginning of its pins' names.
    pub(super) name: &'static str,
    pub(super) count: usize,
    pub(super) pitch: f64,
    /// The row's middle, mm.
    pub(super) at: (f64, f64),
    pub(super) shape: JointShape,
    pub(super) hidden: bool,
    /// What each carries, by its number from 1.
    pub(super) role: fn(usize, usize) -> Role,
}

/// First and last are ground, the rest signals: what a row usually is where nothing is known.
pub(super) fn ground_at_ends(number: usize, count: usize) -> Role {
    if number == 1 || number == count { Role::Ground } else { Role::Signal }
}

/// All signals.
pub(super) fn signals(_: usize, _: usize) -> Role {
    Role::Signal
}

pub(super) const fn pad(width: f64, depth: f64) -> JointShape {
    JointShape::Pad { width, depth }
}

pub(super) const fn hole(drill: f64, pad: f64) -> JointShape {
    JointShape::Hole { drill, pad }
}

/// A hole with the land that it usually has: 0.55 mm more than the drill, less where the pitch is too fine for it (E).
pub(super) fn hole_in(drill: f64, pitch: f64) -> JointShape {
    let land = (drill + 0.55).min(pitch - 0.15).max(drill + 0.2);
    hole(drill, land)
}

/// The pins of a row.
pub(super) fn row(row: &PinRow) -> Vec<Joint> {
    let first = row.at.0 - row.pitch * (row.count.saturating_sub(1)) as f64 / 2.0;
    let joint = |k: usize| Joint {
        name: format!("{}{}", row.name, k + 1),
        row: format!("row {}", row.name),
        at: Point { x: first + row.pitch * k as f64, y: row.at.1 },
        role: (row.role)(k + 1, row.count),
        shape: row.shape,
        hidden: row.hidden,
    };
    (0..row.count).map(joint).collect()
}

/// Shell anchors or anchors at these places.
pub(super) fn anchors(places: &[(f64, f64)], shape: JointShape) -> Vec<Joint> {
    let leg = |(k, (x, y)): (usize, &(f64, f64))| Joint {
        name: format!("leg {}", k + 1),
        row: "anchors".to_owned(),
        at: Point { x: *x, y: *y },
        role: Role::Anchor,
        shape,
        hidden: false,
    };
    places.iter().enumerate().map(leg).collect()
}

/// Four places: left and right at two depths.
pub(super) fn corners(across: f64, near: f64, far: f64) -> [(f64, f64); 4] {
    let x = across / 2.0;
    [(-x, near), (x, near), (-x, far), (x, far)]
}

/// Some rows, one after the other.
pub(super) fn all(parts: Vec<Vec<Joint>>) -> Vec<Joint> {
    parts.into_iter().flatten().collect()
}
