//! All of a shop as files. Whatever is stored as the text of an open format is written as it is stored, under its present names.

use std::collections::{BTreeMap, BTreeSet};

use mend_formats::export::{
    BoardEntry, DraftEntry, Export, FILE, FORMAT, InstrumentEntry, LessonEntry, PhotoEntry, StationEntry,
};
use mend_formats::opening;
use mend_formats::record::{
    self, BoardName, CheckRecord, EventRecord, ExtraRecord, JobPhotoRecord, JobRecord, LogRecord, OpeningRecord,
    PlanRecord, ReadingRecord, RunRecord, StateRecord, TapRecord, VariantRecord,
};
use mend_formats::{draft, export as format, renewal};
use mend_store::{
    CheckRow, ExtraRow, InstrumentRow, JobPhotoRow, LessonRow, PhotoRow, PlanRow, Read, ReadingRow, RunRow, StateRow,
    StoreError,
};

use super::{CannotOpen, floor};
use crate::App;
use crate::job::{MAP, OPENING};

/// Takes a file by its name in the export's folder.
pub type Sink<'a> = &'a mut (dyn FnMut(&str, &[u8]) -> std::io::Result<()> + Send);

/// Writes all of a shop; answers how many files.
pub async fn export(app: &App, sink: Sink<'_>) -> Result<usize, CannotOpen> {
    let mut out = Out { sink, count: 0 };
    let mut list = Export {
        format: FORMAT.to_owned(),
        shop: None,
        equipment: None,
        stations: Vec::new(),
        connectors: Vec::new(),
        photos: Vec::new(),
        openings: Vec::new(),
        boards: Vec::new(),
        drafts: Vec::new(),
        jobs: Vec::new(),
        floor: None,
        instruments: instruments(app).await?,
        lessons: Vec::new(),
    };
    let (shop, equipment) = read(app, |r| Ok((r.shop()?, r.equipment()?))).await?;
    list.shop = shop.map(|text| out.put("shop.json", text.as_bytes())).transpose()?;
    list.equipment =
        equipment.map(|text| out.put("equipment.json", renewal::equipment(&text).as_bytes())).transpose()?;
    stations(app, &mut out, &mut list).await?;
    let connectors = read(app, |r| r.connectors()).await?;
    for (k, row) in connectors.iter().enumerate() {
        list.connectors.push(out.put(&format!("connectors/{:04}.json", k + 1), row.file.as_bytes())?);
    }
    let photos = photos(app, &mut out, &mut list).await?;
    let maps = openings(app, &mut out, (&mut list, &photos)).await?;
    let boards = boards(app, &mut out, (&mut list, &photos)).await?;
    let numbers = read(app, |r| r.job_numbers()).await?;
    for (k, id) in numbers.iter().enumerate() {
        let (id, boards, places, maps) = (*id, boards.clone(), photos.clone(), maps.clone());
        let record = read(app, move |r| {
            let (record, opening) = (job(r, id, (&boards, &places))?, opened(r, id, &maps)?);
            Ok(record.map(|record| JobRecord { opening, ..record }))
        });
        let record = record.await?;
        let text = record.and_then(|record| record::write(&record).ok());
        let text = text.ok_or_else(|| failed(&format!("job {id}"), "can't be written: see urgent-mend check"))?;
        list.jobs.push(out.put(&format!("jobs/{:06}.json", k + 1), text.as_bytes())?);
    }
    let places = numbers.clone();
    if let Some(file) = read(app, move |r| floor::floor(r, &places)).await? {
        let text = mend_formats::floor::write(&file).map_err(|error| failed("floor", &error.to_string()))?;
        list.floor = Some(out.put(mend_formats::floor::FILE, text.as_bytes())?);
    }
    drafts(app, (&mut out, &mut list), (&photos, &numbers)).await?;
    lessons(app, (&mut out, &mut list), (&boards, &numbers)).await?;
    let text = format::write(&list).map_err(|error| failed(FILE, &error.to_string()))?;
    out.put(FILE, text.as_bytes())?;
    Ok(out.count)
}

struct Out<'a> {
    sink: Sink<'a>,
    count: usize,
}

impl Out<'_> {
    fn put(&mut self, name: &str, bytes: &[u8]) -> Result<String, CannotOpen> {
        (self.sink)(name, bytes).map_err(|error| failed(name, &error.to_string()))?;
        self.count += 1;
        Ok(name.to_owned())
    }
}

fn failed(file: &str, why: &str) -> CannotOpen {
    CannotOpen::because(file, why)
}

async fn read<T, F>(app: &App, work: F) -> Result<T, CannotOpen>
where
    T: Send + 'static,
    F: FnOnce(Read<'_>) -> Result<T, StoreError> + Send + 'static,
{
    app.reading(work).await.map_err(|refusal| CannotOpen::refusal("the shop", refusal))
}

async fn instruments(app: &App) -> Result<Vec<InstrumentEntry>, CannotOpen> {
    let entry = |row: InstrumentRow| {
        let InstrumentRow { name, kind, address, at_bench, .. } = row;
        InstrumentEntry { name, kind, address, at_bench }
    };
    Ok(read(app, |r| r.instruments()).await?.into_iter().map(entry).collect())
}

async fn stations(app: &App, out: &mut Out<'_>, list: &mut Export) -> Result<(), CannotOpen> {
    let rows = read(app, |r| {
        r.stations()?.into_iter().map(|row| Ok((r.names_of_station(row.id)?, row))).collect::<Result<Vec<_>, _>>()
    });
    for (k, (names, row)) in rows.await?.into_iter().enumerate() {
        let file = out.put(&format!("stations/{:03}.json", k + 1), row.file.as_bytes())?;
        list.stations.push(StationEntry { file, retired_ms: row.retired_ms, names });
    }
    Ok(())
}

/// Where each photograph of the store stands in the list, from 1.
type NumberedFiles = BTreeMap<i64, i64>;

async fn photos(app: &App, out: &mut Out<'_>, list: &mut Export) -> Result<NumberedFiles, CannotOpen> {
    let mut places = NumberedFiles::new();
    for PhotoRow { id, size: size_px } in read(app, |r| r.photos()).await? {
        let Some(jpeg) = read(app, move |r| r.photo(id)).await? else { continue };
        let place = list.photos.len() as i64 + 1;
        let file = out.put(&format!("photos/{place:05}.jpg"), &jpeg)?;
        list.photos.push(PhotoEntry { file, size_px });
        places.insert(id, place);
    }
    Ok(places)
}

/// A draft's text with its photographs named by their places; as it is where it can't be read.
fn placed(text: &str, places: &NumberedFiles) -> String {
    let Ok(mut read) = draft::parse(text.as_bytes()) else { return text.to_owned() };
    for photo in &mut read.photos {
        photo.id = places.get(&photo.id).copied().unwrap_or(photo.id);
    }
    draft::write(&read).unwrap_or_else(|_| text.to_owned())
}

async fn boards(
    app: &App,
    out: &mut Out<'_>,
    (list, places): (&mut Export, &NumberedFiles),
) -> Result<BTreeMap<i64, BoardName>, CannotOpen> {
    let mut names = BTreeMap::new();
    for (k, row) in read(app, |r| r.all_boards()).await?.into_iter().enumerate() {
        let board = BoardName { model: row.name, version: row.version };
        names.insert(row.id, board.clone());
        let file = out.put(&format!("boards/{:04}.json", k + 1), renewal::board(&row.file).as_bytes())?;
        let described = row.draft.map(|text| placed(&text, places));
        let draft = described.map(|text| out.put(&format!("boards/{:04}.draft.json", k + 1), text.as_bytes()));
        list.boards.push(BoardEntry { board, file, draft: draft.transpose()? });
    }
    Ok(names)
}

async fn drafts(
    app: &App,
    (out, list): (&mut Out<'_>, &mut Export),
    (places, jobs): (&NumberedFiles, &[i64]),
) -> Result<(), CannotOpen> {
    let rows = read(app, |r| {
        let rows = r.drafts()?.into_iter().rev();
        let named = rows.map(|row| {
            let model = row.model_id.map(|id| r.model(id)).transpose()?.flatten().map(|model| model.name);
            Ok((row, model))
        });
        named.collect::<Result<Vec<_>, StoreError>>()
    });
    for (k, (row, model)) in rows.await?.into_iter().enumerate() {
        let file = out.put(&format!("drafts/{:03}.json", k + 1), placed(&row.draft, places).as_bytes())?;
        let job = row.job_id.and_then(|id| jobs.iter().position(|job| *job == id));
        list.drafts.push(DraftEntry { file, model, job });
    }
    Ok(())
}

async fn lessons(
    app: &App,
    (out, list): (&mut Out<'_>, &mut Export),
    (boards, jobs): (&BTreeMap<i64, BoardName>, &[i64]),
) -> Result<(), CannotOpen> {
    let (rows, stations) = read(app, |r| Ok((r.lessons()?, r.stations()?))).await?;
    for LessonRow { id, lesson, taught_ms, left_out } in rows {
        let file = out.put(&format!("lessons/{id:05}.json"), lesson.says.as_bytes())?;
        let station = stations.iter().position(|row| row.id == lesson.station_id).unwrap_or_default();
        let entered = serde_json::from_str(&lesson.entered).unwrap_or_default();
        let board = lesson.board_id.and_then(|id| boards.get(&id).cloned());
        let job = lesson.job_id.and_then(|id| jobs.iter().position(|job| *job == id));
        let (kind, nozzle_mm, figures) = (lesson.kind, lesson.nozzle_mm, lesson.figures);
        let entry = LessonEntry { file, kind, station, nozzle_mm, board, job, entered, figures, taught_ms, left_out };
        list.lessons.push(entry);
    }
    Ok(())
}

/// All that is on record of a job; none where a part of it is no JSON.
fn job(
    read: Read<'_>,
    id: i64,
    (boards, places): (&BTreeMap<i64, BoardName>, &NumberedFiles),
) -> Result<Option<JobRecord>, StoreError> {
    let Some(row) = read.job(id)? else { return Ok(None) };
    let runs = read.runs_of(id)?;
    let newest = [read.plan_of(id)?, read.fit_plan_of(id)?].into_iter().flatten().map(|plan| plan.id);
    let wanted: BTreeSet<i64> = runs.iter().map(|run| run.plan_id).chain(newest).collect();
    let plans = wanted.iter().map(|id| read.plan(*id)).collect::<Result<Vec<_>, _>>()?;
    let plans: Vec<PlanRow> = plans.into_iter().flatten().collect();
    let runs = runs.iter().map(|run| run_record(read, run, &plans)).collect::<Result<Option<Vec<_>>, _>>()?;
    let variants: Option<Vec<VariantRecord>> = read
        .variants(id)?
        .into_iter()
        .map(|v| Some(VariantRecord { name: v.name, inputs: record::raw(&renewal::inputs(&v.inputs))? }))
        .collect();
    let plan = |plan: &PlanRow| {
        Some(PlanRecord {
            board: boards.get(&plan.board_id)?.clone(),
            inputs: record::raw(&renewal::inputs(&plan.inputs))?,
            plan: record::raw(&renewal::plan(&plan.plan))?,
            station: plan.station.clone(),
            made_ms: plan.made_ms,
        })
    };
    let plans: Option<Vec<PlanRecord>> = plans.iter().map(plan).collect();
    let (Some(plans), Some(variants), Some(runs)) = (plans, variants, runs) else { return Ok(None) };
    Ok(Some(JobRecord {
        format: record::FORMAT.to_owned(),
        taken_in_ms: row.taken_in_ms,
        handed_over_ms: row.handed_over_ms,
        board: row.board_id.and_then(|id| boards.get(&id).cloned()),
        intake: row.intake,
        composition: read.composition(id)?.and_then(|text| record::raw(&renewal::composition(&text))),
        settings: read.settings(id)?.and_then(|text| record::raw(&renewal::inputs(&text))),
        fit_settings: read.fit_settings(id)?.and_then(|text| record::raw(&renewal::inputs(&text))),
        plans,
        variants,
        runs,
        pins: read.pins(id)?,
        checks: read
            .checks(id)?
            .into_iter()
            .filter(|row| ![OPENING, MAP].contains(&row.list.as_str()))
            .map(check_record)
            .collect(),
        extras: read.extras(id)?.into_iter().map(|row| extra_record(row, places)).collect(),
        opening: None,
        photos: read.job_photos(id)?.into_iter().filter_map(|row| photo_record(row, places)).collect(),
        log: read.job_log(id)?.into_iter().map(log_record).collect(),
    }))
}

fn log_record(row: mend_store::LogRow) -> LogRecord {
    LogRecord { what: row.what, who: row.who, reason: row.reason, at_ms: row.at_ms }
}

fn photo_record(row: JobPhotoRow, places: &NumberedFiles) -> Option<JobPhotoRecord> {
    let JobPhotoRow { photo_id, stop, words, on_sheet, added_ms, .. } = row;
    Some(JobPhotoRecord { photo: *places.get(&photo_id)?, stop, words, on_sheet, added_ms })
}

/// Versions of opening maps, and where each stands in the list, from 1.
async fn openings(
    app: &App,
    out: &mut Out<'_>,
    (list, places): (&mut Export, &NumberedFiles),
) -> Result<NumberedFiles, CannotOpen> {
    let mut numbers = NumberedFiles::new();
    for row in read(app, |r| r.all_openings()).await? {
        let place = list.openings.len() as i64 + 1;
        let text = opening::parse(row.map.as_bytes()).ok().and_then(|mut file| {
            file.pages
                .iter_mut()
                .for_each(|page| page.photo = page.photo.and_then(|photo| places.get(&photo).copied()));
            opening::write(&file).ok()
        });
        let file = out.put(&format!("openings/{place:04}.json"), text.unwrap_or(row.map).as_bytes())?;
        list.openings.push(file);
        numbers.insert(row.id, place);
    }
    Ok(numbers)
}

/// By which map a job's device was opened, and what was tapped.
fn opened(read: Read<'_>, id: i64, maps: &NumberedFiles) -> Result<Option<OpeningRecord>, StoreError> {
    let Some(map) = read.opening_of(id)?.and_then(|row| maps.get(&row.id).copied()) else { return Ok(None) };
    let taps = read.check_history(id, OPENING)?.into_iter();
    let taps = taps.map(|row| TapRecord { item: row.name, tap: row.value, at_ms: row.entered_ms }).collect();
    Ok(Some(OpeningRecord { map: map as usize, taps }))
}

fn check_record(row: CheckRow) -> CheckRecord {
    CheckRecord { list: row.list, name: row.name, value: row.value, at_ms: row.entered_ms }
}

fn extra_record(row: ExtraRow, places: &NumberedFiles) -> ExtraRecord {
    let ExtraRow { what, price, answer, who, found_ms, answered_ms, photo_id, .. } = row;
    let photo = photo_id.and_then(|photo| places.get(&photo).copied());
    ExtraRecord { what, price, answer, who, found_ms, answered_ms, photo }
}

fn run_record(read: Read<'_>, run: &RunRow, plans: &[PlanRow]) -> Result<Option<RunRecord>, StoreError> {
    let events = read.events(run.id)?.into_iter().map(|event| EventRecord {
        kind: event.kind,
        step: event.step,
        row: event.row,
        reason: event.reason,
        at_ms: event.at_ms,
        came_ms: event.came_ms,
        arrived_ms: event.arrived.wall_ms,
        token: event.token,
    });
    let plan = plans.iter().position(|plan| plan.id == run.plan_id);
    let steps = run.steps.as_deref().and_then(|text| record::raw(&renewal::steps(text)));
    let events = events.collect();
    let states = read.run_states(run.id)?.into_iter().filter_map(|state| {
        let StateRow { step, begun_ms, at_s, says } = state;
        Some(StateRecord { step, begun_ms, at_s, says: record::raw(&says)? })
    });
    let states = states.collect();
    let readings = read.run_readings(run.id)?.into_iter().map(|row| {
        let ReadingRow { begun_ms, after_ms, celsius } = row;
        ReadingRecord { begun_ms, after_ms, celsius }
    });
    let readings = readings.collect();
    let (opened_ms, taped_on) = (run.opened.wall_ms, run.taped_on.clone());
    Ok(plan.map(|plan| RunRecord { plan, opened_ms, steps, taped_on, events, states, readings }))
}
