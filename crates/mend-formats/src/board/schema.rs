//! The published JSON Schema of the board format.

use mend_core::board::{ComponentKind, ConnectorFamily, Crowding, Face, Role, StiffenerMaterial};
use mend_core::materials::BodyMaterial;
use schemars::{Schema, SchemaGenerator, json_schema};
use serde::Serialize;

use super::BoardFile;

/// The schema as it is published in docs/formats/board.schema.json.
pub fn schema() -> String {
    let schema = schemars::schema_for!(BoardFile);
    serde_json::to_string_pretty(&schema).unwrap_or_default() + "\n"
}

fn one_of<T: Serialize>(values: &[T]) -> Schema {
    json_schema!({ "type": "string", "enum": values })
}

pub(super) fn material(_: &mut SchemaGenerator) -> Schema {
    one_of(&BodyMaterial::ALL)
}
pub(super) fn face(_: &mut SchemaGenerator) -> Schema {
    one_of(&[Face::Top, Face::Bottom])
}
pub(super) fn family(_: &mut SchemaGenerator) -> Schema {
    one_of(&[
        ConnectorFamily::Port,
        ConnectorFamily::Flex,
        ConnectorFamily::FlexTail,
        ConnectorFamily::BoardToBoard,
        ConnectorFamily::Jack,
        ConnectorFamily::Power,
    ])
}
pub(super) fn crowding(_: &mut SchemaGenerator) -> Schema {
    one_of(&Crowding::ALL)
}
pub(super) fn stiffener(_: &mut SchemaGenerator) -> Schema {
    let material = one_of(&StiffenerMaterial::ALL);
    json_schema!({
        "type": ["object", "null"],
        "properties": { "material": material, "thickness_mm": { "type": "number" } },
        "required": ["material", "thickness_mm"],
        "additionalProperties": false,
    })
}
pub(super) fn role(_: &mut SchemaGenerator) -> Schema {
    one_of(&[Role::Signal, Role::Ground, Role::Power, Role::Anchor])
}
pub(super) fn component_kind(_: &mut SchemaGenerator) -> Schema {
    one_of(&ComponentKind::ALL)
}
