//! Fills an empty shop from files of the open formats: how the demo comes about. What takes no time is done at once; plans are
//! computed by the real solver in the background, job by job.
//!
//! - `library`: stations, boards and maps, before any job
//! - `jobs`: each with what needs no plan; `plans`: what has to be computed
//! - `counter`: people, stock and donors; `history`: two weeks of a simulated past
//! - `instruments`: simulated ones in the list

mod counter;
mod history;
mod instruments;
mod jobs;
mod library;
mod plans;

use std::collections::BTreeMap;

use mend_core::finding::Finding;
use mend_formats::shop;

pub use self::instruments::{add_instrument, bench_bundle};
pub(crate) use self::plans::add_one_job;
use self::plans::{PlansToMake, Waiting};
use crate::App;
use crate::refusal::Refusal;
use crate::words::{FindingView, Words};

/// Files by name without ending, each the text of one format.
#[derive(Debug, Clone, Default)]
pub struct ShopFiles {
    /// `urgent-mend/board/1`.
    pub boards: BTreeMap<String, String>,
    /// `urgent-mend/equipment/2`, if the shop has said what it has.
    pub equipment: Option<String>,
    /// `urgent-mend/shop/1`, if the shop has set itself up.
    pub settings: Option<String>,
    /// `urgent-mend/station/1`.
    pub stations: BTreeMap<String, String>,
    /// Photographs, JPEG; drafts name them by their place in this list, from 1.
    pub photos: BTreeMap<String, Vec<u8>>,
    /// `urgent-mend/draft/1`: each becomes a board, or the next version of the board of its name.
    pub drafts: BTreeMap<String, String>,
    /// `urgent-mend/opening/1`.
    pub openings: BTreeMap<String, String>,
    /// `urgent-mend/job/1`, oldest first.
    pub jobs: BTreeMap<String, String>,
    /// `urgent-mend/demo-counter/1`, if there are people and a shelf.
    pub counter: Option<String>,
}

/// Why a shop could not be filled.
#[derive(Debug, thiserror::Error)]
#[error("{file}: {why}")]
pub struct CannotFill {
    file: String,
    why: String,
}

impl CannotFill {
    /// Because of a file, for a reason in words.
    pub fn because(file: &str, why: &str) -> Self {
        Self { file: file.to_owned(), why: why.to_owned() }
    }

    pub(crate) fn findings(file: &str, findings: &[Finding]) -> Self {
        let line = |f: FindingView| format!("{}: {} ({})", f.place, f.message, f.hint);
        let lines: Vec<String> = Words::default().findings(findings).into_iter().map(line).collect();
        Self { file: file.to_owned(), why: lines.join("; ") }
    }

    pub(crate) fn refusal(file: &str, refusal: Refusal) -> Self {
        match refusal {
            Refusal::Bad(findings) => Self::findings(file, &findings),
            other => Self { file: file.to_owned(), why: format!("{other:?}") },
        }
    }
}

/// Puts all of it into the shop but for what has to be computed; answers that, to be driven in the background.
pub async fn fill(
    app: &App,
    files: &ShopFiles,
) -> Result<impl Future<Output = Result<(), CannotFill>> + Send + use<>, CannotFill> {
    let library = library::fill(app, files).await?;
    let mut waiting = Vec::new();
    for (name, text) in &files.jobs {
        let file = shop::parse(text.as_bytes()).map_err(|f| CannotFill::findings(name, &f))?;
        let id = jobs::add(app, &file, &library).await.map_err(|r| CannotFill::refusal(name, r))?;
        if file.plan.is_some() || file.handed_over || file.declined.is_some() {
            waiting.push(Waiting { name: name.clone(), id, file });
        }
    }
    if let Some(text) = &files.counter {
        counter::fill(app, text).await?;
    }
    app.set_preparing(waiting.len());
    Ok(plans::make(app.clone(), PlansToMake { jobs: waiting, has_past: files.counter.is_some() }))
}
