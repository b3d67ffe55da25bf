//! Tables `jobs`, `intake` and `job_log`.

use std::collections::BTreeMap;

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, TypedField, Write};

/// A job with its intake.
#[derive(Debug, Clone)]
pub struct JobRow {
    /// Its number.
    pub id: i64,
    /// When it was taken in, ms since the epoch.
    pub taken_in_ms: i64,
    /// Its board, once chosen.
    pub board_id: Option<i64>,
    /// When it went back, ms since the epoch.
    pub handed_over_ms: Option<i64>,
    /// The intake's values by field.
    pub intake: BTreeMap<String, String>,
}

/// A handing over or a reopening, as it stands on record.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LogRow {
    /// `handed-over` or `reopened`.
    pub what: String,
    /// Who did it; empty where nobody asked.
    pub who: String,
    /// Why; empty where nobody asked.
    pub reason: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
}

const COLUMNS: &str = "id, taken_in_ms, board_id, handed_over_ms";

impl Read<'_> {
    /// The numbers of all jobs, oldest first.
    pub fn job_numbers(&self) -> Result<Vec<i64>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id FROM jobs ORDER BY id")?;
        let rows = statement.query_map([], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Is there any job?
    pub fn has_jobs(&self) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("SELECT 1 FROM jobs LIMIT 1")?.exists([])?)
    }

    /// One job.
    pub fn job(&self, id: i64) -> Result<Option<JobRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("SELECT {COLUMNS} FROM jobs WHERE id = ?1"))?;
        let job = statement.query_row([id], bare).optional()?;
        job.map(|job| self.with_intake(job)).transpose()
    }

    fn with_intake(&self, job: JobRow) -> Result<JobRow, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT field, value FROM intake WHERE job_id = ?1")?;
        let rows = statement.query_map([job.id], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(JobRow { intake: rows.collect::<Result<_, _>>()?, ..job })
    }

    /// Jobs that came back under warranty, each with the first of its line.
    pub fn returns(&self) -> Result<Vec<(i64, i64)>, StoreError> {
        let sql = "SELECT id, return_of FROM jobs WHERE return_of IS NOT NULL ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What the handing over and reopening of a job left on record, oldest first.
    pub fn job_log(&self, job: i64) -> Result<Vec<LogRow>, StoreError> {
        let sql = "SELECT what, who, reason, at_ms FROM job_log WHERE job_id = ?1 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &rusqlite::Row<'_>| {
            Ok(LogRow { what: row.get(0)?, who: row.get(1)?, reason: row.get(2)?, at_ms: row.get(3)? })
        };
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

fn bare(row: &rusqlite::Row<'_>) -> rusqlite::Result<JobRow> {
    Ok(JobRow {
        id: row.get(0)?,
        taken_in_ms: row.get(1)?,
        board_id: row.get(2)?,
        handed_over_ms: row.get(3)?,
        intake: BTreeMap::new(),
    })
}

impl Write<'_> {
    /// Opens a job.
    pub fn add_job(&self, now_ms: i64) -> Result<i64, StoreError> {
        self.0.prepare_cached("INSERT INTO jobs (taken_in_ms) VALUES (?1)")?.execute([now_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// Does something to a job as if it were open, within this transaction: what a file says of a job that is closed.
    pub(crate) fn while_open<T>(
        &self,
        job: i64,
        work: impl FnOnce(&Self) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let sql = "SELECT handed_over_ms FROM jobs WHERE id = ?1";
        let closed: Option<i64> = self.0.prepare_cached(sql)?.query_row([job], |row| row.get(0))?;
        let set = "UPDATE jobs SET handed_over_ms = ?2 WHERE id = ?1";
        self.0.prepare_cached(set)?.execute(params![job, None::<i64>])?;
        let answer = work(self)?;
        self.0.prepare_cached(set)?.execute(params![job, closed])?;
        Ok(answer)
    }

    /// A job came back under warranty: it is a return of an earlier one, or of what that was a return of.
    pub fn return_of(&self, job: i64, earlier: i64) -> Result<(), StoreError> {
        let sql = "UPDATE jobs SET return_of = (SELECT ifnull(return_of, id) FROM jobs WHERE id = ?2) WHERE id = ?1";
        self.0.prepare_cached(sql)?.execute([job, earlier])?;
        Ok(())
    }

    /// Keeps one field of the intake.
    pub fn set_intake(&self, job: i64, typed: TypedField<'_>, now_ms: i64) -> Result<(), StoreError> {
        let TypedField { field, value } = typed;
        let sql = "INSERT INTO intake (job_id, field, value, typed_ms) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (job_id, field) DO UPDATE SET value = excluded.value, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![job, field, value, now_ms])?;
        Ok(())
    }

    /// Puts a board to a job.
    pub fn choose_board(&self, job: i64, board: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE jobs SET board_id = ?2 WHERE id = ?1")?.execute(params![job, board])?;
        Ok(())
    }

    /// Closes a job to every write. One that is closed already stays as it is.
    pub fn hand_over(&self, job: i64, at_ms: i64) -> Result<(), StoreError> {
        let sql = "UPDATE jobs SET handed_over_ms = ?2 WHERE id = ?1 AND handed_over_ms IS NULL";
        if self.0.prepare_cached(sql)?.execute(params![job, at_ms])? == 1 {
            let (what, who, reason) = ("handed-over".to_owned(), String::new(), String::new());
            self.log_job(job, &LogRow { what, who, reason, at_ms })?;
        }
        Ok(())
    }

    /// Opens a closed job again, for a reason that stays on record.
    pub fn reopen(&self, job: i64, row: &LogRow) -> Result<(), StoreError> {
        let sql = "UPDATE jobs SET handed_over_ms = NULL WHERE id = ?1 AND handed_over_ms IS NOT NULL";
        if self.0.prepare_cached(sql)?.execute([job])? == 1 {
            self.log_job(job, row)?;
        }
        Ok(())
    }

    /// Puts something on a job's record, as it stands in a file.
    pub fn log_job(&self, job: i64, row: &LogRow) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_log (job_id, what, who, reason, at_ms) VALUES (?1, ?2, ?3, ?4, ?5)";
        let LogRow { what, who, reason, at_ms } = row;
        self.0.prepare_cached(sql)?.execute(params![job, what, who, reason, at_ms])?;
        Ok(())
    }

    /// Closes a job whose record has been read from a file.
    pub fn set_handed_over(&self, job: i64, at_ms: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE jobs SET handed_over_ms = ?2 WHERE id = ?1")?.execute(params![job, at_ms])?;
        Ok(())
    }
}
