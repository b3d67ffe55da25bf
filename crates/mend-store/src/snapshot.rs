//! Whole copies of a shop's database: before a migration, once a day, and where a person wants one.

use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags};

use crate::StoreError;
use crate::folder::open_private;
use crate::migrations::MIGRATIONS;

/// So many snapshots are kept; the oldest go first.
const KEPT: usize = 14;

/// Copies a database into a new file while others use it. The copy is whole: it becomes `to` only once it is on the disk.
pub fn backup(database: &Path, to: &Path) -> Result<(), StoreError> {
    let plain = Connection::open_with_flags(database, OpenFlags::SQLITE_OPEN_READ_WRITE)?;
    plain.busy_timeout(std::time::Duration::from_secs(5))?;
    let begun = to.with_extension("part");
    remove(&begun)?;
    drop(open_private(&begun)?);
    // It takes an empty file as well as none.
    plain.execute("VACUUM INTO ?1", [begun.to_string_lossy()])?;
    let denied = || StoreError::file(format!("{} can't be written", to.display()));
    std::fs::File::open(&begun).and_then(|file| file.sync_all()).map_err(denied())?;
    std::fs::rename(&begun, to).map_err(denied())
}

fn remove(file: &Path) -> Result<(), StoreError> {
    match std::fs::remove_file(file) {
        Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
            Err(StoreError::file(format!("{} can't be replaced", file.display()))(error))
        }
        _ => Ok(()),
    }
}

/// Puts a backup in place of a folder's database; what was there becomes a snapshot of the name. The folder is to be held.
pub fn restore(database: &Path, from: &Path, name: &str) -> Result<(), StoreError> {
    check_backup(from)?;
    if Connection::open(database)?.query_row("SELECT count(*) FROM sqlite_master", [], |row| row.get::<_, i64>(0))? > 0
    {
        snapshot(database, &format!("{name}-before-restore"))?;
    }
    let beside = database.with_extension("restored");
    remove(&beside)?;
    backup(from, &beside)?;
    for rest in ["-wal", "-shm"] {
        let mut rest_of = database.as_os_str().to_owned();
        rest_of.push(rest);
        remove(Path::new(&rest_of))?;
    }
    std::fs::rename(&beside, database).map_err(StoreError::file(format!("{} can't be replaced", database.display())))
}

/// A backup that is whole, and of no newer version than this one.
fn check_backup(file: &Path) -> Result<(), StoreError> {
    let backup = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_WRITE)?;
    let message: String = backup.query_row("PRAGMA integrity_check(1)", [], |row| row.get(0))?;
    let shop: i64 =
        backup
            .query_row("SELECT count(*) FROM sqlite_master WHERE name IN ('jobs', 'stations')", [], |row| row.get(0))?;
    let newer = MIGRATIONS.pending_migrations(&backup)? < 0;
    if message != "ok" || shop != 2 || newer {
        let why = match message.as_str() {
            "ok" if newer => "a newer version of the program made it".to_owned(),
            "ok" => "it is no backup of a shop".to_owned(),
            _ => message,
        };
        return Err(StoreError::file(format!("{} can't be restored", file.display()))(std::io::Error::other(why)));
    }
    Ok(())
}

/// Keeps a copy beside the database by the name of its moment, and lets the oldest go.
pub fn snapshot(database: &Path, name: &str) -> Result<PathBuf, StoreError> {
    let folder = snapshots(database);
    std::fs::create_dir_all(&folder).map_err(StoreError::file(format!("{} can't be made", folder.display())))?;
    let file = folder.join(format!("{name}.db"));
    backup(database, &file)?;
    for old in kept(database)?.iter().rev().skip(KEPT) {
        remove(old)?;
    }
    Ok(file)
}

/// All snapshots, oldest first: their names begin with their moments.
pub fn kept(database: &Path) -> Result<Vec<PathBuf>, StoreError> {
    let folder = snapshots(database);
    if !folder.is_dir() {
        return Ok(Vec::new());
    }
    let denied = || StoreError::file(format!("{} can't be read", folder.display()));
    let entries = std::fs::read_dir(&folder).map_err(denied())?;
    let mut files: Vec<PathBuf> =
        entries.map(|entry| entry.map(|e| e.path())).collect::<Result<_, _>>().map_err(denied())?;
    files.retain(|file| file.extension().is_some_and(|extension| extension == "db"));
    files.sort();
    Ok(files)
}

fn snapshots(database: &Path) -> PathBuf {
    database.with_file_name("snapshots")
}

/// Does a database of an older version wait to be brought up to date? A new one does not.
pub fn is_outdated(database: &Path) -> Result<bool, StoreError> {
    let plain = Connection::open(database)?;
    let version: i64 = plain.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    Ok(version > 0 && MIGRATIONS.pending_migrations(&plain)? > 0)
}
