//! A field that is typed: read, checked and put in its place, or refused with field, value and remedy.

use super::field::{FieldInput, NumberRange, face, name, no_field, number};
use super::refusal::refuse;
use super::{Draft, Target, set_component, set_part, set_stack};
use crate::board::{Outline, Point};
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::Unit;

pub(super) fn set(draft: &mut Draft, of: Target, typed: FieldInput<'_>) -> Result<(), Finding> {
    match of {
        Target::Board => board(draft, typed),
        Target::Stack => set_stack::copper(draft, typed),
        Target::Looked => set_stack::looked(draft, typed),
        Target::Part => set_part::part(draft, typed),
        Target::Size => set_part::size(draft, typed),
        Target::Component(k) => set_component::component(draft, k, typed),
        Target::Photo(id) => photo(draft, id, typed),
    }
}

fn board(draft: &mut Draft, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let bounds = draft.outline.bounds();
    let side = |text: &str| number(field, text, NumberRange::new((5.0, 600.0), Unit::Millimetres));
    match field {
        "name" => draft.name = name(field, text)?,
        "maker" => draft.maker = if text.trim().is_empty() { String::new() } else { name(field, text)? },
        // A rectangle keeps its other side; what is drawn corner by corner is replaced by a rectangle of its size.
        "width" | "depth" => {
            let known = |length: f64| if length.is_finite() { length } else { 50.0 };
            let (width, depth) = (known(bounds.width), known(bounds.depth));
            let (width, depth) = if field == "width" { (side(text)?, depth) } else { (width, side(text)?) };
            draft.draw_outline(&Outline::rectangle(width, depth).corners)?;
        }
        "corners" => draft.draw_outline(&corners(text)?)?,
        _ => return Err(no_field(field)),
    }
    Ok(())
}

/// A corner a line: x and y in mm.
fn corners(text: &str) -> Result<Vec<Point>, Finding> {
    let corner = |line: &str| {
        let parts: Vec<&str> = line.split([' ', ';', '\t']).filter(|part| !part.is_empty()).collect();
        let [x, y] = parts.as_slice() else {
            return Err(refuse("corners", DraftProblem::NotACorner { text: line.to_owned() }));
        };
        let mm = |text| number("corners", text, NumberRange::new((-600.0, 600.0), Unit::Millimetres));
        Ok(Point { x: mm(x)?, y: mm(y)? })
    };
    text.lines().map(str::trim).filter(|line| !line.is_empty()).map(corner).collect()
}

fn photo(draft: &mut Draft, id: i64, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let photo = draft.photo(id)?;
    match field {
        "face" => photo.face = face(text)?,
        "turn" => {
            let wanted = number(field, text, NumberRange::new((-360.0, 360.0), Unit::Degrees))?;
            let middle = photo.placement.shows(f64::from(photo.size.0) / 2.0, f64::from(photo.size.1) / 2.0);
            photo.placement = photo.placement.turned(middle, wanted - photo.placement.turn_deg);
        }
        "x" | "y" => {
            let wanted = number(field, text, NumberRange::new((-1000.0, 1000.0), Unit::Millimetres))?;
            let axis = usize::from(field == "y");
            let by = wanted - photo.placement.at_mm[axis];
            photo.placement = if axis == 0 { photo.placement.moved(by, 0.0) } else { photo.placement.moved(0.0, by) };
        }
        _ => return Err(no_field(field)),
    }
    Ok(())
}
