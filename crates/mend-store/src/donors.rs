//! Table `donors`.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A device or board that parts come off.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct DonorRow {
    /// Its number.
    pub id: i64,
    /// What it is.
    pub name: String,
    /// What is still on it, a line each.
    pub holds: String,
    /// Its harvest, once that was begun.
    pub job_id: Option<i64>,
}

impl Read<'_> {
    /// All that are still there, oldest first.
    pub fn donors(&self) -> Result<Vec<DonorRow>, StoreError> {
        let sql = "SELECT id, name, holds, job_id FROM donors WHERE gone_ms IS NULL ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            Ok(DonorRow { id: row.get(0)?, name: row.get(1)?, holds: row.get(2)?, job_id: row.get(3)? })
        };
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps one.
    pub fn add_donor(&self, name: &str, holds: &str, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO donors (name, holds, added_ms) VALUES (?1, ?2, ?3)";
        self.0.prepare_cached(sql)?.execute(params![name, holds, now_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// Its harvest has begun.
    pub fn harvest_donor(&self, donor: i64, job: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE donors SET job_id = ?2 WHERE id = ?1")?.execute([donor, job])?;
        Ok(())
    }

    /// It was thrown away.
    pub fn discard_donor(&self, donor: i64, now_ms: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE donors SET gone_ms = ?2 WHERE id = ?1")?.execute([donor, now_ms])?;
        Ok(())
    }
}
