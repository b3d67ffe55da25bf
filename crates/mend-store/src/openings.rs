//! Tables `opening_models`, `opening_maps` and `job_openings`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A version of an opening map.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct OpeningRow {
    /// Its number.
    pub id: i64,
    /// The device model's name.
    pub name: String,
    /// Which version, from 1.
    pub version: i64,
    /// The map, `urgent-mend/opening/1`.
    pub map: String,
}

const SELECT: &str =
    "SELECT o.id, m.name, o.version, o.map FROM opening_maps o JOIN opening_models m ON m.id = o.model_id";

fn of(row: &Row<'_>) -> rusqlite::Result<OpeningRow> {
    Ok(OpeningRow { id: row.get(0)?, name: row.get(1)?, version: row.get(2)?, map: row.get(3)? })
}

impl Read<'_> {
    /// The newest map of every device model, by name.
    pub fn openings(&self) -> Result<Vec<OpeningRow>, StoreError> {
        let newest = "WHERE o.version = (SELECT max(version) FROM opening_maps n WHERE n.model_id = o.model_id)";
        let mut statement = self.0.prepare_cached(&format!("{SELECT} {newest} ORDER BY m.name"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// All versions of all maps, oldest first.
    pub fn all_openings(&self) -> Result<Vec<OpeningRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY o.id"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The map that a job goes by.
    pub fn opening_of(&self, job: i64) -> Result<Option<OpeningRow>, StoreError> {
        let sql = format!("{SELECT} JOIN job_openings j ON j.map_id = o.id WHERE j.job_id = ?1");
        Ok(self.0.prepare_cached(&sql)?.query_row([job], of).optional()?)
    }

    /// How many jobs go by a version.
    fn jobs_by(&self, map: i64) -> Result<i64, StoreError> {
        let sql = "SELECT count(*) FROM job_openings WHERE map_id = ?1";
        Ok(self.0.prepare_cached(sql)?.query_row([map], |row| row.get(0))?)
    }
}

impl Write<'_> {
    /// Keeps a map as the newest version of a device model, which is made where there is none of that name; its number.
    pub fn add_opening(&self, name: &str, map: &str, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO opening_models (name, entered_ms) VALUES (?1, ?2) ON CONFLICT (name) DO NOTHING";
        self.0.prepare_cached(sql)?.execute(params![name, now_ms])?;
        let sql = "INSERT INTO opening_maps (model_id, version, map, entered_ms)
                   SELECT m.id, 1 + coalesce(max(o.version), 0), ?2, ?3 FROM opening_models m
                   LEFT JOIN opening_maps o ON o.model_id = m.id WHERE m.name = ?1 GROUP BY m.id";
        self.0.prepare_cached(sql)?.execute(params![name, map, now_ms])?;
        Ok(self.0.last_insert_rowid())
    }

    /// A job goes by a map.
    pub fn choose_opening(&self, job: i64, map: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_openings (job_id, map_id) VALUES (?1, ?2)
                   ON CONFLICT (job_id) DO UPDATE SET map_id = excluded.map_id";
        self.0.prepare_cached(sql)?.execute(params![job, map])?;
        Ok(())
    }

    /// Changes the map of a job: in place while no other job goes by it, else as a new version, so that an older job's map stays
    /// as it was.
    pub fn change_opening(&self, job: i64, row: &OpeningRow, now_ms: i64) -> Result<(), StoreError> {
        let map = row.map.as_str();
        if self.read().jobs_by(row.id)? > 1 {
            let id = self.add_opening(&row.name, map, now_ms)?;
            return self.choose_opening(job, id);
        }
        self.0.prepare_cached("UPDATE opening_maps SET map = ?2 WHERE id = ?1")?.execute(params![row.id, map])?;
        Ok(())
    }
}
