//! Table `instruments`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// An instrument.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct InstrumentRow {
    /// Its number; 0: not kept yet.
    pub id: i64,
    /// As the shop calls it.
    pub name: String,
    /// `thermometer`, `readout` or `meter`.
    pub kind: String,
    /// Number and port.
    pub address: String,
    /// Is it read at the heat step? One of a kind is.
    pub at_bench: bool,
}

const SELECT: &str = "SELECT id, name, kind, address, at_bench FROM instruments";

fn of(row: &Row<'_>) -> rusqlite::Result<InstrumentRow> {
    Ok(InstrumentRow {
        id: row.get(0)?,
        name: row.get(1)?,
        kind: row.get(2)?,
        address: row.get(3)?,
        at_bench: row.get(4)?,
    })
}

impl Read<'_> {
    /// All instruments by their names.
    pub fn instruments(&self) -> Result<Vec<InstrumentRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY name"))?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One instrument.
    pub fn instrument(&self, id: i64) -> Result<Option<InstrumentRow>, StoreError> {
        Ok(self.0.prepare_cached(&format!("{SELECT} WHERE id = ?1"))?.query_row([id], of).optional()?)
    }

    /// The instrument of a kind that is read at the heat step.
    pub fn bench_instrument(&self, kind: &str) -> Result<Option<InstrumentRow>, StoreError> {
        let sql = format!("{SELECT} WHERE at_bench AND kind = ?1 ORDER BY id LIMIT 1");
        Ok(self.0.prepare_cached(&sql)?.query_row([kind], of).optional()?)
    }
}

impl Write<'_> {
    /// Keeps an instrument, a new one or one as it is now; false where another has its name. Only one of a kind is read at the heat step.
    pub fn put_instrument(&self, row: &InstrumentRow) -> Result<bool, StoreError> {
        let InstrumentRow { id, name, kind, address, at_bench } = row;
        let taken = "SELECT 1 FROM instruments WHERE name = ?1 AND id <> ?2";
        if self.0.prepare_cached(taken)?.exists(params![name, id])? {
            return Ok(false);
        }
        if *at_bench {
            self.0.prepare_cached("UPDATE instruments SET at_bench = 0 WHERE kind = ?1")?.execute([kind])?;
        }
        let sql = "INSERT INTO instruments (id, name, kind, address, at_bench) VALUES (NULLIF(?1, 0), ?2, ?3, ?4, ?5)
                   ON CONFLICT (id) DO UPDATE SET name = excluded.name, kind = excluded.kind,
                       address = excluded.address, at_bench = excluded.at_bench";
        self.0.prepare_cached(sql)?.execute(params![id, name, kind, address, at_bench])?;
        Ok(true)
    }

    /// Forgets an instrument.
    pub fn remove_instrument(&self, id: i64) -> Result<(), StoreError> {
        self.0.prepare_cached("DELETE FROM instruments WHERE id = ?1")?.execute([id])?;
        Ok(())
    }
}
