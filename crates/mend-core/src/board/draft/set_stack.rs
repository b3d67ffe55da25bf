//! The fields of the stack-up, and what was seen of it.

use super::Draft;
use super::field::{FieldInput, NumberRange, choice, no_field, number, number_or_none};
use super::refusal::refuse;
use crate::board::Stiffener;
use crate::board::rules::STIFFENERS_MM;
use crate::finding::Finding;
use crate::finding::problem::DraftProblem;
use crate::units::{Length, Unit};

/// A stiffener before anybody has measured it (E, 0.1-0.5 mm).
const USUAL_STIFFENER: Length = Length::mm(0.2);

/// What somebody knows is typed over what was guessed: it then has the usual spread.
pub(super) fn copper(draft: &mut Draft, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let stack = &mut draft.stack;
    let within = |range, unit| number(field, text, NumberRange::new(range, unit));
    let count = |range| within(range, Unit::One).map(|count| count.round() as u32);
    match field {
        "thickness" => {
            stack.thickness = Length::mm(within((0.1, 5.0), Unit::Millimetres)?);
            draft.take_guess();
            return Ok(());
        }
        // What stands on it and under it is no copper: the guess stays.
        "crowding" => {
            stack.crowding = choice(field, text)?;
            return Ok(());
        }
        "stiffener" => {
            let thickness = stack.stiffener.map_or(USUAL_STIFFENER, |stiffener| stiffener.thickness);
            let material = if text.is_empty() { None } else { Some(choice(field, text)?) };
            stack.stiffener = material.map(|material| Stiffener { material, thickness });
            return Ok(());
        }
        "stiffener_mm" => {
            let thickness = Length::mm(within(STIFFENERS_MM, Unit::Millimetres)?);
            stack.stiffener.iter_mut().for_each(|stiffener| stiffener.thickness = thickness);
            return Ok(());
        }
        "layers" => {
            stack.layers = count((1.0, 32.0))?;
            stack.planes = stack.planes.min(stack.layers);
        }
        "planes" => stack.planes = count((0.0, f64::from(stack.layers)))?,
        "foil" => stack.foil_um = within((5.0, 210.0), Unit::Micrometres)?,
        "plane_coverage" => stack.plane_coverage = within((0.0, 100.0), Unit::Percent)? / 100.0,
        "signal_coverage" => stack.signal_coverage = within((0.0, 100.0), Unit::Percent)? / 100.0,
        "vias" => {
            stack.vias_per_mm2 =
                number_or_none(field, text, NumberRange::new((0.0, 4.0), Unit::HolesPerSquareMillimetre))?
        }
        _ => return Err(no_field(field)),
    }
    stack.spread = None;
    Ok(())
}

pub(super) fn looked(draft: &mut Draft, FieldInput { field, text, .. }: FieldInput<'_>) -> Result<(), Finding> {
    let looked = &mut draft.looked;
    let none = text.trim().is_empty();
    match field {
        "light" => looked.light = if none { None } else { Some(choice(field, text)?) },
        "vias" => looked.vias = if none { None } else { Some(choice(field, text)?) },
        "edge_lines" => {
            let lines = number_or_none(field, text, NumberRange::new((1.0, 32.0), Unit::Lines))?;
            looked.edge_lines = lines.map(|lines| lines.round() as u32);
        }
        "grams" => looked.grams = number_or_none(field, text, NumberRange::new((0.1, 5000.0), Unit::Grams))?,
        "area" => {
            looked.area_mm2 = number_or_none(field, text, NumberRange::new((25.0, 360_000.0), Unit::SquareMillimetres))?
        }
        "bare" => looked.bare = text == "true",
        "known" => looked.known = if none { None } else { Some(known(text)?) },
        "feels" => looked.feels = if none { None } else { Some(choice(field, text)?) },
        _ => return Err(no_field(field)),
    }
    draft.take_guess();
    Ok(())
}

/// `0.0041 its name`: weight per area, and what the board is called.
fn known(text: &str) -> Result<(String, f64), Finding> {
    let (weight, name) = text.split_once(' ').unwrap_or((text, ""));
    let weight = number("known", weight, NumberRange::new((1e-4, 0.1), Unit::GramsPerSquareMillimetre))?;
    if name.is_empty() {
        return Err(refuse("known", DraftProblem::UnknownBoard));
    }
    Ok((name.to_owned(), weight))
}

#[cfg(test)]
mod tests {
    use super::super::{Edit, Target};
    use super::*;
    use crate::board::rules::tests::board;
    use crate::units::Scale;

    fn after(draft: &Draft, of: Target, field: &str, value: &str) -> Draft {
        let edit = Edit::Set { of, field: field.to_owned(), value: value.to_owned() };
        draft.after(&edit, Scale::Celsius).unwrap_or_else(|f| panic!("{f:?}"))
    }

    #[test]
    fn what_is_seen_goes_into_the_stack_and_what_is_typed_over_it_stands() {
        let plain = Draft::from_board(&board());
        assert_eq!(plain.guess(), None);
        let seen = after(&plain, Target::Looked, "light", "nowhere");
        let seen = after(&seen, Target::Looked, "edge_lines", "8");
        assert!(seen.stack.spread.is_some() && seen.stack.layers >= 8, "{:?}", seen.stack);
        let thinner = after(&seen, Target::Stack, "thickness", "0.8");
        assert_eq!(thinner.stack.thickness, Length::mm(0.8));
        assert!(thinner.stack.spread.is_some(), "the guess is made anew");
        let known = after(&seen, Target::Stack, "layers", "4");
        assert_eq!((known.stack.layers, known.stack.spread), (4, None));
    }

    #[test]
    fn crowding_and_a_stiffener_leave_the_guess_at_the_copper_alone() {
        let seen = after(&Draft::from_board(&board()), Target::Looked, "light", "nowhere");
        let spread = seen.stack.spread;
        let flex = after(&seen, Target::Stack, "crowding", "crowded");
        let flex = after(&flex, Target::Stack, "stiffener", "steel");
        let flex = after(&flex, Target::Stack, "stiffener_mm", "0.3");
        let flex = after(&flex, Target::Stack, "thickness", "0.1");
        let stiffener = flex.stack.stiffener.expect("it has one");
        assert_eq!((stiffener.thickness, flex.stack.crowding), (Length::mm(0.3), crate::board::Crowding::Crowded));
        assert!(spread.is_some() && flex.stack.spread.is_some());
        assert_eq!(after(&flex, Target::Stack, "stiffener", "").stack.stiffener, None);
    }

    #[test]
    fn half_an_observation_is_none() {
        let half = after(&Draft::from_board(&board()), Target::Looked, "known", "0.004 Quay board");
        assert_eq!(half.guess(), None);
        let whole = after(&half, Target::Looked, "feels", "heavier");
        assert!(whole.guess().is_some());
    }
}
