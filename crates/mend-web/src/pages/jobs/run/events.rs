//! What is entered at the bench: taken with the moment at which it arrived, kept in one transaction, or refused in words and
//! left with the browser for the person to decide.

use std::convert::Infallible;

use axum::extract::{FromRequestParts, State};
use axum::http::request::Parts;
use mend_core::planning::bench_event::Happening;
use mend_core::planning::ledger::LedgerAct;
use mend_core::shop::people::Permission;
use mend_store::{Moment, NewEvent, StoreError, Write};
use serde::Deserialize;

use super::super::{JobPath, number};
use super::StepView;
use super::readings::trigger;
use crate::App;
use crate::arrived::Arrived;
use crate::extract::Form;
use crate::job::{BenchRunView, Job};
use crate::people::Visit;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// An entry may be kept back by a lost network for this long, ms.
const LONGEST_DELAY_MS: i64 = 24 * 3600 * 1000;
/// Longest reason, characters.
const LONGEST_REASON: usize = 300;
/// Longest token, characters.
const LONGEST_TOKEN: usize = 64;

/// An event as the browser sends it.
#[derive(Debug, Deserialize)]
pub(crate) struct EventForm {
    kind: String,
    /// The run and the step that were on the screen.
    run: i64,
    step: usize,
    /// The step's phase that was on the screen; left out where earlier entries still waited to be sent.
    #[serde(default)]
    phase: String,
    /// Of the ledger: a row of the connector; empty: all of them.
    #[serde(default)]
    row: String,
    #[serde(default)]
    reason: String,
    /// Made by the browser: the same event sent again has the same one.
    token: String,
    /// How long ago it was entered, ms: the shop's clock rules, the browser's only measures.
    #[serde(default)]
    ago_ms: i64,
}

/// Who enters something, and when it arrived.
pub(crate) struct Hand {
    pub(super) arrived: Moment,
    pub(super) visitor: Visitor,
}

impl FromRequestParts<App> for Hand {
    type Rejection = Infallible;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Infallible> {
        let Arrived(arrived) = Arrived::from_request_parts(parts, app).await?;
        Ok(Self { arrived, visitor: Visitor::from_request_parts(parts, app).await? })
    }
}

pub(crate) async fn enter(
    State(app): State<App>,
    Hand { arrived, visitor }: Hand,
    path: JobPath,
    Form(sent): Form<EventForm>,
) -> Result<StepView, Refusal> {
    let (id, happening) = (number(&path)?, checked(&sent)?);
    let entered = Entered { sent, happening, arrived };
    let goes_on = entered.happening == Happening::Go;
    let job = app.writing(move |w| entered.take(w, id)).await??;
    let bench = job.bench()?;
    let heats = bench.steps.get(bench.state.at).is_some_and(|step| step.kind.is_heating());
    if goes_on && heats && bench.state.begun_ms().is_some() {
        trigger(&app).await;
    }
    Ok(StepView::from_run(&job, bench, &app.moment(), visitor))
}

/// What it is, by its name alone; refuses what can't be an event of any run.
fn checked(sent: &EventForm) -> Result<Happening, Refusal> {
    if sent.token.is_empty() || sent.token.len() > LONGEST_TOKEN {
        return Err(Refusal::field("token", "must have 1 to 64 characters", "reload the page"));
    }
    let reason = sent.reason.trim();
    let hint = "go, undo, stopped, shone, fed, flooded, wicked or overridden";
    let happening = Happening::named(&sent.kind, &sent.row, reason)
        .ok_or_else(|| Refusal::field("kind", format!("“{}” is nothing that happens at the bench", sent.kind), hint))?;
    let overridden = matches!(&happening, Happening::Ledger(entry) if entry.act == LedgerAct::Overridden);
    if overridden && (reason.is_empty() || reason.chars().count() > LONGEST_REASON) {
        return Err(Refusal::field("reason", "is not given", "say in a sentence why the part is fitted all the same"));
    }
    if overridden {
        Visit::current().expect(Permission::Override)?;
    }
    Ok(happening)
}

/// An event with its moment.
struct Entered {
    sent: EventForm,
    happening: Happening,
    arrived: Moment,
}

impl Entered {
    /// Keeps it, and what lists show of the job; answers the job as it is then.
    fn take(self, write: &Write<'_>, id: i64) -> Result<Result<Job, Refusal>, StoreError> {
        let Some(mut job) = Job::read(write.read(), id)? else { return Ok(Err(Refusal::NotFound("job"))) };
        if job.is_closed() {
            return Ok(Err(Refusal::Closed));
        }
        let bench = match job.bench() {
            Ok(bench) => bench,
            Err(refusal) => return Ok(Err(refusal)),
        };
        if write.read().has_event(self.sent.run, &self.sent.token)? {
            return Ok(Ok(job));
        }
        if let Err(refusal) = self.fits(bench) {
            return Ok(Err(refusal));
        }
        let run = bench.run.clone();
        if run.steps.is_none() {
            let steps = serde_json::to_string(&bench.steps).map_err(|e| StoreError::Connection(e.to_string()))?;
            write.set_steps(run.id, &steps)?;
        }
        write.add_event(&run, &self.row())?;
        let events = write.read().events(run.id)?;
        if let (Some(bench), Some((_, board))) = (job.bench.as_mut(), job.board.as_ref()) {
            bench.events = events;
            bench.fold(board);
        }
        job.listed(write)?;
        Ok(Ok(job))
    }

    /// Is it meant for what is on the bench now?
    fn fits(&self, bench: &BenchRunView) -> Result<(), Refusal> {
        let (sent, at) = (&self.sent, bench.state.at);
        let outdated = |why: String| Err(Refusal::Outdated(why));
        if sent.run != bench.run.id {
            return outdated("It was entered in another bench run of this job, which is over".to_owned());
        }
        if sent.step != at {
            let (was, is) = (bench.place(sent.step), bench.place(at));
            return outdated(format!("It was entered at {was}; the bench is at {is} now"));
        }
        let phase = bench.state.phase.name();
        if self.happening == Happening::Go && !sent.phase.is_empty() && sent.phase != phase {
            return outdated(format!("It was entered before the {} press of {} had arrived", phase, bench.place(at)));
        }
        if self.happening == Happening::Go && bench.is_shut() {
            return Err(Refusal::NotYet("Fit is closed: the cleaning ledger is not within limits yet"));
        }
        if !sent.row.is_empty() && bench.ledger.groups.iter().all(|group| group.name != sent.row) {
            return Err(Refusal::field("row", format!("“{}” is no row here", sent.row), "name a row of the connector"));
        }
        Ok(())
    }

    fn row(&self) -> NewEvent {
        let (row, reason) = match &self.happening {
            Happening::Ledger(entry) => (entry.row.clone(), entry.reason.clone()),
            Happening::Shone { row } => (row.clone(), String::new()),
            _ => (String::new(), String::new()),
        };
        NewEvent {
            kind: self.happening.name().to_owned(),
            step: self.sent.step as i64,
            row,
            reason,
            arrived: self.arrived.clone(),
            ago_ms: self.sent.ago_ms.clamp(0, LONGEST_DELAY_MS),
            token: self.sent.token.clone(),
        }
    }
}
