//! Tables `stations` and `station_names`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A station as kept.
#[derive(Debug, Clone)]
pub struct StationRow {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// Its file, `urgent-mend/station/1`.
    pub file: String,
    /// When it was retired, ms since the epoch.
    pub retired_ms: Option<i64>,
}

const SELECT: &str = "SELECT s.id, s.name, s.file, s.retired_ms FROM stations s";

fn of(row: &Row<'_>) -> rusqlite::Result<StationRow> {
    Ok(StationRow { id: row.get(0)?, name: row.get(1)?, file: row.get(2)?, retired_ms: row.get(3)? })
}

impl Read<'_> {
    /// All stations, in the order in which they came.
    pub fn stations(&self) -> Result<Vec<StationRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY s.id"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One station.
    pub fn station(&self, id: i64) -> Result<Option<StationRow>, StoreError> {
        Ok(self.0.prepare_cached(&format!("{SELECT} WHERE s.id = ?1"))?.query_row([id], of).optional()?)
    }

    /// The station that has or had this name.
    pub fn station_named(&self, name: &str) -> Result<Option<StationRow>, StoreError> {
        let sql = format!("{SELECT} JOIN station_names n ON n.station_id = s.id WHERE n.name = ?1");
        Ok(self.0.prepare_cached(&sql)?.query_row([name], of).optional()?)
    }

    /// Every name that a station has or had.
    pub fn names_of_station(&self, id: i64) -> Result<Vec<String>, StoreError> {
        let mut statement =
            self.0.prepare_cached("SELECT name FROM station_names WHERE station_id = ?1 ORDER BY name")?;
        let rows = statement.query_map([id], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps a station; none when another has or had its name.
    pub fn add_station(&self, name: &str, file: &str) -> Result<Option<i64>, StoreError> {
        if self.read().station_named(name)?.is_some() {
            return Ok(None);
        }
        self.0.prepare_cached("INSERT INTO stations (name, file) VALUES (?1, ?2)")?.execute(params![name, file])?;
        let id = self.0.last_insert_rowid();
        self.also_name_station(id, name)?;
        Ok(Some(id))
    }

    /// Keeps a station's new file, and its new name; false when another has or had that name.
    pub fn set_station(&self, id: i64, name: &str, file: &str) -> Result<bool, StoreError> {
        if self.read().station_named(name)?.is_some_and(|other| other.id != id) {
            return Ok(false);
        }
        let sql = "UPDATE stations SET name = ?2, file = ?3 WHERE id = ?1";
        self.0.prepare_cached(sql)?.execute(params![id, name, file])?;
        self.also_name_station(id, name)?;
        Ok(true)
    }

    /// Lets a station be found by a name that it had.
    pub fn also_name_station(&self, id: i64, name: &str) -> Result<(), StoreError> {
        let sql = "INSERT INTO station_names (name, station_id) VALUES (?1, ?2) ON CONFLICT (name) DO NOTHING";
        self.0.prepare_cached(sql)?.execute(params![name, id])?;
        Ok(())
    }

    /// Retires a station, or brings it back.
    pub fn retire_station(&self, id: i64, at_ms: Option<i64>) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE stations SET retired_ms = ?2 WHERE id = ?1")?.execute(params![id, at_ms])?;
        Ok(())
    }
}
