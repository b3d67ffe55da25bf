//! People, stock, quotes and donors of a shop, `urgent-mend/floor/1`, within an export. People and items are named by their places in
//! this file, jobs by theirs in the export's list, all from 0. Secrets are no part of it: who comes with an export gets a new link.

use mend_core::finding::Finding;
use serde::{Deserialize, Serialize};

use crate::item::StockItem;
use crate::reading::{self, Accepted};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/floor/1";
const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &[] };
/// The file's name in an export's folder.
pub const FILE: &str = "floor.json";
const RULE: &str = "floor_file";
const LARGEST: usize = 256 * 1024 * 1024;

/// The file as it is written.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct FloorFile {
    /// Always `urgent-mend/floor/1`.
    pub format: String,
    /// Who works there, and who has left.
    pub people: Vec<PersonEntry>,
    /// Items with their moves, oldest first.
    pub items: Vec<ItemEntry>,
    /// What is taken for what.
    pub look_alikes: Vec<LookAlikeEntry>,
    /// What jobs need.
    pub needs: Vec<NeedEntry>,
    /// Quotes, oldest first.
    pub quotes: Vec<QuoteEntry>,
    /// What parts come off.
    pub donors: Vec<DonorEntry>,
    /// Tasks put by hand.
    pub pins: Vec<TaskPinEntry>,
    /// Jobs that came back under warranty: the job, and the first of its line.
    pub returns: Vec<[usize; 2]>,
    /// Who entered what in the jobs, and when.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub hands: Vec<HandEntry>,
    /// When jobs stood still, and why.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub waits: Vec<WaitEntry>,
    /// What was practised, oldest first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub attempts: Vec<AttemptEntry>,
}

/// Who made an entry of a job, and when.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct HandEntry {
    /// The job.
    pub job: usize,
    /// `taken-in`, `intake`, `event`, `pin`, `check`, `extra`, `photo`, `quote` or `log`.
    pub kind: String,
    /// What it is of: a field, a pin, a list and a name in it, a stop.
    pub what: String,
    /// When it was made, ms since the epoch.
    pub at_ms: i64,
    /// Who made it; left out: nobody was signed in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<usize>,
}

/// A time for which a job stood still.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct WaitEntry {
    /// The job.
    pub job: usize,
    /// `word`, `part` or `entered`.
    pub cause: String,
    /// From, ms since the epoch.
    pub begun_ms: i64,
    /// Until; left out: it waits still.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ended_ms: Option<i64>,
}

/// An attempt at the practice bench.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AttemptEntry {
    /// Whose.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<usize>,
    /// The task of the course; empty: none.
    pub task: String,
    /// The job that it rehearses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<usize>,
    /// What it began with, `urgent-mend/practice/1`.
    pub of: serde_json::Value,
    /// When, ms since the epoch.
    pub begun_ms: i64,
    /// Steps so far, a tenth of a second each.
    pub ticks: u32,
    /// Done?
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ended_ms: Option<i64>,
    /// Done, and nothing harmed.
    pub passed: bool,
    /// What was harmed; null: it goes on.
    pub harms: serde_json::Value,
    /// What hands did, in its order.
    pub events: Vec<AttemptEventEntry>,
}

/// Something that hands did.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AttemptEventEntry {
    /// From 1.
    pub seq: u32,
    /// After so many steps.
    pub tick: u32,
    /// What.
    pub does: serde_json::Value,
}

/// Somebody.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PersonEntry {
    /// Name.
    pub name: String,
    /// `owner`, `technician`, `trainee` or `counter`.
    pub role: String,
    /// `learning`, `trained` or `practised`.
    pub level: String,
    /// When they work, as it is stored; left out: while the shop is open.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub hours: String,
    /// When they left, ms since the epoch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub left_ms: Option<i64>,
}

/// An item.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ItemEntry {
    /// What it is.
    pub item: StockItem,
    /// When it was retired, ms since the epoch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub retired_ms: Option<i64>,
    /// What happened to it.
    pub moves: Vec<MoveEntry>,
}

/// A move.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct MoveEntry {
    /// As it is stored.
    pub kind: String,
    /// In the item's unit.
    pub quantity: f64,
    /// The job, where it is of one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<usize>,
    /// Of an order: when it comes.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub day: String,
    /// In words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
    /// Who moved it; left out: nobody was signed in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<usize>,
}

/// Two that are taken for each other.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LookAlikeEntry {
    /// Both.
    pub items: [usize; 2],
    /// What tells them apart.
    pub difference: String,
}

/// What a job needs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct NeedEntry {
    /// The job.
    pub job: usize,
    /// The item.
    pub item: usize,
    /// How much.
    pub quantity: f64,
}

/// A quote.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct QuoteEntry {
    /// The job.
    pub job: usize,
    /// What it says, line by line.
    pub says: serde_json::Value,
    /// What it comes to.
    pub total: String,
    /// When it was made, ms since the epoch.
    pub made_ms: i64,
    /// `accepted`, `declined`; empty: not answered.
    #[serde(default)]
    pub answer: String,
    /// Who answered.
    #[serde(default)]
    pub who: String,
    /// When.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub answered_ms: Option<i64>,
}

/// A donor.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DonorEntry {
    /// What it is.
    pub name: String,
    /// What is still on it.
    pub holds: String,
    /// Its harvest.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub job: Option<usize>,
}

/// A task put by hand.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TaskPinEntry {
    /// The job.
    pub job: usize,
    /// As in the address of its stop.
    pub task: String,
    /// To whom.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<usize>,
    /// Not before, ms since the epoch.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub not_before_ms: Option<i64>,
}

/// Reads it.
///
/// ```
/// assert!(mend_formats::floor::parse(b"{}").is_err());
/// ```
pub fn parse(bytes: &[u8]) -> Result<FloorFile, Vec<Finding>> {
    let file: FloorFile = reading::json_up_to(RULE, bytes, LARGEST)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    Ok(file)
}

/// Writes it.
pub fn write(file: &FloorFile) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(file)? + "\n")
}
