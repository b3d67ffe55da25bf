//! The file as it is written, and how it becomes a board.

use mend_core::board::{
    Board, Connector, Face, Family, Joint, JointShape, Neighbour, Outline, Point, Rect, Role, StackUp, check,
};
use mend_core::finding::{Finding, any_blocking};
use mend_core::materials::BodyMaterial;
use mend_core::units::{Length, Temperature};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::{FORMAT, schema};
use crate::reading;

const RULE: &str = "board_file";
/// More joints than any connector has; a repeat is bounded before it is unrolled.
const MOST_JOINTS: usize = 600;
const MOST_NEIGHBOURS: usize = 400;

/// A board model. Lengths in mm, seen from the top face, x to the right, y away from the reader; the bottom face uses
/// the same coordinates, looking through the board.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub struct BoardFile {
    /// Always `urgent-mend/board/1`.
    pub format: String,
    /// The model's name.
    pub name: String,
    /// Who made it.
    #[serde(default)]
    pub maker: String,
    /// Corners of the rim in order, [x, y].
    pub outline_mm: Vec<[f64; 2]>,
    /// Finished thickness, 0.2-5.
    pub thickness_mm: f64,
    /// The stack-up.
    copper: Copper,
    /// The part that is to be replaced.
    connector: ConnectorFile,
    /// What must not be hurt.
    #[serde(default)]
    neighbours: Vec<NeighbourFile>,
}

/// Copper layers.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct Copper {
    /// Copper layers in all, 1-32.
    pub layers: u32,
    /// How many of them are planes.
    pub planes: u32,
    /// Foil thickness, µm; 35 is 1 oz/ft².
    pub foil_um: f64,
    /// Copper share of a plane, 0-1.
    pub plane_coverage: f64,
    /// Copper share of a signal layer, 0-1.
    pub signal_coverage: f64,
    /// Plated holes per mm² near the connector, where known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vias_per_mm2: Option<f64>,
}

/// The connector and its joints.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct ConnectorFile {
    /// What the shop calls it.
    pub name: String,
    #[schemars(schema_with = "schema::family")]
    family: Family,
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
}

/// A joint, or a row of like joints.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct JointFile {
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
pub(super) struct Repeat {
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

/// A neighbour.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct NeighbourFile {
    name: String,
    #[schemars(schema_with = "schema::face")]
    face: Face,
    /// Centre of the body.
    at_mm: [f64; 2],
    width_mm: f64,
    depth_mm: f64,
    height_mm: f64,
    #[schemars(schema_with = "schema::material")]
    material: BodyMaterial,
    /// Its own limit, where it differs from its material's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    limit_c: Option<f64>,
}

/// Reads a board file. Every objection at once where the JSON is sound.
pub fn parse(bytes: &[u8]) -> Result<Board, Vec<Finding>> {
    reading::json::<BoardFile>(RULE, bytes)?.into_board()
}

fn point([x, y]: [f64; 2]) -> Point {
    Point { x, y }
}

impl BoardFile {
    /// The board, or what is wrong with it.
    pub fn into_board(self) -> Result<Board, Vec<Finding>> {
        reading::expect_format(RULE, &self.format, FORMAT)?;
        let Copper { layers, planes, foil_um, plane_coverage, signal_coverage, vias_per_mm2 } = self.copper;
        let thickness = Length::mm(self.thickness_mm);
        if self.neighbours.len() > MOST_NEIGHBOURS {
            let message = format!("{} neighbours", self.neighbours.len());
            return Err(vec![Finding::blocking(RULE, "neighbours", message).hint("list up to 400, the nearest first")]);
        }
        let board = Board {
            name: self.name,
            maker: self.maker,
            outline: Outline { corners: self.outline_mm.into_iter().map(point).collect() },
            stack: StackUp { thickness, layers, planes, foil_um, plane_coverage, signal_coverage, vias_per_mm2 },
            connector: self.connector.into_connector()?,
            neighbours: self.neighbours.into_iter().map(NeighbourFile::into_neighbour).collect(),
        };
        let findings = check::check(&board);
        if any_blocking(&findings) { Err(findings) } else { Ok(board) }
    }
}

impl ConnectorFile {
    fn into_connector(self) -> Result<Connector, Vec<Finding>> {
        let mut joints = Vec::new();
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
        })
    }
}

impl JointFile {
    fn unroll(self, joints: &mut Vec<Joint>) -> Result<(), Finding> {
        let place = format!("joint {}", self.name);
        let shape = match (self.pad_mm, self.hole_mm) {
            (Some([width, depth]), None) => JointShape::Pad { width, depth },
            (None, Some([drill, pad])) => JointShape::Hole { drill, pad },
            _ => {
                let object = Finding::blocking(RULE, place, "is neither a pad nor a hole, or both");
                return Err(object.hint("give either pad_mm or hole_mm"));
            }
        };
        let count = self.repeat.as_ref().map_or(1, |r| r.count);
        if count > MOST_JOINTS || joints.len() + count > MOST_JOINTS {
            let object =
                Finding::blocking(RULE, place, format!("brings {count} joints to the {} before", joints.len()));
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

impl NeighbourFile {
    fn into_neighbour(self) -> Neighbour {
        Neighbour {
            name: self.name,
            body: Rect { centre: point(self.at_mm), width: self.width_mm, depth: self.depth_mm },
            face: self.face,
            height: Length::mm(self.height_mm),
            material: self.material,
            own_limit: self.limit_c.map(Temperature::celsius),
        }
    }
}
