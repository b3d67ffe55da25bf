//! Table `charges`: what the joints of a job hold and are fed.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

impl Read<'_> {
    /// What a job's joints hold, as it was entered.
    pub fn composition(&self, job: i64) -> Result<Option<String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT charge FROM charges WHERE job_id = ?1")?;
        Ok(statement.query_row([job], |row| row.get(0)).optional()?)
    }
}

impl Write<'_> {
    /// Keeps it.
    pub fn set_composition(&self, job: i64, composition: &str, now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO charges (job_id, charge, typed_ms) VALUES (?1, ?2, ?3)
                   ON CONFLICT (job_id) DO UPDATE SET charge = excluded.charge, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![job, composition, now_ms])?;
        Ok(())
    }
}
