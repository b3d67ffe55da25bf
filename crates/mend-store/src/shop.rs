//! Tables `shop` and `means`: a row each, as they were entered.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

impl Read<'_> {
    /// The shop's settings.
    pub fn shop(&self) -> Result<Option<String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT file FROM shop WHERE id = 1")?;
        Ok(statement.query_row([], |row| row.get(0)).optional()?)
    }

    /// What the shop has and can.
    pub fn equipment(&self) -> Result<Option<String>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT file FROM means WHERE id = 1")?;
        Ok(statement.query_row([], |row| row.get(0)).optional()?)
    }
}

impl Write<'_> {
    /// Keeps the shop's settings.
    pub fn set_shop(&self, file: &str, now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO shop (id, file, typed_ms) VALUES (1, ?1, ?2)
                   ON CONFLICT (id) DO UPDATE SET file = excluded.file, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![file, now_ms])?;
        Ok(())
    }

    /// Keeps what the shop has and can.
    pub fn set_equipment(&self, file: &str, now_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO means (id, file, typed_ms) VALUES (1, ?1, ?2)
                   ON CONFLICT (id) DO UPDATE SET file = excluded.file, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![file, now_ms])?;
        Ok(())
    }
}
