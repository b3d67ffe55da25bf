//! Table `plans`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A plan as kept.
#[derive(Debug, Clone)]
pub struct PlanRow {
    /// Its number.
    pub id: i64,
    /// The board it was computed for.
    pub board_id: i64,
    /// What it was made from.
    pub inputs: String,
    /// The plan, `urgent-mend/plan/1`.
    pub plan: String,
    /// The station's file that it was computed with; none of an older version.
    pub station: Option<String>,
    /// Is it of the fit, not of the removal?
    pub fits: bool,
    /// When it was made, ms since the epoch.
    pub made_ms: i64,
}

/// A plan to be kept.
#[derive(Debug, Clone)]
pub struct NewPlan {
    /// Whose.
    pub job_id: i64,
    /// For which board.
    pub board_id: i64,
    /// What it was made from.
    pub inputs: String,
    /// The plan, `urgent-mend/plan/1`.
    pub plan: String,
    /// The station's file that it was computed with.
    pub station: Option<String>,
    /// Is it of the fit, not of the removal?
    pub fits: bool,
}

const SELECT: &str = "SELECT id, board_id, inputs, plan, station, fits, made_ms FROM plans";

impl PlanRow {
    fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let (id, board_id, inputs, plan) = (row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?);
        Ok(Self { id, board_id, inputs, plan, station: row.get(4)?, fits: row.get(5)?, made_ms: row.get(6)? })
    }
}

impl Read<'_> {
    /// The newest plan of a job's removal.
    pub fn plan_of(&self, job: i64) -> Result<Option<PlanRow>, StoreError> {
        self.newest_plan(job, false)
    }

    /// The newest plan of its fit.
    pub fn fit_plan_of(&self, job: i64) -> Result<Option<PlanRow>, StoreError> {
        self.newest_plan(job, true)
    }

    fn newest_plan(&self, job: i64, fits: bool) -> Result<Option<PlanRow>, StoreError> {
        let sql = format!("{SELECT} WHERE job_id = ?1 AND fits = ?2 ORDER BY id DESC LIMIT 1");
        Ok(self.0.prepare_cached(&sql)?.query_row(params![job, fits], PlanRow::from_row).optional()?)
    }

    /// One plan.
    pub fn plan(&self, id: i64) -> Result<Option<PlanRow>, StoreError> {
        let sql = format!("{SELECT} WHERE id = ?1");
        Ok(self.0.prepare_cached(&sql)?.query_row([id], PlanRow::from_row).optional()?)
    }
}

impl Write<'_> {
    /// Keeps a plan.
    pub fn add_plan(&self, plan: &NewPlan, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO plans (job_id, board_id, inputs, plan, station, made_ms, fits) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7)";
        let values = params![plan.job_id, plan.board_id, plan.inputs, plan.plan, plan.station, now_ms, plan.fits];
        self.0.prepare_cached(sql)?.execute(values)?;
        Ok(self.0.last_insert_rowid())
    }

    /// Keeps a plan unless it is the job's newest already.
    pub fn add_plan_once(&self, plan: &NewPlan, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "SELECT id FROM (SELECT * FROM plans WHERE job_id = ?1 AND fits = ?6 ORDER BY id DESC LIMIT 1)
                   WHERE board_id = ?2 AND inputs = ?3 AND plan = ?4 AND station IS ?5";
        let values = params![plan.job_id, plan.board_id, plan.inputs, plan.plan, plan.station, plan.fits];
        let newest = self.0.prepare_cached(sql)?.query_row(values, |row| row.get(0)).optional()?;
        newest.map_or_else(|| self.add_plan(plan, now_ms), Ok)
    }
}
