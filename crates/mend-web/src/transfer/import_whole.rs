//! A whole export into an empty shop.

use std::collections::BTreeMap;

use mend_formats::export::{BoardEntry, Export, InstrumentEntry};
use mend_formats::{board, draft, export as format, lesson, opening, record, station};
use mend_store::{InstrumentRow, NewBoard, NewDraft, NewLesson, NewPhoto, Write};

use super::import_file::{import_file, text};
use super::put_job::{ExportPlaces, put_job};
use super::{CannotFill, floor};
use crate::App;

/// Reads files of a whole export by their names.
pub type Source<'a> = &'a (dyn Fn(&str) -> std::io::Result<Vec<u8>> + Sync);

/// Puts a whole export into an empty shop; answers how many jobs.
pub async fn import_whole(app: &App, list: &[u8], source: Source<'_>) -> Result<usize, CannotFill> {
    let list = format::parse(list).map_err(|found| CannotFill::findings(format::FILE, &found))?;
    let load = |name: &str| source(name).map_err(|error| CannotFill::because(name, &error.to_string()));
    let (jobs, any) = app
        .reading(|read| Ok((read.has_jobs()?, read.has_boards()? || !read.stations()?.is_empty())))
        .await
        .map_err(|refusal| CannotFill::refusal("the shop", refusal))?;
    if jobs || any {
        return Err(CannotFill::because(format::FILE, "a whole export goes into an empty shop: make one with init"));
    }
    for name in list.shop.iter().chain(&list.equipment).chain(&list.connectors) {
        import_file(app, name, &load(name)?).await?;
    }
    instruments(app, &list).await?;
    stations(app, &list, &load).await?;
    let photos = photos(app, &list, &load).await?;
    let openings = openings(app, &list, &photos, &load).await?;
    let mut boards = BTreeMap::new();
    for entry in &list.boards {
        let id = whole_board(app, entry, &photos, &load).await?;
        boards.insert(entry.board.clone(), id);
    }
    let mut jobs = Vec::new();
    for name in &list.jobs {
        let record = record::parse(&load(name)?).map_err(|found| CannotFill::findings(name, &found))?;
        let (boards, photos, openings, now) = (boards.clone(), photos.clone(), openings.clone(), app.now_ms());
        let write = move |w: &Write<'_>| {
            let places = ExportPlaces { boards: &boards, photos: &photos, openings: &openings, jobs: &[] };
            put_job(w, &record, places, now)
        };
        let put = app.writing(write).await.and_then(|done| done);
        jobs.push(put.map_err(|refusal| CannotFill::refusal(name, refusal))?);
    }
    if let Some(name) = &list.floor {
        let file = mend_formats::floor::parse(&load(name)?).map_err(|found| CannotFill::findings(name, &found))?;
        let (jobs, now) = (jobs.clone(), app.now_ms());
        let put = app.writing(move |w| floor::put_floor(w, &file, &jobs, now)).await;
        put.map_err(|refusal| CannotFill::refusal(name, refusal))?;
    }
    let places = ExportPlaces { boards: &boards, photos: &photos, openings: &openings, jobs: &jobs };
    drafts(app, &list, places, &load).await?;
    lessons(app, &list, places, &load).await?;
    Ok(jobs.len())
}

type Load<'a> = &'a dyn Fn(&str) -> Result<Vec<u8>, CannotFill>;

async fn instruments(app: &App, list: &Export) -> Result<(), CannotFill> {
    for InstrumentEntry { name, kind, address, at_bench } in list.instruments.iter().cloned() {
        let row = InstrumentRow { id: 0, name, kind, address, at_bench };
        let put = app.writing(move |w| w.put_instrument(&row)).await;
        put.map_err(|refusal| CannotFill::refusal(format::FILE, refusal))?;
    }
    Ok(())
}

async fn stations(app: &App, list: &Export, load: Load<'_>) -> Result<(), CannotFill> {
    for entry in &list.stations {
        let refused = |refusal| CannotFill::refusal(&entry.file, refusal);
        let bytes = load(&entry.file)?;
        let name = station::read(&bytes).map_err(|found| CannotFill::findings(&entry.file, &found))?.name;
        let (file, names, retired) = (text(&bytes).map_err(refused)?, entry.names.clone(), entry.retired_ms);
        let write = move |w: &Write<'_>| {
            let Some(id) = w.add_station(&name, &file)? else { return Ok(()) };
            names.iter().try_for_each(|name| w.also_name_station(id, name))?;
            w.retire_station(id, retired)
        };
        app.writing(write).await.map_err(refused)?;
    }
    Ok(())
}

async fn lessons(app: &App, list: &Export, places: ExportPlaces<'_>, load: Load<'_>) -> Result<(), CannotFill> {
    let ExportPlaces { boards, jobs, .. } = places;
    let stations = app.reading(|read| read.stations()).await;
    let stations = stations.map_err(|refusal| CannotFill::refusal(format::FILE, refusal))?;
    for entry in &list.lessons {
        let bytes = load(&entry.file)?;
        lesson::parse(&bytes).map_err(|found| CannotFill::findings(&entry.file, &found))?;
        let refused = |refusal| CannotFill::refusal(&entry.file, refusal);
        let station = stations.get(entry.station);
        let station =
            station.ok_or_else(|| CannotFill::because(&entry.file, "it names a station that is not listed"))?;
        let unknown = || CannotFill::because(&entry.file, "it names a board that is not listed");
        let board_id = entry.board.as_ref().map(|name| boards.get(name).copied().ok_or_else(unknown)).transpose()?;
        let new = NewLesson {
            kind: entry.kind.clone(),
            station_id: station.id,
            nozzle_mm: entry.nozzle_mm,
            board_id,
            job_id: entry.job.and_then(|k| jobs.get(k)).copied(),
            says: text(&bytes).map_err(refused)?,
            entered: serde_json::to_string(&entry.entered).unwrap_or_default(),
            figures: entry.figures.clone(),
        };
        let (taught_ms, left_out) = (entry.taught_ms, entry.left_out.clone());
        let write = move |w: &Write<'_>| {
            let id = w.add_lesson(&new, taught_ms)?;
            w.leave_lesson_out(id, left_out.as_deref())
        };
        app.writing(write).await.map_err(refused)?;
    }
    Ok(())
}

async fn photos(app: &App, list: &Export, load: Load<'_>) -> Result<Vec<i64>, CannotFill> {
    let mut numbers = Vec::new();
    for entry in &list.photos {
        let (photo, now) = (NewPhoto { jpeg: load(&entry.file)?, size: entry.size_px }, app.now_ms());
        let added = app.writing(move |w| w.add_photo(&photo, now)).await;
        numbers.push(added.map_err(|refusal| CannotFill::refusal(&entry.file, refusal))?);
    }
    Ok(numbers)
}

/// A draft's text with its photographs named as the store names them.
fn numbered(name: &str, bytes: &[u8], photos: &[i64]) -> Result<String, CannotFill> {
    let mut read = draft::parse(bytes).map_err(|found| CannotFill::findings(name, &found))?;
    for photo in &mut read.photos {
        let number = usize::try_from(photo.id - 1).ok().and_then(|k| photos.get(k)).copied();
        photo.id = number.ok_or_else(|| CannotFill::because(name, "it names a photograph that is not listed"))?;
    }
    draft::write(&read).map_err(|error| CannotFill::because(name, &error.to_string()))
}

async fn whole_board(app: &App, entry: &BoardEntry, photos: &[i64], load: Load<'_>) -> Result<i64, CannotFill> {
    let bytes = load(&entry.file)?;
    board::parse(&bytes).map_err(|found| CannotFill::findings(&entry.file, &found))?;
    let refused = |refusal| CannotFill::refusal(&entry.file, refusal);
    let described = entry.draft.as_ref().map(|name| numbered(name, &load(name)?, photos)).transpose()?;
    let new = NewBoard { name: entry.board.model.clone(), file: text(&bytes).map_err(refused)?, draft: described };
    let now = app.now_ms();
    let write = move |w: &Write<'_>| match w.read().models()?.into_iter().find(|model| model.name == new.name) {
        Some(model) => w.add_version(model.id, &new, now),
        None => w.add_board(&new, now),
    };
    let added = app.writing(write).await.map_err(refused)?;
    added.map(|row| row.id).ok_or_else(|| CannotFill::because(&entry.file, "its name is taken"))
}

async fn drafts(app: &App, list: &Export, places: ExportPlaces<'_>, load: Load<'_>) -> Result<(), CannotFill> {
    let ExportPlaces { photos, jobs, .. } = places;
    for entry in &list.drafts {
        let text = numbered(&entry.file, &load(&entry.file)?, photos)?;
        let job_id = entry.job.and_then(|k| jobs.get(k)).copied();
        let (model, now) = (entry.model.clone(), app.now_ms());
        let write = move |w: &Write<'_>| {
            let models = w.read().models()?;
            let model_id = models.into_iter().find(|row| Some(&row.name) == model.as_ref()).map(|row| row.id);
            w.add_draft(&NewDraft { model_id, job_id, draft: text }, now)
        };
        app.writing(write).await.map_err(|refusal| CannotFill::refusal(&entry.file, refusal))?;
    }
    Ok(())
}

/// Versions of opening maps, with their photographs as the store names them.
async fn openings(app: &App, list: &Export, photos: &[i64], load: Load<'_>) -> Result<Vec<i64>, CannotFill> {
    let mut numbers = Vec::new();
    for name in &list.openings {
        let mut file = opening::parse(&load(name)?).map_err(|found| CannotFill::findings(name, &found))?;
        for page in &mut file.pages {
            let place = page.photo.and_then(|place| usize::try_from(place - 1).ok());
            page.photo = place.and_then(|k| photos.get(k)).copied();
        }
        let text = opening::write(&file).map_err(|error| CannotFill::because(name, &error.to_string()))?;
        let (device, now) = (file.device, app.now_ms());
        let added = app.writing(move |w| w.add_opening(&device, &text, now)).await;
        numbers.push(added.map_err(|refusal| CannotFill::refusal(name, refusal))?);
    }
    Ok(numbers)
}
