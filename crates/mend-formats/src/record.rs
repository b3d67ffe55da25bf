//! A job with all that is on record of it, `urgent-mend/job/3`: what a shop exports and imports. Times are those of the day
//! on which they were, and the computed plans of its bench runs come along: nothing is computed to read it.

use std::collections::BTreeMap;

use mend_core::board::NominalValue;
use mend_core::finding::Finding;
use mend_core::inspection::PinMark;
use mend_core::inspection::component_check::ComponentState;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::functional_test::TestResult;
use mend_core::inspection::insulation::Insulation;
use mend_core::inspection::sheet::{DiodeReading, SheetPhase};
use mend_core::planning::bench_event::Happening;
use mend_core::planning::sequence::step::Step;
use mend_core::shop::{IntakeField, check_field};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;

use crate::composition;
use crate::reading::{self, Accepted};
use crate::{plan, shop};

/// The format's name.
pub const FORMAT: &str = "urgent-mend/job/3";
pub(crate) const ACCEPTED: Accepted = Accepted { written: FORMAT, older: &["urgent-mend/job/2"] };
const RULE: &str = "job_file";
/// Larger files are refused before they are parsed, bytes: a job with all its plans is far larger than any other file.
const LARGEST: usize = 64 * 1024 * 1024;

/// A job. Moments are ms since the epoch.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct JobRecord {
    /// Always `urgent-mend/job/3`.
    pub format: String,
    /// When it was taken in.
    pub taken_in_ms: i64,
    /// When it was handed over; left out: it is in the shop.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub handed_over_ms: Option<i64>,
    /// The intake's fields by key.
    pub intake: BTreeMap<String, String>,
    /// Its board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub board: Option<BoardName>,
    /// What its joints hold and are fed, as entered.
    #[serde(default, alias = "charge", skip_serializing_if = "Option::is_none")]
    pub composition: Option<Box<RawValue>>,
    /// What its heat plan is set to, as entered: a plan's inputs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub settings: Option<Box<RawValue>>,
    /// What the plan of its fit is set to, as entered: the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fit_settings: Option<Box<RawValue>>,
    /// Its plans that count, oldest first: those of its runs, and the newest.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub plans: Vec<PlanRecord>,
    /// Its plans with one thing changed, by name.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub variants: Vec<VariantRecord>,
    /// Its bench runs, oldest first.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub runs: Vec<RunRecord>,
    /// Pins by name and mark.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub pins: BTreeMap<String, String>,
    /// What was found of its lands, pins and tests.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub checks: Vec<CheckRecord>,
    /// What was found while inside, offered as extra lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub extras: Vec<ExtraRecord>,
    /// How its device was opened.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub opening: Option<OpeningRecord>,
    /// Photographs of it, of the export that it is a part of.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<JobPhotoRecord>,
    /// What handing over, going back and reopening left on record.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub log: Vec<LogRecord>,
}

/// A version of a board model.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct BoardName {
    /// The model's name.
    pub model: String,
    /// Which version, from 1.
    pub version: i64,
}

/// A plan.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlanRecord {
    /// The board that it is for.
    pub board: BoardName,
    /// What it was made from.
    pub inputs: Box<RawValue>,
    /// The plan, `urgent-mend/plan/2`.
    pub plan: Box<RawValue>,
    /// The station that it was computed with, `urgent-mend/station/1`, as it was then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub station: Option<String>,
    /// When it was made.
    pub made_ms: i64,
}

/// A variant.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct VariantRecord {
    /// Its name.
    pub name: String,
    /// What it is planned from.
    pub inputs: Box<RawValue>,
}

/// A bench run.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct RunRecord {
    /// The plan that it follows: its place in the list, from 0.
    pub plan: usize,
    /// When it was opened.
    pub opened_ms: i64,
    /// Its steps as they were; left out: of a version that did not keep them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steps: Option<Box<RawValue>>,
    /// The component that the bench's thermometer was taped onto; left out: beside the part.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub taped_on: String,
    /// What happened, in its sequence.
    pub events: Vec<EventRecord>,
    /// What was said of its heatings while they were watched.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub states: Vec<StateRecord>,
    /// What a thermometer read meanwhile.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub readings: Vec<ReadingRecord>,
}

/// A reading of a heating.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ReadingRecord {
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// How long after that, ms.
    pub after_ms: i64,
    /// °C; left out: it read nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub celsius: Option<f64>,
}

/// What was said of a heating at a moment, as it was shown.
#[derive(Debug, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct StateRecord {
    /// The step, from 0.
    pub step: i64,
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// Seconds from air on.
    pub at_s: i64,
    /// A line of docs/formats/live.md.
    pub says: Box<RawValue>,
}

/// An event.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct EventRecord {
    /// `go`, `stopped`, `undo`, `shone`, `fed`, `flooded`, `wicked` or `overridden`.
    pub kind: String,
    /// The step at which it was entered, from 0; -1: not known.
    pub step: i64,
    /// Of the ledger: a row of the connector; empty: all of them.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub row: String,
    /// Why one went on against the arithmetic.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub reason: String,
    /// When it was entered, ms since the run was opened.
    pub at_ms: i64,
    /// When the shop had it, ms since the run was opened.
    pub came_ms: i64,
    /// The time of day at which the shop had it.
    pub arrived_ms: i64,
    /// As the browser named it.
    pub token: String,
}

/// A line of the record.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct LogRecord {
    /// `handed-over`, `went-back`, `declined` or `reopened`.
    pub what: String,
    /// Who.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub who: String,
    /// Why.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub reason: String,
    /// When.
    pub at_ms: i64,
}

/// What was found of a land, a pin or a test.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CheckRecord {
    /// `before`, `off`, `after`, `good` (readings of the diode sheet), `condition`, `test-open`, `test-closed` or `skipped`.
    pub list: String,
    /// The pin, joint, test or stop.
    pub name: String,
    /// Volts or `open`; a state; a result; `skipped`.
    pub value: String,
    /// When.
    pub at_ms: i64,
}

/// How a device was opened: by which map of the export, and what was tapped.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct OpeningRecord {
    /// The map's place in the export's `openings`, from 1.
    pub map: usize,
    /// Taps in their sequence.
    pub taps: Vec<TapRecord>,
}

/// A tap.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct TapRecord {
    /// The thing's number on the map; `undo`.
    pub item: String,
    /// `out`, `back` or `undo`.
    pub tap: String,
    /// When.
    pub at_ms: i64,
}

/// A photograph of a job.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct JobPhotoRecord {
    /// Its place in the export's `photos`, from 1.
    pub photo: i64,
    /// The stop at which it was taken, as its address has it.
    pub stop: String,
    /// What is to be seen; left out: nothing said.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub words: String,
    /// Is it shown on the customer's sheet?
    #[serde(default)]
    pub on_sheet: bool,
    /// When it was brought in.
    pub added_ms: i64,
}

/// An extra line.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ExtraRecord {
    /// What was found.
    pub what: String,
    /// Its price; left out: nothing.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub price: String,
    /// `accepted` or `declined`; left out: not answered.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub answer: String,
    /// Who answered.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub who: String,
    /// When it was found.
    pub found_ms: i64,
    /// When it was answered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub answered_ms: Option<i64>,
    /// Its picture, by its place among the export's photographs, from 1.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<i64>,
}

/// May this be found in a list of checks?
pub(crate) fn is_check(list: &str, value: &str) -> bool {
    match list {
        "condition" | "condition-after" => Condition::named(value).is_some(),
        "between" => Insulation::named(value).is_some(),
        "components" => ComponentState::named(value).is_some(),
        "values" => value.parse::<NominalValue>().is_ok(),
        "test-open" | "test-closed" => TestResult::named(value).is_some(),
        "skipped" => value == "skipped",
        list => SheetPhase::from_key(list).is_some() && DiodeReading::parse(value).is_ok(),
    }
}

/// Reads a record; everything in it is checked as if it were entered.
pub fn parse(bytes: &[u8]) -> Result<JobRecord, Vec<Finding>> {
    let record: JobRecord = reading::json_up_to(RULE, bytes, LARGEST)?;
    reading::expect_format(RULE, &record.format, &ACCEPTED)?;
    let mut found = Vec::new();
    for (key, value) in &record.intake {
        match IntakeField::named(key).map(|field| check_field(field, value)) {
            Some(Ok(_)) => {}
            Some(Err(finding)) => found.push(finding),
            None => found.push(Finding::written(RULE, key.as_str(), "no such field")),
        }
    }
    let mut want = |place: String, holds: bool, what: &str| {
        if !holds {
            found.push(Finding::written(RULE, place, what).hint("see docs/formats/job.md"));
        }
    };
    let of = |raw: &Option<Box<RawValue>>, fits: fn(&str) -> bool| raw.as_ref().is_none_or(|raw| fits(raw.get()));
    want(
        "composition".to_owned(),
        of(&record.composition, |text| composition::parse(text).is_some()),
        "no composition",
    );
    let readable = of(&record.fit_settings, |text| shop::read_inputs(text).is_some());
    want("fit_settings".to_owned(), readable, "no plan's inputs");
    want("settings".to_owned(), of(&record.settings, |text| shop::read_inputs(text).is_some()), "no plan's inputs");
    for (k, one) in record.plans.iter().enumerate() {
        want(format!("plans[{k}].inputs"), shop::read_inputs(one.inputs.get()).is_some(), "no plan's inputs");
        want(format!("plans[{k}].plan"), plan::read_kept(one.plan.get()).is_some(), "no plan");
    }
    for (k, variant) in record.variants.iter().enumerate() {
        want(format!("variants[{k}]"), shop::read_inputs(variant.inputs.get()).is_some(), "no plan's inputs");
    }
    for (k, run) in record.runs.iter().enumerate() {
        want(format!("runs[{k}].plan"), run.plan < record.plans.len(), "there is no such plan in the list");
        let steps = of(&run.steps, |text| serde_json::from_str::<Vec<Step>>(text).is_ok());
        want(format!("runs[{k}].steps"), steps, "no steps");
        for (e, event) in run.events.iter().enumerate() {
            let known = Happening::named(&event.kind, &event.row, &event.reason).is_some();
            want(format!("runs[{k}].events[{e}].kind"), known, "nothing that happens at the bench");
        }
    }
    for (k, check) in record.checks.iter().enumerate() {
        want(format!("checks[{k}]"), is_check(&check.list, &check.value), "nothing that is found in such a list");
    }
    for (k, extra) in record.extras.iter().enumerate() {
        let answers = ["", "accepted", "declined"].contains(&extra.answer.as_str());
        want(format!("extras[{k}].answer"), answers, "no answer");
    }
    for (pin, mark) in &record.pins {
        want(format!("pins.{pin}"), PinMark::named(mark).is_some(), "no mark");
    }
    if found.is_empty() { Ok(record) } else { Err(found) }
}

/// Writes a record.
pub fn write(record: &JobRecord) -> Result<String, serde_json::Error> {
    Ok(serde_json::to_string_pretty(record)? + "\n")
}

/// A stored text as a part of a record; none where it is no JSON.
pub fn raw(text: &str) -> Option<Box<RawValue>> {
    RawValue::from_string(text.to_owned()).ok()
}
