//! Table `variants`: a job's plans with one thing changed.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A variant.
#[derive(Debug, Clone)]
pub struct VariantRow {
    /// Its number.
    pub id: i64,
    /// What it is called.
    pub name: String,
    /// What it is planned from.
    pub inputs: String,
}

fn of(row: &Row<'_>) -> rusqlite::Result<VariantRow> {
    Ok(VariantRow { id: row.get(0)?, name: row.get(1)?, inputs: row.get(2)? })
}

impl Read<'_> {
    /// All of a job, oldest first.
    pub fn variants(&self, job: i64) -> Result<Vec<VariantRow>, StoreError> {
        let sql = "SELECT id, name, inputs FROM variants WHERE job_id = ?1 ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One of a job's.
    pub fn variant(&self, job: i64, id: i64) -> Result<Option<VariantRow>, StoreError> {
        let sql = "SELECT id, name, inputs FROM variants WHERE job_id = ?1 AND id = ?2";
        Ok(self.0.prepare_cached(sql)?.query_row([job, id], of).optional()?)
    }
}

/// A variant to keep.
#[derive(Debug, Clone, Copy)]
pub struct NewVariant<'a> {
    /// What it is called.
    pub name: &'a str,
    /// Inputs of its plan, JSON.
    pub inputs: &'a str,
    /// When it was made, ms since the epoch.
    pub made_ms: i64,
}

impl Write<'_> {
    /// Keeps a variant; none when the job has one of that name already.
    pub fn add_variant(&self, job: i64, new: NewVariant<'_>) -> Result<Option<i64>, StoreError> {
        let NewVariant { name, inputs, made_ms } = new;
        let sql = "INSERT INTO variants (job_id, name, inputs, made_ms) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (job_id, name) DO NOTHING";
        let added = self.0.prepare_cached(sql)?.execute(params![job, name, inputs, made_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }

    /// Removes a variant; false when it is none of this job's.
    pub fn remove_variant(&self, job: i64, id: i64) -> Result<bool, StoreError> {
        let removed =
            self.0.prepare_cached("DELETE FROM variants WHERE job_id = ?1 AND id = ?2")?.execute([job, id])?;
        Ok(removed > 0)
    }
}
