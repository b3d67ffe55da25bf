//! People, stock and donors as the demo ships them, `urgent-mend/demo-counter/1`. Days are relative to the moment of reading.

use mend_core::finding::Finding;
use serde::Deserialize;

use crate::item::StockItem;
use crate::reading::{self, Accepted};

const ACCEPTED: Accepted = Accepted { written: "urgent-mend/demo-counter/1", older: &[] };
const RULE: &str = "counter_file";

/// All of it.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CounterFile {
    /// Always `urgent-mend/demo-counter/1`.
    pub format: String,
    /// Who works there.
    pub people: Vec<PersonFile>,
    /// What is on the shelf.
    pub items: Vec<StockedFile>,
    /// What is taken for what.
    pub look_alikes: Vec<LookAlikeFile>,
    /// What jobs need, by the jobs' numbers.
    pub needs: Vec<NeedFile>,
    /// What parts come off.
    pub donors: Vec<DonorFile>,
}

/// Somebody.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PersonFile {
    /// Name.
    pub name: String,
    /// `owner`, `technician`, `trainee` or `counter`.
    pub role: String,
    /// `learning`, `trained` or `practised`.
    pub level: String,
}

/// An item with what happened to it.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StockedFile {
    /// What it is.
    pub item: StockItem,
    /// How much came in, and how many days ago that was.
    pub received: DatedAmount,
    /// What was used since.
    #[serde(default)]
    pub used: Vec<DatedAmount>,
    /// What is on its way: how much, and minus how many days until it comes.
    #[serde(default)]
    pub on_order: Option<DatedAmount>,
}

/// So much, some days ago; a day to come is less than nothing.
#[derive(Debug, Clone, Copy, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DatedAmount {
    /// In the item's unit.
    pub quantity: f64,
    /// Days.
    pub days_ago: i64,
}

/// Two that are taken for each other.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LookAlikeFile {
    /// One, by name.
    pub item: String,
    /// The other.
    pub other: String,
    /// What tells them apart.
    pub difference: String,
}

/// What a job needs.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct NeedFile {
    /// The job's number.
    pub job: i64,
    /// The item, by name.
    pub item: String,
    /// How much.
    pub quantity: f64,
}

/// A donor.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct DonorFile {
    /// What it is.
    pub name: String,
    /// What is still on it, a line each.
    pub holds: String,
    /// Its harvest, by the job's number.
    #[serde(default)]
    pub job: Option<i64>,
}

/// Reads it.
pub fn parse(bytes: &[u8]) -> Result<CounterFile, Vec<Finding>> {
    let file: CounterFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    Ok(file)
}
