//! Two revisions of a board side by side: what came, went, moved and changed.

use super::geometry::{Face, Rect};
use super::{Board, Component, Joint};
use crate::materials::BodyMaterial;
use crate::units::Unit;

/// One difference.
#[derive(Debug, Clone, PartialEq)]
pub struct Difference {
    /// What it is about.
    pub of: DifferenceOf,
    /// Its kind.
    pub kind: DifferenceKind,
    /// What differs, each with both values.
    pub values: Vec<Differing>,
    /// Where it was, where it had a place.
    pub was: Option<(Face, Rect)>,
    /// Where it is.
    pub is: Option<(Face, Rect)>,
}

/// What a difference is about.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum DifferenceOf {
    /// The board's rim.
    Outline,
    /// Thickness and copper.
    StackUp,
    /// The part to be replaced.
    Part,
    /// Its joints.
    Joints,
    /// A component, by its name.
    Component(String),
}

/// Kinds of differences.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DifferenceKind {
    /// Only in the newer one.
    Came,
    /// Only in the older one.
    Went,
    /// In another place, or of another size.
    Moved,
    /// Of another kind or value.
    Changed,
}

/// A number that differs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DifferingNumber {
    Thickness,
    Layers,
    Planes,
    Foil,
    PlaneCopper,
    SignalCopper,
    Conductivity,
    ConductivitySpread,
    Corners,
    Height,
    Pegs,
    Limit,
    OwnJoints,
}

/// A value that differs.
#[derive(Debug, Clone, PartialEq)]
pub enum Differing {
    /// A number, in its unit.
    Number { what: DifferingNumber, was: f64, is: f64, unit: Unit },
    /// Width and depth, mm.
    Size { was_mm: [f64; 2], is_mm: [f64; 2] },
    /// The same size and count of corners, but another rim.
    Rim,
    /// Moved, mm: to the right and away from the near edge are positive.
    Moved { right_mm: f64, away_mm: f64 },
    /// On another face.
    Face { was: Face, is: Face },
    /// Called otherwise.
    Name { was: String, is: String },
    /// Made of something else.
    Material { was: BodyMaterial, is: BodyMaterial },
    /// What a thing is made of that came or went.
    MadeOf(BodyMaterial),
    /// Round now, or rectangular.
    Round { is: bool },
    /// With a metal shell now, or without.
    Shell { is: bool },
    /// So many joints are new or changed.
    NewJoints(usize),
    /// So many joints are gone.
    GoneJoints(usize),
}

/// Smaller shifts are noise of a hand, mm.
const SHIFT_MM: f64 = 0.02;

/// Every difference from the older to the newer.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::board::compare::{DifferenceOf, differences};
/// let mut newer = bench.board.clone();
/// newer.stack.layers += 2;
/// let found = differences(&bench.board, &newer);
/// assert_eq!(found[0].of, DifferenceOf::StackUp);
/// assert!(differences(&newer, &newer).is_empty());
/// ```
pub fn differences(older: &Board, newer: &Board) -> Vec<Difference> {
    let mut found: Vec<Difference> = [outline(older, newer), stack_up(older, newer)].into_iter().flatten().collect();
    found.extend(part(older, newer));
    found.extend(joints(older, newer));
    found.extend(components(older, newer));
    found
}

fn changed(of: DifferenceOf, values: Vec<Differing>) -> Option<Difference> {
    (!values.is_empty()).then_some(Difference { of, kind: DifferenceKind::Changed, values, was: None, is: None })
}

/// A number to a hundredth, where it differs by as much.
fn number(what: DifferingNumber, unit: Unit, was: f64, is: f64) -> Option<Differing> {
    let round = |value: f64| (value * 100.0).round() / 100.0;
    (round(was) != round(is)).then(|| Differing::Number { what, was: round(was), is: round(is), unit })
}

fn size(was: &Rect, is: &Rect) -> Option<Differing> {
    let sides = |r: &Rect| [r.width, r.depth].map(|side| (side * 100.0).round() / 100.0);
    let (was_mm, is_mm) = (sides(was), sides(is));
    (was_mm != is_mm).then_some(Differing::Size { was_mm, is_mm })
}

fn outline(older: &Board, newer: &Board) -> Option<Difference> {
    let (was, is) = (&older.outline, &newer.outline);
    let [before, now] = [was, is].map(|outline| outline.corners.len() as f64);
    let corners = number(DifferingNumber::Corners, Unit::One, before, now);
    let sizes = [size(&was.bounds(), &is.bounds()), corners];
    let mut values: Vec<Differing> = sizes.into_iter().flatten().collect();
    if values.is_empty() && was != is {
        values.push(Differing::Rim);
    }
    changed(DifferenceOf::Outline, values)
}

fn stack_up(older: &Board, newer: &Board) -> Option<Difference> {
    use DifferingNumber as N;
    let (a, b) = (&older.stack, &newer.stack);
    let values = [
        number(N::Thickness, Unit::Millimetres, a.thickness.in_mm(), b.thickness.in_mm()),
        number(N::Layers, Unit::One, f64::from(a.layers), f64::from(b.layers)),
        number(N::Planes, Unit::One, f64::from(a.planes), f64::from(b.planes)),
        number(N::Foil, Unit::Micrometres, a.foil_um, b.foil_um),
        number(N::PlaneCopper, Unit::One, a.plane_coverage, b.plane_coverage),
        number(N::SignalCopper, Unit::One, a.signal_coverage, b.signal_coverage),
        number(N::Conductivity, Unit::WattsPerMetreKelvin, a.in_plane().round(), b.in_plane().round()),
        number(N::ConductivitySpread, Unit::One, a.conduction_spread(), b.conduction_spread()),
    ];
    changed(DifferenceOf::StackUp, values.into_iter().flatten().collect())
}

/// Where a thing was and is.
struct Places {
    was: (Face, Rect),
    is: (Face, Rect),
}

impl Places {
    fn moved(&self) -> Option<Differing> {
        let ((was_face, was), (is_face, is)) = (&self.was, &self.is);
        if was_face != is_face {
            return Some(Differing::Face { was: *was_face, is: *is_face });
        }
        let (right_mm, away_mm) = (is.centre.x - was.centre.x, is.centre.y - was.centre.y);
        (right_mm.hypot(away_mm) > SHIFT_MM).then_some(Differing::Moved { right_mm, away_mm })
    }

    fn difference(self, of: DifferenceOf, values: impl IntoIterator<Item = Option<Differing>>) -> Option<Difference> {
        let moved = [self.moved(), size(&self.was.1, &self.is.1)].into_iter().flatten();
        let mut all: Vec<Differing> = moved.collect();
        let kind = if all.is_empty() { DifferenceKind::Changed } else { DifferenceKind::Moved };
        all.extend(values.into_iter().flatten());
        let (was, is) = (Some(self.was), Some(self.is));
        (!all.is_empty()).then_some(Difference { of, kind, values: all, was, is })
    }
}

fn material(was: BodyMaterial, is: BodyMaterial) -> Option<Differing> {
    (was != is).then_some(Differing::Material { was, is })
}

fn part(older: &Board, newer: &Board) -> Option<Difference> {
    let (a, b) = (&older.connector, &newer.connector);
    let values = [
        (a.name != b.name).then(|| Differing::Name { was: a.name.clone(), is: b.name.clone() }),
        material(a.material, b.material),
        number(DifferingNumber::Height, Unit::Millimetres, a.height.in_mm(), b.height.in_mm()),
        number(DifferingNumber::Pegs, Unit::One, f64::from(a.pegs), f64::from(b.pegs)),
        (a.shell != b.shell).then_some(Differing::Shell { is: b.shell }),
    ];
    Places { was: (a.face, a.body), is: (b.face, b.body) }.difference(DifferenceOf::Part, values)
}

/// Joints against their part, so that a moved part is one difference, not one per joint.
fn joints(older: &Board, newer: &Board) -> Option<Difference> {
    let own = |board: &Board, j: &Joint| {
        let middle = board.connector.body.centre;
        let round = |v: f64| (v / SHIFT_MM).round();
        (round(j.at.x - middle.x), round(j.at.y - middle.y), j.shape, j.role, j.hidden)
    };
    let (a, b) = (&older.connector.joints, &newer.connector.joints);
    let same = |j: &Joint| a.iter().any(|o| o.name == j.name && own(older, o) == own(newer, j));
    let new = b.iter().filter(|j| !same(j)).count();
    let gone = a.iter().filter(|o| !b.iter().any(|j| j.name == o.name)).count();
    let found = [(new > 0).then_some(Differing::NewJoints(new)), (gone > 0).then_some(Differing::GoneJoints(gone))];
    changed(DifferenceOf::Joints, found.into_iter().flatten().collect())
}

fn components(older: &Board, newer: &Board) -> Vec<Difference> {
    let find = |board: &'_ Board, name: &str| board.components.iter().position(|n| n.name == name);
    let kept = |n: &Component| match find(older, &n.name) {
        Some(k) => component(&older.components[k], n),
        None => Some(alone(n, DifferenceKind::Came)),
    };
    let gone =
        older.components.iter().filter(|n| find(newer, &n.name).is_none()).map(|n| alone(n, DifferenceKind::Went));
    newer.components.iter().filter_map(kept).chain(gone).collect()
}

fn alone(n: &Component, kind: DifferenceKind) -> Difference {
    let place = Some((n.face, n.body));
    let (was, is) = if kind == DifferenceKind::Came { (None, place) } else { (place, None) };
    let (of, values) = (DifferenceOf::Component(n.name.clone()), vec![Differing::MadeOf(n.material)]);
    Difference { of, kind, values, was, is }
}

fn component(a: &Component, b: &Component) -> Option<Difference> {
    let values = [
        material(a.material, b.material),
        (a.round != b.round).then_some(Differing::Round { is: b.round }),
        number(DifferingNumber::Height, Unit::Millimetres, a.height.in_mm(), b.height.in_mm()),
        number(DifferingNumber::Limit, Unit::Celsius, a.limit().in_celsius(), b.limit().in_celsius()),
        number(DifferingNumber::OwnJoints, Unit::One, a.soldered(), b.soldered()),
    ];
    let of = DifferenceOf::Component(b.name.clone());
    Places { was: (a.face, a.body), is: (b.face, b.body) }.difference(of, values)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::rules::tests::{board, rect};
    use crate::board::turn::Pose;
    use crate::board::{ComponentKind, Turn};

    #[test]
    fn a_board_does_not_differ_from_itself() {
        assert_eq!(differences(&board(), &board()), vec![]);
    }

    #[test]
    fn what_came_went_moved_and_changed_is_told_apart() {
        let (older, mut newer) = (board(), board());
        newer.components[0].body.centre.x += 1.5;
        newer.components.push(ComponentKind::Coil.at("L1", Face::Bottom, rect(20.0, 20.0, 6.0, 6.0)));
        newer.stack.layers = 8;
        let kinds = |from: &Board, to: &Board| -> Vec<(DifferenceOf, DifferenceKind)> {
            differences(from, to).into_iter().map(|d| (d.of, d.kind)).collect()
        };
        let named = |name: &str, kind| (DifferenceOf::Component(name.to_owned()), kind);
        let forth = [
            (DifferenceOf::StackUp, DifferenceKind::Changed),
            named("U1", DifferenceKind::Moved),
            named("L1", DifferenceKind::Came),
        ];
        assert_eq!(kinds(&older, &newer), forth);
        assert_eq!(kinds(&newer, &older)[2], named("L1", DifferenceKind::Went));
        assert_eq!(differences(&older, &newer)[1].values, [Differing::Moved { right_mm: 1.5, away_mm: 0.0 }]);
    }

    #[test]
    fn a_moved_part_is_one_difference() {
        let (older, mut newer) = (board(), board());
        let part = newer.connector.clone();
        newer.connector =
            part.placed(Pose { at: super::super::Point { x: 31.0, y: 6.0 }, turn: Turn::None, face: part.face });
        let found = differences(&older, &newer);
        assert_eq!(found.len(), 1, "{found:?}");
        newer.connector.joints[2].hidden = true;
        assert_eq!(differences(&older, &newer)[1].values, [Differing::NewJoints(1)]);
    }
}
