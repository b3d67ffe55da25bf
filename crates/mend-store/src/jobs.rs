//! Tables `jobs` and `intake`.

use std::collections::BTreeMap;

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

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

const COLUMNS: &str = "id, taken_in_ms, board_id, handed_over_ms";

impl Read<'_> {
    /// All jobs, newest first.
    pub fn jobs(&self) -> Result<Vec<JobRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("SELECT {COLUMNS} FROM jobs ORDER BY id DESC"))?;
        let rows = statement.query_map([], bare)?.collect::<Result<Vec<_>, _>>()?;
        rows.into_iter().map(|job| self.with_intake(job)).collect()
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

    /// Keeps one field of the intake.
    pub fn set_intake(&self, job: i64, (field, value): (&str, &str), now_ms: i64) -> Result<(), StoreError> {
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

    /// Closes a job, or opens it again.
    pub fn hand_over(&self, job: i64, at_ms: Option<i64>) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE jobs SET handed_over_ms = ?2 WHERE id = ?1")?.execute(params![job, at_ms])?;
        Ok(())
    }
}
