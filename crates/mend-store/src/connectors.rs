//! Table `connectors`: the shop's own.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A connector of the shop's own.
#[derive(Debug, Clone)]
pub struct ConnectorRow {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// Its file, `urgent-mend/connector/1`.
    pub file: String,
}

fn of(row: &Row<'_>) -> rusqlite::Result<ConnectorRow> {
    Ok(ConnectorRow { id: row.get(0)?, name: row.get(1)?, file: row.get(2)? })
}

impl Read<'_> {
    /// All of them by name.
    pub fn connectors(&self) -> Result<Vec<ConnectorRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, name, file FROM connectors ORDER BY name")?;
        let rows = statement.query_map([], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One of them.
    pub fn connector(&self, id: i64) -> Result<Option<ConnectorRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, name, file FROM connectors WHERE id = ?1")?;
        Ok(statement.query_row([id], of).optional()?)
    }
}

impl Write<'_> {
    /// Keeps a connector; none when there is one of that name already.
    pub fn add_connector(&self, name: &str, file: &str, now_ms: i64) -> Result<Option<i64>, StoreError> {
        let sql = "INSERT INTO connectors (name, file, entered_ms) VALUES (?1, ?2, ?3) ON CONFLICT (name) DO NOTHING";
        let added = self.0.prepare_cached(sql)?.execute(params![name, file, now_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }
}
