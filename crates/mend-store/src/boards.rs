//! Tables `models` and `boards`: a board model, and its versions.

use rusqlite::{OptionalExtension, Row, params};

use crate::{Read, StoreError, Write};

/// A version of a board model.
#[derive(Debug, Clone)]
pub struct BoardRow {
    /// Its number: what jobs and plans keep.
    pub id: i64,
    /// Its model.
    pub model_id: i64,
    /// Which version of it, from 1.
    pub version: i64,
    /// The model's name.
    pub name: String,
    /// Its file, `urgent-mend/board/1`.
    pub file: String,
    /// How it was described, `urgent-mend/draft/1`.
    pub draft: Option<String>,
}

/// A version, without its file.
#[derive(Debug, Clone)]
pub struct VersionRow {
    /// Its number.
    pub id: i64,
    /// Which version of its model, from 1.
    pub version: i64,
    /// The model's name.
    pub name: String,
}

/// A model with what became of the jobs on it.
#[derive(Debug, Clone)]
pub struct ModelRow {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// Its newest version.
    pub board_id: i64,
    /// Which version that is.
    pub version: i64,
    /// Jobs on any of its versions, open ones too.
    pub jobs: u32,
    /// Those whose part came away at the bench, a first attempt on a cold board.
    pub released: u32,
    /// Of these, within the band that was predicted.
    pub within: u32,
}

const MODEL: &str = "SELECT m.id, m.name, b.id, b.version, m.jobs, m.released, m.within FROM models m
                     JOIN boards b ON b.model_id = m.id
                     WHERE b.version = (SELECT max(version) FROM boards o WHERE o.model_id = m.id)";

impl ModelRow {
    fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let (id, name, board_id, version) = (row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?);
        Ok(Self { id, name, board_id, version, jobs: row.get(4)?, released: row.get(5)?, within: row.get(6)? })
    }
}

/// A version to be kept.
#[derive(Debug, Clone)]
pub struct NewBoard {
    /// The model's name from now on.
    pub name: String,
    /// Its file.
    pub file: String,
    /// How it was described, where it was.
    pub draft: Option<String>,
}

const SELECT: &str = "SELECT b.id, b.model_id, b.version, m.name, b.file, b.draft FROM boards b
                      JOIN models m ON m.id = b.model_id";

impl BoardRow {
    fn from_row(row: &Row<'_>) -> rusqlite::Result<Self> {
        let (id, model_id, version) = (row.get(0)?, row.get(1)?, row.get(2)?);
        Ok(Self { id, model_id, version, name: row.get(3)?, file: row.get(4)?, draft: row.get(5)? })
    }
}

impl Read<'_> {
    /// The newest version of every model, by name.
    pub fn boards(&self) -> Result<Vec<BoardRow>, StoreError> {
        let newest = "WHERE b.version = (SELECT max(version) FROM boards o WHERE o.model_id = b.model_id)";
        let mut statement = self.0.prepare_cached(&format!("{SELECT} {newest} ORDER BY m.name"))?;
        let rows = statement.query_map([], BoardRow::from_row)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One version, by its number.
    pub fn board(&self, id: i64) -> Result<Option<BoardRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} WHERE b.id = ?1"))?;
        Ok(statement.query_row([id], BoardRow::from_row).optional()?)
    }

    /// Is there any board?
    pub fn has_boards(&self) -> Result<bool, StoreError> {
        Ok(self.0.prepare_cached("SELECT 1 FROM boards LIMIT 1")?.exists([])?)
    }

    /// All versions of a model, newest first: which, and its number.
    pub fn versions(&self, model: i64) -> Result<Vec<VersionRow>, StoreError> {
        let sql = "SELECT b.id, b.version, m.name FROM boards b JOIN models m ON m.id = b.model_id
                   WHERE b.model_id = ?1 ORDER BY b.version DESC";
        let mut statement = self.0.prepare_cached(sql)?;
        let of = |row: &Row<'_>| Ok(VersionRow { id: row.get(0)?, version: row.get(1)?, name: row.get(2)? });
        let rows = statement.query_map([model], of)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// The newest version of every model with what became of its jobs, by name.
    pub fn models(&self) -> Result<Vec<ModelRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{MODEL} ORDER BY m.name"))?;
        let rows = statement.query_map([], ModelRow::from_row)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// One model.
    pub fn model(&self, id: i64) -> Result<Option<ModelRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{MODEL} AND m.id = ?1"))?;
        Ok(statement.query_row([id], ModelRow::from_row).optional()?)
    }

    /// All versions of all models, oldest first.
    pub fn all_boards(&self) -> Result<Vec<BoardRow>, StoreError> {
        let mut statement = self.0.prepare_cached(&format!("{SELECT} ORDER BY b.id"))?;
        let rows = statement.query_map([], BoardRow::from_row)?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps a board as a new model; none when there is one of that name already.
    pub fn add_board(&self, board: &NewBoard, now_ms: i64) -> Result<Option<BoardRow>, StoreError> {
        let sql = "INSERT INTO models (name, entered_ms) VALUES (?1, ?2) ON CONFLICT (name) DO NOTHING";
        if self.0.prepare_cached(sql)?.execute(params![board.name, now_ms])? == 0 {
            return Ok(None);
        }
        self.insert(self.0.last_insert_rowid(), board, now_ms)
    }

    /// Keeps a board as the next version of a model, and gives the model its name; none when another has that name.
    pub fn add_version(&self, model: i64, board: &NewBoard, now_ms: i64) -> Result<Option<BoardRow>, StoreError> {
        let taken = "SELECT id FROM models WHERE name = ?1 AND id <> ?2";
        if self.0.prepare_cached(taken)?.exists(params![board.name, model])? {
            return Ok(None);
        }
        self.0.prepare_cached("UPDATE models SET name = ?1 WHERE id = ?2")?.execute(params![board.name, model])?;
        self.insert(model, board, now_ms)
    }

    fn insert(&self, model: i64, board: &NewBoard, now_ms: i64) -> Result<Option<BoardRow>, StoreError> {
        let sql = "INSERT INTO boards (model_id, version, file, draft, entered_ms)
                   SELECT ?1, 1 + coalesce(max(version), 0), ?2, ?3, ?4 FROM boards WHERE model_id = ?1";
        self.0.prepare_cached(sql)?.execute(params![model, board.file, board.draft, now_ms])?;
        self.read().board(self.0.last_insert_rowid())
    }
}
