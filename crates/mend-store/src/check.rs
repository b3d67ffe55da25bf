//! Is the database itself whole? What its rows hold is for whoever reads the formats.

use crate::{Read, StoreError};

impl Read<'_> {
    /// Everything that SQLite finds wrong with its file, page by page, and references to nothing. Reads all of it.
    pub fn integrity(&self) -> Result<Vec<String>, StoreError> {
        let mut found = self.message("PRAGMA integrity_check")?;
        found.extend(self.dangling()?);
        Ok(found)
    }

    /// The same without looking into the indexes: quicker.
    pub fn quick_check(&self) -> Result<Vec<String>, StoreError> {
        self.message("PRAGMA quick_check")
    }

    fn message(&self, pragma: &str) -> Result<Vec<String>, StoreError> {
        let mut statement = self.0.prepare(pragma)?;
        let rows = statement.query_map([], |row| row.get::<_, String>(0))?;
        let message = rows.collect::<Result<Vec<_>, _>>()?;
        Ok(message.into_iter().filter(|line| line != "ok").collect())
    }

    fn dangling(&self) -> Result<Vec<String>, StoreError> {
        let mut statement = self.0.prepare("PRAGMA foreign_key_check")?;
        let rows = statement.query_map([], |row| {
            let (table, id, of): (String, Option<i64>, String) = (row.get(0)?, row.get(1)?, row.get(2)?);
            Ok(format!("row {} of {table} refers to a row of {of} that is not there", id.unwrap_or_default()))
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}
