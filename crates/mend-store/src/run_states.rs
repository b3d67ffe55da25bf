//! Tables `run_states` and `run_readings`: what was said of a heating while it was watched, and what a thermometer read.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// A state as it was shown.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StateRow {
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// Seconds from then on.
    pub at_s: i64,
    /// The step, from 0.
    pub step: i64,
    /// What was said, a line of docs/formats/live.md.
    pub says: String,
}

/// What a thermometer read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadingRow {
    /// When the air went on, ms since the run was opened.
    pub begun_ms: i64,
    /// How long after that, ms.
    pub after_ms: i64,
    /// °C; none: it read nothing.
    pub celsius: Option<f64>,
}

fn of(row: &Row<'_>) -> rusqlite::Result<StateRow> {
    Ok(StateRow { begun_ms: row.get(0)?, at_s: row.get(1)?, step: row.get(2)?, says: row.get(3)? })
}

impl Read<'_> {
    /// All that was said of a run, in its course.
    pub fn run_states(&self, run: i64) -> Result<Vec<StateRow>, StoreError> {
        let sql = "SELECT begun_ms, at_s, step, says FROM run_states WHERE run_id = ?1 ORDER BY begun_ms, at_s";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([run], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Read<'_> {
    /// All that a thermometer read in a run, in its course.
    pub fn run_readings(&self, run: i64) -> Result<Vec<ReadingRow>, StoreError> {
        let sql = "SELECT begun_ms, after_ms, celsius FROM run_readings WHERE run_id = ?1 ORDER BY begun_ms, after_ms";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok(ReadingRow { begun_ms: row.get(0)?, after_ms: row.get(1)?, celsius: row.get(2)? });
        let rows = statement.query_map([run], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps what was read; the same moment again is the same reading.
    pub fn keep_readings(&self, run: i64, readings: &[ReadingRow]) -> Result<(), StoreError> {
        let sql = "INSERT INTO run_readings (run_id, begun_ms, after_ms, celsius) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT DO NOTHING";
        let mut statement = self.0.prepare_cached(sql)?;
        for ReadingRow { begun_ms, after_ms, celsius } in readings {
            statement.execute(params![run, begun_ms, after_ms, celsius])?;
        }
        Ok(())
    }

    /// Keeps what was said; of a second that is kept already the first stays.
    pub fn keep_state(&self, run: i64, state: &StateRow) -> Result<(), StoreError> {
        let sql = "INSERT INTO run_states (run_id, begun_ms, at_s, step, says) VALUES (?1, ?2, ?3, ?4, ?5)
                   ON CONFLICT DO NOTHING";
        let StateRow { begun_ms, at_s, step, says } = state;
        self.0.prepare_cached(sql)?.execute(params![run, begun_ms, at_s, step, says])?;
        Ok(())
    }
}
