//! Table `job_waits`.

use std::collections::BTreeMap;

use mend_core::shop::review::{WaitCause, Waited};
use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A time for which a job stood still.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct WaitRow {
    /// Why, as it is stored.
    pub cause: String,
    /// From, ms since the epoch.
    pub begun_ms: i64,
    /// Until; none: it waits still.
    pub ended_ms: Option<i64>,
}

impl Read<'_> {
    /// How long each job stood still, by cause; what it waits for still is not counted.
    pub fn waited(&self) -> Result<BTreeMap<i64, Vec<Waited>>, StoreError> {
        let sql = "SELECT job_id, cause, sum(ended_ms - begun_ms) / 1000.0 FROM job_waits WHERE ended_ms IS NOT NULL
                   GROUP BY job_id, cause";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok((row.get(0)?, row.get::<_, String>(1)?, row.get(2)?));
        let rows: Vec<(i64, String, f64)> = statement.query_map([], of)?.collect::<Result<_, _>>()?;
        let mut by: BTreeMap<i64, Vec<Waited>> = BTreeMap::new();
        for (job, cause, seconds) in rows {
            let waited = WaitCause::named(&cause).map(|cause| Waited { cause, seconds });
            by.entry(job).or_default().extend(waited);
        }
        Ok(by)
    }

    /// When a job stood still, in order.
    pub fn waits(&self, job: i64) -> Result<Vec<WaitRow>, StoreError> {
        let sql = "SELECT cause, begun_ms, ended_ms FROM job_waits WHERE job_id = ?1 ORDER BY begun_ms, cause";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok(WaitRow { cause: row.get(0)?, begun_ms: row.get(1)?, ended_ms: row.get(2)? });
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// A time of a file; what was seen of the same cause while the job came in counts no more.
    pub fn put_wait(&self, job: i64, wait: &WaitRow) -> Result<(), StoreError> {
        let open = "DELETE FROM job_waits WHERE job_id = ?1 AND cause = ?2 AND ended_ms IS NULL";
        self.0.prepare_cached(open)?.execute(params![job, wait.cause])?;
        let sql = "INSERT OR REPLACE INTO job_waits (job_id, cause, begun_ms, ended_ms) VALUES (?1, ?2, ?3, ?4)";
        self.0.prepare_cached(sql)?.execute(params![job, wait.cause, wait.begun_ms, wait.ended_ms])?;
        Ok(())
    }

    /// A job stands still for these causes now, and for no others.
    pub fn set_waits(&self, job: i64, causes: &[WaitCause], at_ms: i64) -> Result<(), StoreError> {
        for cause in WaitCause::ALL {
            let open = "UPDATE job_waits SET ended_ms = max(begun_ms, ?3) WHERE job_id = ?1 AND cause = ?2 AND ended_ms IS NULL";
            let begin = "INSERT INTO job_waits (job_id, cause, begun_ms) SELECT ?1, ?2, ?3
                         WHERE NOT EXISTS (SELECT 1 FROM job_waits WHERE job_id = ?1 AND cause = ?2 AND ended_ms IS NULL)
                         ON CONFLICT DO UPDATE SET ended_ms = NULL";
            let sql = if causes.contains(&cause) { begin } else { open };
            self.0.prepare_cached(sql)?.execute(params![job, cause.name(), at_ms])?;
        }
        Ok(())
    }
}
