//! What is done to photographs: scale, turn, mirror, and lining the two faces up.

use super::refusal::{no_part, refuse};
use super::{Draft, Edit};
use crate::board::Point;
use crate::board::photo::Placement;
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::Unit;

/// Points that line two faces up: three, so that a slip shows.
const MARKS: usize = 3;
/// Points are lined up when they agree to this, mm: a click on a screen.
const LINED_UP_MM: f64 = 1.5;

pub(super) fn edit(draft: &mut Draft, edit: &Edit) -> Result<(), Finding> {
    match edit {
        Edit::Scale { id, a, b, length } => {
            let length = length_mm(draft, length)?;
            replace(draft, *id, |p| p.scaled(*a, *b, length).ok_or_else(one_place))
        }
        Edit::Level { id, a, b } => replace(draft, *id, |p| p.levelled(*a, *b).ok_or_else(one_place)),
        Edit::TurnPhoto { id, degrees } => {
            let about = middle(draft, *id)?;
            replace(draft, *id, |p| Ok(p.turned(about, *degrees)))
        }
        Edit::Mirror { id } => {
            let about = middle(draft, *id)?;
            replace(draft, *id, |p| Ok(p.mirrored_about(about.x)))
        }
        Edit::Mark { points } => {
            expect_three(points)?;
            draft.marks.clone_from(points);
            Ok(())
        }
        Edit::LineUp { id, points } => line_up(draft, *id, points),
        _ => Ok(()),
    }
}

/// Sound places only: what can't be drawn any more is refused.
fn replace(
    draft: &mut Draft,
    id: i64,
    by: impl FnOnce(&Placement) -> Result<Placement, Finding>,
) -> Result<(), Finding> {
    let photo = draft.photo(id)?;
    let placement = by(&photo.placement)?;
    let size = placement.mm_per_px;
    let near = placement.at_mm.iter().all(|at| at.abs() < 5000.0);
    if !((0.001..=5.0).contains(&size) && placement.turn_deg.is_finite() && near) {
        return Err(refuse("scale", DraftProblem::PixelSize { mm: size }));
    }
    (photo.placement, photo.lined_up_mm) = (placement, None);
    Ok(())
}

fn length_mm(draft: &Draft, length: &str) -> Result<f64, Finding> {
    if length == "part" {
        return draft.part.as_ref().map(|part| part.made.body.width).ok_or_else(no_part);
    }
    super::field::number("length", length, super::field::NumberRange::new((0.2, 600.0), Unit::Millimetres))
}

fn one_place() -> Finding {
    refuse("scale", DraftProblem::OnePlace)
}

fn middle(draft: &mut Draft, id: i64) -> Result<Point, Finding> {
    let photo = draft.photo(id)?;
    let (width, height) = photo.size;
    Ok(photo.placement.shows(f64::from(width) / 2.0, f64::from(height) / 2.0))
}

fn expect_three(points: &[Point]) -> Result<(), Finding> {
    let sound = points.len() == MARKS && points.iter().all(|p| p.x.is_finite() && p.y.is_finite());
    if sound { Ok(()) } else { Err(refuse("marks", DraftProblem::NotThreePoints { count: points.len() })) }
}

fn line_up(draft: &mut Draft, id: i64, points: &[Point]) -> Result<(), Finding> {
    expect_three(points)?;
    let marks = draft.marks.clone();
    expect_three(&marks)?;
    let fit = draft.photo(id)?.placement.lined_up(points, &marks).ok_or_else(one_place)?;
    if fit.off_mm > LINED_UP_MM && fit.mirrored_off_mm < 0.5 * fit.off_mm {
        let problem = DraftProblem::Mirrored { off_mm: fit.off_mm };
        return Err(Finding::blocking("faces_mixed_up", "photograph", problem));
    }
    if fit.off_mm > LINED_UP_MM {
        return Err(refuse("marks", DraftProblem::PointsOff { off_mm: fit.off_mm }));
    }
    replace(draft, id, |_| Ok(fit.placement))?;
    draft.photo(id)?.lined_up_mm = Some((fit.off_mm * 100.0).round() / 100.0);
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::Face;
    use crate::board::draft::Photo;
    use crate::board::rules::tests::board;
    use crate::units::Scale;

    const PIXELS: [(f64, f64); 3] = [(100.0, 100.0), (900.0, 140.0), (300.0, 620.0)];

    fn at(x: f64, y: f64) -> Point {
        Point { x, y }
    }

    fn draft() -> Draft {
        let photo = |id, face, mirrored| {
            let placement = Placement::over((1000, 700), at(30.0, 20.0), 100.0, mirrored);
            Photo { id, face, size: (1000, 700), placement, lined_up_mm: None }
        };
        Draft { photos: vec![photo(1, Face::Top, false), photo(2, Face::Bottom, true)], ..Draft::from_board(&board()) }
    }

    fn after(draft: &Draft, edit: Edit) -> Result<Draft, Finding> {
        draft.after(&edit, Scale::Celsius)
    }

    #[test]
    fn the_scale_comes_from_a_length_or_from_the_parts_own_width() {
        let (a, b) = (at(10.0, 20.0), at(40.0, 20.0));
        let scaled = |length: &str| {
            let edit = Edit::Scale { id: 1, a, b, length: length.to_owned() };
            after(&draft(), edit).map(|d| d.photos[0].placement.mm_per_px)
        };
        assert!((scaled("60").expect("a length") - 0.2).abs() < 1e-12);
        assert!((scaled("part").expect("a part") - 0.05).abs() < 1e-12, "the video port is 15 mm wide");
        assert_eq!(scaled("far").expect_err("no number").place, "length");
        assert_eq!(scaled("0").expect_err("too short").place, "length");
    }

    #[test]
    fn the_far_face_is_lined_up_by_the_same_three_places() {
        let draft = draft();
        let marks = PIXELS.map(|(u, v)| draft.photos[0].placement.shows(u, v));
        let draft = after(&draft, Edit::Mark { points: marks.to_vec() }).expect("three");
        // The far face's camera stood 3 mm aside, nearer and askew.
        let askew = after(&draft, Edit::TurnPhoto { id: 2, degrees: 8.0 }).expect("turned");
        let askew =
            after(&askew, Edit::Move { of: crate::board::draft::Target::Photo(2), dx: 3.0, dy: -2.0 }).expect("moved");
        let places = [(850.0, 100.0), (50.0, 140.0), (650.0, 620.0)];
        let points = |d: &Draft| places.map(|(u, v)| d.photos[1].placement.shows(u, v)).to_vec();
        let lined = after(&askew, Edit::LineUp { id: 2, points: points(&askew) }).expect("lined up");
        for ((u, v), mark) in places.into_iter().zip(marks) {
            let shown = lined.photos[1].placement.shows(u, v);
            assert!((shown.x - mark.x).hypot(shown.y - mark.y) < 1e-6);
        }
        assert_eq!(lined.photos[1].lined_up_mm, Some(0.0));
        let turned = after(&lined, Edit::TurnPhoto { id: 2, degrees: 1.0 }).expect("turned");
        assert_eq!(turned.photos[1].lined_up_mm, None, "what was lined up is so no more");
        let behind = after(&askew, Edit::Mirror { id: 2 }).expect("mirrored");
        let refused = after(&behind, Edit::LineUp { id: 2, points: points(&behind) }).expect_err("it lies face up");
        assert_eq!(refused.rule, "faces_mixed_up");
    }
}
