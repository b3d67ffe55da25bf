//! Table `photos`.

use rusqlite::{OptionalExtension, params};

use crate::{Read, StoreError, Write};

/// A photograph to be kept.
#[derive(Debug, Clone)]
pub struct NewPhoto {
    /// Upright, without the camera's data.
    pub jpeg: Vec<u8>,
    /// Pixels.
    pub size: (u32, u32),
}

impl Read<'_> {
    /// The picture of a photograph.
    pub fn photo(&self, id: i64) -> Result<Option<Vec<u8>>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT jpeg FROM photos WHERE id = ?1")?;
        Ok(statement.query_row([id], |row| row.get(0)).optional()?)
    }
}

/// A photograph without its picture.
#[derive(Debug, Clone, Copy)]
pub struct PhotoRow {
    /// Its number.
    pub id: i64,
    /// Pixels.
    pub size: (u32, u32),
}

impl Read<'_> {
    /// All photographs without their pictures, oldest first.
    pub fn photos(&self) -> Result<Vec<PhotoRow>, StoreError> {
        let mut statement = self.0.prepare_cached("SELECT id, width, height FROM photos ORDER BY id")?;
        let rows = statement.query_map([], |row| Ok(PhotoRow { id: row.get(0)?, size: (row.get(1)?, row.get(2)?) }))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

impl Write<'_> {
    /// Keeps a photograph.
    pub fn add_photo(&self, photo: &NewPhoto, now_ms: i64) -> Result<i64, StoreError> {
        let sql = "INSERT INTO photos (jpeg, width, height, added_ms) VALUES (?1, ?2, ?3, ?4)";
        self.0.prepare_cached(sql)?.execute(params![photo.jpeg, photo.size.0, photo.size.1, now_ms])?;
        Ok(self.0.last_insert_rowid())
    }
}
