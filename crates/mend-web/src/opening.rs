//! Fills an empty shop from files of the open formats: how the demo comes about, and how a shop could move in.

use std::collections::BTreeMap;

use jiff::ToSpan;
use mend_core::finding::Finding;
use mend_formats::shop::JobFile;
use mend_formats::{board, means, shop, station};
use mend_store::{LedgerRow, NewBoard, PressRow};

use crate::App;
use crate::job::Job;
use crate::photograph;
use crate::planner;
use crate::refusal::Refusal;

/// Files by name without ending, each the text of one format.
#[derive(Debug, Clone, Default)]
pub struct ShopFiles {
    /// `urgent-mend/board/1`.
    pub boards: BTreeMap<String, String>,
    /// `urgent-mend/means/1`, if the shop has said what it has.
    pub means: Option<String>,
    /// `urgent-mend/station/1`.
    pub stations: BTreeMap<String, String>,
    /// Photographs, JPEG; drafts name them by their place in this list, from 1.
    pub photos: BTreeMap<String, Vec<u8>>,
    /// `urgent-mend/draft/1`: each becomes a board, or the next version of the board of its name.
    pub drafts: BTreeMap<String, String>,
    /// `urgent-mend/job/1`, oldest first.
    pub jobs: BTreeMap<String, String>,
}

/// Why a shop could not be filled.
#[derive(Debug, thiserror::Error)]
#[error("{file}: {why}")]
pub struct CannotOpen {
    file: String,
    why: String,
}

impl CannotOpen {
    fn findings(file: &str, findings: &[Finding]) -> Self {
        let said = findings.iter().map(|f| format!("{}: {} ({})", f.place, f.message, f.hint));
        Self { file: file.to_owned(), why: said.collect::<Vec<_>>().join("; ") }
    }
    fn refusal(file: &str, refusal: Refusal) -> Self {
        match refusal {
            Refusal::Bad(findings) => Self::findings(file, &findings),
            other => Self { file: file.to_owned(), why: format!("{other:?}") },
        }
    }
}

/// Puts all of it into the shop; every job's plan is computed by the real solver.
pub async fn fill(app: &App, files: &ShopFiles) -> Result<(), CannotOpen> {
    for (name, file) in &files.stations {
        let station = station::parse(file.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let file = file.clone();
        let added = app.writing(move |w| w.add_station(&station.name, &file)).await;
        added.map_err(|r| CannotOpen::refusal(name, r))?;
    }
    if let Some(file) = &files.means {
        means::parse(file.as_bytes()).map_err(|f| CannotOpen::findings("means", &f))?;
        let (file, now) = (file.clone(), app.now_ms());
        app.writing(move |w| w.set_means(&file, now)).await.map_err(|r| CannotOpen::refusal("means", r))?;
    }
    let mut boards = BTreeMap::new();
    for (name, text) in &files.boards {
        let parsed = board::parse(text.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let (new, now) = (NewBoard { name: parsed.name, file: text.clone(), draft: None }, app.now_ms());
        let added = app.writing(move |w| w.add_board(&new, now)).await;
        if let Some(row) = added.map_err(|r| CannotOpen::refusal(name, r))? {
            boards.insert(name.clone(), row.id);
        }
    }
    let photos = add_photos(app, files).await?;
    for (name, text) in &files.drafts {
        let id = add_draft(app, text, &photos).await.map_err(|r| CannotOpen::refusal(name, r))?;
        boards.insert(name.clone(), id);
    }
    for (name, file) in &files.jobs {
        let job = shop::parse(file.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        add_job(app, &job, &boards).await.map_err(|r| CannotOpen::refusal(name, r))?;
    }
    Ok(())
}

/// Their numbers in the shop, in order.
async fn add_photos(app: &App, files: &ShopFiles) -> Result<Vec<i64>, CannotOpen> {
    let mut numbers = Vec::new();
    for (name, jpeg) in &files.photos {
        let photo = photograph::keep(jpeg).map_err(|f| CannotOpen::findings(name, &f))?;
        let now = app.now_ms();
        let added = app.writing(move |w| w.add_photo(&photo, now)).await;
        numbers.push(added.map_err(|r| CannotOpen::refusal(name, r))?);
    }
    Ok(numbers)
}

async fn add_draft(app: &App, text: &str, photos: &[i64]) -> Result<i64, Refusal> {
    let mut draft = mend_formats::draft::parse(text.as_bytes())?;
    for photo in &mut draft.photos {
        let place = usize::try_from(photo.id - 1).ok();
        photo.id = place.and_then(|k| photos.get(k)).copied().ok_or(Refusal::NotFound("photograph"))?;
    }
    let board = draft.board()?;
    let (name, file) = (board.name.clone(), board::write(&board));
    let new = NewBoard { name: name.clone(), file, draft: Some(mend_formats::draft::write(&draft)) };
    let now = app.now_ms();
    let write = move |w: &mend_store::Write<'_>| match w.read().boards()?.into_iter().find(|row| row.name == name) {
        Some(row) => w.add_version(row.model_id, &new, now),
        None => w.add_board(&new, now),
    };
    app.writing(write).await?.map(|row| row.id).ok_or(Refusal::NotFound("board"))
}

async fn add_job(app: &App, file: &JobFile, boards: &BTreeMap<String, i64>) -> Result<(), Refusal> {
    let now = app.now();
    let hours_ago = |hours: f64| now.timestamp().as_millisecond() - (hours * 3_600_000.0) as i64;
    let taken_in = hours_ago(file.taken_in_hours_ago);
    let due = file.due_in_days.and_then(|days| now.date().checked_add(days.days()).ok());
    let mut intake = file.intake.clone();
    intake.extend(due.map(|day| ("due".to_owned(), day.to_string())));
    let board = file.board.as_ref().and_then(|name| boards.get(name)).copied();
    let id = app
        .writing(move |w| {
            let id = w.add_job(taken_in)?;
            for (field, value) in &intake {
                w.set_intake(id, (field, value), taken_in)?;
            }
            board.map(|board| w.choose_board(id, board)).transpose()?;
            Ok(id)
        })
        .await?;
    if let Some(inputs) = &file.plan {
        let planned = planner::plan_job(app, &Job::load(app, id).await?, inputs).await?;
        add_run(app, file, (id, planned.id)).await?;
    }
    let (pins, handed) = (file.pins.clone(), file.handed_over.then(|| now.timestamp().as_millisecond()));
    app.writing(move |w| {
        for (pin, mark) in &pins {
            w.mark_pin(id, (pin, mark), taken_in)?;
        }
        handed.map(|at| w.hand_over(id, Some(at))).transpose()?;
        Ok(())
    })
    .await
}

async fn add_run(app: &App, file: &JobFile, (job, plan): (i64, i64)) -> Result<(), Refusal> {
    let Some(run) = file.run.clone() else { return Ok(()) };
    let started = app.now_ms() - (run.started_hours_ago * 3_600_000.0) as i64;
    app.writing(move |w| {
        let id = w.add_run(job, plan, started)?;
        for (k, (press, seconds)) in run.presses.iter().enumerate() {
            let press = PressRow { press: press.clone(), at_ms: started + (seconds * 1000.0) as i64 };
            w.add_press(id, &press, &format!("file-{k}"))?;
        }
        for (k, (act, seconds)) in run.ledger.iter().enumerate() {
            let at_ms = started + (seconds * 1000.0) as i64;
            let entry = LedgerRow { act: act.clone(), row: String::new(), reason: String::new(), at_ms };
            w.add_ledger(id, &entry, &format!("file-{k}"))?;
        }
        Ok(())
    })
    .await
}
