//! Commands on a shop's folder: `init`, `import`, `export`, `backup`, `restore`, `check`.

use std::io::Write as _;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::Context;
use mend_store::{Folder, FolderError, snapshot};
use mend_web::{App, transfer};

use crate::clocks::clocks;
use crate::plan_command::{BAD_INPUT, print};
use crate::serving::{moment_name, open_store};

/// What to do about a folder that can't be had.
pub(crate) fn remedy(error: &FolderError, data: &Path) -> String {
    match error {
        FolderError::NoShop(_) => format!(": make one with urgent-mend init --data {}", data.display()),
        FolderError::InUse(_) => ": stop the application that serves it first".to_owned(),
        FolderError::Taken(_) => format!(": serve it with urgent-mend serve --data {}", data.display()),
        FolderError::Store(_) => String::new(),
    }
}

fn refused(error: &FolderError, data: &Path) -> ExitCode {
    eprintln!("{error}{}", remedy(error, data));
    ExitCode::from(BAD_INPUT)
}

/// Makes an empty shop.
pub(crate) fn init(data: &Path) -> anyhow::Result<ExitCode> {
    let folder = match Folder::create(data) {
        Ok(folder) => folder,
        Err(error) => return Ok(refused(&error, data)),
    };
    open_store(&folder)?;
    print(&format!("an empty shop is in {}: urgent-mend serve --data {}", data.display(), data.display()));
    Ok(ExitCode::SUCCESS)
}

/// Runs something on a shop that nobody serves.
#[tokio::main]
async fn on_shop<F>(data: &Path, work: F) -> anyhow::Result<ExitCode>
where
    F: AsyncFnOnce(App) -> Result<(), transfer::CannotFill>,
{
    let folder = match Folder::open(data) {
        Ok(folder) => folder,
        Err(error) => return Ok(refused(&error, data)),
    };
    let app = App::new(open_store(&folder)?, clocks());
    app.start().await;
    app.list_missing_jobs().await;
    match work(app).await {
        Ok(()) => Ok(ExitCode::SUCCESS),
        Err(error) => {
            eprintln!("{error}");
            Ok(ExitCode::from(BAD_INPUT))
        }
    }
}

/// Takes files of our open formats into a shop; a folder is a whole export, for an empty shop.
pub(crate) fn import(data: &Path, files: &[PathBuf]) -> anyhow::Result<ExitCode> {
    on_shop(data, async |app| {
        for file in files {
            let name = file.display().to_string();
            if file.is_dir() {
                let source = |name: &str| std::fs::read(file.join(name));
                let list = load(&file.join(mend_formats::export::FILE))?;
                let jobs = transfer::import_whole(&app, &list, &source).await?;
                print(&format!("{name}: a whole shop, {jobs} jobs"));
            } else {
                let taken = transfer::import_file(&app, &name, &load(file)?).await?;
                print(&format!("{name}: {}", taken.0));
            }
        }
        Ok(())
    })
}

fn load(file: &Path) -> Result<Vec<u8>, transfer::CannotFill> {
    std::fs::read(file).map_err(|error| transfer::CannotFill::because(&file.display().to_string(), &error.to_string()))
}

/// Writes all of a shop as files of the open formats into a new folder.
pub(crate) fn export(data: &Path, out: &Path) -> anyhow::Result<ExitCode> {
    if std::fs::read_dir(out).is_ok_and(|mut entries| entries.next().is_some()) {
        eprintln!("{} is not empty: name a new folder", out.display());
        return Ok(ExitCode::from(BAD_INPUT));
    }
    on_shop(data, async |app| {
        let mut write = |name: &str, bytes: &[u8]| put(&out.join(name), bytes);
        let count = transfer::export(&app, &mut write).await?;
        print(&format!("{count} files in {}", out.display()));
        Ok(())
    })
}

/// Writes a file, and makes its folder, for nobody but its owner: there are customers in it.
fn put(file: &Path, bytes: &[u8]) -> std::io::Result<()> {
    if let Some(folder) = file.parent() {
        std::fs::create_dir_all(folder)?;
    }
    let mut options = std::fs::OpenOptions::new();
    options.create(true).truncate(true).write(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    options.open(file)?.write_all(bytes)
}

/// Copies a shop's database into a file, also while it is served.
pub(crate) fn backup(data: &Path, file: &Path) -> anyhow::Result<ExitCode> {
    let database = data.join("shop.db");
    if !database.is_file() {
        return Ok(refused(&FolderError::NoShop(data.to_owned()), data));
    }
    snapshot::backup(&database, file)?;
    print(&format!("backed up to {}", file.display()));
    Ok(ExitCode::SUCCESS)
}

/// Puts a backup in place of a shop's database; what was there is kept as a snapshot.
pub(crate) fn restore(data: &Path, file: &Path) -> anyhow::Result<ExitCode> {
    let exists = data.join("shop.db").is_file();
    let folder = if exists { Folder::open(data) } else { Folder::create(data) };
    let folder = match folder {
        Ok(folder) => folder,
        Err(error) => return Ok(refused(&error, data)),
    };
    if let Err(error) = snapshot::restore(&folder.database(), file, &moment_name()) {
        eprintln!("{error}");
        return Ok(ExitCode::from(BAD_INPUT));
    }
    open_store(&folder).context("the backup was restored but can't be opened")?;
    print(&format!("restored from {}; what was there is in {}/snapshots", file.display(), data.display()));
    Ok(ExitCode::SUCCESS)
}

/// Reads everything in a shop and says what can't be read.
pub(crate) fn check(data: &Path) -> anyhow::Result<ExitCode> {
    let mut found = 0;
    let ended = on_shop(data, async |app| {
        for line in transfer::check(&app).await? {
            found += 1;
            print(&line);
        }
        Ok(())
    })?;
    if found > 0 {
        eprintln!("{found} found: restore a backup, or send these lines with the folder");
        return Ok(ExitCode::FAILURE);
    }
    if ended == ExitCode::SUCCESS {
        print("everything can be read");
    }
    Ok(ended)
}
