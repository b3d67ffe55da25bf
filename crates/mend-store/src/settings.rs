//! Tables `settings` and `fit_settings`.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

impl Read<'_> {
    /// What a job's heat plan is set to, as it was entered.
    pub fn settings(&self, job: i64) -> Result<Option<String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT inputs FROM settings WHERE job_id = ?1")?;
        Ok(statement.query_row([job], |row| row.get(0)).optional()?)
    }

    /// What the plan of its fit is set to, as it was entered.
    pub fn fit_settings(&self, job: i64) -> Result<Option<String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT inputs FROM fit_settings WHERE job_id = ?1")?;
        Ok(statement.query_row([job], |row| row.get(0)).optional()?)
    }
}

impl Write<'_> {
    /// Keeps it.
    pub fn set_settings(&self, job: i64, inputs: &str, now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO settings (job_id, inputs, typed_ms) VALUES (?1, ?2, ?3)
                   ON CONFLICT (job_id) DO UPDATE SET inputs = excluded.inputs, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![job, inputs, now_ms])?;
        Ok(())
    }

    /// Keeps what the plan of its fit is set to.
    pub fn set_fit_settings(&self, job: i64, inputs: &str, now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO fit_settings (job_id, inputs, typed_ms) VALUES (?1, ?2, ?3)
                   ON CONFLICT (job_id) DO UPDATE SET inputs = excluded.inputs, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![job, inputs, now_ms])?;
        Ok(())
    }
}
