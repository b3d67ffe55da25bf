//! Two versions of a board side by side: what came, went, moved and changed.

use super::{Board, Component, Face, Joint, Rect};

/// One difference.
#[derive(Debug, Clone, PartialEq)]
pub struct Difference {
    /// What it is about, as it is called.
    pub what: String,
    /// Its kind.
    pub kind: DifferenceKind,
    /// In words, with both values.
    pub what_differs: String,
    /// Where it was, where it had a place.
    pub was: Option<(Face, Rect)>,
    /// Where it is.
    pub is: Option<(Face, Rect)>,
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

/// Smaller shifts are noise of a hand, mm.
const SHIFT_MM: f64 = 0.02;

/// Every difference from the older to the newer.
pub fn differences(older: &Board, newer: &Board) -> Vec<Difference> {
    let mut found = whole(older, newer);
    found.extend(part(older, newer));
    found.extend(joints(older, newer));
    found.extend(components(older, newer));
    found
}

fn changed(what: &str, found: Vec<String>) -> Option<Difference> {
    let difference = |found| Difference {
        what: what.to_owned(),
        kind: DifferenceKind::Changed,
        what_differs: found,
        was: None,
        is: None,
    };
    (!found.is_empty()).then(|| difference(found.join(", ")))
}

/// `12 mm, was 11 mm`, where they differ.
fn value(name: &str, was: &impl ToString, is: &impl ToString) -> Option<String> {
    let (was, is) = (was.to_string(), is.to_string());
    (was != is).then(|| format!("{name} {is}, was {was}").trim_start().to_owned())
}

fn mm(length: f64) -> String {
    format!("{} mm", (length * 100.0).round() / 100.0)
}

fn whole(older: &Board, newer: &Board) -> Vec<Difference> {
    let (a, b) = (&older.stack, &newer.stack);
    let stack = [
        value("thickness", &mm(a.thickness.in_mm()), &mm(b.thickness.in_mm())),
        value("layers", &a.layers, &b.layers),
        value("planes", &a.planes, &b.planes),
        value("foil", &format!("{} µm", a.foil_um), &format!("{} µm", b.foil_um)),
        value("plane copper", &a.plane_coverage, &b.plane_coverage),
        value("signal copper", &a.signal_coverage, &b.signal_coverage),
        value("conducts", &format!("{:.0} W/mK", a.in_plane()), &format!("{:.0} W/mK", b.in_plane())),
        value("spread", &a.conduction_spread(), &b.conduction_spread()),
    ];
    let size = |b: &Board| format!("{} x {}", mm(b.outline.bounds().width), mm(b.outline.bounds().depth));
    let corners = |b: &Board| format!("{} corners", b.outline.corners.len());
    let rim = [value("", &size(older), &size(newer)), value("", &corners(older), &corners(newer))];
    let rim: Vec<String> = rim.into_iter().flatten().collect();
    let bent = rim.is_empty() && older.outline != newer.outline;
    let rim = if bent { vec!["of another shape".to_owned()] } else { rim };
    [changed("Outline", rim), changed("Stack-up", stack.into_iter().flatten().collect())]
        .into_iter()
        .flatten()
        .collect()
}

/// Where a thing was and is.
struct JointPlaces {
    was: (Face, Rect),
    is: (Face, Rect),
}

impl JointPlaces {
    fn moved(&self) -> Option<String> {
        let ((was_face, was), (face, is)) = (&self.was, &self.is);
        let (dx, dy) = (is.centre.x - was.centre.x, is.centre.y - was.centre.y);
        if was_face != face {
            return Some(format!("on the {} face, was on the {}", face.name(), was_face.name()));
        }
        let way =
            |by: f64, (less, more): (&str, &str)| format!("{} {}", mm(by.abs()), if by < 0.0 { less } else { more });
        let parts = [(dx, ("left", "right")), (dy, ("nearer", "away"))]
            .map(|(by, names)| (by.abs() > SHIFT_MM).then(|| way(by, names)));
        (dx.hypot(dy) > SHIFT_MM).then(|| format!("by {}", parts.into_iter().flatten().collect::<Vec<_>>().join(", ")))
    }
    fn resized(&self) -> Option<String> {
        let size = |r: &Rect| format!("{} x {}", mm(r.width), mm(r.depth));
        value("", &size(&self.was.1), &size(&self.is.1))
    }
    fn difference(self, what: &str, values: impl IntoIterator<Item = Option<String>>) -> Option<Difference> {
        let moved: Vec<String> = [self.moved(), self.resized()].into_iter().flatten().collect();
        let values: Vec<String> = values.into_iter().flatten().collect();
        let kind = if moved.is_empty() { DifferenceKind::Changed } else { DifferenceKind::Moved };
        let found = [moved, values].concat().join(", ");
        let (was, is) = (Some(self.was), Some(self.is));
        (!found.is_empty()).then(|| Difference { what: what.to_owned(), kind, what_differs: found, was, is })
    }
}

fn part(older: &Board, newer: &Board) -> Option<Difference> {
    let (a, b) = (&older.connector, &newer.connector);
    let values = [
        value("", &a.name, &b.name),
        value("", &a.material.name(), &b.material.name()),
        value("height", &mm(a.height.in_mm()), &mm(b.height.in_mm())),
        value("pegs", &a.pegs, &b.pegs),
        value("shell", &a.shell, &b.shell),
    ];
    JointPlaces { was: (a.face, a.body), is: (b.face, b.body) }.difference("The part", values)
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
    let found = [(new > 0).then(|| format!("{new} new or changed")), (gone > 0).then(|| format!("{gone} gone"))];
    changed("Joints", found.into_iter().flatten().collect())
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
    Difference { what: n.name.clone(), kind, what_differs: n.material.name().to_owned(), was, is }
}

fn component(a: &Component, b: &Component) -> Option<Difference> {
    let limit = |n: &Component| format!("{:.0} °C", n.limit().in_celsius());
    let round = |n: &Component| if n.round { "round" } else { "rectangular" };
    let values = [
        value("", &a.material.name(), &b.material.name()),
        value("", &round(a), &round(b)),
        value("height", &mm(a.height.in_mm()), &mm(b.height.in_mm())),
        value("limit", &limit(a), &limit(b)),
        value("own joints", &a.soldered(), &b.soldered()),
    ];
    JointPlaces { was: (a.face, a.body), is: (b.face, b.body) }.difference(&b.name, values)
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
        let kinds = |from: &Board, to: &Board| -> Vec<(String, DifferenceKind)> {
            differences(from, to).into_iter().map(|d| (d.what, d.kind)).collect()
        };
        let named = |what: &str, kind| (what.to_owned(), kind);
        let forth = [
            named("Stack-up", DifferenceKind::Changed),
            named("U1", DifferenceKind::Moved),
            named("L1", DifferenceKind::Came),
        ];
        assert_eq!(kinds(&older, &newer), forth);
        assert_eq!(kinds(&newer, &older)[2], named("L1", DifferenceKind::Went));
        assert!(differences(&older, &newer)[1].what_differs.contains("by 1.5 mm right"));
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
        assert_eq!(differences(&older, &newer)[1].what_differs, "1 new or changed");
    }
}
