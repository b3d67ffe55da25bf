//! What can go wrong with a store. What is absent is no error: it is `None`.

use rusqlite::ErrorCode;

/// A failure of the store itself.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// The job has been handed over: nothing of it may change until it is reopened.
    #[error("the job has been handed over")]
    Closed,
    /// There is no room left to write.
    #[error("the disk is full")]
    Full(#[source] rusqlite::Error),
    /// The folder or its file can't be written.
    #[error("the shop's folder can't be written")]
    ReadOnly(#[source] rusqlite::Error),
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Sqlite(#[source] rusqlite::Error),
    /// A migration failed.
    #[error("the database could not be brought up to date: {0}")]
    Migration(#[from] rusqlite_migration::Error),
    /// No connection could be had.
    #[error("no connection to the database: {0}")]
    Connection(String),
    /// A file of the shop's folder.
    #[error("{what}: {source}")]
    File {
        /// Which one, and what was to be done with it.
        what: String,
        /// Why it could not.
        source: std::io::Error,
    },
}

/// As the triggers of a closed job say it.
const CLOSED: &str = "job closed";

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        let (code, message) = match &error {
            rusqlite::Error::SqliteFailure(failure, message) => (Some(failure.code), message.as_deref()),
            _ => (None, None),
        };
        match code {
            Some(ErrorCode::ConstraintViolation) if message == Some(CLOSED) => Self::Closed,
            Some(ErrorCode::DiskFull) => Self::Full(error),
            Some(ErrorCode::ReadOnly | ErrorCode::PermissionDenied | ErrorCode::CannotOpen) => Self::ReadOnly(error),
            _ => Self::Sqlite(error),
        }
    }
}

impl StoreError {
    /// Says of a file what could not be done with it.
    pub(crate) fn file(what: impl Into<String>) -> impl FnOnce(std::io::Error) -> Self {
        let what = what.into();
        move |source| Self::File { what, source }
    }
}

#[cfg(test)]
mod tests {
    use rusqlite::{Connection, OpenFlags};

    use super::*;

    #[test]
    fn a_folder_that_can_not_be_written_is_named() {
        let folder = tempfile::tempdir().unwrap();
        let file = folder.path().join("a.db");
        Connection::open(&file).unwrap().execute_batch("CREATE TABLE t (x)").unwrap();
        let read_only = Connection::open_with_flags(&file, OpenFlags::SQLITE_OPEN_READ_ONLY).unwrap();
        let refused = read_only.execute("INSERT INTO t VALUES (1)", []).map_err(StoreError::from);
        assert!(matches!(refused, Err(StoreError::ReadOnly(_))), "{refused:?}");
        let none = Connection::open(folder.path().join("none/a.db")).map_err(StoreError::from);
        assert!(matches!(none, Err(StoreError::ReadOnly(_))));
    }
}
