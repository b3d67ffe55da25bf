//! The fields of a component.

use super::Draft;
use super::field::{FieldInput, NumberRange, choice, face, name, no_field, number, number_or_none};
use super::refusal::refuse;
use crate::board::{Component, ComponentKind, NominalValue};
use crate::finding::Finding;
use crate::finding::problem::{DraftProblem, ValueProblem};
use crate::units::{Length, Scale, Temperature, Unit};

pub(super) fn component(draft: &mut Draft, k: usize, typed: FieldInput<'_>) -> Result<(), Finding> {
    let FieldInput { field, text, scale } = typed;
    let other = draft.components.iter().enumerate().any(|(other, n)| other != k && n.name == text.trim());
    let component = draft.component(k)?;
    let mm = |range| number(field, text, NumberRange::new(range, Unit::Millimetres));
    match field {
        "name" if other => {
            return Err(refuse(field, DraftProblem::NameTaken { name: text.trim().to_owned() }));
        }
        "name" => component.name = name(field, text)?,
        "what" => become_(component, choice(field, text)?),
        "x" => component.body.centre.x = mm((-600.0, 600.0))?,
        "y" => component.body.centre.y = mm((-600.0, 600.0))?,
        "width" => component.body.width = mm((0.2, 300.0))?,
        "depth" => component.body.depth = mm((0.2, 300.0))?,
        "height" => component.height = Length::mm(mm((0.1, 60.0))?),
        "round" => component.round = choice::<ComponentShape>(field, text)? == ComponentShape::Round,
        "face" => component.face = face(text)?,
        "material" => component.material = choice(field, text)?,
        "limit" => component.own_limit = limit(text, scale)?,
        "own_joints" => {
            let percent = number_or_none(field, text, NumberRange::new((0.0, 100.0), Unit::Percent))?;
            component.own_joints = percent.map(|percent| percent / 100.0);
        }
        "value" if text.trim().is_empty() => component.value = None,
        "value" => component.value = Some(value(text)?),
        _ => return Err(no_field(field)),
    }
    if component.round {
        let side = if field == "depth" { component.body.depth } else { component.body.width };
        (component.body.width, component.body.depth) = (side, side);
    }
    Ok(())
}

#[derive(PartialEq, serde::Deserialize)]
#[serde(rename_all = "kebab-case")]
enum ComponentShape {
    Rectangle,
    Round,
}

/// Another kind brings its usual height, material and joints; place, size and name stay.
fn become_(component: &mut Component, what: ComponentKind) {
    let usual = what.at(component.name.clone(), component.face, component.body);
    *component = Component { round: component.round, ..usual };
}

fn value(text: &str) -> Result<NominalValue, Finding> {
    text.parse().map_err(|_| refuse("value", ValueProblem::NotAValue { text: text.trim().to_owned() }))
}

fn limit(text: &str, scale: Scale) -> Result<Option<Temperature>, Finding> {
    let ends = [40.0, 400.0].map(|end| scale.of(Temperature::celsius(end)));
    let value = number_or_none("limit", text, NumberRange::new((ends[0], ends[1]), Unit::from(scale)))?;
    Ok(value.map(|value| scale.read(value)))
}

#[cfg(test)]
mod tests {
    use super::super::{Edit, Target};
    use super::*;
    use crate::board::rules::tests::board;
    use crate::finding::problem::Problem;
    use crate::materials::BodyMaterial;

    fn set(field: &str, value: &str, scale: Scale) -> Result<Component, Finding> {
        let (field, value) = (field.to_owned(), value.to_owned());
        let edit = Edit::Set { of: Target::Component(0), field, value };
        Draft::from_board(&board()).after(&edit, scale).map(|draft| draft.components[0].clone())
    }

    #[test]
    fn fields_are_taken_in_the_visitors_own_units() {
        let get = |field, value| set(field, value, Scale::Celsius).expect(field);
        assert_eq!(get("x", "12,5").body.centre.x, 12.5);
        assert_eq!(get("what", "lithium-cell").material, BodyMaterial::LithiumCell);
        assert_eq!(get("what", "lithium-cell").soldered(), 0.0);
        assert_eq!(get("own_joints", "25").soldered(), 0.25);
        assert_eq!(get("own_joints", "").own_joints, None);
        assert_eq!(get("value", "100 nF").value.map(|value| value.to_string()), Some("100 nF".to_owned()));
        assert_eq!(get("value", " ").value, None);
        assert_eq!(get("round", "round").body.depth, 5.0);
        let warm = set("limit", "392", Scale::Fahrenheit).expect("a limit");
        assert!((warm.limit().in_celsius() - 200.0).abs() < 1e-9);
    }

    #[test]
    fn what_can_not_be_names_field_value_and_remedy() {
        for (field, value) in [
            ("height", "tall"),
            ("width", "0"),
            ("limit", "700"),
            ("what", "ghost"),
            ("name", ""),
            ("colour", "x"),
            ("value", "1.8k"),
        ] {
            let finding = set(field, value, Scale::Celsius).expect_err(field);
            assert_eq!(finding.place, field);
        }
        let tall = set("height", "tall", Scale::Celsius).expect_err("no number").problem;
        assert!(matches!(&tall, Problem::Value(ValueProblem::NotANumber { text, .. }) if text == "tall"), "{tall:?}");
        assert!(set("limit", "700", Scale::Fahrenheit).is_ok(), "700 °F is 371 °C");
    }
}
