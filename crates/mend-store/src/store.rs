//! Opening the database and the two ways in: reading, and writing all or nothing.

use std::path::Path;

use deadpool_sqlite::{Config, Hook, HookError, Metrics, Pool, PoolConfig, Runtime};
use rusqlite::{Connection, Transaction, TransactionBehavior};

use crate::StoreError;
use crate::migrations::MIGRATIONS;

const READERS: usize = 4;
/// Per connection; WAL itself stays in the file. FULL: a press that was answered survives a power cut.
const WRITER_PRAGMAS: &str = "PRAGMA foreign_keys = ON; PRAGMA synchronous = FULL; PRAGMA busy_timeout = 5000;";
const READER_PRAGMAS: &str = "PRAGMA foreign_keys = ON; PRAGMA query_only = ON; PRAGMA busy_timeout = 5000;";

/// The shop's memory. Cheap to clone.
#[derive(Debug, Clone)]
pub struct Store {
    readers: Pool,
    writer: Pool,
}

/// Reading. Has no method that changes anything.
#[derive(Debug, Clone, Copy)]
pub struct Read<'c>(pub(crate) &'c Connection);

/// Writing. What is done through it lands together, or not at all.
#[derive(Debug)]
pub struct Write<'c>(pub(crate) Transaction<'c>);

impl Write<'_> {
    /// What the transaction sees.
    pub fn read(&self) -> Read<'_> {
        Read(&self.0)
    }
}

impl Store {
    /// Opens `file`, makes it where it is missing, and brings it up to date.
    pub fn open(file: &Path) -> Result<Self, StoreError> {
        let mut plain = Connection::open(file)?;
        plain.pragma_update(None, "journal_mode", "WAL")?;
        // A step may make a table anew that others refer to.
        plain.pragma_update(None, "foreign_keys", false)?;
        MIGRATIONS.to_latest(&mut plain)?;
        drop(plain);
        Ok(Self { readers: pool(file, READERS, READER_PRAGMAS)?, writer: pool(file, 1, WRITER_PRAGMAS)? })
    }

    /// Lets the database grow by no more than so many pages, as a full disk would; none: as far as the disk goes. For tests.
    pub async fn limit_pages(&self, more: Option<i64>) -> Result<(), StoreError> {
        let connection = self.writer.get().await.map_err(lost)?;
        let limit = move |c: &mut Connection| {
            let pages: i64 = c.query_row("PRAGMA page_count", [], |row| row.get(0))?;
            let most = more.map_or(i64::from(u32::MAX) - 1, |more| pages + more);
            c.query_row(&format!("PRAGMA max_page_count = {most}"), [], |_| Ok(()))?;
            Ok(())
        };
        connection.interact(limit).await.map_err(lost)?
    }

    /// Runs `work` on a reader, off the async threads.
    pub async fn read<T, F>(&self, work: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(Read<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        let connection = self.readers.get().await.map_err(lost)?;
        connection.interact(move |c| work(Read(c))).await.map_err(lost)?
    }

    /// Runs `work` on the writer in one transaction, committed when it answers Ok; nobody's name stands on what it writes.
    pub async fn write<T, F>(&self, work: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        self.write_as(None, work).await
    }

    /// The same by somebody's hand, by their number: what is written keeps who did it.
    pub async fn write_as<T, F>(&self, person: Option<i64>, work: F) -> Result<T, StoreError>
    where
        T: Send + 'static,
        F: FnOnce(&Write<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        let connection = self.writer.get().await.map_err(lost)?;
        let run = move |c: &mut Connection| {
            let write = Write(c.transaction_with_behavior(TransactionBehavior::Immediate)?);
            write.0.prepare_cached("UPDATE hand SET person_id = ?1 WHERE person_id IS NOT ?1")?.execute([person])?;
            let answer = work(&write)?;
            write.0.commit()?;
            Ok(answer)
        };
        connection.interact(run).await.map_err(lost)?
    }
}

fn lost(error: impl std::fmt::Display) -> StoreError {
    StoreError::Connection(error.to_string())
}

fn pool(file: &Path, size: usize, pragmas: &'static str) -> Result<Pool, StoreError> {
    let mut config = Config::new(file);
    config.pool = Some(PoolConfig::new(size));
    let setup = Hook::async_fn(move |connection, _: &Metrics| {
        Box::pin(async move {
            let set = connection.interact(move |c| c.execute_batch(pragmas)).await;
            set.map_err(|e| HookError::message(e.to_string()))?.map_err(|e| HookError::message(e.to_string()))
        })
    });
    config.builder(Runtime::Tokio1).map_err(lost)?.post_create(setup).build().map_err(lost)
}
