//! The fields of the part, and the sizes that it was made from.

use super::Draft;
use super::field::{FieldInput, NumberRange, choice, face, name, no_field, number};
use super::refusal::{no_part, refuse};
use crate::board::library;
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::{Length, Unit};

pub(super) fn part(draft: &mut Draft, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let part = draft.part.as_mut().ok_or_else(no_part)?;
    let mm = |range| number(field, text, NumberRange::new(range, Unit::Millimetres));
    match field {
        "name" => part.made.name = name(field, text)?,
        "x" => part.at.x = mm((-600.0, 600.0))?,
        "y" => part.at.y = mm((-600.0, 600.0))?,
        "turn" => part.turn = choice(field, text)?,
        "face" => part.face = face(text)?,
        "height" => part.made.height = Length::mm(mm((0.2, 60.0))?),
        "material" => part.made.material = choice(field, text)?,
        "pegs" => part.made.pegs = number(field, text, NumberRange::new((0.0, 12.0), Unit::One))?.round() as u32,
        "shell" => part.made.shell = text == "true",
        "tests" => part.made.tests = text.lines().map(str::trim).filter(|l| !l.is_empty()).map(str::to_owned).collect(),
        _ => return Err(no_field(field)),
    }
    Ok(())
}

/// A size makes the part anew; what was said of it beside its sizes stays.
pub(super) fn size(draft: &mut Draft, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let part = draft.part.as_mut().ok_or_else(no_part)?;
    let no_sizes = || refuse(field, DraftProblem::NoSizes);
    let (key, values) = part.from.as_mut().ok_or_else(no_sizes)?;
    let kind = library::kind(key).ok_or_else(no_sizes)?;
    values.insert(field.to_owned(), number(field, text, NumberRange::new((-1000.0, 1000.0), Unit::One))?);
    let made = kind.make(values).map_err(|mut findings| findings.swap_remove(0))?;
    part.made = crate::board::Connector { name: part.made.name.clone(), tests: part.made.tests.clone(), ..made };
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::super::{DraftPart, Edit, Target};
    use super::*;
    use crate::board::{Face, Point, Turn};
    use crate::finding::problem::{Problem, ValueProblem};
    use crate::units::Scale;

    fn draft() -> Draft {
        let made = library::kind("flex").expect("a kind").make(&library::Values::new()).expect("usual");
        let from = Some(("flex".to_owned(), library::Values::new()));
        let at = Point { x: 20.0, y: 10.0 };
        Draft { part: Some(DraftPart { made, from, at, turn: Turn::None, face: Face::Top }), ..Draft::new("x") }
    }

    fn set(of: Target, field: &str, value: &str) -> Result<DraftPart, Finding> {
        let edit = Edit::Set { of, field: field.to_owned(), value: value.to_owned() };
        draft().after(&edit, Scale::Celsius).map(|d| d.part.expect("a part"))
    }

    #[test]
    fn a_size_makes_the_part_anew_where_it_stands() {
        let part = set(Target::Size, "ways", "40").expect("in range");
        assert_eq!(part.placed().joints.len(), 42);
        assert_eq!(part.placed().body.centre, Point { x: 20.0, y: 10.0 });
        let refused = set(Target::Size, "ways", "99").expect_err("too many");
        let whole = ValueProblem::NotWhole { value: 99.0, low: 4.0, high: 60.0 };
        assert_eq!((refused.place.as_str(), refused.problem), ("ways", Problem::Value(whole)));
    }

    #[test]
    fn what_was_said_of_a_part_stays_when_its_sizes_change() {
        let named = Edit::Set { of: Target::Part, field: "name".to_owned(), value: "sensor tail".to_owned() };
        let draft = draft().after(&named, Scale::Celsius).expect("a name");
        let sized = Edit::Set { of: Target::Size, field: "pitch".to_owned(), value: "0.3".to_owned() };
        let part = draft.after(&sized, Scale::Celsius).expect("a pitch").part.expect("a part");
        assert_eq!(part.made.name, "sensor tail");
    }
}
