//! People, stock, quotes and donors as a file of an export, out and in.

use std::collections::BTreeMap;

use mend_core::shop::stock::MoveKind;
use mend_formats::floor::{
    DonorEntry, FORMAT, FloorFile, ItemEntry, LookAlikeEntry, MoveEntry, NeedEntry, PersonEntry, QuoteEntry,
    TaskPinEntry,
};
use mend_formats::item;
use mend_store::{DonorRow, MoveRow, NewMove, NewPerson, PersonRow, QuoteRow, Read, StoreError, TaskPinRow, Write};

use super::file_places::FilePlaces;
use super::stored_json::{stored, value};
use super::worked::{put_worked, worked};
use crate::job::Job;

/// Nobody has more moves of one item.
const ALL: u32 = u32::MAX;

/// Everything of it; none where there is nothing. `jobs`: their numbers in the order of the export's list.
pub(super) fn floor(read: Read<'_>, jobs: &[i64]) -> Result<Option<FloorFile>, StoreError> {
    let place: BTreeMap<i64, usize> = jobs.iter().enumerate().map(|(k, id)| (*id, k)).collect();
    let (people, items) = (read.people()?, read.all_items()?);
    let of_item: BTreeMap<i64, usize> = items.iter().enumerate().map(|(k, (row, _))| (row.id, k)).collect();
    let mut file = FloorFile { format: FORMAT.to_owned(), ..FloorFile::default() };
    for (row, retired_ms) in &items {
        let moves = read.moves(row.id, ALL)?;
        let entry = |row: &MoveRow| move_entry(row, &place, &people);
        let item = item::parse(row.file.as_bytes()).unwrap_or_default();
        file.items.push(ItemEntry { item, retired_ms: *retired_ms, moves: moves.iter().rev().map(entry).collect() });
        for alike in read.look_alikes(row.id)?.into_iter().filter(|alike| alike.other > row.id) {
            let Some(other) = of_item.get(&alike.other) else { continue };
            let items = [of_item[&row.id], *other];
            file.look_alikes.push(LookAlikeEntry { items, difference: alike.difference });
        }
    }
    for (k, id) in jobs.iter().enumerate() {
        let need = |need: mend_store::NeedRow| {
            Some(NeedEntry { job: k, item: *of_item.get(&need.item)?, quantity: need.wanted })
        };
        file.needs.extend(read.needs(*id)?.into_iter().filter_map(need));
        file.quotes.extend(read.quotes(*id)?.into_iter().map(|row| quote_entry(k, row)));
    }
    let donor = |row: DonorRow| DonorEntry {
        name: row.name,
        holds: row.holds,
        job: row.job_id.and_then(|id| place.get(&id).copied()),
    };
    file.donors = read.donors()?.into_iter().map(donor).collect();
    let whose = |id: i64| people.iter().position(|row| row.id == id);
    let pin = |row: TaskPinRow| {
        let (job, person) = (*place.get(&row.job)?, row.person.and_then(whose));
        Some(TaskPinEntry { job, task: row.task, person, not_before_ms: row.not_before_ms })
    };
    file.pins = read.task_pins()?.into_iter().filter_map(pin).collect();
    let returned = |(job, first): (i64, i64)| Some([*place.get(&job)?, *place.get(&first)?]);
    file.returns = read.returns()?.into_iter().filter_map(returned).collect();
    worked(read, jobs, &people, &mut file)?;
    file.people = people.into_iter().map(person_entry).collect();
    let nothing = FloorFile { format: FORMAT.to_owned(), ..FloorFile::default() };
    Ok((file != nothing).then_some(file))
}

fn person_entry(row: PersonRow) -> PersonEntry {
    PersonEntry { name: row.name, role: row.role, level: row.level, hours: row.hours, left_ms: row.left_ms }
}

fn move_entry(row: &MoveRow, place: &BTreeMap<i64, usize>, people: &[PersonRow]) -> MoveEntry {
    let MoveRow { kind, quantity, job_id, day, note, at_ms, who } = row.clone();
    let person = people.iter().position(|person| person.name == who);
    MoveEntry { kind, quantity, job: job_id.and_then(|id| place.get(&id).copied()), day, note, at_ms, person }
}

fn quote_entry(job: usize, row: QuoteRow) -> QuoteEntry {
    let QuoteRow { says, total, made_ms, answer, who, answered_ms, .. } = row;
    QuoteEntry { job, says: value(&says), total, made_ms, answer, who, answered_ms }
}

/// Puts all of it into a shop whose jobs have these numbers, in the order of the export's list.
pub(super) fn put_floor(write: &Write<'_>, file: &FloorFile, jobs: &[i64], now_ms: i64) -> Result<(), StoreError> {
    let job = |place: usize| jobs.get(place).copied();
    let people = put_people(write, &file.people, now_ms)?;
    let places = FilePlaces { jobs, people: &people };
    let mut items = Vec::new();
    for entry in &file.items {
        items.push(put_item(write, entry, places, now_ms)?);
    }
    let item = |place: usize| items.get(place).copied().flatten();
    for alike in &file.look_alikes {
        if let (Some(one), Some(other)) = (item(alike.items[0]), item(alike.items[1])) {
            write.set_look_alike(one, other, &alike.difference)?;
        }
    }
    for need in &file.needs {
        if let (Some(job), Some(item)) = (job(need.job), item(need.item)) {
            write.put_need(job, item, need.quantity)?;
        }
    }
    for quote in &file.quotes {
        if let Some(job) = job(quote.job) {
            let QuoteEntry { says, total, made_ms, answer, who, answered_ms, .. } = quote.clone();
            let row = QuoteRow { id: 0, says: stored(&says), total, made_ms, answer, who, answered_ms };
            write.put_quote(job, &row)?;
        }
    }
    for donor in &file.donors {
        let id = write.add_donor(&donor.name, &donor.holds, now_ms)?;
        if let Some(job) = donor.job.and_then(job) {
            write.harvest_donor(id, job)?;
        }
    }
    for pin in &file.pins {
        if let Some(job) = job(pin.job) {
            let person = places.person(pin.person);
            write.pin_task(&TaskPinRow { job, task: pin.task.clone(), person, not_before_ms: pin.not_before_ms })?;
        }
    }
    for [later, first] in &file.returns {
        if let (Some(later), Some(first)) = (job(*later), job(*first)) {
            write.return_of(later, first)?;
        }
    }
    put_worked(write, file, places)?;
    jobs.iter().try_for_each(|job| Job::list(write, *job))
}

fn put_people(write: &Write<'_>, people: &[PersonEntry], now_ms: i64) -> Result<Vec<Option<i64>>, StoreError> {
    let put = |person: PersonEntry| {
        let new = NewPerson { name: person.name, role: person.role, level: person.level };
        let id = write.add_person(&new, now_ms)?;
        if let Some(row) = id.map(|id| write.read().person(id)).transpose()?.flatten() {
            write.change_person(&PersonRow { hours: person.hours, ..row })?;
        }
        if let (Some(id), Some(left)) = (id, person.left_ms) {
            write.set_left(id, Some(left))?;
        }
        Ok(id)
    };
    people.iter().cloned().map(put).collect()
}

fn put_item(
    write: &Write<'_>,
    entry: &ItemEntry,
    places: FilePlaces<'_>,
    now_ms: i64,
) -> Result<Option<i64>, StoreError> {
    let text = item::write(&entry.item).map_err(|error| StoreError::Connection(error.to_string()))?;
    let Some(id) = write.add_item(&entry.item.name, &text, now_ms)? else { return Ok(None) };
    for came in &entry.moves {
        let Some(kind) = MoveKind::from_key(&came.kind) else { continue };
        let MoveEntry { quantity, day, note, at_ms, .. } = came.clone();
        let job = came.job.and_then(|place| places.jobs.get(place).copied());
        write.act_as(places.person(came.person))?;
        // As it stands in the file: what came off an order then is a move of its own there.
        write.put_move(&NewMove { item: id, job, kind, quantity, day, note, at_ms })?;
    }
    write.act_as(None)?;
    if let Some(retired_ms) = entry.retired_ms {
        write.retire_item(id, retired_ms)?;
    }
    Ok(Some(id))
}
