//! Jobs with everything that needs no plan: intake, board, pins, what was found, how far it is opened, photographs.

use jiff::ToSpan;
use mend_formats::opening;
use mend_formats::shop::{ExtraFile, JobFile, JobPhotoFile, OpenedFile, WentBackFile};
use mend_store::{CheckRow, ExtraRow, JobPhotoRow, LogRow, NewCheck, NewMark, StoreError, TypedField, Write};

use super::library::Library;
use crate::App;
use crate::job::{Job, OPENING, WENT_BACK};
use crate::refusal::Refusal;

/// Puts one down; answers its number.
pub(super) async fn add(app: &App, file: &JobFile, library: &Library) -> Result<i64, Refusal> {
    let now = app.now();
    let taken_in = now.timestamp().as_millisecond() - (file.taken_in_hours_ago * 3_600_000.0) as i64;
    let due = file.due_in_days.and_then(|days| now.date().checked_add(days.days()).ok());
    let mut intake = file.intake.clone();
    intake.extend(due.map(|day| ("due".to_owned(), day.to_string())));
    let board = file.board.as_ref().and_then(|name| library.boards.get(name)).copied();
    let (pins, found) = (file.pins.clone(), file.clone());
    let write = move |w: &Write<'_>| {
        let id = w.add_job(taken_in)?;
        for (field, value) in &intake {
            w.set_intake(id, TypedField::new(field, value), taken_in)?;
        }
        board.map(|board| w.choose_board(id, board)).transpose()?;
        add_found(w, id, &found, taken_in)?;
        for (pin, mark) in &pins {
            let (pin, mark, token) = (pin.clone(), mark.clone(), format!("file-{pin}"));
            w.mark_pin(id, &NewMark { pin, mark, at_ms: taken_in, token })?;
        }
        Job::list(w, id)?;
        Ok(id)
    };
    let id = app.writing(write).await?;
    add_photos(app, id, file, &library.photos).await?;
    Ok(id)
}

/// Its photographs, of those that came with it.
async fn add_photos(app: &App, id: i64, file: &JobFile, photos: &[i64]) -> Result<(), Refusal> {
    let now = app.now_ms();
    for JobPhotoFile { photo, stop, words, on_sheet } in file.photos.iter().cloned() {
        let photo_id = photo.checked_sub(1).and_then(|k| photos.get(k)).copied();
        let photo_id = photo_id.ok_or(Refusal::NotFound("photograph"))?;
        let row = JobPhotoRow { id: 0, photo_id, stop, words, on_sheet, added_ms: now };
        app.changing(id, move |w| w.add_job_photo(id, &row)).await?;
    }
    Ok(())
}

/// How far a device is opened: the first of its map out, and of these the last back.
fn add_opened(w: &Write<'_>, id: i64, opened: &OpenedFile, now_ms: i64) -> Result<(), StoreError> {
    let Some(row) = w.read().openings()?.into_iter().find(|row| row.name == opened.device) else { return Ok(()) };
    w.choose_opening(id, row.id)?;
    let map = opening::parse(row.map.as_bytes()).map(opening::OpeningFile::into_map);
    let items = map.map(|map| map.items).unwrap_or_default();
    let items = items.iter().filter(|item| item.what.comes_out());
    let out: Vec<u32> = items.map(|item| item.id).take(opened.out.unwrap_or(usize::MAX)).collect();
    let taps =
        out.iter().map(|item| (*item, "out")).chain(out.iter().rev().take(opened.back).map(|item| (*item, "back")));
    for (item, tap) in taps {
        let (list, name, value) = (OPENING.to_owned(), item.to_string(), tap.to_owned());
        let token = format!("file-{tap}-{item}");
        w.enter_check(id, &NewCheck { row: CheckRow { list, name, value, entered_ms: now_ms }, token })?;
    }
    Ok(())
}

/// What was found of lands, pins and tests, and while inside.
fn add_found(w: &Write<'_>, id: i64, file: &JobFile, now_ms: i64) -> Result<(), StoreError> {
    for (list, checks) in &file.checks {
        for (name, value) in checks {
            let (list, name, value) = (list.clone(), name.clone(), value.clone());
            let token = format!("file-{list}-{name}");
            w.enter_check(id, &NewCheck { row: CheckRow { list, name, value, entered_ms: now_ms }, token })?;
        }
    }
    if let Some(WentBackFile { who, reason }) = file.went_back.clone() {
        w.log_job(id, &LogRow { what: WENT_BACK.to_owned(), who, reason, at_ms: now_ms })?;
    }
    if let Some(opened) = &file.opening {
        add_opened(w, id, opened, now_ms)?;
    }
    for extra in file.extras.iter().cloned() {
        let ExtraFile { what, price, answer, who } = extra;
        let answered_ms = (!answer.is_empty()).then_some(now_ms);
        w.add_extra(id, &ExtraRow { id: 0, what, price, answer, who, found_ms: now_ms, answered_ms, photo_id: None })?;
    }
    Ok(())
}
