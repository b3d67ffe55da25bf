//! Table `check_entries`.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// What was found of a land, a pin or a test of a job, or that a stop was skipped.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct CheckRow {
    /// `before`, `off`, `after`, `good`, `condition`, `test-open`, `test-closed`, `opening`, `map` or `skipped`.
    pub list: String,
    /// The pin, joint, test, thing on the map or stop.
    pub name: String,
    /// What was found.
    pub value: String,
    /// When, ms since the epoch.
    pub entered_ms: i64,
}

/// An entry.
#[derive(Debug, Clone)]
pub struct NewCheck {
    /// What it is; an empty value takes back what was found before.
    pub row: CheckRow,
    /// Made by the browser: the same entry sent again has the same one.
    pub token: String,
}

fn of(row: &Row<'_>) -> rusqlite::Result<CheckRow> {
    Ok(CheckRow { list: row.get(0)?, name: row.get(1)?, value: row.get(2)?, entered_ms: row.get(3)? })
}

impl Read<'_> {
    /// What counts of a job: the newest entry of each list and name, what was taken back left out.
    pub fn checks(&self, job: i64) -> Result<Vec<CheckRow>, StoreError> {
        // Of a group with max() SQLite takes the other columns from that row.
        let sql = "SELECT list, name, value, entered_ms, max(id) FROM check_entries WHERE job_id = ?1
                   GROUP BY list, name HAVING value <> '' ORDER BY list, name";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Was an entry with this token kept already?
    pub fn has_check(&self, job: i64, token: &str) -> Result<bool, StoreError> {
        let sql = "SELECT 1 FROM check_entries WHERE job_id = ?1 AND token = ?2";
        Ok(self.0.prepare_cached(sql)?.exists(rusqlite::params![job, token])?)
    }

    /// All entries of a list, in their sequence, whether or not they count any more.
    pub fn check_history(&self, job: i64, list: &str) -> Result<Vec<CheckRow>, StoreError> {
        let sql = "SELECT list, name, value, entered_ms FROM check_entries WHERE job_id = ?1 AND list = ?2 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([&job as &dyn rusqlite::ToSql, &list], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Readings of boards of a model that are known to be good: of other jobs with their new part on that were handed over, and those
    /// of a board that was read for comparison.
    pub fn good_readings(&self, model: i64, but: i64) -> Result<Vec<CheckRow>, StoreError> {
        let sql = "SELECT c.list, c.name, c.value, c.entered_ms, max(c.id) FROM check_entries c
                   JOIN jobs j ON j.id = c.job_id JOIN boards b ON b.id = j.board_id
                   WHERE b.model_id = ?1 AND (c.list = 'good' OR c.list = 'after' AND j.handed_over_ms IS NOT NULL AND j.id <> ?2)
                   GROUP BY c.job_id, c.list, c.name HAVING c.value <> ''";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([model, but], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps an entry; one that was kept already changes nothing, whatever came after it, and answers false.
    pub fn enter_check(&self, job: i64, new: &NewCheck) -> Result<bool, StoreError> {
        let sql =
            "INSERT INTO check_entries (job_id, list, name, value, entered_ms, token) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
                   ON CONFLICT (job_id, token) DO NOTHING";
        let CheckRow { list, name, value, entered_ms } = &new.row;
        let values = params![job, list, name, value, entered_ms, new.token];
        Ok(self.0.prepare_cached(sql)?.execute(values)? == 1)
    }
}
