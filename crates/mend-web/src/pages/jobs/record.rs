//! A job's record: everything that was entered, when, and by whom.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::shop::IntakeField;
use mend_store::RecordRow;

use super::{JobPath, number};
use crate::App;
use crate::job::{Job, REOPENED};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::review::stop_name;

/// An entry, in words.
struct EntryView {
    at: String,
    /// The day that begins with it; empty: it goes on.
    day: String,
    what: String,
    value: String,
    who: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/record.html")]
pub(crate) struct RecordPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    entries: Vec<EntryView>,
    /// Did anybody sign in for any of it?
    named: bool,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<RecordPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let id = job.row.id;
    let rows = app.reading(move |read| read.record(id)).await?;
    let named = rows.iter().any(|row| !row.who.is_empty());
    let (mut last_day, mut entries) = (String::new(), Vec::new());
    for row in rows {
        let at = app.moment_of(row.at_ms);
        let day = at.strftime("%A %-d %B %Y").to_string();
        let is_new = day != last_day;
        last_day.clone_from(&day);
        let (day, at) = (if is_new { day } else { String::new() }, at.strftime("%H:%M:%S").to_string());
        entries.push(EntryView { at, day, what: what(&row), value: value(&row), who: row.who });
    }
    Ok(RecordPage {
        frame: Frame::new(format!("Record of job {id}"), visitor.scale, "bench", format!("/jobs/{id}/record")),
        head: JobHead::from_job(&job, None, app.now().date()),
        oob: false,
        entries,
        named,
    })
}

/// What was entered.
fn what(row: &RecordRow) -> String {
    match row.kind.as_str() {
        "taken-in" => "Taken in".to_owned(),
        "intake" => intake_label(&row.what),
        "event" => event_name(&row.what),
        "pin" => format!("Pin {}", row.what),
        "check" => list_name(&row.what),
        "extra" => format!("Found: {}", row.what),
        "answer" => format!("Offered: {}", row.what),
        "quote" => format!("Quote {}", row.what),
        "word" => format!("Word on quote {}", row.what),
        "stock" => format!("Stock, {}", row.what),
        "photo" => format!("Photograph, {}", stop_name(&row.what).to_lowercase()),
        _ => log_name(&row.what),
    }
}

fn value(row: &RecordRow) -> String {
    let taken_back = row.value.is_empty() && matches!(row.kind.as_str(), "pin" | "check");
    if taken_back { "taken back".to_owned() } else { row.value.clone() }
}

fn intake_label(key: &str) -> String {
    IntakeField::ALL.iter().find(|field| field.key == key).map_or(key, |field| field.label).to_owned()
}

/// What happened at the bench.
fn event_name(kind: &str) -> String {
    let name = match kind {
        "go" => "Next step",
        "undo" => "Last entry taken back",
        "stopped" => "Stopped: the abort time came first",
        "shone" => "Shines",
        "fed" => "Fed",
        "flooded" => "Flooded",
        "wicked" => "Wicked",
        "overridden" => "Went on against the ledger",
        other => other,
    };
    name.to_owned()
}

/// The list and the name that a check is entered under.
fn list_name(list_and_name: &str) -> String {
    let (list, name) = list_and_name.split_once(' ').unwrap_or((list_and_name, ""));
    let list = match list {
        "before" => "Reading before,",
        "off" => "Reading with the part off,",
        "after" => "Reading after,",
        "good" => "Reading of a good board,",
        "condition" => "Land",
        "condition-after" => "Land with the part off",
        "between" => "Between pins",
        "components" => "Component",
        "values" => "Measured",
        "test-open" => "Test, open:",
        "test-closed" => "Test, closed:",
        "opening" => "Opening map, item",
        "look-alike" => "Told from a look-alike,",
        "skipped" => return format!("Stop skipped: {}", stop_name(name).to_lowercase()),
        other => other,
    };
    format!("{list} {name}")
}

fn log_name(what: &str) -> String {
    let name = match what {
        "handed-over" => "Handed over",
        REOPENED => "Reopened",
        "declined" => "Declined",
        "went-back" => "Went back to an earlier stop",
        other => other,
    };
    name.to_owned()
}
