//! Tables `attempts` and `attempt_events`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// An attempt at the practice bench.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct AttemptRow {
    /// Its number.
    pub id: i64,
    /// Whose.
    pub person: Option<i64>,
    /// The task of the course; empty: none.
    pub task: String,
    /// The job that it rehearses.
    pub job: Option<i64>,
    /// What it began with, `urgent-mend/practice/1`.
    pub of: String,
    /// When, ms since the epoch.
    pub begun_ms: i64,
    /// Steps so far.
    pub ticks: u32,
    /// Done?
    pub ended_ms: Option<i64>,
    /// Done, and nothing harmed.
    pub passed: bool,
    /// What was harmed, JSON; empty: it goes on.
    pub harms: String,
}

/// How far somebody is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PracticeRecordRow {
    /// Their number.
    pub person: i64,
    /// Their name.
    pub name: String,
    /// Their level, as it is stored.
    pub level: String,
    /// Tasks of the course that they have passed.
    pub passed: u32,
    /// Attempts.
    pub tried: u32,
}

/// Something that hands did.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct AttemptEventRow {
    /// As the browser counts, from 1.
    pub seq: u32,
    /// After so many steps.
    pub tick: u32,
    /// What, JSON.
    pub does: String,
}

/// How an attempt ended.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct AttemptEnd {
    /// Steps.
    pub ticks: u32,
    /// When, ms since the epoch.
    pub at_ms: i64,
    /// Done, and nothing harmed.
    pub passed: bool,
    /// What was harmed, JSON.
    pub harms: String,
}

const SELECT: &str = "SELECT id, person_id, task, job_id, of, begun_ms, ticks, ended_ms, passed, harms FROM attempts";

fn of(row: &Row<'_>) -> rusqlite::Result<AttemptRow> {
    Ok(AttemptRow {
        id: row.get(0)?,
        person: row.get(1)?,
        task: row.get(2)?,
        job: row.get(3)?,
        of: row.get(4)?,
        begun_ms: row.get(5)?,
        ticks: row.get(6)?,
        ended_ms: row.get(7)?,
        passed: row.get(8)?,
        harms: row.get(9)?,
    })
}

impl Read<'_> {
    /// One of them.
    pub fn attempt(&self, id: i64) -> Result<Option<AttemptRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} WHERE id = ?1"))?;
        Ok(statement.query_row([id], of).optional()?)
    }

    /// Somebody's, or where nobody signs in everybody's, the newest first.
    pub fn attempts_of(&self, person: Option<i64>) -> Result<Vec<AttemptRow>, StoreError> {
        let mut statement =
            self.0.prepare_cached(&format!("{SELECT} WHERE person_id IS ?1 ORDER BY id DESC LIMIT 500"))?;
        let rows = statement.query_map([person], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// How far everybody is who has tried anything, by name.
    pub fn practice_records(&self) -> Result<Vec<PracticeRecordRow>, StoreError> {
        let sql = "SELECT p.id, p.name, p.level, count(DISTINCT CASE WHEN a.passed AND a.task <> '' THEN a.task END), count(*)
                   FROM attempts a JOIN people p ON p.id = a.person_id GROUP BY p.id ORDER BY p.name";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            let (person, name, level) = (row.get(0)?, row.get(1)?, row.get(2)?);
            Ok(PracticeRecordRow { person, name, level, passed: row.get(3)?, tried: row.get(4)? })
        };
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Everybody's, the oldest first.
    pub fn all_attempts(&self) -> Result<Vec<AttemptRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY id"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What was done in one, in its order.
    pub fn attempt_events(&self, id: i64) -> Result<Vec<AttemptEventRow>, StoreError> {
        let sql = "SELECT seq, tick, does FROM attempt_events WHERE attempt_id = ?1 ORDER BY seq";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok(AttemptEventRow { seq: row.get(0)?, tick: row.get(1)?, does: row.get(2)? });
        let rows = statement.query_map([id], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// An attempt to begin.
#[derive(Debug, Clone, Copy)]
pub struct NewAttempt<'a> {
    /// The task of the course; empty: none of it.
    pub task: &'a str,
    /// The job that is rehearsed.
    pub job: Option<i64>,
    /// What it is practised on, JSON.
    pub of: &'a str,
    /// When, ms since the epoch.
    pub at_ms: i64,
}

impl Write<'_> {
    /// Begins one; its number.
    pub fn begin_attempt(&self, new: NewAttempt<'_>) -> Result<i64, StoreError> {
        let NewAttempt { task, job, of, at_ms } = new;
        let sql =
            "INSERT INTO attempts (task, job_id, of, begun_ms, ticks, passed, harms) VALUES (?1, ?2, ?3, ?4, 0, 0, '')";
        self.0.prepare_cached(sql)?.execute(params![task, job, of, at_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// Keeps what hands did; what is kept already stays as it is.
    pub fn add_attempt_events(&self, id: i64, events: &[AttemptEventRow]) -> Result<(), StoreError> {
        let sql = "INSERT OR IGNORE INTO attempt_events (attempt_id, seq, tick, does) VALUES (?1, ?2, ?3, ?4)";
        let mut statement = self.0.prepare_cached(sql)?;
        for AttemptEventRow { seq, tick, does } in events {
            statement.execute(params![id, seq, tick, does])?;
        }
        Ok(())
    }

    /// How far it is.
    pub fn set_attempt_ticks(&self, id: i64, ticks: u32) -> Result<(), StoreError> {
        let sql = "UPDATE attempts SET ticks = ?2 WHERE id = ?1 AND ended_ms IS NULL AND ticks < ?2";
        self.0.prepare_cached(sql)?.execute(params![id, ticks])?;
        Ok(())
    }

    /// It is done.
    pub fn end_attempt(&self, id: i64, end: &AttemptEnd) -> Result<(), StoreError> {
        let sql =
            "UPDATE attempts SET ticks = ?2, ended_ms = ?3, passed = ?4, harms = ?5 WHERE id = ?1 AND ended_ms IS NULL";
        let AttemptEnd { ticks, at_ms, passed, harms } = end;
        self.0.prepare_cached(sql)?.execute(params![id, ticks, at_ms, passed, harms])?;
        Ok(())
    }
}
