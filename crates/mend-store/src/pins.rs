//! Table `pins`.

use std::collections::BTreeMap;

use rusqlite::params;

use crate::{Read, StoreError, Write};

impl Read<'_> {
    /// Marks of a job by pin.
    pub fn pins(&self, job: i64) -> Result<BTreeMap<String, String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT pin, mark FROM pins WHERE job_id = ?1")?;
        let rows = statement.query_map([job], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Marks a pin; the newest mark counts.
    pub fn mark_pin(&self, job: i64, (pin, mark): (&str, &str), now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO pins (job_id, pin, mark, marked_ms) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (job_id, pin) DO UPDATE SET mark = excluded.mark, marked_ms = excluded.marked_ms";
        self.0.prepare_cached(sql)?.execute(params![job, pin, mark, now_ms])?;
        Ok(())
    }

    /// Takes a mark back.
    pub fn unmark_pin(&self, job: i64, pin: &str) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM pins WHERE job_id = ?1 AND pin = ?2")?.execute(params![job, pin])?;
        Ok(())
    }
}
