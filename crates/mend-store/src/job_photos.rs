//! Table `job_photos`.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A photograph of a job.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct JobPhotoRow {
    /// Its number; 0: not kept yet.
    pub id: i64,
    /// The picture.
    pub photo_id: i64,
    /// The stop at which it was taken.
    pub stop: String,
    /// What is to be seen; empty: nothing said.
    pub words: String,
    /// Is it shown on the customer's sheet?
    pub on_sheet: bool,
    /// When it was brought in, ms since the epoch.
    pub added_ms: i64,
}

fn of(row: &Row<'_>) -> rusqlite::Result<JobPhotoRow> {
    Ok(JobPhotoRow {
        id: row.get(0)?,
        photo_id: row.get(1)?,
        stop: row.get(2)?,
        words: row.get(3)?,
        on_sheet: row.get(4)?,
        added_ms: row.get(5)?,
    })
}

impl Read<'_> {
    /// All of a job, oldest first.
    pub fn job_photos(&self, job: i64) -> Result<Vec<JobPhotoRow>, StoreError> {
        let sql = "SELECT id, photo_id, stop, words, on_sheet, added_ms FROM job_photos WHERE job_id = ?1 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// What is said of a photograph.
#[derive(Debug, Clone, Copy)]
pub struct PhotoWords<'a> {
    /// A line.
    pub words: &'a str,
    /// Does the customer's sheet show it?
    pub on_sheet: bool,
}

impl Write<'_> {
    /// Keeps one.
    pub fn add_job_photo(&self, job: i64, row: &JobPhotoRow) -> Result<(), StoreError> {
        let sql = "INSERT INTO job_photos (job_id, photo_id, stop, words, on_sheet, added_ms) VALUES (?1, ?2, ?3, ?4, ?5, ?6)";
        let JobPhotoRow { photo_id, stop, words, on_sheet, added_ms, .. } = row;
        self.0.prepare_cached(sql)?.execute(params![job, photo_id, stop, words, on_sheet, added_ms])?;
        Ok(())
    }

    /// What is said of one, and whether the sheet shows it; false where the job has none so numbered.
    pub fn set_job_photo(&self, job: i64, id: i64, said: PhotoWords<'_>) -> Result<bool, StoreError> {
        let PhotoWords { words, on_sheet } = said;
        let sql = "UPDATE job_photos SET words = ?3, on_sheet = ?4 WHERE job_id = ?1 AND id = ?2";
        Ok(self.0.prepare_cached(sql)?.execute(params![job, id, words, on_sheet])? == 1)
    }

    /// Takes one off a job; the picture stays in the store.
    pub fn remove_job_photo(&self, job: i64, id: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM job_photos WHERE job_id = ?1 AND id = ?2")?.execute([job, id])?;
        Ok(())
    }
}
