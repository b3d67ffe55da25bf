//! Table `task_pins`.

use rusqlite::{Row, params};

use crate::{Read, StoreError, Write};

/// Where somebody has put a task by hand.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct TaskPinRow {
    /// The job.
    pub job: i64,
    /// As in the address of its stop.
    pub task: String,
    /// To whom, by their number.
    pub person: Option<i64>,
    /// Not before, ms since the epoch.
    pub not_before_ms: Option<i64>,
}

impl Read<'_> {
    /// All of them.
    pub fn task_pins(&self) -> Result<Vec<TaskPinRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT job_id, task, person_id, not_before_ms FROM task_pins")?;
        let of = |row: &Row<'_>| {
            Ok(TaskPinRow { job: row.get(0)?, task: row.get(1)?, person: row.get(2)?, not_before_ms: row.get(3)? })
        };
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Puts a task to somebody, or not before a moment; neither: it is free again.
    pub fn pin_task(&self, pin: &TaskPinRow) -> Result<(), StoreError> {
        let TaskPinRow { job, task, person, not_before_ms } = pin;
        if person.is_none() && not_before_ms.is_none() {
            self.0
                .prepare_cached("DELETE FROM task_pins WHERE job_id = ?1 AND task = ?2")?
                .execute(params![job, task])?;
            return Ok(());
        }
        let sql = "INSERT INTO task_pins (job_id, task, person_id, not_before_ms) VALUES (?1, ?2, ?3, ?4)
                   ON CONFLICT (job_id, task) DO UPDATE SET person_id = excluded.person_id, not_before_ms = excluded.not_before_ms";
        self.0.prepare_cached(sql)?.execute(params![job, task, person, not_before_ms])?;
        Ok(())
    }
}
