//! Table `extras`.

use rusqlite::{Row, params};

use crate::{CustomerWord, Read, StoreError, Write};

/// Something that was found while inside, offered as an extra line.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ExtraRow {
    /// Its number; 0: not kept yet.
    pub id: i64,
    /// What, in words.
    pub what: String,
    /// Its price as the shop writes it; empty: nothing.
    pub price: String,
    /// `accepted` or `declined`; empty: not answered yet.
    pub answer: String,
    /// Who answered.
    pub who: String,
    /// When it was found, ms since the epoch.
    pub found_ms: i64,
    /// When it was answered.
    pub answered_ms: Option<i64>,
    /// Its picture, where one was taken.
    pub photo_id: Option<i64>,
}

fn of(row: &Row<'_>) -> rusqlite::Result<ExtraRow> {
    Ok(ExtraRow {
        id: row.get(0)?,
        what: row.get(1)?,
        price: row.get(2)?,
        answer: row.get(3)?,
        who: row.get(4)?,
        found_ms: row.get(5)?,
        answered_ms: row.get(6)?,
        photo_id: row.get(7)?,
    })
}

impl Read<'_> {
    /// All of a job, oldest first.
    pub fn extras(&self, job: i64) -> Result<Vec<ExtraRow>, StoreError> {
        let sql = "SELECT id, what, price, answer, who, found_ms, answered_ms, photo_id FROM extras WHERE job_id = ?1 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl ExtraRow {
    /// Has the customer said yes to it?
    pub fn is_accepted(&self) -> bool {
        self.answer == "accepted"
    }
}

impl Write<'_> {
    /// Keeps one.
    pub fn add_extra(&self, job: i64, row: &ExtraRow) -> Result<(), StoreError> {
        let sql = "INSERT INTO extras (job_id, what, price, answer, who, found_ms, answered_ms, photo_id)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)";
        let ExtraRow { what, price, answer, who, found_ms, answered_ms, photo_id, .. } = row;
        self.0.prepare_cached(sql)?.execute(params![job, what, price, answer, who, found_ms, answered_ms, photo_id])?;
        Ok(())
    }

    /// The customer's answer; false where the job has no such line.
    pub fn answer_extra(&self, job: i64, id: i64, word: CustomerWord<'_>) -> Result<bool, StoreError> {
        let CustomerWord { answer, who, at_ms } = word;
        let sql = "UPDATE extras SET answer = ?3, who = ?4, answered_ms = ?5 WHERE job_id = ?1 AND id = ?2";
        Ok(self.0.prepare_cached(sql)?.execute(params![job, id, answer, who, at_ms])? == 1)
    }
}
