//! Tables `job_index` and `job_search`: what lists show of a job, so that no list reads the job itself.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A release that was stamped, beside what was predicted, s.
#[derive(Debug, Clone, PartialEq)]
pub struct ReleaseRow {
    /// The job.
    pub job_id: i64,
    /// Its device.
    pub device: String,
    /// Eight in ten come within low and high; none: not expected to melt, or no end.
    pub predicted: [Option<f64>; 3],
    /// Air on until it moved, a first attempt on a cold board.
    pub actual_s: f64,
}

/// A job as lists show it.
#[derive(Debug, Clone)]
pub struct IndexRow {
    /// The job.
    pub job_id: i64,
    /// In the shop?
    pub open: bool,
    /// The model of its board.
    pub model_id: Option<i64>,
    /// Its device.
    pub device: String,
    /// What is shown of it, JSON.
    pub summary: String,
    /// What was stamped, if anything was.
    pub release: Option<ReleaseRow>,
    /// Did it come within the band?
    pub within: bool,
    /// What it is found by.
    pub words: String,
}

/// A row of a list.
#[derive(Debug, Clone)]
pub struct ListedJob {
    /// The job.
    pub job_id: i64,
    /// What is shown of it, JSON.
    pub summary: String,
}

fn listed(row: &Row<'_>) -> rusqlite::Result<ListedJob> {
    Ok(ListedJob { job_id: row.get(0)?, summary: row.get(1)? })
}

impl Read<'_> {
    /// All jobs in the shop.
    pub fn open_jobs(&self) -> Result<Vec<ListedJob>, StoreError> {
        let sql = "SELECT job_id, summary FROM job_index WHERE open = 1 ORDER BY job_id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([], listed)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The newest finished jobs before a number, as many as `most`.
    pub fn closed_jobs(&self, before: i64, most: u32) -> Result<Vec<ListedJob>, StoreError> {
        let sql = "SELECT job_id, summary FROM job_index WHERE open = 0 AND job_id < ?1 ORDER BY job_id DESC LIMIT ?2";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map(params![before, most], listed)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Jobs that hold all of these words, or their beginnings, the newest before a number first.
    pub fn found_jobs(&self, words: &str, before: i64, most: u32) -> Result<Vec<ListedJob>, StoreError> {
        let quoted = |word: &str| format!("\"{}\"*", word.replace('"', "\"\""));
        let query = words.split_whitespace().map(quoted).collect::<Vec<_>>().join(" ");
        if query.is_empty() {
            return Ok(Vec::new());
        }
        let sql = "SELECT i.job_id, i.summary FROM job_search s JOIN job_index i ON i.job_id = s.rowid
                   WHERE job_search MATCH ?1 AND s.rowid < ?2 ORDER BY s.rowid DESC LIMIT ?3";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map(params![query, before, most], listed)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One job as lists show it.
    pub fn listed_job(&self, id: i64) -> Result<Option<ListedJob>, StoreError> {
        let sql = "SELECT job_id, summary FROM job_index WHERE job_id = ?1";
        Ok(self.0.prepare_cached(sql)?.query_row([id], listed).optional()?)
    }

    /// Is there any finished job?
    pub fn has_closed_jobs(&self) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("SELECT 1 FROM job_index WHERE open = 0 LIMIT 1")?.exists([])?)
    }

    /// The newest releases on a model, oldest first, as many as `most`.
    pub fn releases(&self, model: i64, most: u32) -> Result<Vec<ReleaseRow>, StoreError> {
        let sql = "SELECT job_id, device, low_s, mid_s, high_s, actual_s FROM job_index
                   WHERE model_id = ?1 AND actual_s IS NOT NULL ORDER BY job_id DESC LIMIT ?2";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| {
            let predicted = [row.get(2)?, row.get(3)?, row.get(4)?];
            Ok(ReleaseRow { job_id: row.get(0)?, device: row.get(1)?, predicted, actual_s: row.get(5)? })
        };
        let mut rows = statement.query_map(params![model, most], of)?.collect::<Result<Vec<_>, _>>()?;
        rows.reverse();
        Ok(rows)
    }

    /// Jobs of an older version that lists do not know yet, as many as `most`.
    pub fn unlisted_jobs(&self, most: u32) -> Result<Vec<i64>, StoreError> {
        let sql = "SELECT id FROM jobs WHERE id NOT IN (SELECT job_id FROM job_index) ORDER BY id DESC LIMIT ?1";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([most], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Puts a job into the lists as it is now.
    pub fn list_job(&self, row: &IndexRow) -> Result<(), StoreError> {
        // Deleted and inserted: the triggers that count keep one rule each.
        self.0.prepare_cached("DELETE FROM job_index WHERE job_id = ?1")?.execute([row.job_id])?;
        let sql =
            "INSERT INTO job_index (job_id, open, model_id, device, summary, low_s, mid_s, high_s, actual_s, within)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10)";
        let [low, mid, high] = row.release.as_ref().map_or([None; 3], |release| release.predicted);
        let actual = row.release.as_ref().map(|release| release.actual_s);
        let IndexRow { job_id, open, model_id, device, summary, within, .. } = row;
        let values = params![job_id, open, model_id, device, summary, low, mid, high, actual, within];
        self.0.prepare_cached(sql)?.execute(values)?;
        let found = "SELECT words FROM job_search WHERE rowid = ?1";
        let known: Option<String> = self.0.prepare_cached(found)?.query_row([job_id], |row| row.get(0)).optional()?;
        if known.as_ref() != Some(&row.words) {
            self.0.prepare_cached("DELETE FROM job_search WHERE rowid = ?1")?.execute([job_id])?;
            let sql = "INSERT INTO job_search (rowid, words) VALUES (?1, ?2)";
            self.0.prepare_cached(sql)?.execute(params![job_id, row.words])?;
        }
        Ok(())
    }
}
