//! `review`: what the jobs that were given back have come to.

use std::path::Path;
use std::process::ExitCode;

use mend_store::Store;
use mend_web::words::review_lines;

use crate::plan_command::{BAD_INPUT, print};

/// Reads a shop, also while it is served, and prints its review.
#[tokio::main]
pub(crate) async fn run(data: &Path, json: bool) -> anyhow::Result<ExitCode> {
    let database = data.join("shop.db");
    if !database.is_file() {
        eprintln!("{} holds no shop: make one with urgent-mend init --data {}", data.display(), data.display());
        return Ok(ExitCode::from(BAD_INPUT));
    }
    let outcomes = Store::open(&database)?.read(|read| read.outcomes()).await?;
    if json {
        print(&serde_json::to_string_pretty(&mend_formats::review::review(&outcomes))?);
    } else {
        review_lines(&outcomes).iter().for_each(|line| print(line));
    }
    Ok(ExitCode::SUCCESS)
}
