//! Table `job_outcomes`.

use std::collections::BTreeMap;

use mend_core::shop::review::{JobOutcome, StageTaken};
use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// Milliseconds of a day.
const DAY_MS: f64 = 24.0 * 3600.0 * 1000.0;

fn of(row: &Row<'_>) -> rusqlite::Result<JobOutcome> {
    let damaged: String = row.get(12)?;
    Ok(JobOutcome {
        job: row.get(0)?,
        day: row.get::<_, f64>(1)? / DAY_MS,
        connector: row.get(2)?,
        method: row.get(3)?,
        station: row.get(4)?,
        board: row.get(5)?,
        person: row.get(6)?,
        predicted_s: [row.get(7)?, row.get(8)?, row.get(9)?],
        actual_s: row.get(10)?,
        chance: row.get(11)?,
        damaged: damaged.lines().map(str::to_owned).collect(),
        reworks: row.get(13)?,
        declined: row.get(14)?,
        overridden: row.get(15)?,
        returned: row.get(16)?,
        probed: row.get(17)?,
        stages: Vec::new(),
        waited: Vec::new(),
    })
}

impl Read<'_> {
    /// All of them, the oldest first, with what their stops took. Days count from the epoch.
    pub fn outcomes(&self) -> Result<Vec<JobOutcome>, StoreError> {
        let sql = "SELECT job_id, CAST(closed_ms AS REAL), connector, method, station, board, person, low_s, mid_s, high_s, actual_s,
                       chance, damaged, reworks, declined, overridden,
                       EXISTS (SELECT 1 FROM jobs r WHERE r.return_of = job_outcomes.job_id),
                       EXISTS (SELECT 1 FROM lessons l JOIN station_names n ON n.station_id = l.station_id WHERE n.name = job_outcomes.station
                           AND l.kind = 'probe' AND l.left_out IS NULL AND l.taught_ms < job_outcomes.closed_ms)
                   FROM job_outcomes ORDER BY job_id";
        let mut statement = self.0.prepare_cached(sql)?;
        let mut outcomes: Vec<JobOutcome> = statement.query_map([], of)?.collect::<Result<_, _>>()?;
        let (mut stages, mut waited) = (self.stages_taken()?, self.waited()?);
        for outcome in &mut outcomes {
            outcome.stages = stages.remove(&outcome.job).unwrap_or_default();
            outcome.waited = waited.remove(&outcome.job).unwrap_or_default();
        }
        Ok(outcomes)
    }

    fn stages_taken(&self) -> Result<BTreeMap<i64, Vec<StageTaken>>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT job_id, stop, seconds, prior_s FROM job_times")?;
        let of = |row: &Row<'_>| {
            Ok((row.get(0)?, StageTaken { stop: row.get(1)?, seconds: row.get(2)?, expected_s: row.get(3)? }))
        };
        let rows: Vec<(i64, StageTaken)> = statement.query_map([], of)?.collect::<Result<_, _>>()?;
        let mut by: BTreeMap<i64, Vec<StageTaken>> = BTreeMap::new();
        rows.into_iter().for_each(|(job, stage)| by.entry(job).or_default().push(stage));
        Ok(by)
    }

    /// Jobs that were given back and have no row yet, as many as `most`.
    pub fn unreviewed_jobs(&self, most: u32) -> Result<Vec<i64>, StoreError> {
        let sql = "SELECT id FROM jobs WHERE handed_over_ms IS NOT NULL AND id NOT IN (SELECT job_id FROM job_outcomes)
                   ORDER BY id DESC LIMIT ?1";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([most], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps what came of a job; what was kept before counts no more.
    pub fn set_outcome(&self, outcome: &JobOutcome, closed_ms: i64) -> Result<(), StoreError> {
        let sql = "INSERT OR REPLACE INTO job_outcomes (job_id, closed_ms, connector, method, station, board, person, low_s, mid_s,
                       high_s, actual_s, chance, reworks, damaged, declined, overridden)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11, ?12, ?13, ?14, ?15, ?16)";
        let JobOutcome { job, connector, method, station, board, person, predicted_s, actual_s, chance, .. } = outcome;
        let [low, mid, high] = predicted_s;
        let JobOutcome { reworks, damaged, declined, overridden, .. } = outcome;
        let damaged = damaged.join("\n");
        self.0.prepare_cached(sql)?.execute(params![
            job, closed_ms, connector, method, station, board, person, low, mid, high, actual_s, chance, reworks,
            damaged, declined, overridden
        ])?;
        Ok(())
    }

    /// A job that is opened again has no outcome until it is closed.
    pub fn drop_outcome(&self, job: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM job_outcomes WHERE job_id = ?1")?.execute([job])?;
        Ok(())
    }
}
