//! One act on a draft. It either gives the draft after it, or says what can't be and why; the draft before it stays.

use super::act::{Edit, Target};
use super::field::FieldInput;
use super::refusal::{no_part, refuse};
use super::{Draft, MOST_COMPONENTS, Photo, edit_photo, set};
use crate::board::{ComponentKind, Face, Outline, Point, Rect};
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::Scale;

/// Sides of what is drawn, mm.
const DRAWN_MM: (f64, f64) = (0.2, 300.0);
/// A move reaches less far than this, mm.
const FARTHEST_MM: f64 = 2000.0;

/// A body as it was drawn.
struct DrawnBody {
    face: Face,
    round: bool,
    body: Rect,
}

impl Draft {
    /// The draft after an act. Temperatures in fields are of this scale.
    ///
    /// ```
    /// use mend_core::example::Bench;
    /// let bench = Bench::try_new().expect("the example");
    /// use mend_core::board::draft::{Draft, Edit, Target};
    /// use mend_core::units::Scale;
    /// let draft = Draft::from_board(&bench.board);
    /// let moved = Edit::Move { of: Target::Component(0), dx: 1.5, dy: 0.0 };
    /// let after = draft.after(&moved, Scale::Celsius).expect("it can be moved");
    /// assert_eq!(after.components[0].body.centre.x, draft.components[0].body.centre.x + 1.5);
    /// assert!(draft.after(&Edit::Remove { of: Target::Component(9) }, Scale::Celsius).is_err());
    /// ```
    pub fn after(&self, edit: &Edit, scale: Scale) -> Result<Self, Finding> {
        let mut draft = self.clone();
        match edit {
            Edit::Set { of, field, value } => {
                set::set(&mut draft, *of, FieldInput { field, text: value, scale })?;
            }
            Edit::Outline { corners } => draft.draw_outline(corners)?,
            Edit::Add { face, round, body, what } => {
                draft.add(*what, DrawnBody { face: *face, round: *round, body: *body })?
            }
            Edit::Move { of, dx, dy } => draft.shift(*of, *dx, *dy)?,
            Edit::Resize { of, width, depth } => draft.resize(*of, *width, *depth)?,
            Edit::Remove { of } => draft.remove(*of)?,
            Edit::Copy { of } => draft.duplicate(*of)?,
            Edit::Turn => {
                let part = draft.part.as_mut().ok_or_else(no_part)?;
                part.turn = part.turn.next();
            }
            photo => edit_photo::edit(&mut draft, photo)?,
        }
        Ok(draft)
    }

    /// A component by its place in the list.
    pub fn component(&mut self, k: usize) -> Result<&mut crate::board::Component, Finding> {
        self.components.get_mut(k).ok_or_else(|| refuse("component", DraftProblem::ComponentGone))
    }

    /// A photograph by its number.
    pub fn photo(&mut self, id: i64) -> Result<&mut Photo, Finding> {
        let there = self.photos.iter_mut().find(|photo| photo.id == id);
        there.ok_or_else(|| refuse("photograph", DraftProblem::PhotoGone))
    }

    pub(super) fn draw_outline(&mut self, corners: &[Point]) -> Result<(), Finding> {
        let outline = Outline { corners: corners.to_vec() };
        if let Some(finding) = crate::board::rules::outline(&outline).into_iter().next() {
            return Err(finding);
        }
        self.outline = outline;
        self.take_guess();
        Ok(())
    }

    fn add(&mut self, what: ComponentKind, drawn: DrawnBody) -> Result<(), Finding> {
        let DrawnBody { face, round, body } = drawn;
        if self.components.len() >= MOST_COMPONENTS {
            return Err(refuse("components", DraftProblem::TooManyComponents { most: MOST_COMPONENTS }));
        }
        let near = |at: f64| at.abs() <= 1000.0;
        if !(fits(body.width, body.depth) && near(body.centre.x) && near(body.centre.y)) {
            return Err(drawn_size("component", body.width, body.depth));
        }
        let side = body.width.max(body.depth);
        let body = if round { Rect { width: side, depth: side, ..body } } else { body };
        let plain = what.at(self.free_name(what), face, tidy(body));
        self.components.push(crate::board::Component { round, ..plain });
        Ok(())
    }

    /// `ceramic chip 3`: the lowest number that is free.
    fn free_name(&self, what: ComponentKind) -> String {
        let taken = |name: &String| self.components.iter().any(|n| n.name == *name);
        let names = (1..=MOST_COMPONENTS + 1).map(|k| format!("{} {k}", what.name()));
        names.into_iter().find(|name| !taken(name)).unwrap_or_default()
    }

    fn shift(&mut self, of: Target, dx: f64, dy: f64) -> Result<(), Finding> {
        if !(dx.is_finite() && dy.is_finite() && dx.hypot(dy) < FARTHEST_MM) {
            return Err(refuse("move", DraftProblem::MovedTooFar { x_mm: dx, y_mm: dy, most_mm: FARTHEST_MM }));
        }
        match of {
            Target::Component(k) => {
                let body = &mut self.component(k)?.body;
                *body = tidy(Rect { centre: shifted(body.centre, dx, dy), ..*body });
            }
            Target::Part => {
                let part = self.part.as_mut().ok_or_else(no_part)?;
                part.at = tidy_point(shifted(part.at, dx, dy));
            }
            Target::Photo(id) => {
                let photo = self.photo(id)?;
                (photo.placement, photo.lined_up_mm) = (photo.placement.moved(dx, dy), None);
            }
            _ => return Err(refuse("move", DraftProblem::NotMovable)),
        }
        Ok(())
    }

    fn resize(&mut self, of: Target, width: f64, depth: f64) -> Result<(), Finding> {
        let Target::Component(k) = of else {
            return Err(refuse("size", DraftProblem::NotResizable));
        };
        if !fits(width, depth) {
            return Err(drawn_size("size", width, depth));
        }
        let component = self.component(k)?;
        let depth = if component.round { width } else { depth };
        component.body = tidy(Rect { width, depth, ..component.body });
        Ok(())
    }

    fn remove(&mut self, of: Target) -> Result<(), Finding> {
        match of {
            Target::Component(k) => {
                self.component(k)?;
                self.components.remove(k);
            }
            Target::Part => self.part = None,
            Target::Photo(id) => self.photos.retain(|photo| photo.id != id),
            _ => return Err(refuse("remove", DraftProblem::NotRemovable)),
        }
        Ok(())
    }

    fn duplicate(&mut self, of: Target) -> Result<(), Finding> {
        let Target::Component(k) = of else {
            return Err(refuse("copy", DraftProblem::NotCopyable));
        };
        let from = self.component(k)?.clone();
        let body = Rect { centre: shifted(from.body.centre, 1.0, -1.0), ..from.body };
        let what = from.what.unwrap_or(ComponentKind::Chip);
        self.add(what, DrawnBody { face: from.face, round: from.round, body })?;
        if let Some(new) = self.components.last_mut() {
            let name = std::mem::take(&mut new.name);
            *new = crate::board::Component { name, body: new.body, ..from };
        }
        Ok(())
    }
}

fn fits(width: f64, depth: f64) -> bool {
    [width, depth].iter().all(|side| (DRAWN_MM.0..=DRAWN_MM.1).contains(side))
}

fn drawn_size(place: &str, width_mm: f64, depth_mm: f64) -> Finding {
    let (low_mm, high_mm) = DRAWN_MM;
    refuse(place, DraftProblem::DrawnSize { width_mm, depth_mm, low_mm, high_mm })
}

fn shifted(p: Point, dx: f64, dy: f64) -> Point {
    Point { x: p.x + dx, y: p.y + dy }
}

/// To a hundredth of a millimetre: nobody draws finer.
fn round(mm: f64) -> f64 {
    (mm * 100.0).round() / 100.0
}
pub(super) fn tidy_point(p: Point) -> Point {
    Point { x: round(p.x), y: round(p.y) }
}
fn tidy(r: Rect) -> Rect {
    Rect { centre: tidy_point(r.centre), width: round(r.width), depth: round(r.depth) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::rules::tests::{board, rect};

    fn act(draft: &Draft, edit: &Edit) -> Draft {
        draft.after(edit, Scale::Celsius).unwrap_or_else(|f| panic!("{edit:?}: {f:?}"))
    }
    fn refused(edit: &Edit) -> Finding {
        Draft::from_board(&board()).after(edit, Scale::Celsius).expect_err("can't be")
    }

    #[test]
    fn a_finished_board_comes_back_from_its_draft() {
        assert_eq!(Draft::from_board(&board()).board(), Ok(board()));
        assert_eq!(Draft::from_board(&board()).findings(), vec![]);
    }

    #[test]
    fn an_empty_draft_says_all_that_it_lacks() {
        let places: Vec<String> = Draft::new("").findings().into_iter().map(|f| f.place).collect();
        assert_eq!(places, ["name", "outline", "part"]);
        assert!(Draft::new("x").board().is_err());
    }

    #[test]
    fn components_are_drawn_moved_sized_copied_and_removed() {
        let add = Edit::Add {
            face: Face::Bottom,
            round: true,
            body: rect(10.0, 30.0, 4.0, 6.003),
            what: ComponentKind::ElectrolyticCan,
        };
        let draft = act(&Draft::from_board(&board()), &add);
        assert_eq!((draft.components[1].body, draft.components[1].round), (rect(10.0, 30.0, 6.0, 6.0), true));
        assert_eq!(draft.components[1].name, "electrolytic can 1");
        let of = Target::Component(1);
        let draft = act(&draft, &Edit::Move { of, dx: 0.1, dy: -1.0 });
        let draft = act(&draft, &Edit::Resize { of, width: 8.0, depth: 3.0 });
        assert_eq!(draft.components[1].body, rect(10.1, 29.0, 8.0, 8.0), "a round one stays round");
        let draft = act(&draft, &Edit::Copy { of });
        assert_eq!((draft.components[2].name.as_str(), draft.components[2].body.width), ("electrolytic can 2", 8.0));
        let draft = act(&draft, &Edit::Remove { of });
        assert_eq!(draft.components.len(), 2);
        assert!(draft.board().is_ok());
    }

    #[test]
    fn the_part_is_turned_and_moved_as_one() {
        let of = Target::Part;
        let draft = act(&Draft::from_board(&board()), &Edit::Turn);
        let draft = act(&draft, &Edit::Move { of, dx: 0.0, dy: 10.0 });
        let part = draft.part.as_ref().map(super::super::DraftPart::placed).expect("a part");
        assert_eq!((part.body.width, part.body.centre.y), (board().connector.body.depth, 16.0));
        assert_eq!(part.joints.len(), board().connector.joints.len());
        assert!(act(&draft, &Edit::Remove { of }).board().is_err());
    }

    #[test]
    fn what_can_not_be_is_refused_with_the_way_out() {
        let nan = f64::NAN;
        let corners = vec![Point { x: 0.0, y: 0.0 }, Point { x: 1.0, y: 1.0 }];
        let edits = [
            Edit::Move { of: Target::Component(7), dx: 1.0, dy: 0.0 },
            Edit::Move { of: Target::Part, dx: nan, dy: 0.0 },
            Edit::Resize { of: Target::Component(0), width: 0.0, depth: 1.0 },
            Edit::Resize { of: Target::Part, width: 2.0, depth: 1.0 },
            Edit::Copy { of: Target::Board },
            Edit::Outline { corners },
            Edit::Add { face: Face::Top, round: false, body: rect(1.0, 1.0, nan, 1.0), what: ComponentKind::Chip },
            Edit::Mirror { id: 3 },
        ];
        for edit in edits {
            let finding = refused(&edit);
            assert!(!finding.place.is_empty(), "{edit:?}");
        }
    }
}
