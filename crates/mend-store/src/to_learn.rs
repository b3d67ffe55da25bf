//! Table `to_learn`: jobs whose lesson is still to be computed.

use crate::{NewLesson, Read, StoreError, Write};

impl Read<'_> {
    /// Jobs that wait, oldest first.
    pub fn jobs_to_learn(&self) -> Result<Vec<i64>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT job_id FROM to_learn ORDER BY job_id")?;
        let rows = statement.query_map([], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Does this one wait?
    pub fn is_to_learn(&self, job: i64) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("SELECT 1 FROM to_learn WHERE job_id = ?1")?.exists([job])?)
    }
}

impl Write<'_> {
    /// A job is to teach, unless it has taught already.
    pub fn await_lesson(&self, job: i64) -> Result<(), StoreError> {
        let sql = "INSERT INTO to_learn (job_id) SELECT ?1 WHERE NOT EXISTS (SELECT 1 FROM lessons WHERE job_id = ?1)
                   ON CONFLICT DO NOTHING";
        self.0.prepare_cached(sql)?.execute([job])?;
        Ok(())
    }

    /// A job has taught this, or nothing. What is computed twice is kept once.
    pub fn end_lesson(&self, job: i64, taught: Option<(&NewLesson, i64)>) -> Result<(), StoreError> {
        let waited = self.0.prepare_cached("DELETE FROM to_learn WHERE job_id = ?1")?.execute([job])? == 1;
        if let Some((lesson, now_ms)) = taught.filter(|_| waited) {
            self.add_lesson(lesson, now_ms)?;
        }
        Ok(())
    }
}
