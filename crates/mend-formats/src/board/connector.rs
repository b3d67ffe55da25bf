//! A connector as it is written: within a board, or on its own in the shop's library.

use mend_core::board::{Connector, ConnectorFamily, Face, Joint, JointShape, Rect, Role};
use mend_core::finding::Finding;
use mend_core::materials::BodyMaterial;
use mend_core::units::Length;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::file::{RULE, point, xy};
use super::{schema, tidy};

/// More joints than any connector has; a repeat is bounded before it is unrolled.
const MOST_JOINTS: usize = 600;
/// Lines of a functional test.
const MOST_TESTS: usize = 40;

/// The connector and its joints.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct ConnectorFile {
    /// Name.
    pub name: String,
    #[schemars(schema_with = "schema::family")]
    family: ConnectorFamily,
    #[schemars(schema_with = "schema::face")]
    face: Face,
    /// Centre of the body.
    at_mm: [f64; 2],
    width_mm: f64,
    depth_mm: f64,
    height_mm: f64,
    #[schemars(schema_with = "schema::material")]
    material: BodyMaterial,
    /// Has it a metal shell?
    #[serde(default)]
    shell: bool,
    /// Plastic pegs that need a pull.
    #[serde(default)]
    pegs: u32,
    /// Every joint; rows may be written with `repeat`.
    joints: Vec<JointFile>,
    /// What its functional test must cover, a line each.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    tests: Vec<String>,
}

/// A joint, or a row of like joints.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct JointFile {
    /// Its name; with `repeat` the beginning of their names.
    name: String,
    /// The row it stands in.
    row: String,
    /// Where; with `repeat` the first of them.
    at_mm: [f64; 2],
    #[schemars(schema_with = "schema::role")]
    role: Role,
    /// A surface pad, [width, depth]. Either this or `hole_mm`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pad_mm: Option<[f64; 2]>,
    /// A plated hole, [drill, land]. Either this or `pad_mm`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    hole_mm: Option<[f64; 2]>,
    /// Under the body, out of reach.
    #[serde(default)]
    hidden: bool,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    repeat: Option<Repeat>,
}

/// A row of like joints, numbered from 1.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Repeat {
    /// How many.
    count: usize,
    /// From one to the next.
    step_mm: [f64; 2],
    /// Which of them are ground.
    #[serde(default)]
    ground: Vec<usize>,
    /// Which of them carry supply.
    #[serde(default)]
    power: Vec<usize>,
}

impl ConnectorFile {
    /// As it is written: every joint on its own.
    pub(crate) fn from_connector(c: &Connector) -> Self {
        Self {
            name: c.name.clone(),
            family: c.family,
            face: c.face,
            at_mm: xy(c.body.centre),
            width_mm: tidy(c.body.width),
            depth_mm: tidy(c.body.depth),
            height_mm: tidy(c.height.in_mm()),
            material: c.material,
            shell: c.shell,
            pegs: c.pegs,
            joints: c.joints.iter().map(JointFile::from_joint).collect(),
            tests: c.tests.clone(),
        }
    }

    pub(crate) fn into_connector(self) -> Result<Connector, Vec<Finding>> {
        let mut joints = Vec::new();
        if self.tests.len() > MOST_TESTS || self.tests.iter().any(|line| line.len() > 400) {
            let object = Finding::written(RULE, "connector.tests", format!("{} lines", self.tests.len()));
            return Err(vec![object.hint("up to 40 lines of up to 400 characters")]);
        }
        for joint in self.joints {
            joint.unroll(&mut joints).map_err(|finding| vec![finding])?;
        }
        let body = Rect { centre: point(self.at_mm), width: self.width_mm, depth: self.depth_mm };
        Ok(Connector {
            name: self.name,
            family: self.family,
            face: self.face,
            body,
            height: Length::mm(self.height_mm),
            material: self.material,
            shell: self.shell,
            pegs: self.pegs,
            joints,
            tests: self.tests,
        })
    }
}

impl JointFile {
    fn from_joint(joint: &Joint) -> Self {
        let (pad_mm, hole_mm) = match joint.shape {
            JointShape::Pad { width, depth } => (Some([tidy(width), tidy(depth)]), None),
            JointShape::Hole { drill, pad } => (None, Some([tidy(drill), tidy(pad)])),
        };
        Self {
            name: joint.name.clone(),
            row: joint.row.clone(),
            at_mm: xy(joint.at),
            role: joint.role,
            pad_mm,
            hole_mm,
            hidden: joint.hidden,
            repeat: None,
        }
    }

    fn unroll(self, joints: &mut Vec<Joint>) -> Result<(), Finding> {
        let place = format!("joint {}", self.name);
        let shape = match (self.pad_mm, self.hole_mm) {
            (Some([width, depth]), None) => JointShape::Pad { width, depth },
            (None, Some([drill, pad])) => JointShape::Hole { drill, pad },
            _ => {
                let object = Finding::written(RULE, place, "is neither a pad nor a hole, or both");
                return Err(object.hint("give either pad_mm or hole_mm"));
            }
        };
        let count = self.repeat.as_ref().map_or(1, |r| r.count);
        if count > MOST_JOINTS || joints.len() + count > MOST_JOINTS {
            let object = Finding::written(RULE, place, format!("brings {count} joints to the {} before", joints.len()));
            return Err(object.hint("a connector has up to 600 joints"));
        }
        for k in 0..count {
            let (name, at, role) = match &self.repeat {
                None => (self.name.clone(), point(self.at_mm), self.role),
                Some(r) => {
                    let at = [0, 1].map(|axis| self.at_mm[axis] + k as f64 * r.step_mm[axis]);
                    (format!("{}{}", self.name, k + 1), point(at), r.role(k + 1).unwrap_or(self.role))
                }
            };
            joints.push(Joint { name, row: self.row.clone(), at, role, shape, hidden: self.hidden });
        }
        Ok(())
    }
}

impl Repeat {
    fn role(&self, number: usize) -> Option<Role> {
        let power = self.power.contains(&number).then_some(Role::Power);
        self.ground.contains(&number).then_some(Role::Ground).or(power)
    }
}
