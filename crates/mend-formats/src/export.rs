//! What a folder of exported files holds and how they belong together, `urgent-mend/export/2`.

use mend_core::finding::Finding;
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};
use crate::record::BoardName;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/export/2";
const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/export/1"] };
/// The file's name in its folder.
pub const FILE: &str = "export.json";
const RULE: &str = "export_file";
const LARGEST: usize = 256 * 1024 * 1024;

/// The list. Files are named from the folder that it lies in.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Export {
    /// Always `urgent-mend/export/2`.
    pub format: String,
    /// `urgent-mend/shop/1`.
    #[serde(default)]
    pub shop: Option<String>,
    /// `urgent-mend/equipment/2`.
    #[serde(default, alias = "means")]
    pub equipment: Option<String>,
    /// Stations in their order.
    pub stations: Vec<StationEntry>,
    /// `urgent-mend/connector/1`.
    pub connectors: Vec<String>,
    /// Photographs, JPEG; drafts and jobs name them by their place in this list, from 1.
    pub photos: Vec<PhotoEntry>,
    /// Versions of opening maps, `urgent-mend/opening/1`, in the order in which they came; their pages name photographs by their place.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub openings: Vec<String>,
    /// Versions of boards in the order in which they came.
    pub boards: Vec<BoardEntry>,
    /// Boards that are being described.
    pub drafts: Vec<DraftEntry>,
    /// `urgent-mend/job/2`, oldest first.
    pub jobs: Vec<String>,
    /// People, stock, quotes and donors: `urgent-mend/floor/1`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub floor: Option<String>,
    /// Instruments at the bench.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub instruments: Vec<InstrumentEntry>,
    /// What measuring has taught, oldest first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lessons: Vec<LessonEntry>,
}

/// An instrument.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct InstrumentEntry {
    /// As the shop calls it.
    pub name: String,
    /// `thermometer`, `readout` or `meter`.
    pub kind: String,
    /// Number and port.
    pub address: String,
    /// Is it a thermometer that is read at the heat step?
    #[serde(default)]
    pub at_bench: bool,
}

/// A lesson.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LessonEntry {
    /// What it says: `urgent-mend/lesson/1`.
    pub file: String,
    /// `flow`, `outlet`, `probe` or `job`.
    pub kind: String,
    /// Of which station: its place in the list, from 0.
    pub station: usize,
    /// With which nozzle, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub nozzle_mm: Option<f64>,
    /// On which board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub board: Option<BoardName>,
    /// The job that taught it: its place in the list, from 0.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<usize>,
    /// What was entered or stamped, field by field.
    pub entered: serde_json::Map<String, serde_json::Value>,
    /// What came of it, in words.
    pub figures: String,
    /// When it was taught, ms since the epoch.
    pub taught_ms: i64,
    /// Why it does not count.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left_out: Option<String>,
}

/// A station.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StationEntry {
    /// `urgent-mend/station/1`.
    pub file: String,
    /// When it was retired, ms since the epoch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub retired_ms: Option<i64>,
    /// Names that it has or had.
    pub names: Vec<String>,
}

/// A photograph.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PhotoEntry {
    /// JPEG.
    pub file: String,
    /// Pixels.
    pub size_px: (u32, u32),
}

/// A version of a board.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BoardEntry {
    /// Which.
    pub board: BoardName,
    /// `urgent-mend/board/2`.
    pub file: String,
    /// How it was described, `urgent-mend/draft/2`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub draft: Option<String>,
}

/// A board that is being described.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DraftEntry {
    /// `urgent-mend/draft/2`.
    pub file: String,
    /// The model that it will be a version of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub model: Option<String>,
    /// The job whose board it is: its place in the list, from 0.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<usize>,
}

/// Reads the list.
pub fn parse(bytes: &[u8]) -> Result<Export, Vec<Finding>> {
    let export: Export = reading::json_up_to(RULE, bytes, LARGEST)?;
    reading::expect_format(RULE, &export.format, &ACCEPTED)?;
    Ok(export)
}

/// Writes the list.
pub fn write(export: &Export) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(export)? + "\n")
}
