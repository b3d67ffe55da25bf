//! Table `boards`.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A board model as kept.
#[derive(Debug, Clone)]
pub struct BoardRow {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// Its file, `urgent-mend/board/1`.
    pub file: String,
}

impl BoardRow {
    fn of(row: &Row<'_>) -> rusqlite::Result<Self> {
        Ok(Self { id: row.get(0)?, name: row.get(1)?, file: row.get(2)? })
    }
}

impl Read<'_> {
    /// All boards by name.
    pub fn boards(&self) -> Result<Vec<BoardRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, name, file FROM boards ORDER BY name")?;
        let rows = statement.query_map([], BoardRow::of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One board.
    pub fn board(&self, id: i64) -> Result<Option<BoardRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, name, file FROM boards WHERE id = ?1")?;
        Ok(statement.query_row([id], BoardRow::of).optional()?)
    }
}

impl Write<'_> {
    /// Keeps a board; none when one of that name is there already.
    pub fn add_board(&self, name: &str, file: &str, now_ms: i64) -> Result<Option<i64>, StoreError> {
        let sql = "INSERT INTO boards (name, file, entered_ms) VALUES (?1, ?2, ?3) ON CONFLICT (name) DO NOTHING";
        let added = self.0.prepare_cached(sql)?.execute(params![name, file, now_ms])?;
        Ok((added == 1).then(|| self.0.last_insert_rowid()))
    }
}
