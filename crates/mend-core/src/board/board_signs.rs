//! What can be seen, weighed and felt of a board's copper.

use serde::{Deserialize, Serialize};

/// What was seen and weighed. What was not looked at says nothing.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields, default)]
pub struct BoardSigns {
    /// Against a lamp.
    pub light: Option<Light>,
    /// Holes in pads, filled flat.
    pub vias: Option<Vias>,
    /// Copper lines that a loupe shows at the rim.
    pub edge_lines: Option<u32>,
    /// Weight and area of the board.
    pub weighed: Option<BoardWeight>,
    /// Beside a board that one knows.
    pub beside: Option<Beside>,
}

/// The board against a lamp: planes stop the light.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Light {
    /// It shines through between the traces.
    Between,
    /// Only in the clearances round holes.
    Clearances,
    /// Nowhere.
    Nowhere,
}

/// Holes near the fine parts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Vias {
    /// One can look or feel through them.
    Open,
    /// Covered with mask.
    Covered,
    /// Filled flat, inside pads.
    Filled,
}

/// A board on the scales.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BoardWeight {
    /// g.
    pub grams: f64,
    /// mm².
    pub area_mm2: f64,
    /// Nothing on it but mask and solder? Parts weigh a third of the board and more.
    pub bare: bool,
}

/// Held beside a board that one knows.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Beside {
    /// What the known board weighs per area, g/mm².
    pub known: f64,
    /// How this one feels.
    pub feels: Feels,
}

/// For its size.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Feels {
    /// Clearly lighter.
    Lighter,
    /// About the same.
    Same,
    /// Clearly heavier.
    Heavier,
}
