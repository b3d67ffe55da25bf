//! Files of the open formats into a shop: one by one, or a whole export into an empty shop.

use std::collections::BTreeMap;

use mend_core::finding::Finding;
use mend_formats::export::{BoardEntry, Export, InstrumentEntry};
use mend_formats::record::{
    self, BoardName, CheckRecord, ExtraRecord, JobPhotoRecord, JobRecord, ReadingRecord, StateRecord,
};
use mend_formats::{
    FileKind, board, connector, draft, equipment, export as format, file_kind, lesson, opening, shop, shop_settings,
    station,
};
use mend_store::{
    CheckRow, EventRow, ExtraRow, InstrumentRow, JobPhotoRow, LogRow, Moment, NewBoard, NewCheck, NewDraft, NewLesson,
    NewMark, NewPhoto, NewPlan, NewRun, ReadingRow, StateRow, StoreError, Write,
};

use super::{CannotOpen, floor};
use crate::App;
use crate::job::{Job, OPENING};
use crate::opening::add_one_job;
use crate::refusal::Refusal;

/// What came of a file, in a line.
#[derive(Debug)]
pub struct Imported(pub String);

/// Puts one file into the shop, whatever of our open formats it is of.
pub async fn import_file(app: &App, (name, bytes): (&str, &[u8])) -> Result<Imported, CannotOpen> {
    let taken = match file_kind(bytes) {
        Some(FileKind::Station) => one_station(app, bytes).await,
        Some(FileKind::Board) => one_board(app, bytes).await,
        Some(FileKind::Connector) => one_connector(app, bytes).await,
        Some(FileKind::Equipment) => one_equipment(app, bytes).await,
        Some(FileKind::ShopSettings) => one_shop(app, bytes).await,
        Some(FileKind::JobRecord) => one_job(app, bytes).await,
        Some(FileKind::DemoJob) => one_demo_job(app, bytes).await,
        Some(FileKind::Opening) => one_opening(app, bytes).await,
        None => {
            let known = "a station, board, connector, opening map, equipment, shop or job file of ours";
            Err(vec![Finding::written("import", "format", "it names none that can be imported").hint(known)].into())
        }
    };
    taken.map(Imported).map_err(|refusal| CannotOpen::refusal(name, refusal))
}

async fn one_station(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (station, text) = (station::parse(bytes)?, text(bytes)?);
    let name = station.name.clone();
    match app.writing(move |w| w.add_station(&station.name, &text)).await? {
        Some(_) => Ok(format!("station “{name}”")),
        None => Err(taken("station", &name)),
    }
}

/// A new model, or the next version of the model of its name; one that is there already changes nothing.
async fn one_board(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (parsed, file, now) = (board::parse(bytes)?, text(bytes)?, app.now_ms());
    let name = parsed.name;
    let new = NewBoard { name: name.clone(), file, draft: None };
    let write = move |w: &Write<'_>| {
        let all = w.read().all_boards()?;
        let mut own = all.iter().filter(|row| row.name == new.name).peekable();
        let Some(model) = own.peek().map(|row| row.model_id) else { return w.add_board(&new, now) };
        if own.any(|row| row.file == new.file) {
            return Ok(None);
        }
        w.add_version(model, &new, now)
    };
    Ok(match app.writing(write).await? {
        Some(row) => format!("board “{name}”, revision {}", row.version),
        None => format!("board “{name}” is there already"),
    })
}

async fn one_connector(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (parsed, file, now) = (connector::parse(bytes)?, text(bytes)?, app.now_ms());
    let name = parsed.name.clone();
    match app.writing(move |w| w.add_connector(&parsed.name, &file, now)).await? {
        Some(_) => Ok(format!("connector “{name}”")),
        None => Err(taken("connector", &name)),
    }
}

/// The newest version of its device's map; one that is there already changes nothing. Its photographs are another shop's.
async fn one_opening(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let mut file = opening::parse(bytes)?;
    file.pages.iter_mut().for_each(|page| page.photo = None);
    let (text, device, now) = (opening::write(&file)?, file.device.clone(), app.now_ms());
    let name = device.clone();
    let there = app.reading(|read| read.all_openings()).await?;
    if there.iter().any(|row| row.name == device && row.map == text) {
        return Ok(format!("opening map of “{name}” is there already"));
    }
    app.writing(move |w| w.add_opening((&device, &text), now)).await?;
    Ok(format!("opening map of “{name}”"))
}

async fn one_equipment(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    equipment::parse(bytes)?;
    let (file, now) = (text(bytes)?, app.now_ms());
    app.writing(move |w| w.set_equipment(&file, now)).await?;
    Ok("equipment and skill".to_owned())
}

async fn one_shop(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let (shop, file, now) = (shop_settings::parse(bytes)?, text(bytes)?, app.now_ms());
    app.writing(move |w| w.set_shop(&file, now)).await?;
    app.set_usual_scale(shop.scale);
    Ok("shop settings".to_owned())
}

async fn one_job(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let record = record::parse(bytes)?;
    let boards = app.reading(|read| read.all_boards()).await?.into_iter();
    let boards = boards.map(|row| (BoardName { model: row.name, version: row.version }, row.id)).collect();
    let device = record.intake.get("device").cloned().unwrap_or_default();
    let now = app.now_ms();
    let id = app.writing(move |w| put_job(w, (&record, &boards, ExportPlaces::default()), now)).await??;
    Ok(format!("job {id}, {device}"))
}

/// A job whose plan is computed as it is read.
async fn one_demo_job(app: &App, bytes: &[u8]) -> Result<String, Refusal> {
    let file = shop::parse(bytes)?;
    let device = file.intake.get("device").cloned().unwrap_or_default();
    let id = add_one_job(app, file).await?;
    Ok(format!("job {id}, {device}"))
}

fn taken(what: &str, name: &str) -> Refusal {
    let finding = Finding::written("import", "name", format!("the shop has a {what} “{name}” already"));
    vec![finding.hint("give this one another name in its file")].into()
}

fn text(bytes: &[u8]) -> Result<String, Refusal> {
    String::from_utf8(bytes.to_vec()).map_err(|_| Refusal::field("file", "is no text", "UTF-8"))
}

/// Reads files of a whole export by their names.
pub type Source<'a> = &'a (dyn Fn(&str) -> std::io::Result<Vec<u8>> + Sync);

/// Puts a whole export into an empty shop; answers how many jobs.
pub async fn import_whole(app: &App, (list, source): (&[u8], Source<'_>)) -> Result<usize, CannotOpen> {
    let list = format::parse(list).map_err(|found| CannotOpen::findings(format::FILE, &found))?;
    let load = |name: &str| source(name).map_err(|error| CannotOpen::because(name, &error.to_string()));
    let (jobs, any) = app
        .reading(|read| Ok((read.has_jobs()?, read.has_boards()? || !read.stations()?.is_empty())))
        .await
        .map_err(|refusal| CannotOpen::refusal("the shop", refusal))?;
    if jobs || any {
        return Err(CannotOpen::because(format::FILE, "a whole export goes into an empty shop: make one with init"));
    }
    for name in list.shop.iter().chain(&list.equipment).chain(&list.connectors) {
        import_file(app, (name, &load(name)?)).await?;
    }
    instruments(app, &list).await?;
    stations(app, &list, &load).await?;
    let photos = photos(app, &list, &load).await?;
    let openings = openings(app, (&list, &photos), &load).await?;
    let mut boards = BTreeMap::new();
    for entry in &list.boards {
        let id = whole_board(app, (entry, &photos), &load).await?;
        boards.insert(entry.board.clone(), id);
    }
    let mut jobs = Vec::new();
    for name in &list.jobs {
        let record = record::parse(&load(name)?).map_err(|found| CannotOpen::findings(name, &found))?;
        let (boards, photos, openings, now) = (boards.clone(), photos.clone(), openings.clone(), app.now_ms());
        let write = move |w: &Write<'_>| {
            put_job(w, (&record, &boards, ExportPlaces { photos: &photos, openings: &openings }), now)
        };
        let put = app.writing(write).await.and_then(|done| done);
        jobs.push(put.map_err(|refusal| CannotOpen::refusal(name, refusal))?);
    }
    if let Some(name) = &list.floor {
        let file = mend_formats::floor::parse(&load(name)?).map_err(|found| CannotOpen::findings(name, &found))?;
        let (jobs, now) = (jobs.clone(), app.now_ms());
        let put = app.writing(move |w| floor::put_floor(w, (&file, &jobs), now)).await;
        put.map_err(|refusal| CannotOpen::refusal(name, refusal))?;
    }
    drafts(app, &list, (&photos, &jobs), &load).await?;
    lessons(app, (&list, &boards, &jobs), &load).await?;
    Ok(jobs.len())
}

type Load<'a> = &'a dyn Fn(&str) -> Result<Vec<u8>, CannotOpen>;

async fn instruments(app: &App, list: &Export) -> Result<(), CannotOpen> {
    for InstrumentEntry { name, kind, address, at_bench } in list.instruments.iter().cloned() {
        let row = InstrumentRow { id: 0, name, kind, address, at_bench };
        let put = app.writing(move |w| w.put_instrument(&row)).await;
        put.map_err(|refusal| CannotOpen::refusal(format::FILE, refusal))?;
    }
    Ok(())
}

async fn stations(app: &App, list: &Export, load: Load<'_>) -> Result<(), CannotOpen> {
    for entry in &list.stations {
        let refused = |refusal| CannotOpen::refusal(&entry.file, refusal);
        let bytes = load(&entry.file)?;
        let name = station::read(&bytes).map_err(|found| CannotOpen::findings(&entry.file, &found))?.name;
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

async fn lessons(
    app: &App,
    (list, boards, jobs): (&Export, &Boards, &[i64]),
    load: Load<'_>,
) -> Result<(), CannotOpen> {
    let stations = app.reading(|read| read.stations()).await;
    let stations = stations.map_err(|refusal| CannotOpen::refusal(format::FILE, refusal))?;
    for entry in &list.lessons {
        let bytes = load(&entry.file)?;
        lesson::parse(&bytes).map_err(|found| CannotOpen::findings(&entry.file, &found))?;
        let refused = |refusal| CannotOpen::refusal(&entry.file, refusal);
        let station = stations.get(entry.station);
        let station =
            station.ok_or_else(|| CannotOpen::because(&entry.file, "it names a station that is not listed"))?;
        let unknown = || CannotOpen::because(&entry.file, "it names a board that is not listed");
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

async fn photos(app: &App, list: &Export, load: Load<'_>) -> Result<Vec<i64>, CannotOpen> {
    let mut numbers = Vec::new();
    for entry in &list.photos {
        let (photo, now) = (NewPhoto { jpeg: load(&entry.file)?, size: entry.size_px }, app.now_ms());
        let added = app.writing(move |w| w.add_photo(&photo, now)).await;
        numbers.push(added.map_err(|refusal| CannotOpen::refusal(&entry.file, refusal))?);
    }
    Ok(numbers)
}

/// A draft's text with its photographs named as the store names them.
fn numbered(name: &str, bytes: &[u8], photos: &[i64]) -> Result<String, CannotOpen> {
    let mut read = draft::parse(bytes).map_err(|found| CannotOpen::findings(name, &found))?;
    for photo in &mut read.photos {
        let number = usize::try_from(photo.id - 1).ok().and_then(|k| photos.get(k)).copied();
        photo.id = number.ok_or_else(|| CannotOpen::because(name, "it names a photograph that is not listed"))?;
    }
    draft::write(&read).map_err(|error| CannotOpen::because(name, &error.to_string()))
}

async fn whole_board(app: &App, (entry, photos): (&BoardEntry, &[i64]), load: Load<'_>) -> Result<i64, CannotOpen> {
    let bytes = load(&entry.file)?;
    board::parse(&bytes).map_err(|found| CannotOpen::findings(&entry.file, &found))?;
    let refused = |refusal| CannotOpen::refusal(&entry.file, refusal);
    let described = entry.draft.as_ref().map(|name| numbered(name, &load(name)?, photos)).transpose()?;
    let new = NewBoard { name: entry.board.model.clone(), file: text(&bytes).map_err(refused)?, draft: described };
    let now = app.now_ms();
    let write = move |w: &Write<'_>| match w.read().models()?.into_iter().find(|model| model.name == new.name) {
        Some(model) => w.add_version(model.id, &new, now),
        None => w.add_board(&new, now),
    };
    let added = app.writing(write).await.map_err(refused)?;
    added.map(|row| row.id).ok_or_else(|| CannotOpen::because(&entry.file, "its name is taken"))
}

async fn drafts(app: &App, list: &Export, (photos, jobs): (&[i64], &[i64]), load: Load<'_>) -> Result<(), CannotOpen> {
    for entry in &list.drafts {
        let text = numbered(&entry.file, &load(&entry.file)?, photos)?;
        let job_id = entry.job.and_then(|k| jobs.get(k)).copied();
        let (model, now) = (entry.model.clone(), app.now_ms());
        let write = move |w: &Write<'_>| {
            let models = w.read().models()?;
            let model_id = models.into_iter().find(|row| Some(&row.name) == model.as_ref()).map(|row| row.id);
            w.add_draft(&NewDraft { model_id, job_id, draft: text }, now)
        };
        app.writing(write).await.map_err(|refusal| CannotOpen::refusal(&entry.file, refusal))?;
    }
    Ok(())
}

type Boards = BTreeMap<BoardName, i64>;

/// Where the photographs and the maps of an export are in the store, in the export's order; none of a file on its own.
#[derive(Debug, Clone, Copy, Default)]
struct ExportPlaces<'a> {
    photos: &'a [i64],
    openings: &'a [i64],
}

/// Versions of opening maps, with their photographs as the store names them.
async fn openings(app: &App, (list, photos): (&Export, &[i64]), load: Load<'_>) -> Result<Vec<i64>, CannotOpen> {
    let mut numbers = Vec::new();
    for name in &list.openings {
        let mut file = opening::parse(&load(name)?).map_err(|found| CannotOpen::findings(name, &found))?;
        for page in &mut file.pages {
            let place = page.photo.and_then(|place| usize::try_from(place - 1).ok());
            page.photo = place.and_then(|k| photos.get(k)).copied();
        }
        let text = opening::write(&file).map_err(|error| CannotOpen::because(name, &error.to_string()))?;
        let (device, now) = (file.device, app.now_ms());
        let added = app.writing(move |w| w.add_opening((&device, &text), now)).await;
        numbers.push(added.map_err(|refusal| CannotOpen::refusal(name, refusal))?);
    }
    Ok(numbers)
}

/// How the device was opened, by a map that is there.
fn put_opening(w: &Write<'_>, id: i64, (record, maps): (&JobRecord, &[i64])) -> Result<(), StoreError> {
    let Some(opening) = &record.opening else { return Ok(()) };
    let Some(map) = opening.map.checked_sub(1).and_then(|k| maps.get(k)) else { return Ok(()) };
    w.choose_opening(id, *map)?;
    for (k, tap) in opening.taps.iter().cloned().enumerate() {
        let row = CheckRow { list: OPENING.to_owned(), name: tap.item, value: tap.tap, entered_ms: tap.at_ms };
        w.enter_check(id, &NewCheck { row, token: format!("file-tap-{k}") })?;
    }
    Ok(())
}

/// All of a job, with its number; an objection where it names a board that is not here.
fn put_job(
    w: &Write<'_>,
    (record, boards, places): (&JobRecord, &Boards, ExportPlaces<'_>),
    now_ms: i64,
) -> Result<Result<i64, Refusal>, StoreError> {
    let named = record.board.iter().chain(record.plans.iter().map(|plan| &plan.board));
    for name in named {
        if !boards.contains_key(name) {
            let what = format!("the shop has no board “{}”, revision {}", name.model, name.version);
            return Ok(Err(Refusal::field("board", what, "import the board first")));
        }
    }
    let id = w.add_job(record.taken_in_ms)?;
    for (field, value) in &record.intake {
        w.set_intake(id, (field, value), record.taken_in_ms)?;
    }
    if let Some(board) = record.board.as_ref().and_then(|name| boards.get(name)) {
        w.choose_board(id, *board)?;
    }
    record.composition.as_ref().map(|raw| w.set_composition(id, raw.get(), now_ms)).transpose()?;
    record.settings.as_ref().map(|raw| w.set_settings(id, raw.get(), now_ms)).transpose()?;
    record.fit_settings.as_ref().map(|raw| w.set_fit_settings(id, raw.get(), now_ms)).transpose()?;
    put_runs(w, id, (record, boards))?;
    for variant in &record.variants {
        w.add_variant(id, (&variant.name, variant.inputs.get()), now_ms)?;
    }
    for (pin, mark) in &record.pins {
        let (pin, mark, token) = (pin.clone(), mark.clone(), format!("file-{pin}"));
        w.mark_pin(id, &NewMark { pin, mark, at_ms: now_ms, token })?;
    }
    put_found(w, id, (record, places.photos))?;
    put_opening(w, id, (record, places.openings))?;
    for row in &record.log {
        let (what, who, reason) = (row.what.clone(), row.who.clone(), row.reason.clone());
        w.log_job(id, &LogRow { what, who, reason, at_ms: row.at_ms })?;
    }
    record.handed_over_ms.map(|at| w.set_handed_over(id, at)).transpose()?;
    Job::list(w, id)?;
    Ok(Ok(id))
}

/// What was found of a job, and its photographs: those that are not there too are left out.
fn put_found(w: &Write<'_>, id: i64, (record, photos): (&JobRecord, &[i64])) -> Result<(), StoreError> {
    for (k, check) in record.checks.iter().cloned().enumerate() {
        let CheckRecord { list, name, value, at_ms } = check;
        let row = CheckRow { list, name, value, entered_ms: at_ms };
        w.enter_check(id, &NewCheck { row, token: format!("file-{k}") })?;
    }
    let stored = |place: i64| usize::try_from(place - 1).ok().and_then(|k| photos.get(k)).copied();
    for extra in record.extras.iter().cloned() {
        let ExtraRecord { what, price, answer, who, found_ms, answered_ms, photo } = extra;
        let photo_id = photo.and_then(stored);
        w.add_extra(id, &ExtraRow { id: 0, what, price, answer, who, found_ms, answered_ms, photo_id })?;
    }
    for photo in record.photos.iter().cloned() {
        let JobPhotoRecord { photo, stop, words, on_sheet, added_ms } = photo;
        let Some(photo_id) = stored(photo) else { continue };
        w.add_job_photo(id, &JobPhotoRow { id: 0, photo_id, stop, words, on_sheet, added_ms })?;
    }
    Ok(())
}

fn put_runs(w: &Write<'_>, id: i64, (record, boards): (&JobRecord, &Boards)) -> Result<(), StoreError> {
    let mut plans = Vec::new();
    for plan in &record.plans {
        let (inputs, text) = (plan.inputs.get().to_owned(), plan.plan.get().to_owned());
        let board_id = boards.get(&plan.board).copied().unwrap_or_default();
        let fits = mend_formats::shop::read_inputs(&inputs).is_some_and(|inputs| inputs.purpose.fits());
        let new = NewPlan { job_id: id, board_id, inputs, plan: text, station: plan.station.clone(), fits };
        plans.push(w.add_plan(&new, plan.made_ms)?);
    }
    for run in &record.runs {
        let moment = |wall_ms| Moment { wall_ms, clock: String::new(), tick_ms: 0 };
        let plan_id = plans.get(run.plan).copied().unwrap_or_default();
        let steps = run.steps.as_ref().map(|raw| raw.get().to_owned());
        let taped_on = run.taped_on.clone();
        let new = NewRun { job_id: id, plan_id, opened: moment(run.opened_ms), steps, taped_on };
        let run_id = w.add_run(&new)?;
        for event in &run.events {
            let (kind, row, reason, token) =
                (event.kind.clone(), event.row.clone(), event.reason.clone(), event.token.clone());
            let (step, at_ms, came_ms) = (event.step, event.at_ms, event.came_ms);
            w.put_event(
                run_id,
                &EventRow { kind, step, row, reason, at_ms, came_ms, arrived: moment(event.arrived_ms), token },
            )?;
        }
        for StateRecord { step, begun_ms, at_s, says } in &run.states {
            let says = says.get().to_owned();
            w.keep_state(run_id, &StateRow { step: *step, begun_ms: *begun_ms, at_s: *at_s, says })?;
        }
        let reading = |record: &ReadingRecord| {
            let ReadingRecord { begun_ms, after_ms, celsius } = *record;
            ReadingRow { begun_ms, after_ms, celsius }
        };
        w.keep_readings(run_id, &run.readings.iter().map(reading).collect::<Vec<_>>())?;
    }
    Ok(())
}
