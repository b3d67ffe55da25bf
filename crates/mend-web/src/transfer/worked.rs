//! Who worked, and how it went, in the file of a shop's floor: whose each entry is, when jobs stood still, what was practised.

use mend_formats::floor::{AttemptEntry, AttemptEventEntry, FloorFile, HandEntry, WaitEntry};
use mend_store::{
    AttemptEnd, AttemptEventRow, AttemptRow, HandRow, NewAttempt, PersonRow, Read, RecordRow, StoreError, WaitRow,
    Write,
};

use super::file_places::FilePlaces;
use super::stored_json::{stored, value};

/// Is it said whose an entry is, and of when? A field and a mark have their moment nowhere else; whose a move of the stock is
/// stands with the move, an answer with what it answers. Of what is kept once for its name the last counts.
fn is_told(row: &RecordRow, later: &[RecordRow]) -> bool {
    let is_named = ["intake", "pin", "check"].contains(&row.kind.as_str());
    let again = |other: &RecordRow| (&other.kind, &other.what) == (&row.kind, &row.what);
    let told = ["intake", "pin"].contains(&row.kind.as_str()) || !row.who.is_empty();
    let stands_elsewhere = ["stock", "answer", "word"].contains(&row.kind.as_str());
    told && !stands_elsewhere && !(is_named && later.iter().any(again))
}

/// Puts all of it into the file.
pub(super) fn worked(
    read: Read<'_>,
    jobs: &[i64],
    people: &[PersonRow],
    file: &mut FloorFile,
) -> Result<(), StoreError> {
    let of_job = |id: Option<i64>| jobs.iter().position(|job| Some(*job) == id);
    for (job, id) in jobs.iter().enumerate() {
        let hand = |row: &RecordRow| {
            let person = people.iter().position(|person| person.name == row.who);
            HandEntry { job, kind: row.kind.clone(), what: row.what.clone(), at_ms: row.at_ms, person }
        };
        let record = read.record(*id)?;
        let told = record.iter().enumerate().filter(|(k, row)| is_told(row, &record[k + 1..]));
        file.hands.extend(told.map(|(_, row)| hand(row)));
        let wait = |row: WaitRow| WaitEntry { job, cause: row.cause, begun_ms: row.begun_ms, ended_ms: row.ended_ms };
        file.waits.extend(read.waits(*id)?.into_iter().map(wait));
    }
    for row in read.all_attempts()? {
        let person = people.iter().position(|person| Some(person.id) == row.person);
        let job = of_job(row.job);
        file.attempts.push(attempt_entry(read, row, person, job)?);
    }
    Ok(())
}

fn attempt_entry(
    read: Read<'_>,
    row: AttemptRow,
    person: Option<usize>,
    job: Option<usize>,
) -> Result<AttemptEntry, StoreError> {
    let event = |row: AttemptEventRow| AttemptEventEntry { seq: row.seq, tick: row.tick, does: value(&row.does) };
    let events = read.attempt_events(row.id)?.into_iter().map(event).collect();
    let AttemptRow { task, of, begun_ms, ticks, ended_ms, passed, harms, .. } = row;
    let (of, harms) = (value(&of), value(&harms));
    Ok(AttemptEntry { person, task, job, of, begun_ms, ticks, ended_ms, passed, harms, events })
}

/// Puts all of it into a shop that has its jobs and people already.
pub(super) fn put_worked(write: &Write<'_>, file: &FloorFile, places: FilePlaces<'_>) -> Result<(), StoreError> {
    let row = |entry: &HandEntry| {
        let HandEntry { kind, what, at_ms, person, .. } = entry.clone();
        HandRow { kind, what, at_ms, person: places.person(person) }
    };
    // They stand job by job.
    for of_job in file.hands.chunk_by(|one, next| one.job == next.job) {
        if let Some(job) = places.jobs.get(of_job[0].job) {
            write.put_hands(*job, &of_job.iter().map(row).collect::<Vec<_>>())?;
        }
    }
    for wait in &file.waits {
        if let Some(job) = places.jobs.get(wait.job) {
            let WaitEntry { cause, begun_ms, ended_ms, .. } = wait.clone();
            write.put_wait(*job, &WaitRow { cause, begun_ms, ended_ms })?;
        }
    }
    file.attempts.iter().try_for_each(|entry| put_attempt(write, entry, places))?;
    write.act_as(None)
}

fn put_attempt(write: &Write<'_>, entry: &AttemptEntry, places: FilePlaces<'_>) -> Result<(), StoreError> {
    write.act_as(places.person(entry.person))?;
    let job = entry.job.and_then(|place| places.jobs.get(place).copied());
    let id =
        write.begin_attempt(NewAttempt { task: &entry.task, job, of: &stored(&entry.of), at_ms: entry.begun_ms })?;
    let event =
        |event: &AttemptEventEntry| AttemptEventRow { seq: event.seq, tick: event.tick, does: stored(&event.does) };
    write.add_attempt_events(id, &entry.events.iter().map(event).collect::<Vec<_>>())?;
    write.set_attempt_ticks(id, entry.ticks)?;
    match entry.ended_ms {
        Some(at_ms) => {
            let (ticks, passed, harms) = (entry.ticks, entry.passed, stored(&entry.harms));
            write.end_attempt(id, &AttemptEnd { ticks, at_ms, passed, harms })
        }
        None => Ok(()),
    }
}
