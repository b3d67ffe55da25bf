//! Table `layouts`: layouts that were sent, until the part is chosen in them.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

/// Layouts that are kept; older ones go.
const KEPT: i64 = 8;

impl Read<'_> {
    /// Name and text of a layout.
    pub fn layout(&self, id: i64) -> Result<Option<(String, String)>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT name, file FROM layouts WHERE id = ?1")?;
        Ok(statement.query_row([id], |row| Ok((row.get(0)?, row.get(1)?))).optional()?)
    }
}

impl Write<'_> {
    /// Keeps a layout for a while.
    pub fn add_layout(&self, name: &str, file: &str, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO layouts (name, file, sent_ms) VALUES (?1, ?2, ?3)";
        self.0.prepare_cached(sql)?.execute(params![name, file, now_ms])?;
        let id = self.0.last_insert_rowid();
        self.0.prepare_cached("DELETE FROM layouts WHERE id <= ?1")?.execute([id - KEPT])?;
        Ok(id)
    }
}
