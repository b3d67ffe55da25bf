//! What can go wrong with a store. What is absent is no error: it is `None`.

/// A failure of the store itself.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Sqlite(#[from] rusqlite::Error),
    /// A migration failed.
    #[error("the database could not be brought up to date: {0}")]
    Migration(#[from] rusqlite_migration::Error),
    /// No connection could be had.
    #[error("no connection to the database: {0}")]
    Connection(String),
}
