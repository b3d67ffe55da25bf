//! Tables `runs` and `run_events`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A moment: the time of day for printing, and a clock that nobody sets for counting.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Moment {
    /// The time of day, ms since the epoch.
    pub wall_ms: i64,
    /// Which monotonic clock; another one after the machine was started anew.
    pub clock: String,
    /// Its reading, ms.
    pub tick_ms: i64,
}

impl Moment {
    /// How long after `earlier` this is, ms, never negative: by the monotonic clock where both were read off the same, else by
    /// the time of day, which is the best that is known across a restart of the machine.
    pub fn since(&self, earlier: &Self) -> i64 {
        let same = self.clock == earlier.clock && !self.clock.is_empty();
        let elapsed = if same { self.tick_ms - earlier.tick_ms } else { self.wall_ms - earlier.wall_ms };
        elapsed.max(0)
    }
}

/// A bench run.
#[derive(Debug, Clone)]
pub struct RunRow {
    /// Its number.
    pub id: i64,
    /// The job it is of.
    pub job_id: i64,
    /// The plan it follows.
    pub plan_id: i64,
    /// When it was opened.
    pub opened: Moment,
    /// Its steps, JSON; none of a run that an older version opened.
    pub steps: Option<String>,
    /// The component that the bench's thermometer is taped onto; empty: beside the part.
    pub taped_on: String,
}

/// A run to be opened.
#[derive(Debug, Clone)]
pub struct NewRun {
    /// The job.
    pub job_id: i64,
    /// The plan it follows.
    pub plan_id: i64,
    /// When it is opened.
    pub opened: Moment,
    /// Its steps, JSON; none of a run from a file of a version that did not keep them.
    pub steps: Option<String>,
    /// The component that the bench's thermometer is taped onto; empty: beside the part.
    pub taped_on: String,
}

/// What happened.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct EventRow {
    /// Its name.
    pub kind: String,
    /// The step at which it was entered, from 0; -1 where an older version did not keep it.
    pub step: i64,
    /// A row of the connector; empty: all of them, or not of the ledger.
    pub row: String,
    /// Why one goes on against the arithmetic; else empty.
    pub reason: String,
    /// When it was pressed, ms since the run was opened.
    pub at_ms: i64,
    /// When the shop had it, ms since the run was opened.
    pub came_ms: i64,
    /// When it arrived.
    pub arrived: Moment,
    /// Made by the browser.
    pub token: String,
}

/// An event to be kept.
#[derive(Debug, Clone)]
pub struct NewEvent {
    /// Its name.
    pub kind: String,
    /// The step at which it was entered, from 0.
    pub step: i64,
    /// A row of the connector; empty: all of them.
    pub row: String,
    /// Why one goes on against the arithmetic; else empty.
    pub reason: String,
    /// When it arrived.
    pub arrived: Moment,
    /// How long before that it was pressed, ms.
    pub ago_ms: i64,
    /// Made by the browser.
    pub token: String,
}

const RUN: &str = "SELECT id, job_id, plan_id, started_ms, clock, tick_ms, steps, taped_on FROM runs";

const EVENT: &str =
    "SELECT kind, step, row_name, reason, at_ms, came_ms, arrived_ms, clock, tick_ms, token FROM run_events";

impl RunRow {
    /// How long the run has been open at `now`, ms, when `last` is the last that happened in it.
    pub fn elapsed(&self, last: Option<&EventRow>, now: &Moment) -> i64 {
        last.map_or_else(|| now.since(&self.opened), |last| last.came_ms + now.since(&last.arrived))
    }

    fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let opened = Moment { wall_ms: row.get(3)?, clock: row.get(4)?, tick_ms: row.get(5)? };
        let (steps, taped_on) = (row.get(6)?, row.get(7)?);
        Ok(Self { id: row.get(0)?, job_id: row.get(1)?, plan_id: row.get(2)?, opened, steps, taped_on })
    }
}

impl EventRow {
    fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        Ok(Self {
            kind: row.get(0)?,
            step: row.get(1)?,
            row: row.get(2)?,
            reason: row.get(3)?,
            at_ms: row.get(4)?,
            came_ms: row.get(5)?,
            arrived: Moment { wall_ms: row.get(6)?, clock: row.get(7)?, tick_ms: row.get(8)? },
            token: row.get(9)?,
        })
    }
}

impl Read<'_> {
    /// The newest run of a job.
    pub fn run_of(&self, job: i64) -> Result<Option<RunRow>, StoreError> {
        let sql = format!("{RUN} WHERE job_id = ?1 ORDER BY id DESC LIMIT 1");
        Ok(self.0.prepare_cached(&sql)?.query_row([job], RunRow::from_row).optional()?)
    }

    /// All runs of a job, oldest first.
    pub fn runs_of(&self, job: i64) -> Result<Vec<RunRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{RUN} WHERE job_id = ?1 ORDER BY id"))?;
        let rows = statement.query_map([job], RunRow::from_row)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Everything that happened in a run, in its sequence.
    pub fn events(&self, run: i64) -> Result<Vec<EventRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{EVENT} WHERE run_id = ?1 ORDER BY id"))?;
        let rows = statement.query_map([run], EventRow::from_row)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    fn last_event(&self, run: i64) -> Result<Option<EventRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{EVENT} WHERE run_id = ?1 ORDER BY id DESC LIMIT 1"))?;
        Ok(statement.query_row([run], EventRow::from_row).optional()?)
    }

    /// Has this event been kept already?
    pub fn has_event(&self, run: i64, token: &str) -> Result<bool, StoreError> {
        let sql = "SELECT 1 FROM run_events WHERE run_id = ?1 AND token = ?2";
        Ok(self.0.prepare_cached(sql)?.exists(params![run, token])?)
    }
}

impl Write<'_> {
    /// Opens a run on a plan.
    pub fn add_run(&self, run: &NewRun) -> Result<i64, StoreError> {
        let sql = "INSERT INTO runs (job_id, plan_id, started_ms, clock, tick_ms, steps, taped_on)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)";
        let Moment { wall_ms, clock, tick_ms } = &run.opened;
        let values = params![run.job_id, run.plan_id, wall_ms, clock, tick_ms, run.steps, run.taped_on];
        self.0.prepare_cached(sql)?.execute(values)?;
        Ok(self.0.last_insert_rowid())
    }

    /// Stores the steps of a run that an older version opened without.
    pub fn set_steps(&self, run: i64, steps: &str) -> Result<(), StoreError> {
        let sql = "UPDATE runs SET steps = ?2 WHERE id = ?1 AND steps IS NULL";
        self.0.prepare_cached(sql)?.execute(params![run, steps])?;
        Ok(())
    }

    /// Appends an event to a run; the same token again is the same event. It never comes before the one that precedes it.
    pub fn add_event(&self, run: &RunRow, event: &NewEvent) -> Result<(), StoreError> {
        let last = self.read().last_event(run.id)?;
        let came_ms = run.elapsed(last.as_ref(), &event.arrived);
        let at_ms = (came_ms - event.ago_ms).max(last.map_or(0, |last| last.at_ms));
        let NewEvent { kind, step, row, reason, arrived, token, .. } = event.clone();
        self.put_event(run.id, &EventRow { kind, step, row, reason, at_ms, came_ms, arrived, token })
    }

    /// Appends an event whose moment in the run is known: from a file.
    pub fn put_event(&self, run: i64, event: &EventRow) -> Result<(), StoreError> {
        let sql = "INSERT INTO run_events (run_id, kind, step, row_name, reason, at_ms, came_ms, clock, tick_ms, arrived_ms, token)
                   VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11) ON CONFLICT (run_id, token) DO NOTHING";
        let EventRow { kind, step, row, reason, at_ms, came_ms, arrived, token } = event;
        let Moment { wall_ms, clock, tick_ms } = arrived;
        let values = params![run, kind, step, row, reason, at_ms, came_ms, clock, tick_ms, wall_ms, token];
        self.0.prepare_cached(sql)?.execute(values)?;
        Ok(())
    }
}
