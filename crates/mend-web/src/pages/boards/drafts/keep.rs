//! The end of a draft: a version of the library, or nothing.

use axum::extract::{Path, State};
use axum::response::{IntoResponse, Redirect, Response};
use mend_core::finding::Finding;
use mend_store::NewBoard;
use serde::Deserialize;

use super::live::StoredDraft;
use super::number;
use super::trace::{DraftPlace, refused};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

pub(super) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
) -> Result<Response, Refusal> {
    let id = number(&id)?;
    let kept = StoredDraft::load(&app, id, "").await?;
    let board = match kept.draft.board() {
        Ok(board) => board,
        Err(findings) => return refused(&app, visitor, DraftPlace { id, show: "keep" }, &findings).await,
    };
    let new = NewBoard {
        name: board.name.clone(),
        file: mend_formats::board::write(&board)?,
        draft: Some(mend_formats::draft::write(&kept.draft)?),
    };
    // It must read back as it is kept: a job computes on the file.
    mend_formats::board::parse(new.file.as_bytes())?;
    let (model, job, now) = (kept.row.model_id, kept.row.job_id, app.now_ms());
    let write = move |write: &mend_store::Write<'_>| {
        let row = match model {
            Some(model) => write.add_version(model, &new, now)?,
            None => write.add_board(&new, now)?,
        };
        let Some(row) = row else { return Ok(None) };
        write.end_draft(id)?;
        // The job that it was described for takes it, unless a bench run has begun on another.
        let job = job.filter(|job| matches!(write.read().run_of(*job), Ok(None)));
        if let Some(job) = job {
            write.choose_board(job, row.id)?;
            Job::list(write, job)?;
        }
        Ok(Some((row, job)))
    };
    match app.writing(write).await? {
        Some((_, Some(job))) => Ok(Redirect::to(&format!("/jobs/{job}/board")).into_response()),
        Some((row, None)) => Ok(Redirect::to(&format!("/boards/{}", row.model_id)).into_response()),
        None => {
            let taken = Finding::written("keep", "name", format!("the library has a “{}” already", board.name));
            refused(&app, visitor, DraftPlace { id, show: "keep" }, &[taken.hint("give this one another name")]).await
        }
    }
}

pub(super) async fn end(State(app): State<App>, Path(id): Path<String>) -> Result<Redirect, Refusal> {
    let id = number(&id)?;
    app.writing(move |write| write.end_draft(id)).await?;
    Ok(Redirect::to("/boards"))
}

/// The name of a connector of the shop's own.
#[derive(Deserialize)]
pub(super) struct Own {
    name: String,
}

/// Puts the draft's part into the shop's own library.
pub(super) async fn keep_connector(
    State(app): State<App>,
    visitor: Visitor,
    Path(id): Path<String>,
    Form(own): Form<Own>,
) -> Result<Response, Refusal> {
    let id = number(&id)?;
    let kept = StoredDraft::load(&app, id, "").await?;
    let object = |message: String, hint: &str| vec![Finding::written("connector", "name", message).hint(hint)];
    let name = own.name.trim().to_owned();
    let fits = (1..=80).contains(&name.chars().count());
    let findings = match &kept.draft.part {
        _ if !fits => object(format!("a name of {} characters", name.chars().count()), "1 to 80 characters"),
        None => object("there is no part yet".to_owned(), "take one from the library first"),
        Some(part) => {
            let connector = mend_core::board::Connector { name: name.clone(), ..part.made.clone() };
            let (file, now, named) = (mend_formats::connector::write(&connector)?, app.now_ms(), name.clone());
            match app.writing(move |write| write.add_connector(&named, &file, now)).await? {
                Some(_) => return Ok(Redirect::to("/boards/connectors").into_response()),
                None => object(format!("the shop has a “{name}” already"), "give this one another name"),
            }
        }
    };
    refused(&app, visitor, DraftPlace { id, show: "keep" }, &findings).await
}
