//! Everything that was entered in a job, from all of its tables, with who did it.

use rusqlite::Row;

use crate::{Read, StoreError};

/// An entry of whatever table.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RecordRow {
    /// When, ms since the epoch.
    pub at_ms: i64,
    /// `taken-in`, `intake`, `event`, `pin`, `check`, `extra`, `answer`, `photo`, `quote`, `word`, `stock` or `log`.
    pub kind: String,
    /// What it is of: a field, a pin, a list, a stop.
    pub what: String,
    /// What was entered; empty: taken back, or nothing to say.
    pub value: String,
    /// Who did it; empty: nobody was signed in.
    pub who: String,
}

/// A row each; what a person did is joined by their number.
const SQL: &str = "
    SELECT r.at_ms, r.kind, r.what, r.value, ifnull(p.name, '') FROM (
        SELECT taken_in_ms AS at_ms, 'taken-in' AS kind, '' AS what, '' AS value, person_id, 0 AS part, id FROM jobs WHERE id = ?1
        UNION ALL SELECT typed_ms, 'intake', field, value, person_id, 1, 0 FROM intake WHERE job_id = ?1
        UNION ALL SELECT e.arrived_ms, 'event', e.kind, trim(e.row_name || ' ' || e.reason), e.person_id, 2, e.id
            FROM run_events e JOIN runs r ON r.id = e.run_id WHERE r.job_id = ?1
        UNION ALL SELECT marked_ms, 'pin', pin, mark, person_id, 3, id FROM pin_marks WHERE job_id = ?1
        UNION ALL SELECT entered_ms, 'check', list || ' ' || name, value, person_id, 4, id FROM check_entries WHERE job_id = ?1
        UNION ALL SELECT found_ms, 'extra', what, price, person_id, 5, id FROM extras WHERE job_id = ?1
        UNION ALL SELECT answered_ms, 'answer', what, answer, person_id, 6, id FROM extras WHERE job_id = ?1 AND answered_ms IS NOT NULL
        UNION ALL SELECT added_ms, 'photo', stop, words, person_id, 7, id FROM job_photos WHERE job_id = ?1
        UNION ALL SELECT made_ms, 'quote', CAST(id AS TEXT), total, person_id, 9, id FROM quotes WHERE job_id = ?1
        UNION ALL SELECT answered_ms, 'word', CAST(id AS TEXT), answer || ' by ' || who, NULL, 10, id FROM quotes WHERE job_id = ?1 AND answered_ms IS NOT NULL
        UNION ALL SELECT at_ms, 'stock', m.kind, i.name, m.person_id, 11, m.id FROM stock_moves m JOIN items i ON i.id = m.item_id WHERE m.job_id = ?1
        UNION ALL SELECT at_ms, 'log', what, trim(who || ' ' || reason), person_id, 8, id FROM job_log WHERE job_id = ?1
    ) r LEFT JOIN people p ON p.id = r.person_id ORDER BY r.at_ms, r.part, r.id";

fn of(row: &Row<'_>) -> rusqlite::Result<RecordRow> {
    Ok(RecordRow { at_ms: row.get(0)?, kind: row.get(1)?, what: row.get(2)?, value: row.get(3)?, who: row.get(4)? })
}

impl Read<'_> {
    /// All of it, in its order.
    pub fn record(&self, job: i64) -> Result<Vec<RecordRow>, StoreError> {
        let mut statement = self.0.prepare_cached(SQL)?;
        let rows = statement.query_map([job], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}
