//! Giving a job back, and opening its record again.

use axum::extract::State;
use axum::response::Redirect;
use mend_core::finding::Finding;
use mend_core::shop::stock::MoveKind;
use mend_store::LogRow;
use serde::Deserialize;

use super::super::parts::{ShelfBefore, consumed, harvested};
use super::super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{Job, REOPENED};
use crate::learning;
use crate::refusal::Refusal;
use crate::words;

pub(crate) async fn close(State(app): State<App>, path: JobPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    if !job.is_ready() {
        return Err(Refusal::NotYet(words::not_ready(job.kind())));
    }
    let (id, now) = (job.row.id, app.now_ms());
    let teaches = learning::teaches(&job);
    app.changing(id, move |w| {
        job.keep_outcome(w, now)?;
        w.use_reserved(id, now)?;
        let of_job = |kind| w.read().moved_for(id, kind);
        let (items, used, came) = (w.read().items()?, of_job(MoveKind::Used)?, of_job(MoveKind::Harvested)?);
        let consumed = consumed(&job, &job.runs(w.read())?, ShelfBefore { items: &items, taken: &used }, now);
        consumed.iter().chain(&harvested(&job, &came, now)).try_for_each(|new| w.add_move(new))?;
        w.hand_over(id, now)?;
        if teaches { w.await_lesson(id) } else { Ok(()) }
    })
    .await?;
    learning::learn_all(&app);
    Ok(Redirect::to(&format!("/jobs/{id}/handover")))
}

/// Who reopens a closed job, and why.
#[derive(Deserialize)]
pub(crate) struct Reopening {
    #[serde(default)]
    who: String,
    #[serde(default)]
    reason: String,
}

/// Longest name and longest reason, characters.
const LONGEST: [usize; 2] = [80, 300];

pub(crate) async fn reopen(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<Reopening>,
) -> Result<Redirect, Refusal> {
    let (id, now) = (number(&path)?, app.now_ms());
    let (who, reason) = (sent.who.trim().to_owned(), sent.reason.trim().to_owned());
    let fits = |text: &str, most: usize| (1..=most).contains(&text.chars().count());
    let object =
        |place: &str, hint: &str| vec![Finding::written("handover", place, "is wanted, and not too long").hint(hint)];
    let mut findings = Vec::new();
    if !fits(&who, LONGEST[0]) {
        findings.extend(object("name", "who opens the record again, up to 80 characters"));
    }
    if !fits(&reason, LONGEST[1]) {
        findings.extend(object("reason", "a sentence that stays on record, up to 300 characters"));
    }
    if !findings.is_empty() {
        return Err(findings.into());
    }
    Job::load(&app, id).await?;
    let row = LogRow { what: REOPENED.to_owned(), who, reason, at_ms: now };
    app.changing(id, move |w| {
        w.drop_outcome(id)?;
        w.reopen(id, &row)
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/handover")))
}
