//! The shields of a recipe laid over a grid: which column and which body lies under which, and how far.

use super::mesh::Mesh;
use super::shield::{Screen, Shield};
use crate::board::{Face, Rect};

/// All shields on a board.
#[derive(Debug, Clone, Default)]
pub struct Shielding {
    shields: Vec<(Shield, Screen)>,
    /// Per face and column: the share that is covered, and by which. Where two overlap, the one that covers more.
    columns: [Vec<Option<(f64, usize)>>; 2],
}

impl Shielding {
    /// Lays them on a grid; `resistance` scales what each resists with.
    pub fn from_shields(shields: &[Shield], mesh: &Mesh, resistance: f64) -> Self {
        let columns = [Face::Top, Face::Bottom].map(|face| {
            let mut covers = vec![None; mesh.inside.len()];
            for (k, shield) in shields.iter().enumerate().filter(|(_, s)| s.face == face) {
                for (column, share) in columns_under(mesh, &shield.area()) {
                    if covers[column].is_none_or(|(before, _)| share > before) {
                        covers[column] = Some((share, k));
                    }
                }
            }
            covers
        });
        Self { shields: shields.iter().map(|s| (*s, s.kind.screen(resistance))).collect(), columns }
    }

    /// What covers a column of a face, and how much of it.
    pub fn over_column(&self, face: Face, column: usize) -> Option<(f64, &Screen)> {
        let (share, k) = (*self.columns[face as usize].get(column)?)?;
        Some((share, &self.shields[k].1))
    }

    /// What covers a body on a face, and how much of it: the shield that covers most.
    pub fn over_body(&self, face: Face, body: &Rect) -> Option<(f64, &Screen)> {
        let covers = self.shields.iter().map(|(shield, screen)| (shield.covers(face, body), screen));
        covers.filter(|(share, _)| *share > 0.0).max_by(|a, b| a.0.total_cmp(&b.0))
    }

    /// The jet as it is felt below metal tape: each place gets its boundary under the same tape, weighed by exp(-d / l).
    /// The tape is a sheet on a resistance; what enters at one place leaves it about one fin length away (T for the length,
    /// E for the weight).
    pub fn spread(&self, face: Face, mesh: &Mesh, jet: &[(f64, f64)]) -> Vec<(f64, f64)> {
        let mut felt = jet.to_vec();
        for (shield, _) in self.shields.iter().filter(|(s, _)| s.face == face) {
            let Some(length) = shield.kind.spreads_mm() else { continue };
            let under = columns_under(mesh, &shield.area());
            let place = |column: usize| {
                let (i, j) = (column % mesh.x.len(), column / mesh.x.len());
                (mesh.x.middle(i), mesh.y.middle(j), mesh.area(i, j))
            };
            for (column, _) in &under {
                let (x, y, _) = place(*column);
                let sum = under.iter().fold((0.0, 0.0, 0.0), |(w, h, q), (other, share)| {
                    let (ox, oy, area) = place(*other);
                    let weight = (-(ox - x).hypot(oy - y) / length).exp() * area * share;
                    (w + weight, h + weight * jet[*other].0, q + weight * jet[*other].1)
                });
                felt[*column] = (sum.1 / sum.0, sum.2 / sum.0);
            }
        }
        felt
    }
}

/// Columns under a rectangle, with the share of the column that it covers.
pub(crate) fn columns_under(mesh: &Mesh, area: &Rect) -> Vec<(usize, f64)> {
    let mut found = Vec::new();
    for j in 0..mesh.y.len() {
        let deep = mesh.y.overlap(j, area.near(), area.far()) / mesh.y.width(j);
        for i in (0..mesh.x.len()).filter(|_| deep > 0.0) {
            let part = deep * mesh.x.overlap(i, area.left(), area.right()) / mesh.x.width(i);
            if part > 0.0 && mesh.inside[mesh.column(i, j)] {
                found.push((mesh.column(i, j), part));
            }
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::axis::Axis;
    use crate::heat::mesh::Slab;
    use crate::heat::shield::ShieldKind;

    fn plate() -> Mesh {
        let slab = Slab { thickness: 1.0e-3, in_plane: 20.0, through: 0.4, capacity: 2.0e6 };
        Mesh::plate(Axis::uniform(10, 2.0), Axis::uniform(10, 2.0), 3, slab)
    }

    fn shield(kind: ShieldKind, side: f64) -> Shield {
        Shield { kind, face: Face::Top, at_mm: [10.0, 10.0], width_mm: side, depth_mm: side }
    }

    #[test]
    fn a_column_is_covered_by_its_share_on_the_shields_face_alone() {
        let mesh = plate();
        let laid = Shielding::from_shields(&[shield(ShieldKind::AluminiumTape, 6.0)], &mesh, 1.0);
        let share = |face, i, j| laid.over_column(face, mesh.column(i, j)).map(|(share, _)| share);
        assert_eq!((share(Face::Top, 4, 4), share(Face::Top, 0, 0)), (Some(1.0), None));
        assert_eq!(share(Face::Top, 3, 4), Some(0.5), "its rim runs through the middle of this one");
        assert_eq!(share(Face::Bottom, 4, 4), None);
    }

    #[test]
    fn where_two_overlap_the_one_that_covers_more_counts() {
        let shields = [shield(ShieldKind::AluminiumTape, 2.0), shield(ShieldKind::Polyimide { layers: 2 }, 8.0)];
        let laid = Shielding::from_shields(&shields, &plate(), 1.0);
        let body = Rect { centre: crate::board::Point { x: 10.0, y: 10.0 }, width: 4.0, depth: 4.0 };
        assert_eq!(laid.over_body(Face::Top, &body).map(|(share, _)| share), Some(1.0));
        assert!(laid.over_body(Face::Bottom, &body).is_none());
    }

    #[test]
    fn metal_tape_evens_out_what_the_jet_brings_and_polyimide_does_not() {
        let mesh = plate();
        let mut jet = vec![(10.0, 100.0); 100];
        jet[mesh.column(5, 5)] = (200.0, 40_000.0);
        let felt = |kind| Shielding::from_shields(&[shield(kind, 10.0)], &mesh, 1.0).spread(Face::Top, &mesh, &jet);
        let (metal, film) = (felt(ShieldKind::AluminiumTape), felt(ShieldKind::Polyimide { layers: 2 }));
        let at = mesh.column(5, 5);
        assert!(metal[at].1 < jet[at].1 && metal[mesh.column(4, 4)].1 > 100.0, "{:?}", metal[at]);
        assert_eq!(film, jet);
        assert_eq!(metal[mesh.column(0, 0)], (10.0, 100.0), "beside the tape nothing changes");
    }
}
