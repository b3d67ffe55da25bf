//! Whose hand a row is of: column `person_id` of whatever table, and table `hand`, from which new rows take it.

use rusqlite::params;

use crate::{StoreError, Write};

/// An entry of a job as its record names it ([`RecordRow`](crate::RecordRow)), and whose it is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct HandRow {
    /// As the record has it.
    pub kind: String,
    /// What it is of.
    pub what: String,
    /// When it was made, ms since the epoch.
    pub at_ms: i64,
    /// Whose; none: nobody's.
    pub person: Option<i64>,
}

/// By which rows a kind of entry is found again: ?1 the job, ?2 what it is of, ?3 when it was made. What is kept once for its name
/// has the moment at which it came here until it is told its own.
const WHERE: [(&str, &str); 9] = [
    ("taken-in", "jobs SET person_id = ?4 WHERE id = ?1 AND taken_in_ms = ?3 AND ?2 = ''"),
    ("intake", "intake SET person_id = ?4, typed_ms = ?3 WHERE job_id = ?1 AND field = ?2"),
    (
        "event",
        "run_events SET person_id = ?4 WHERE run_id IN (SELECT id FROM runs WHERE job_id = ?1) AND kind = ?2 AND arrived_ms = ?3",
    ),
    ("pin", "pin_marks SET person_id = ?4, marked_ms = ?3 WHERE job_id = ?1 AND pin = ?2"),
    ("check", "check_entries SET person_id = ?4 WHERE job_id = ?1 AND list || ' ' || name = ?2 AND entered_ms = ?3"),
    ("extra", "extras SET person_id = ?4 WHERE job_id = ?1 AND what = ?2 AND found_ms = ?3"),
    ("photo", "job_photos SET person_id = ?4 WHERE job_id = ?1 AND stop = ?2 AND added_ms = ?3"),
    ("quote", "quotes SET person_id = ?4 WHERE job_id = ?1 AND made_ms = ?3 AND ?2 IS NOT NULL"),
    ("log", "job_log SET person_id = ?4 WHERE job_id = ?1 AND what = ?2 AND at_ms = ?3"),
];

impl Write<'_> {
    /// What is written from here on in this transaction is of somebody's hand; none: of nobody's.
    pub fn act_as(&self, person: Option<i64>) -> Result<(), StoreError> {
        self.0.prepare_cached("UPDATE hand SET person_id = ?1")?.execute([person])?;
        Ok(())
    }

    /// Says whose the entries of a job are, and of when, that came from a file; it may be closed.
    pub fn put_hands(&self, job: i64, hands: &[HandRow]) -> Result<(), StoreError> {
        self.while_open(job, |write| hands.iter().try_for_each(|hand| write.put_hand(job, hand)))
    }

    /// A kind that this version does not know stays nobody's.
    fn put_hand(&self, job: i64, hand: &HandRow) -> Result<(), StoreError> {
        let Some((_, sql)) = WHERE.iter().find(|(kind, _)| *kind == hand.kind) else { return Ok(()) };
        let mut statement = self.0.prepare_cached(&format!("UPDATE {sql}"))?;
        statement.execute(params![job, hand.what, hand.at_ms, hand.person])?;
        Ok(())
    }
}
