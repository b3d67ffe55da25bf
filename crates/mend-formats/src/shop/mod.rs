//! A job as a file, `urgent-mend/demo-job/2`: what the demo ships, and what another shop can read.

pub mod counter;

use std::collections::BTreeMap;

use mend_core::finding::Finding;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::shop::{IntakeField, check_field};
use serde::{Deserialize, Serialize};

use crate::reading::{self, Accepted};
use crate::record::is_check;

/// The format's name.
pub const FORMAT: &str = "urgent-mend/demo-job/2";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/job/1"] };
const RULE: &str = "job_file";

/// The file as it is written. Times are relative to the moment of reading, so that a demo is always of this week.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct JobFile {
    /// Always `urgent-mend/demo-job/2`.
    pub format: String,
    /// Hours since it was taken in.
    pub taken_in_hours_ago: f64,
    /// Days until it is due; negative: late.
    #[serde(default)]
    pub due_in_days: Option<i64>,
    /// The intake's fields by key.
    pub intake: BTreeMap<String, String>,
    /// File name of its board, without ending.
    #[serde(default)]
    pub board: Option<String>,
    /// Its heat plan's inputs.
    #[serde(default)]
    pub plan: Option<PlanInputs>,
    /// The inputs of its fit's plan.
    #[serde(default)]
    pub fit: Option<PlanInputs>,
    /// The bench run: presses as [name, seconds after its start].
    #[serde(default)]
    pub run: Option<RunFile>,
    /// Pins by name and mark.
    #[serde(default)]
    pub pins: BTreeMap<String, String>,
    /// What was found of its lands, pins and tests: list, name and value.
    #[serde(default)]
    pub checks: BTreeMap<String, BTreeMap<String, String>>,
    /// What was found while inside.
    #[serde(default)]
    pub extras: Vec<ExtraFile>,
    /// The device whose opening map it goes by, and how many things of it are out and back.
    #[serde(default)]
    pub opening: Option<OpenedFile>,
    /// A test that failed, and where it went back to.
    #[serde(default)]
    pub went_back: Option<WentBackFile>,
    /// It was given back as it is: who said so, the reason and the fee.
    #[serde(default)]
    pub declined: Option<WentBackFile>,
    /// Its photographs.
    #[serde(default)]
    pub photos: Vec<JobPhotoFile>,
    /// Has it been handed over?
    #[serde(default)]
    pub handed_over: bool,
}

/// A photograph of the demo.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct JobPhotoFile {
    /// Its place among the demo's photographs, from 1.
    pub photo: usize,
    /// At which stop it was taken, as its address ends.
    pub stop: String,
    /// What is to be seen.
    pub words: String,
    /// On the customer's sheet?
    #[serde(default)]
    pub on_sheet: bool,
}

/// Who went back with a job or gave it back as it is, and why.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct WentBackFile {
    /// Who.
    pub who: String,
    /// What failed, why, and to which stop it went.
    pub reason: String,
}

/// How far a device is opened.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OpenedFile {
    /// The map's device.
    pub device: String,
    /// So many came out, in the map's order; left out: all.
    #[serde(default)]
    pub out: Option<usize>,
    /// So many of these are back, the last out first.
    #[serde(default)]
    pub back: usize,
}

/// Something that was found while inside.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ExtraFile {
    /// What.
    pub what: String,
    /// Its price; left out: nothing.
    #[serde(default)]
    pub price: String,
    /// `accepted` or `declined`; left out: not answered yet.
    #[serde(default)]
    pub answer: String,
    /// Who answered.
    #[serde(default)]
    pub who: String,
}

/// A bench run that has begun.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct RunFile {
    /// Hours since it was opened.
    pub started_hours_ago: f64,
    /// Presses: name and seconds after the start.
    pub presses: Vec<(String, f64)>,
    /// The cleaning ledger: `fed`, `flooded` or `wicked`, and seconds after the start.
    #[serde(default)]
    pub ledger: Vec<(String, f64)>,
}

/// Reads a job file; every intake field is checked as if it were typed.
pub fn parse(bytes: &[u8]) -> Result<JobFile, Vec<Finding>> {
    let mut file: JobFile = reading::json(RULE, bytes)?;
    reading::expect_format(RULE, &file.format, &ACCEPTED)?;
    let mut found = Vec::new();
    for (key, value) in &mut file.intake {
        match IntakeField::named(key).map(|field| check_field(field, value)) {
            Some(Ok(kept)) => *value = kept,
            Some(Err(finding)) => found.push(finding),
            None => found.push(Finding::written(RULE, key.as_str(), "no such field")),
        }
    }
    for (list, checks) in &file.checks {
        for (name, value) in checks.iter().filter(|(_, value)| !is_check(list, value)) {
            let message = format!("“{value}” is nothing that is found in such a list");
            found.push(Finding::written(RULE, format!("checks.{list}.{name}"), message));
        }
    }
    if found.is_empty() { Ok(file) } else { Err(found) }
}

/// A plan's inputs as stored: the same JSON for the same inputs, so that a stored plan is found again.
pub fn write_inputs(inputs: &PlanInputs) -> Result<String, serde_json::Error> {
    serde_json::to_string(inputs)
}

/// Read back.
pub fn read_inputs(json: &str) -> Option<PlanInputs> {
    serde_json::from_str(json).ok()
}
