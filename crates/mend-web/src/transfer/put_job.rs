//! A job's record, as a file has it, into the store.

use std::collections::BTreeMap;

use mend_formats::record::{
    BoardName, CheckRecord, ExtraRecord, JobPhotoRecord, JobRecord, ReadingRecord, StateRecord,
};
use mend_store::{
    CheckRow, EventRow, ExtraRow, JobPhotoRow, LogRow, Moment, NewCheck, NewMark, NewPlan, NewRun, NewVariant,
    ReadingRow, StateRow, StoreError, TypedField, Write,
};

use crate::job::{Job, OPENING};
use crate::refusal::Refusal;

/// Boards by what files call them.
pub(super) type Boards = BTreeMap<BoardName, i64>;

/// Where what an export names is in the store: boards by their names, the rest in the export's order; of a file on its own the
/// boards alone.
#[derive(Debug, Clone, Copy)]
pub(super) struct ExportPlaces<'a> {
    pub(super) boards: &'a Boards,
    pub(super) photos: &'a [i64],
    pub(super) openings: &'a [i64],
    pub(super) jobs: &'a [i64],
}

impl<'a> ExportPlaces<'a> {
    /// Of a file on its own.
    pub(super) const fn of_boards(boards: &'a Boards) -> Self {
        Self { boards, photos: &[], openings: &[], jobs: &[] }
    }
}

/// All of a job, with its number; an objection where it names a board that is not here.
pub(super) fn put_job(
    w: &Write<'_>,
    record: &JobRecord,
    places: ExportPlaces<'_>,
    now_ms: i64,
) -> Result<Result<i64, Refusal>, StoreError> {
    let boards = places.boards;
    let named = record.board.iter().chain(record.plans.iter().map(|plan| &plan.board));
    for name in named {
        if !boards.contains_key(name) {
            let what = format!("the shop has no board “{}”, revision {}", name.model, name.version);
            return Ok(Err(Refusal::field("board", what, "import the board first")));
        }
    }
    let id = w.add_job(record.taken_in_ms)?;
    for (field, value) in &record.intake {
        w.set_intake(id, TypedField::new(field, value), record.taken_in_ms)?;
    }
    if let Some(board) = record.board.as_ref().and_then(|name| boards.get(name)) {
        w.choose_board(id, *board)?;
    }
    record.composition.as_ref().map(|raw| w.set_composition(id, raw.get(), now_ms)).transpose()?;
    record.settings.as_ref().map(|raw| w.set_settings(id, raw.get(), now_ms)).transpose()?;
    record.fit_settings.as_ref().map(|raw| w.set_fit_settings(id, raw.get(), now_ms)).transpose()?;
    put_runs(w, id, record, boards)?;
    for variant in &record.variants {
        w.add_variant(id, NewVariant { name: &variant.name, inputs: variant.inputs.get(), made_ms: now_ms })?;
    }
    for (pin, mark) in &record.pins {
        let (pin, mark, token) = (pin.clone(), mark.clone(), format!("file-{pin}"));
        w.mark_pin(id, &NewMark { pin, mark, at_ms: now_ms, token })?;
    }
    put_found(w, id, record, places.photos)?;
    put_opening(w, id, record, places.openings)?;
    for row in &record.log {
        let (what, who, reason) = (row.what.clone(), row.who.clone(), row.reason.clone());
        w.log_job(id, &LogRow { what, who, reason, at_ms: row.at_ms })?;
    }
    record.handed_over_ms.map(|at| w.set_handed_over(id, at)).transpose()?;
    Job::list(w, id)?;
    Ok(Ok(id))
}

/// How the device was opened, by a map that is there.
fn put_opening(w: &Write<'_>, id: i64, record: &JobRecord, maps: &[i64]) -> Result<(), StoreError> {
    let Some(opening) = &record.opening else { return Ok(()) };
    let Some(map) = opening.map.checked_sub(1).and_then(|k| maps.get(k)) else { return Ok(()) };
    w.choose_opening(id, *map)?;
    for (k, tap) in opening.taps.iter().cloned().enumerate() {
        let row = CheckRow { list: OPENING.to_owned(), name: tap.item, value: tap.tap, entered_ms: tap.at_ms };
        w.enter_check(id, &NewCheck { row, token: format!("file-tap-{k}") })?;
    }
    Ok(())
}

/// What was found of a job, and its photographs: those that are not there too are left out.
fn put_found(w: &Write<'_>, id: i64, record: &JobRecord, photos: &[i64]) -> Result<(), StoreError> {
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

fn put_runs(w: &Write<'_>, id: i64, record: &JobRecord, boards: &Boards) -> Result<(), StoreError> {
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
