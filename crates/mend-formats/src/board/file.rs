//! The file as it is written, and how it becomes a board.

use mend_core::board::{Board, Crowding, Outline, Point, StackUp, Stiffener, rules};
use mend_core::finding::{Finding, any_blocking};
use mend_core::units::Length;
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

use super::component::ComponentFile;
use super::connector::ConnectorFile;
use super::{ACCEPTED, FORMAT, tidy};
use crate::reading;

pub(crate) const RULE: &str = "board_file";
const MOST_COMPONENTS: usize = 400;

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
    /// Finished thickness, 0.1-5.
    pub thickness_mm: f64,
    /// The stack-up.
    copper: Copper,
    /// The part that is to be replaced.
    connector: ConnectorFile,
    /// What must not be damaged.
    #[serde(default, alias = "neighbours")]
    components: Vec<ComponentFile>,
}

/// Copper layers.
#[derive(Debug, Clone, Serialize, Deserialize, JsonSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct Copper {
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
    /// Logarithmic spread of the conductivity in plane, 0.05-1, where it was judged; else 0.3.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spread: Option<f64>,
    /// How crowded the board is with small parts that nobody describes.
    #[serde(default, skip_serializing_if = "is_usual")]
    #[schemars(schema_with = "crate::board::schema::crowding")]
    pub crowding: Crowding,
    /// What is glued on the far face under the part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schemars(schema_with = "crate::board::schema::stiffener")]
    pub stiffener: Option<Stiffener>,
}

fn is_usual(crowding: &Crowding) -> bool {
    *crowding == Crowding::Usual
}

/// Reads a board file. Every objection at once where the JSON is sound.
pub fn parse(bytes: &[u8]) -> Result<Board, Vec<Finding>> {
    reading::json::<BoardFile>(RULE, bytes)?.into_board()
}

/// Writes a board; reading it gives the same board to a ten-thousandth of a millimetre.
pub fn write(board: &Board) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(&BoardFile::from_board(board))? + "\n")
}

pub(crate) fn point([x, y]: [f64; 2]) -> Point {
    Point { x, y }
}

/// A place as it is written.
pub(crate) fn xy(p: Point) -> [f64; 2] {
    [tidy(p.x), tidy(p.y)]
}

impl Copper {
    pub(crate) fn from_stack(stack: &StackUp) -> Self {
        let StackUp { layers, planes, foil_um, plane_coverage, signal_coverage, .. } = *stack;
        let StackUp { vias_per_mm2, spread, crowding, stiffener, .. } = *stack;
        Self { layers, planes, foil_um, plane_coverage, signal_coverage, vias_per_mm2, spread, crowding, stiffener }
    }

    pub(crate) fn into_stack(self, thickness_mm: f64) -> StackUp {
        let Self { layers, planes, foil_um, plane_coverage, signal_coverage, .. } = self;
        let Self { vias_per_mm2, spread, crowding, stiffener, .. } = self;
        StackUp {
            thickness: Length::mm(thickness_mm),
            layers,
            planes,
            foil_um,
            plane_coverage,
            signal_coverage,
            vias_per_mm2,
            spread,
            crowding,
            stiffener,
        }
    }
}

impl BoardFile {
    /// As it is written.
    pub fn from_board(board: &Board) -> Self {
        Self {
            format: FORMAT.to_owned(),
            name: board.name.clone(),
            maker: board.maker.clone(),
            outline_mm: board.outline.corners.iter().map(|p| xy(*p)).collect(),
            thickness_mm: board.stack.thickness.in_mm(),
            copper: Copper::from_stack(&board.stack),
            connector: ConnectorFile::from_connector(&board.connector),
            components: board.components.iter().map(ComponentFile::from_component).collect(),
        }
    }

    /// The board, or what is wrong with it.
    pub fn into_board(self) -> Result<Board, Vec<Finding>> {
        reading::expect_format(RULE, &self.format, &ACCEPTED)?;
        if self.components.len() > MOST_COMPONENTS {
            let message = format!("{} components", self.components.len());
            return Err(vec![Finding::written(RULE, "components", message).hint("list up to 400, the nearest first")]);
        }
        let board = Board {
            name: self.name,
            maker: self.maker,
            outline: Outline { corners: self.outline_mm.into_iter().map(point).collect() },
            stack: self.copper.into_stack(self.thickness_mm),
            connector: self.connector.into_connector()?,
            components: self.components.into_iter().map(ComponentFile::into_component).collect(),
        };
        let findings = rules::check(&board);
        if any_blocking(&findings) { Err(findings) } else { Ok(board) }
    }
}
