//! Tables `runs` and `presses`.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

/// A bench run.
#[derive(Debug, Clone, Copy)]
pub struct RunRow {
    /// Its number.
    pub id: i64,
    /// The plan it follows.
    pub plan_id: i64,
    /// When it was opened, ms since the epoch.
    pub started_ms: i64,
}

/// One press.
#[derive(Debug, Clone)]
pub struct PressRow {
    /// Its name.
    pub press: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
}

impl Read<'_> {
    /// The newest run of a job.
    pub fn run_of(&self, job: i64) -> Result<Option<RunRow>, StoreError> {
        let sql = "SELECT id, plan_id, started_ms FROM runs WHERE job_id = ?1 ORDER BY id DESC LIMIT 1";
        let of =
            |row: &rusqlite::Row<'_>| Ok(RunRow { id: row.get(0)?, plan_id: row.get(1)?, started_ms: row.get(2)? });
        Ok(self.0.prepare_cached(sql)?.query_row([job], of).optional()?)
    }

    /// What was pressed in a run, in order of time; presses that were kept back by a lost network fall into place.
    pub fn presses(&self, run: i64) -> Result<Vec<PressRow>, StoreError> {
        let sql = "SELECT press, at_ms FROM presses WHERE run_id = ?1 ORDER BY at_ms, id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([run], |row| Ok(PressRow { press: row.get(0)?, at_ms: row.get(1)? }))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Opens a run on a plan.
    pub fn add_run(&self, job: i64, plan: i64, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO runs (job_id, plan_id, started_ms) VALUES (?1, ?2, ?3)";
        self.0.prepare_cached(sql)?.execute(params![job, plan, now_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// Keeps a press; the same token again is the same press.
    pub fn add_press(&self, run: i64, press: &PressRow, token: &str) -> Result<(), StoreError> {
        let sql = "INSERT INTO presses (run_id, press, at_ms, token) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (run_id, token) DO NOTHING";
        self.0.prepare_cached(sql)?.execute(params![run, press.press, press.at_ms, token])?;
        Ok(())
    }
}
