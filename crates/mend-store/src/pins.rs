//! Tables `pins` and `pin_marks`.

use std::collections::BTreeMap;

use rusqlite::params;

use crate::{Read, StoreError, Write};

/// A mark of a pin.
#[derive(Debug, Clone)]
pub struct NewMark {
    /// The pin.
    pub pin: String,
    /// The mark; empty takes it back.
    pub mark: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
    /// Made by the browser: the same mark sent again has the same one.
    pub token: String,
}

impl Read<'_> {
    /// Marks of a job by pin.
    pub fn pins(&self, job: i64) -> Result<BTreeMap<String, String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT pin, mark FROM pins WHERE job_id = ?1")?;
        let rows = statement.query_map([job], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Marks a pin; the newest mark counts. A mark that was kept already changes nothing, whatever came after it.
    pub fn mark_pin(&self, job: i64, new: &NewMark) -> Result<(), StoreError> {
        let sql = "INSERT INTO pin_marks (job_id, pin, mark, marked_ms, token) VALUES (?1, ?2, ?3, ?4, ?5)
                   ON CONFLICT (job_id, token) DO NOTHING";
        let NewMark { pin, mark, at_ms, token } = new;
        if self.0.prepare_cached(sql)?.execute(params![job, pin, mark, at_ms, token])? == 0 {
            return Ok(());
        }
        if mark.is_empty() {
            let sql = "DELETE FROM pins WHERE job_id = ?1 AND pin = ?2";
            self.0.prepare_cached(sql)?.execute(params![job, pin])?;
            return Ok(());
        }
        let sql = "INSERT INTO pins (job_id, pin, mark, marked_ms) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (job_id, pin) DO UPDATE SET mark = excluded.mark, marked_ms = excluded.marked_ms";
        self.0.prepare_cached(sql)?.execute(params![job, pin, mark, at_ms])?;
        Ok(())
    }
}
