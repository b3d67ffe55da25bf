//! A component as it is written.

use mend_core::board::{Component, ComponentKind, Face, NominalValue, Rect};
use mend_core::materials::BodyMaterial;
use mend_core::units::{Length, Temperature};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::file::{point, xy};
use super::{schema, tidy};

/// A component.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct ComponentFile {
    name: String,
    /// What it is, where somebody said so.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "schema::component_kind")]
    what: Option<ComponentKind>,
    #[schemars(schema_with = "schema::face")]
    face: Face,
    /// Centre of the body.
    at_mm: [f64; 2],
    width_mm: f64,
    depth_mm: f64,
    /// Round, seen from above; width and depth are then its diameter.
    #[serde(default, skip_serializing_if = "is_false")]
    round: bool,
    height_mm: f64,
    #[schemars(schema_with = "schema::material")]
    material: BodyMaterial,
    /// Its own limit, where it differs from its material's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    limit_c: Option<f64>,
    /// Share of its footprint that is soldered, 0-1, where it differs from its material's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    own_joints: Option<f64>,
    /// What it is worth, like `100 nF`, `4.7 uF`, `120 ohm`, `2.2 uH`.
    #[serde(default, with = "value", skip_serializing_if = "Option::is_none")]
    #[schemars(with = "Option<String>")]
    value: Option<NominalValue>,
}

/// A value as it is marked.
mod value {
    use mend_core::board::NominalValue;
    use serde::{Deserialize, Deserializer, Serializer, de::Error};

    #[allow(clippy::ref_option, reason = "serde hands a reference")]
    pub(super) fn serialize<S: Serializer>(value: &Option<NominalValue>, out: S) -> Result<S::Ok, S::Error> {
        out.serialize_str(&value.map_or(String::new(), |value| value.to_string()))
    }

    pub(super) fn deserialize<'de, D: Deserializer<'de>>(from: D) -> Result<Option<NominalValue>, D::Error> {
        let Some(text) = Option::<String>::deserialize(from)? else { return Ok(None) };
        let object = |_| D::Error::custom(format!("“{text}” is no value: like 100 nF, 120 ohm or 2.2 uH"));
        text.parse().map(Some).map_err(object)
    }
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "serde asks for it")]
fn is_false(value: &bool) -> bool {
    !value
}

impl ComponentFile {
    pub(crate) fn from_component(n: &Component) -> Self {
        Self {
            name: n.name.clone(),
            what: n.what,
            face: n.face,
            at_mm: xy(n.body.centre),
            width_mm: tidy(n.body.width),
            depth_mm: tidy(n.body.depth),
            round: n.round,
            height_mm: tidy(n.height.in_mm()),
            material: n.material,
            limit_c: n.own_limit.map(|limit| tidy(limit.in_celsius())),
            own_joints: n.own_joints,
            value: n.value,
        }
    }

    pub(crate) fn into_component(self) -> Component {
        Component {
            name: self.name,
            what: self.what,
            round: self.round,
            body: Rect { centre: point(self.at_mm), width: self.width_mm, depth: self.depth_mm },
            face: self.face,
            height: Length::mm(self.height_mm),
            material: self.material,
            own_limit: self.limit_c.map(Temperature::celsius),
            own_joints: self.own_joints,
            value: self.value,
        }
    }
}
