//! Table `ledger`.

use rusqlite::params;

use crate::{Read, StoreError, Write};

/// One entry.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct LedgerRow {
    /// Its name.
    pub act: String,
    /// The row of the connector; empty: all of them.
    pub row: String,
    /// Why one goes on against the arithmetic; else empty.
    pub reason: String,
    /// When, ms since the epoch.
    pub at_ms: i64,
}

impl Read<'_> {
    /// The entries of a run, in order of time.
    pub fn ledger(&self, run: i64) -> Result<Vec<LedgerRow>, StoreError> {
        let sql = "SELECT act, row_name, reason, at_ms FROM ledger WHERE run_id = ?1 ORDER BY at_ms, id";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &rusqlite::Row<'_>| {
            Ok(LedgerRow { act: row.get(0)?, row: row.get(1)?, reason: row.get(2)?, at_ms: row.get(3)? })
        };
        let rows = statement.query_map([run], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps an entry; the same token again is the same entry.
    pub fn add_ledger(&self, run: i64, entry: &LedgerRow, token: &str) -> Result<(), StoreError> {
        let sql = "INSERT INTO ledger (run_id, act, row_name, reason, at_ms, token) VALUES (?1, ?2, ?3, ?4, ?5, ?6)
                   ON CONFLICT (run_id, token) DO NOTHING";
        let LedgerRow { act, row, reason, at_ms } = entry;
        self.0.prepare_cached(sql)?.execute(params![run, act, row, reason, at_ms, token])?;
        Ok(())
    }
}
