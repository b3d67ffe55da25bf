//! The folder that a shop lives in: made once, held by one process at a time, readable by its owner alone.
//!
//! `shop.db` holds everything; `snapshots/` what [`crate::snapshot`] keeps; `lock` is held while a process has the folder.

use std::fs::{DirBuilder, File, OpenOptions, TryLockError};
use std::path::{Path, PathBuf};

use crate::StoreError;

/// Why a folder can't be had.
#[derive(Debug, thiserror::Error)]
pub enum FolderError {
    /// There is no shop in it.
    #[error("{} holds no shop", .0.display())]
    NoShop(PathBuf),
    /// There is one in it already.
    #[error("{} holds a shop already", .0.display())]
    Taken(PathBuf),
    /// Another process has it.
    #[error("{} is in use by another process", .0.display())]
    InUse(PathBuf),
    /// A file of it.
    #[error(transparent)]
    Store(#[from] StoreError),
}

/// A shop's folder, held by this process until it is dropped.
#[derive(Debug)]
pub struct Folder {
    path: PathBuf,
    _lock: File,
}

impl Folder {
    /// Takes hold of a folder that holds a shop.
    pub fn open(path: &Path) -> Result<Self, FolderError> {
        if !path.join("shop.db").is_file() {
            return Err(FolderError::NoShop(path.to_owned()));
        }
        Self::hold(path)
    }

    /// Makes a folder, or takes an empty one, for a new shop.
    pub fn create(path: &Path) -> Result<Self, FolderError> {
        if path.join("shop.db").exists() {
            return Err(FolderError::Taken(path.to_owned()));
        }
        let mut builder = DirBuilder::new();
        builder.recursive(true);
        #[cfg(unix)]
        std::os::unix::fs::DirBuilderExt::mode(&mut builder, 0o700);
        builder.create(path).map_err(StoreError::file(format!("{} can't be made", path.display())))?;
        Self::hold(path)
    }

    fn hold(path: &Path) -> Result<Self, FolderError> {
        private(path, 0o700)?;
        let lock = open_private(&path.join("lock"))?;
        match lock.try_lock() {
            Ok(()) => {}
            Err(TryLockError::WouldBlock) => return Err(FolderError::InUse(path.to_owned())),
            Err(TryLockError::Error(error)) => {
                return Err(StoreError::file(format!("{} can't be locked", path.display()))(error).into());
            }
        }
        // SQLite gives its other files the permissions of this one.
        drop(open_private(&path.join("shop.db"))?);
        Ok(Self { path: path.to_owned(), _lock: lock })
    }

    /// The database.
    pub fn database(&self) -> PathBuf {
        self.path.join("shop.db")
    }
}

/// Opens a file for writing, makes it where it is missing, for its owner alone.
pub(crate) fn open_private(file: &Path) -> Result<File, StoreError> {
    let mut options = OpenOptions::new();
    options.create(true).truncate(false).write(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let opened = options.open(file).map_err(StoreError::file(format!("{} can't be opened", file.display())))?;
    private(file, 0o600)?;
    Ok(opened)
}

/// Takes a file's or folder's permissions from everybody but its owner.
#[cfg(unix)]
fn private(path: &Path, mode: u32) -> Result<(), StoreError> {
    use std::os::unix::fs::PermissionsExt;
    let denied = format!("{} can't be made private", path.display());
    std::fs::set_permissions(path, std::fs::Permissions::from_mode(mode)).map_err(StoreError::file(denied))
}

#[cfg(not(unix))]
fn private(_: &Path, _: u32) -> Result<(), StoreError> {
    Ok(())
}
