//! All of a shop as files. Whatever is stored as the text of an open format is written as it is stored, under its present names.
//!
//! [`library`]: what jobs refer to; [`jobs`]: the record of each, with its [`runs`].

mod jobs;
mod library;
mod runs;

use std::collections::BTreeMap;

use mend_formats::export::{Export, FILE, FORMAT};
use mend_formats::record::BoardName;
use mend_formats::{export as format, floor as floor_format};
use mend_store::{Read, StoreError};

use super::{CannotFill, floor};
use crate::App;

/// Takes a file by its name in the export's folder.
pub type Sink<'a> = &'a mut (dyn FnMut(&str, &[u8]) -> std::io::Result<()> + Send);

/// Writes all of a shop; answers how many files.
pub async fn export(app: &App, sink: Sink<'_>) -> Result<usize, CannotFill> {
    let list = Export { format: FORMAT.to_owned(), ..Export::default() };
    let mut out = Exporting { app, sink, count: 0, list, placed: Placed::default() };
    out.settings().await?;
    out.instruments().await?;
    out.stations().await?;
    out.connectors().await?;
    out.photos().await?;
    out.openings().await?;
    out.boards().await?;
    out.jobs().await?;
    out.floor().await?;
    out.drafts().await?;
    out.lessons().await?;
    let text = format::write(&out.list).map_err(|error| failed(FILE, &error.to_string()))?;
    out.put(FILE, text.as_bytes())?;
    Ok(out.count)
}

/// What was written has a place in the export's list: that is how later files name it.
#[derive(Debug, Clone, Default)]
struct Placed {
    /// Of photographs, from 1.
    photos: BTreeMap<i64, i64>,
    /// Of versions of opening maps, from 1.
    maps: BTreeMap<i64, i64>,
    /// Versions of boards go by their model's name.
    boards: BTreeMap<i64, BoardName>,
    /// Numbers of jobs, in order.
    jobs: Vec<i64>,
}

impl Placed {
    /// From 0.
    fn job(&self, id: i64) -> Option<usize> {
        self.jobs.iter().position(|job| *job == id)
    }
}

/// An export on its way.
struct Exporting<'a> {
    app: &'a App,
    sink: Sink<'a>,
    count: usize,
    list: Export,
    placed: Placed,
}

impl Exporting<'_> {
    /// Writes a file; answers its name.
    fn put(&mut self, name: &str, bytes: &[u8]) -> Result<String, CannotFill> {
        (self.sink)(name, bytes).map_err(|error| failed(name, &error.to_string()))?;
        self.count += 1;
        Ok(name.to_owned())
    }

    async fn read<T, F>(&self, work: F) -> Result<T, CannotFill>
    where
        T: Send + 'static,
        F: FnOnce(Read<'_>) -> Result<T, StoreError> + Send + 'static,
    {
        self.app.reading(work).await.map_err(|refusal| CannotFill::refusal("the shop", refusal))
    }

    /// People, stock, quotes, donors.
    async fn floor(&mut self) -> Result<(), CannotFill> {
        let jobs = self.placed.jobs.clone();
        if let Some(file) = self.read(move |r| floor::floor(r, &jobs)).await? {
            let text = floor_format::write(&file).map_err(|error| failed("floor", &error.to_string()))?;
            self.list.floor = Some(self.put(floor_format::FILE, text.as_bytes())?);
        }
        Ok(())
    }
}

fn failed(file: &str, why: &str) -> CannotFill {
    CannotFill::because(file, why)
}
