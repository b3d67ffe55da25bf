//! Customers: the names that jobs were taken in under, found, given out and forgotten. They have no table: a customer is what
//! the intake of their jobs says.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A customer's job.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct CustomerJobRow {
    /// Its number.
    pub job: i64,
    /// Whose it is, as it was typed.
    pub customer: String,
    /// How they are reached.
    pub contact: String,
    /// Its device.
    pub device: String,
    /// The device's serial number.
    pub serial: String,
    /// When it was taken in, ms since the epoch.
    pub taken_in_ms: i64,
    /// When it went back.
    pub handed_over_ms: Option<i64>,
}

/// Jobs with a customer; the intake's fields beside each other.
const JOBS: &str = "
    SELECT j.id, c.value, ifnull(k.value, ''), ifnull(d.value, ''), ifnull(s.value, ''), j.taken_in_ms, j.handed_over_ms
    FROM jobs j JOIN intake c ON c.job_id = j.id AND c.field = 'customer' AND c.value <> ''
    LEFT JOIN intake k ON k.job_id = j.id AND k.field = 'contact'
    LEFT JOIN intake d ON d.job_id = j.id AND d.field = 'device'
    LEFT JOIN intake s ON s.job_id = j.id AND s.field = 'serial'";

fn of(row: &Row<'_>) -> rusqlite::Result<CustomerJobRow> {
    Ok(CustomerJobRow {
        job: row.get(0)?,
        customer: row.get(1)?,
        contact: row.get(2)?,
        device: row.get(3)?,
        serial: row.get(4)?,
        taken_in_ms: row.get(5)?,
        handed_over_ms: row.get(6)?,
    })
}

impl Read<'_> {
    /// The jobs of one customer, the newest first.
    pub fn jobs_of_customer(&self, name: &str) -> Result<Vec<CustomerJobRow>, StoreError> {
        let sql = format!("{JOBS} WHERE c.value = ?1 COLLATE NOCASE ORDER BY j.id DESC");
        let mut statement = self.0.prepare_cached(&sql)?;
        let rows = statement.query_map([name], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Jobs that hold all of these words, or their beginnings, or the newest where there is none; the newest first.
    pub fn customer_jobs(&self, words: &str, most: u32) -> Result<Vec<CustomerJobRow>, StoreError> {
        let quoted = |word: &str| format!("\"{}\"*", word.replace('"', "\"\""));
        let query = words.split_whitespace().map(quoted).collect::<Vec<_>>().join(" ");
        let within = "j.id IN (SELECT rowid FROM job_search WHERE job_search MATCH ?1)";
        let within = if query.is_empty() { "?1 = ''" } else { within };
        let sql = format!("{JOBS} WHERE {within} ORDER BY j.id DESC LIMIT ?2");
        let mut statement = self.0.prepare_cached(&sql)?;
        let rows = statement.query_map(params![query, most], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Customers none of whose jobs is in the shop, or came back after a moment.
    pub fn customers_until(&self, before_ms: i64) -> Result<Vec<String>, StoreError> {
        let sql =
            "SELECT c.value FROM intake c JOIN jobs j ON j.id = c.job_id WHERE c.field = 'customer' AND c.value <> ''
                   GROUP BY c.value COLLATE NOCASE HAVING max(ifnull(j.handed_over_ms, ?1)) < ?1";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([before_ms], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Takes a customer out of these jobs of theirs, closed ones too: who they are, how they are reached, and their name where
    /// they gave their word. What was done stays.
    pub fn erase_customer(&self, name: &str, jobs: &[i64]) -> Result<(), StoreError> {
        for job in jobs {
            let fields =
                "UPDATE intake SET value = '' WHERE job_id = ?1 AND field IN ('customer', 'contact', 'serial')";
            self.0.prepare_cached(fields)?.execute([job])?;
            for table in ["quotes", "job_log", "extras"] {
                let sql = format!("UPDATE {table} SET who = '' WHERE job_id = ?1 AND who = ?2 COLLATE NOCASE");
                self.0.prepare_cached(&sql)?.execute(params![job, name])?;
            }
        }
        Ok(())
    }
}
