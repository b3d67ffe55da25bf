//! Table `stations`.

use rusqlite::params;

use crate::{Read, StoreError, Write};

/// A station as kept.
#[derive(Debug, Clone)]
pub struct StationRow {
    /// Its name.
    pub name: String,
    /// Its file, `urgent-mend/station/1`.
    pub file: String,
}

impl Read<'_> {
    /// All stations, in the order in which they came.
    pub fn stations(&self) -> Result<Vec<StationRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT name, file FROM stations ORDER BY id")?;
        let rows = statement.query_map([], |row| Ok(StationRow { name: row.get(0)?, file: row.get(1)? }))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps a station.
    pub fn add_station(&self, name: &str, file: &str) -> Result<(), StoreError> {
        let sql = "INSERT INTO stations (name, file) VALUES (?1, ?2)";
        self.0.prepare_cached(sql)?.execute(params![name, file])?;
        Ok(())
    }
}
