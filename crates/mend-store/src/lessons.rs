//! Tables `lessons` and `measuring`: what measuring has taught, and measurements that are under way.

use std::collections::{BTreeMap, BTreeSet};

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, TypedField, Write};

/// A lesson as kept.
#[derive(Debug, Clone)]
pub struct LessonRow {
    /// Its number.
    pub id: i64,
    /// What it is.
    pub lesson: NewLesson,
    /// When it was taught, ms since the epoch.
    pub taught_ms: i64,
    /// Why it does not count.
    pub left_out: Option<String>,
}

/// A lesson to be kept.
#[derive(Debug, Clone)]
pub struct NewLesson {
    /// `flow`, `outlet`, `probe` or `job`.
    pub kind: String,
    /// Which station.
    pub station_id: i64,
    /// With which nozzle, mm; none where that does not matter.
    pub nozzle_mm: Option<f64>,
    /// On which board.
    pub board_id: Option<i64>,
    /// The job that taught it, if a job did.
    pub job_id: Option<i64>,
    /// What it says, `urgent-mend/lesson/1`.
    pub says: String,
    /// What was entered.
    pub entered: String,
    /// What came of it.
    pub figures: String,
}

const SELECT: &str = "SELECT id, kind, station_id, nozzle_mm, board_id, job_id, says, entered, figures, taught_ms, left_out FROM lessons";

fn of(row: &Row<'_>) -> rusqlite::Result<LessonRow> {
    let lesson = NewLesson {
        kind: row.get(1)?,
        station_id: row.get(2)?,
        nozzle_mm: row.get(3)?,
        board_id: row.get(4)?,
        job_id: row.get(5)?,
        says: row.get(6)?,
        entered: row.get(7)?,
        figures: row.get(8)?,
    };
    Ok(LessonRow { id: row.get(0)?, lesson, taught_ms: row.get(9)?, left_out: row.get(10)? })
}

impl Read<'_> {
    /// All lessons of a station, those left out too, oldest first.
    pub fn lessons_of_station(&self, station: i64) -> Result<Vec<LessonRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} WHERE station_id = ?1 ORDER BY id"))?;
        let rows = statement.query_map([station], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// All lessons of a board, whatever the station, those left out too, oldest first.
    pub fn lessons_of_board(&self, board: i64) -> Result<Vec<LessonRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} WHERE board_id = ?1 ORDER BY id"))?;
        let rows = statement.query_map([board], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// What a job has taught.
    pub fn lesson_of_job(&self, job: i64) -> Result<Option<LessonRow>, StoreError> {
        let sql = format!("{SELECT} WHERE job_id = ?1 ORDER BY id DESC LIMIT 1");
        Ok(self.0.prepare_cached(&sql)?.query_row([job], of).optional()?)
    }

    /// The lessons that count for a station on a board, oldest first.
    pub fn lessons_for(&self, station: i64, board: i64) -> Result<Vec<LessonRow>, StoreError> {
        let sql = format!("{SELECT} WHERE (station_id = ?1 OR board_id = ?2) AND left_out IS NULL ORDER BY id");
        let mut statement = self.0.prepare_cached(&sql)?;
        let rows = statement.query_map([station, board], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The numbers of those alone.
    pub fn lesson_numbers_for(&self, station: i64, board: i64) -> Result<Vec<i64>, StoreError> {
        let sql = "SELECT id FROM lessons WHERE (station_id = ?1 OR board_id = ?2) AND left_out IS NULL ORDER BY id";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([station, board], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The stations of which a lesson counts.
    pub fn taught_stations(&self) -> Result<BTreeSet<i64>, StoreError> {
        let sql = "SELECT DISTINCT station_id FROM lessons WHERE left_out IS NULL";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map([], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// All lessons, oldest first.
    pub fn lessons(&self) -> Result<Vec<LessonRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY id"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One lesson.
    pub fn lesson(&self, id: i64) -> Result<Option<LessonRow>, StoreError> {
        Ok(self.0.prepare_cached(&format!("{SELECT} WHERE id = ?1"))?.query_row([id], of).optional()?)
    }

    /// What has been entered of a measurement that is under way.
    pub fn measuring(&self, station: i64, kind: &str) -> Result<BTreeMap<String, String>, StoreError> {
        let sql = "SELECT field, value FROM measuring WHERE station_id = ?1 AND kind = ?2";
        let mut statement = self.0.prepare_cached(sql)?;
        let rows = statement.query_map(params![station, kind], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// A measurement that is under way.
#[derive(Debug, Clone, Copy)]
pub struct MeasuringKey<'a> {
    /// Of which station.
    pub station: i64,
    /// Which: `flow`, `outlet`, `iron` or `probe`.
    pub kind: &'a str,
}

impl Write<'_> {
    /// Keeps a lesson, and ends the measurement that it came from.
    pub fn add_lesson(&self, new: &NewLesson, now_ms: i64) -> Result<i64, StoreError> {
        let sql =
            "INSERT INTO lessons (kind, station_id, nozzle_mm, board_id, job_id, says, entered, figures, taught_ms)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9)";
        let NewLesson { kind, station_id, nozzle_mm, board_id, job_id, says, entered, figures } = new;
        let values = params![kind, station_id, nozzle_mm, board_id, job_id, says, entered, figures, now_ms];
        self.0.prepare_cached(sql)?.execute(values)?;
        let id = self.0.last_insert_rowid();
        self.end_measuring(*station_id, kind)?;
        Ok(id)
    }

    /// Leaves a lesson out, with the reason, or lets it count again.
    pub fn leave_lesson_out(&self, id: i64, why: Option<&str>) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE lessons SET left_out = ?2 WHERE id = ?1")?.execute(params![id, why])?;
        Ok(())
    }

    /// Keeps what was entered of a measurement.
    pub fn set_measuring(
        &self,
        MeasuringKey { station, kind }: MeasuringKey<'_>,
        TypedField { field, value }: TypedField<'_>,
        now_ms: i64,
    ) -> Result<(), StoreError> {
        let sql = "INSERT INTO measuring (station_id, kind, field, value, typed_ms) VALUES (?1, ?2, ?3, ?4, ?5)
                   ON CONFLICT (station_id, kind, field) DO UPDATE SET value = excluded.value, typed_ms = excluded.typed_ms";
        self.0.prepare_cached(sql)?.execute(params![station, kind, field, value, now_ms])?;
        Ok(())
    }

    /// A measurement is over, or given up; the file that it was read from goes with it.
    pub fn end_measuring(&self, station: i64, kind: &str) -> Result<(), StoreError> {
        let sql = "DELETE FROM measuring WHERE station_id = ?1 AND kind IN (?2, ?2 || '-file')";
        self.0.prepare_cached(sql)?.execute(params![station, kind])?;
        Ok(())
    }
}
