//! Fills an empty shop from files of the open formats: how the demo comes about. What takes no time is done at once; plans are
//! computed by the real solver in the background, job by job.

mod counter;
mod history;

use std::collections::BTreeMap;
use std::net::SocketAddr;

use jiff::ToSpan;
use mend_core::finding::Finding;
use mend_formats::bundle::Bundle;
use mend_formats::shop::{ExtraFile, JobFile, JobPhotoFile, OpenedFile, RunFile, WentBackFile};
use mend_formats::{board, equipment, shop, station};
use mend_store::{
    CheckRow, EventRow, ExtraRow, InstrumentRow, JobPhotoRow, LogRow, Moment, NewBoard, NewCheck, NewMark, NewRun,
    Write,
};

use crate::App;
use crate::job::{DECLINED, HeatWork, Job, OPENING, WENT_BACK};
use crate::photograph;
use crate::planner::{self, Ordered};
use crate::refusal::Refusal;
use crate::words::{FindingView, Words};

/// Files by name without ending, each the text of one format.
#[derive(Debug, Clone, Default)]
pub struct ShopFiles {
    /// `urgent-mend/board/1`.
    pub boards: BTreeMap<String, String>,
    /// `urgent-mend/equipment/2`, if the shop has said what it has.
    pub equipment: Option<String>,
    /// `urgent-mend/shop/1`, if the shop has set itself up.
    pub settings: Option<String>,
    /// `urgent-mend/station/1`.
    pub stations: BTreeMap<String, String>,
    /// Photographs, JPEG; drafts name them by their place in this list, from 1.
    pub photos: BTreeMap<String, Vec<u8>>,
    /// `urgent-mend/draft/1`: each becomes a board, or the next version of the board of its name.
    pub drafts: BTreeMap<String, String>,
    /// `urgent-mend/opening/1`.
    pub openings: BTreeMap<String, String>,
    /// `urgent-mend/job/1`, oldest first.
    pub jobs: BTreeMap<String, String>,
    /// `urgent-mend/demo-counter/1`, if there are people and a shelf.
    pub counter: Option<String>,
}

/// Why a shop could not be filled.
#[derive(Debug, thiserror::Error)]
#[error("{file}: {why}")]
pub struct CannotOpen {
    file: String,
    why: String,
}

impl CannotOpen {
    /// Because of a file, for a reason in words.
    pub fn because(file: &str, why: &str) -> Self {
        Self { file: file.to_owned(), why: why.to_owned() }
    }

    pub(crate) fn findings(file: &str, findings: &[Finding]) -> Self {
        let line = |f: FindingView| format!("{}: {} ({})", f.place, f.message, f.hint);
        let lines: Vec<String> = Words::default().findings(findings).into_iter().map(line).collect();
        Self { file: file.to_owned(), why: lines.join("; ") }
    }

    pub(crate) fn refusal(file: &str, refusal: Refusal) -> Self {
        match refusal {
            Refusal::Bad(findings) => Self::findings(file, &findings),
            other => Self { file: file.to_owned(), why: format!("{other:?}") },
        }
    }
}

/// A job from a file whose plan is still to be computed.
struct Waiting {
    name: String,
    id: i64,
    file: JobFile,
}

/// Puts one job of `urgent-mend/job/1` into a shop and computes its plan; its board is named as the shop's models are.
pub(crate) async fn add_one_job(app: &App, file: JobFile) -> Result<i64, Refusal> {
    let models = app.reading(|read| read.models()).await?.into_iter();
    let boards: BTreeMap<String, i64> = models.map(|model| (model.name, model.board_id)).collect();
    if let Some(name) = file.board.as_ref().filter(|name| !boards.contains_key(*name)) {
        let what = format!("the shop has no board “{name}”");
        return Err(Refusal::field("board", what, "import it first, and name it here as the shop does"));
    }
    // Looked for before anything is put down: what can't be planned leaves no half of a job.
    if let Some(inputs) = &file.plan {
        planner::station_named(app, &inputs.station).await?;
        inputs.composition()?;
    }
    let id = add_job(app, &file, &boards).await?;
    plan_one(app, &Waiting { name: String::new(), id, file }).await?;
    Ok(id)
}

/// Puts all of it into the shop but for what has to be computed; answers that, to be driven in the background.
pub async fn fill(
    app: &App,
    files: &ShopFiles,
) -> Result<impl Future<Output = Result<(), CannotOpen>> + Send + use<>, CannotOpen> {
    add_stations(app, files).await?;
    if let Some(file) = &files.equipment {
        equipment::parse(file.as_bytes()).map_err(|f| CannotOpen::findings("equipment", &f))?;
        let (file, now) = (file.clone(), app.now_ms());
        app.writing(move |w| w.set_equipment(&file, now)).await.map_err(|r| CannotOpen::refusal("equipment", r))?;
    }
    if let Some(file) = &files.settings {
        mend_formats::shop_settings::parse(file.as_bytes()).map_err(|f| CannotOpen::findings("shop", &f))?;
        let (file, now) = (file.clone(), app.now_ms());
        app.writing(move |w| w.set_shop(&file, now)).await.map_err(|r| CannotOpen::refusal("shop", r))?;
    }
    let mut boards = add_boards(app, files).await?;
    let photos = add_photos(app, files).await?;
    for (name, text) in &files.drafts {
        let id = add_draft(app, text, &photos).await.map_err(|r| CannotOpen::refusal(name, r))?;
        boards.insert(name.clone(), id);
    }
    for (name, text) in &files.openings {
        let file = mend_formats::opening::parse(text.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let (text, now) = (text.clone(), app.now_ms());
        let added = app.writing(move |w| w.add_opening((&file.device, &text), now)).await;
        added.map_err(|r| CannotOpen::refusal(name, r))?;
    }
    let mut waiting = Vec::new();
    for (name, text) in &files.jobs {
        let file = shop::parse(text.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let id = add_job(app, &file, &boards).await.map_err(|r| CannotOpen::refusal(name, r))?;
        add_job_photos(app, id, (&file, &photos)).await.map_err(|r| CannotOpen::refusal(name, r))?;
        if file.plan.is_some() || file.handed_over || file.declined.is_some() {
            waiting.push(Waiting { name: name.clone(), id, file });
        }
    }
    if let Some(text) = &files.counter {
        counter::fill(app, text).await?;
    }
    app.set_preparing(waiting.len());
    Ok(plan_all(app.clone(), (waiting, files.counter.is_some())))
}

/// What the first open job that is not at the bench yet is planned from: what simulated instruments are made on.
pub async fn bench_bundle(app: &App) -> Option<Bundle> {
    for listed in app.reading(|read| read.open_jobs()).await.ok()? {
        let Ok(job) = Job::load(app, listed.job_id).await else { continue };
        if job.has_run {
            continue;
        }
        let Some(inputs) = job.inputs_of(HeatWork::Removal).filter(|inputs| inputs.settings.air.is_some()) else {
            continue;
        };
        if let Ok(order) = Ordered::load(app, &job, &inputs).await {
            return Some(order.bundle);
        }
    }
    None
}

/// Puts an instrument into the list; one of the same name is elsewhere now.
pub async fn add_instrument(app: &App, (name, kind): (&str, &str), address: SocketAddr) {
    let (name, kind, address) = (name.to_owned(), kind.to_owned(), address.to_string());
    let put = move |write: &Write<'_>| {
        let same = write.read().instruments()?.into_iter().find(|row| row.name == name);
        let (id, at_bench) = same.map_or((0, false), |row| (row.id, row.at_bench));
        write.put_instrument(&InstrumentRow { id, name, kind, address, at_bench })
    };
    if let Err(refusal) = app.writing(put).await {
        tracing::warn!(?refusal, "an instrument is not in the list");
    }
}

/// Plans every job that waits, and puts down what the plan's run holds.
async fn plan_all(app: App, (waiting, has_past): (Vec<Waiting>, bool)) -> Result<(), CannotOpen> {
    let count = waiting.len();
    let described: Vec<(i64, JobFile)> = waiting.iter().map(|job| (job.id, job.file.clone())).collect();
    for (k, job) in waiting.into_iter().enumerate() {
        let done = plan_one(&app, &job).await;
        // The past comes last, and is waited for as well.
        app.set_preparing(count - k - usize::from(!has_past));
        done.map_err(|refusal| CannotOpen::refusal(&job.name, refusal))?;
    }
    let past = if has_past { history::add(&app, &described).await } else { Ok(()) };
    app.review_missing_jobs().await;
    app.set_preparing(0);
    past.map_err(|refusal| CannotOpen::refusal("the past", refusal))
}

async fn plan_one(app: &App, waiting: &Waiting) -> Result<(), Refusal> {
    let (id, file) = (waiting.id, &waiting.file);
    if let Some(inputs) = &file.plan {
        let job = Job::load(app, id).await?;
        let planned = planner::plan_job(app, &job, inputs).await?;
        if let Some(run) = file.run.clone() {
            let steps = planned.steps(&job.workplace()?, &inputs.composition()?);
            let opened_ms = app.now_ms() - (run.started_hours_ago * 3_600_000.0) as i64;
            let opened = Moment { wall_ms: opened_ms, clock: String::new(), tick_ms: 0 };
            let new = NewRun {
                job_id: id,
                plan_id: planned.id,
                opened,
                steps: Some(serde_json::to_string(&steps)?),
                taped_on: String::new(),
            };
            app.changing(id, move |w| add_events(w, w.add_run(&new)?, (&run, opened_ms))).await?;
        }
    }
    if let Some(inputs) = &file.fit {
        // Computed when somebody looks at it.
        planner::keep_settings(app, &Job::load(app, id).await?, inputs).await?;
    }
    let now = app.now_ms();
    if let Some(WentBackFile { who, reason }) = file.declined.clone() {
        let row = LogRow { what: DECLINED.to_owned(), who, reason, at_ms: now };
        app.changing(id, move |w| w.log_job(id, &row)).await?;
    }
    if file.handed_over || file.declined.is_some() {
        app.changing(id, move |w| w.hand_over(id, now)).await?;
    }
    Ok(())
}

/// Its photographs, of those that came with it.
async fn add_job_photos(app: &App, id: i64, (file, photos): (&JobFile, &[i64])) -> Result<(), Refusal> {
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
fn add_opened(w: &Write<'_>, id: i64, (opened, now_ms): (&OpenedFile, i64)) -> Result<(), mend_store::StoreError> {
    let Some(row) = w.read().openings()?.into_iter().find(|row| row.name == opened.device) else { return Ok(()) };
    w.choose_opening(id, row.id)?;
    let map = mend_formats::opening::parse(row.map.as_bytes()).map(mend_formats::opening::OpeningFile::into_map);
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
fn add_found(w: &Write<'_>, id: i64, (file, now_ms): (&JobFile, i64)) -> Result<(), mend_store::StoreError> {
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
        add_opened(w, id, (opened, now_ms))?;
    }
    for extra in file.extras.iter().cloned() {
        let ExtraFile { what, price, answer, who } = extra;
        let answered_ms = (!answer.is_empty()).then_some(now_ms);
        w.add_extra(id, &ExtraRow { id: 0, what, price, answer, who, found_ms: now_ms, answered_ms, photo_id: None })?;
    }
    Ok(())
}

/// Presses and entries of the ledger in the order of their seconds.
fn add_events(w: &Write<'_>, id: i64, (run, opened_ms): (&RunFile, i64)) -> Result<(), mend_store::StoreError> {
    let mut events: Vec<&(String, f64)> = run.presses.iter().chain(&run.ledger).collect();
    events.sort_by(|a, b| a.1.total_cmp(&b.1));
    for (k, (kind, seconds)) in events.into_iter().enumerate() {
        let at_ms = (seconds * 1000.0) as i64;
        let kind = if kind == "back" { "undo" } else { kind };
        w.put_event(
            id,
            &EventRow {
                kind: kind.to_owned(),
                step: -1,
                row: String::new(),
                reason: String::new(),
                at_ms,
                came_ms: at_ms,
                arrived: Moment { wall_ms: opened_ms + at_ms, clock: String::new(), tick_ms: 0 },
                token: format!("file-{k}"),
            },
        )?;
    }
    Ok(())
}

async fn add_stations(app: &App, files: &ShopFiles) -> Result<(), CannotOpen> {
    for (name, file) in &files.stations {
        let station = station::parse(file.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let file = file.clone();
        let added = app.writing(move |w| w.add_station(&station.name, &file)).await;
        added.map_err(|r| CannotOpen::refusal(name, r))?;
    }
    Ok(())
}

async fn add_boards(app: &App, files: &ShopFiles) -> Result<BTreeMap<String, i64>, CannotOpen> {
    let mut boards = BTreeMap::new();
    for (name, text) in &files.boards {
        let parsed = board::parse(text.as_bytes()).map_err(|f| CannotOpen::findings(name, &f))?;
        let (new, now) = (NewBoard { name: parsed.name, file: text.clone(), draft: None }, app.now_ms());
        let added = app.writing(move |w| w.add_board(&new, now)).await;
        if let Some(row) = added.map_err(|r| CannotOpen::refusal(name, r))? {
            boards.insert(name.clone(), row.id);
        }
    }
    Ok(boards)
}

/// Their numbers in the shop, in order.
async fn add_photos(app: &App, files: &ShopFiles) -> Result<Vec<i64>, CannotOpen> {
    let mut numbers = Vec::new();
    for (name, jpeg) in &files.photos {
        let photo = photograph::decode(jpeg.clone()).await.map_err(|r| CannotOpen::refusal(name, r))?;
        let photo = photo.map_err(|f| CannotOpen::findings(name, &f))?;
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
    let (name, file) = (board.name.clone(), board::write(&board)?);
    let new = NewBoard { name: name.clone(), file, draft: Some(mend_formats::draft::write(&draft)?) };
    let now = app.now_ms();
    let write = move |w: &Write<'_>| match w.read().models()?.into_iter().find(|row| row.name == name) {
        Some(row) => w.add_version(row.id, &new, now),
        None => w.add_board(&new, now),
    };
    app.writing(write).await?.map(|row| row.id).ok_or(Refusal::NotFound("board"))
}

/// The job with everything that needs no plan.
async fn add_job(app: &App, file: &JobFile, boards: &BTreeMap<String, i64>) -> Result<i64, Refusal> {
    let now = app.now();
    let taken_in = now.timestamp().as_millisecond() - (file.taken_in_hours_ago * 3_600_000.0) as i64;
    let due = file.due_in_days.and_then(|days| now.date().checked_add(days.days()).ok());
    let mut intake = file.intake.clone();
    intake.extend(due.map(|day| ("due".to_owned(), day.to_string())));
    let board = file.board.as_ref().and_then(|name| boards.get(name)).copied();
    let (pins, found) = (file.pins.clone(), file.clone());
    let write = move |w: &Write<'_>| {
        let id = w.add_job(taken_in)?;
        for (field, value) in &intake {
            w.set_intake(id, (field, value), taken_in)?;
        }
        board.map(|board| w.choose_board(id, board)).transpose()?;
        add_found(w, id, (&found, taken_in))?;
        for (pin, mark) in &pins {
            let (pin, mark, token) = (pin.clone(), mark.clone(), format!("file-{pin}"));
            w.mark_pin(id, &NewMark { pin, mark, at_ms: taken_in, token })?;
        }
        Job::list(w, id)?;
        Ok(id)
    };
    app.writing(write).await
}
