//! Everything that a shop holds, read once: what can't be read is named with what to do.

use mend_core::finding::Finding;
use mend_core::planning::bench_event::Happening;
use mend_core::planning::sequence::step::Step;
use mend_formats::{board, connector, draft, equipment, lesson, plan, shop, shop_settings, station};
use mend_store::{Read, StoreError};

use super::CannotFill;
use crate::App;
use crate::job::Summary;
use crate::words::Words;

/// A line for everything that can't be read; none: all is well.
pub async fn check(app: &App) -> Result<Vec<String>, CannotFill> {
    let refused = |refusal| CannotFill::refusal("the shop", refusal);
    let mut found = app.reading(|read| read.integrity()).await.map_err(refused)?;
    found.extend(app.reading(library).await.map_err(refused)?);
    let numbers = app.reading(|read| read.job_numbers()).await.map_err(refused)?;
    for id in numbers {
        found.extend(app.reading(move |read| job(read, id)).await.map_err(refused)?);
    }
    Ok(found)
}

/// Notes a text that can't be read as what it should be.
struct Notes(Vec<String>);

impl Notes {
    fn want<T>(&mut self, what: &str, read: Result<T, Vec<Finding>>) {
        if let Err(findings) = read {
            self.0.push(format!("{what} can't be read: {}", Words::default().first(&findings)));
        }
    }

    fn hold(&mut self, what: &str, holds: bool) {
        if !holds {
            self.0.push(format!("{what} can't be read: it is not of our format"));
        }
    }
}

fn library(read: Read<'_>) -> Result<Vec<String>, StoreError> {
    let mut notes = Notes(Vec::new());
    for row in read.stations()? {
        notes.want(&format!("station {} “{}”", row.id, row.name), station::parse(row.file.as_bytes()));
    }
    for row in read.connectors()? {
        notes.want(&format!("connector {} “{}”", row.id, row.name), connector::parse(row.file.as_bytes()));
    }
    for row in read.all_boards()? {
        let name = format!("board {} “{}”, revision {}", row.id, row.name, row.version);
        notes.want(&name, board::parse(row.file.as_bytes()));
        if let Some(text) = row.draft {
            notes.want(&format!("the draft of {name}"), draft::parse(text.as_bytes()));
        }
    }
    for row in read.drafts()? {
        notes.want(&format!("draft {}", row.id), draft::parse(row.draft.as_bytes()));
    }
    for row in read.lessons()? {
        notes.want(&format!("lesson {}", row.id), lesson::parse(row.lesson.says.as_bytes()));
    }
    if let Some(file) = read.equipment()? {
        notes.want("equipment and skill", equipment::parse(file.as_bytes()));
    }
    if let Some(file) = read.shop()? {
        notes.want("shop settings", shop_settings::parse(file.as_bytes()));
    }
    Ok(notes.0)
}

fn job(read: Read<'_>, id: i64) -> Result<Vec<String>, StoreError> {
    let mut notes = Notes(Vec::new());
    let of = |what: &str| format!("{what} of job {id}");
    if let Some(text) = read.composition(id)? {
        notes.hold(&of("the solder"), mend_formats::composition::parse(&text).is_some());
    }
    if let Some(text) = read.settings(id)? {
        notes.hold(&of("the heat settings"), shop::read_inputs(&text).is_some());
    }
    if let Some(text) = read.fit_settings(id)? {
        notes.hold(&of("the fit's settings"), shop::read_inputs(&text).is_some());
    }
    if let Some(row) = read.listed_job(id)? {
        notes.hold(&of("the list's row"), Summary::parse(&row.summary).is_ok());
    }
    for variant in read.variants(id)? {
        notes.hold(&of(&format!("variant “{}”", variant.name)), shop::read_inputs(&variant.inputs).is_some());
    }
    for run in read.runs_of(id)? {
        let name = of(&format!("bench run {}", run.id));
        let steps = run.steps.as_deref().is_none_or(|text| serde_json::from_str::<Vec<Step>>(text).is_ok());
        notes.hold(&format!("the steps of {name}"), steps);
        let plan = read.plan(run.plan_id)?;
        let readable =
            plan.is_some_and(|row| plan::read_kept(&row.plan).is_some() && shop::read_inputs(&row.inputs).is_some());
        notes.hold(&format!("the plan of {name}"), readable);
        for (k, event) in read.events(run.id)?.iter().enumerate() {
            let known = Happening::named(&event.kind, &event.row, &event.reason).is_some();
            notes.hold(&format!("event {} of {name}", k + 1), known);
        }
    }
    Ok(notes.0)
}
