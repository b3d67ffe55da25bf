//! The fields of a neighbour.

use super::Draft;
use super::set::{Typed, choice, face, name, no_field, number, number_or_none};
use crate::board::{Neighbour, Thing};
use crate::finding::Finding;
use crate::units::{Length, Scale, Temperature};

pub(super) fn neighbour(draft: &mut Draft, k: usize, typed: Typed<'_>) -> Result<(), Finding> {
    let (field, text, scale) = typed;
    let other = draft.neighbours.iter().enumerate().any(|(other, n)| other != k && n.name == text.trim());
    let neighbour = draft.neighbour(k)?;
    let mm = |range| number(field, text, (range, "mm"));
    match field {
        "name" if other => {
            return Err(super::edit::refuse(
                field,
                format!("“{}” is there already", text.trim()),
                "give it a name of its own",
            ));
        }
        "name" => neighbour.name = name(field, text)?,
        "what" => become_(neighbour, choice(field, text)?),
        "x" => neighbour.body.centre.x = mm((-600.0, 600.0))?,
        "y" => neighbour.body.centre.y = mm((-600.0, 600.0))?,
        "width" => neighbour.body.width = mm((0.2, 300.0))?,
        "depth" => neighbour.body.depth = mm((0.2, 300.0))?,
        "height" => neighbour.height = Length::mm(mm((0.1, 60.0))?),
        "round" => neighbour.round = choice::<Shape>(field, text)? == Shape::Round,
        "face" => neighbour.face = face(text)?,
        "material" => neighbour.material = choice(field, text)?,
        "limit" => neighbour.own_limit = limit(text, scale)?,
        "own_joints" => {
            let percent = number_or_none(field, text, ((0.0, 100.0), "%"))?;
            neighbour.own_joints = percent.map(|percent| percent / 100.0);
        }
        _ => return Err(no_field(field)),
    }
    if neighbour.round {
        let side = if field == "depth" { neighbour.body.depth } else { neighbour.body.width };
        (neighbour.body.width, neighbour.body.depth) = (side, side);
    }
    Ok(())
}

#[derive(PartialEq, serde::Deserialize)]
#[serde(rename_all = "kebab-case")]
enum Shape {
    Rectangle,
    Round,
}

/// Another kind brings its usual height, material and joints; place, size and name stay.
fn become_(neighbour: &mut Neighbour, what: Thing) {
    let usual = what.at(neighbour.name.clone(), neighbour.face, neighbour.body);
    *neighbour = Neighbour { round: neighbour.round, ..usual };
}

fn limit(text: &str, scale: Scale) -> Result<Option<Temperature>, Finding> {
    let ends = [40.0, 400.0].map(|end| scale.of(Temperature::celsius(end)));
    let value = number_or_none("limit", text, ((ends[0], ends[1]), scale.symbol()))?;
    Ok(value.map(|value| scale.read(value)))
}

#[cfg(test)]
mod tests {
    use super::super::{Edit, Target};
    use super::*;
    use crate::board::rules::tests::board;
    use crate::materials::BodyMaterial;

    fn set(field: &str, value: &str, scale: Scale) -> Result<Neighbour, Finding> {
        let (field, value) = (field.to_owned(), value.to_owned());
        let edit = Edit::Set { of: Target::Neighbour(0), field, value };
        Draft::of(&board()).after(&edit, scale).map(|draft| draft.neighbours[0].clone())
    }

    #[test]
    fn fields_are_taken_in_the_visitors_own_units() {
        let get = |field, value| set(field, value, Scale::Celsius).expect(field);
        assert_eq!(get("x", "12,5").body.centre.x, 12.5);
        assert_eq!(get("what", "lithium-cell").material, BodyMaterial::LithiumCell);
        assert_eq!(get("what", "lithium-cell").soldered(), 0.0);
        assert_eq!(get("own_joints", "25").soldered(), 0.25);
        assert_eq!(get("own_joints", "").own_joints, None);
        assert_eq!(get("round", "round").body.depth, 5.0);
        let warm = set("limit", "392", Scale::Fahrenheit).expect("a limit");
        assert!((warm.limit().in_celsius() - 200.0).abs() < 1e-9);
    }

    #[test]
    fn what_can_not_be_names_field_value_and_remedy() {
        for (field, value) in
            [("height", "tall"), ("width", "0"), ("limit", "700"), ("what", "ghost"), ("name", ""), ("colour", "x")]
        {
            let finding = set(field, value, Scale::Celsius).expect_err(field);
            assert_eq!(finding.place, field);
            assert!(!finding.hint.is_empty());
        }
        assert!(set("height", "tall", Scale::Celsius).expect_err("no number").message.contains("“tall”"));
        assert!(set("limit", "700", Scale::Fahrenheit).is_ok(), "700 °F is 371 °C");
    }
}
