//! Plans of the jobs that were put down, and what the runs hold that were begun by them.

use std::collections::BTreeMap;

use mend_formats::shop::{JobFile, RunFile, WentBackFile};
use mend_store::{EventRow, LogRow, Moment, NewRun, StoreError, Write};

use super::library::Library;
use super::{CannotFill, history, jobs};
use crate::App;
use crate::job::{DECLINED, Job};
use crate::planner;
use crate::refusal::Refusal;

/// A job from a file whose plan is still to be computed.
pub(super) struct Waiting {
    pub(super) name: String,
    pub(super) id: i64,
    pub(super) file: JobFile,
}

/// What is left to be computed.
pub(super) struct PlansToMake {
    pub(super) jobs: Vec<Waiting>,
    /// Jobs of the past are made up as well, once all others are planned.
    pub(super) has_past: bool,
}

/// Puts one job of `urgent-mend/job/1` into a shop and computes its plan; its board is named as the shop's models are.
pub(crate) async fn add_one_job(app: &App, mut file: JobFile) -> Result<i64, Refusal> {
    let models = app.reading(|read| read.models()).await?.into_iter();
    let boards: BTreeMap<String, i64> = models.map(|model| (model.name, model.board_id)).collect();
    if let Some(name) = file.board.as_ref().filter(|name| !boards.contains_key(*name)) {
        let what = format!("the shop has no board “{name}”");
        return Err(Refusal::field("board", what, "import it first, and name it here as the shop does"));
    }
    // Looked for before anything is put down: what can't be planned leaves no half of a job.
    if let Some(inputs) = &file.plan {
        planner::station_named(app, &inputs.station).await?;
        inputs.composition()?;
    }
    // Photographs are named by their place among those of a whole shop: a job that comes alone brings none.
    file.photos.clear();
    let id = jobs::add(app, &file, &Library { boards, photos: Vec::new() }).await?;
    plan_one(app, &Waiting { name: String::new(), id, file }).await?;
    Ok(id)
}

/// Plans every job that waits, and puts down what the plan's run holds.
pub(super) async fn make(app: App, PlansToMake { jobs, has_past }: PlansToMake) -> Result<(), CannotFill> {
    let count = jobs.len();
    let described: Vec<(i64, JobFile)> = jobs.iter().map(|job| (job.id, job.file.clone())).collect();
    for (k, job) in jobs.into_iter().enumerate() {
        let done = plan_one(&app, &job).await;
        // The past comes last, and is waited for as well.
        app.set_preparing(count - k - usize::from(!has_past));
        done.map_err(|refusal| CannotFill::refusal(&job.name, refusal))?;
    }
    let past = if has_past { history::add(&app, &described).await } else { Ok(()) };
    app.review_missing_jobs().await;
    app.set_preparing(0);
    past.map_err(|refusal| CannotFill::refusal("the past", refusal))
}

async fn plan_one(app: &App, waiting: &Waiting) -> Result<(), Refusal> {
    let (id, file) = (waiting.id, &waiting.file);
    if let Some(inputs) = &file.plan {
        let job = Job::load(app, id).await?;
        let planned = planner::plan_job(app, &job, inputs).await?;
        if let Some(run) = file.run.clone() {
            let steps = planned.steps(&job.workplace()?, &inputs.composition()?);
            let new = NewRun {
                job_id: id,
                plan_id: planned.id,
                opened: opened(app, &run),
                steps: Some(serde_json::to_string(&steps)?),
                taped_on: String::new(),
            };
            app.changing(id, move |w| add_events(w, w.add_run(&new)?, &run, new.opened.wall_ms)).await?;
        }
    }
    if let Some(inputs) = &file.fit {
        // Computed when somebody looks at it.
        planner::keep_settings(app, &Job::load(app, id).await?, inputs).await?;
    }
    let now = app.now_ms();
    if let Some(WentBackFile { who, reason }) = file.declined.clone() {
        let row = LogRow { what: DECLINED.to_owned(), who, reason, at_ms: now };
        app.changing(id, move |w| w.log_job(id, &row)).await?;
    }
    if file.handed_over || file.declined.is_some() {
        app.changing(id, move |w| w.hand_over(id, now)).await?;
    }
    Ok(())
}

/// When a run of a file was opened.
fn opened(app: &App, run: &RunFile) -> Moment {
    let wall_ms = app.now_ms() - (run.started_hours_ago * 3_600_000.0) as i64;
    Moment { wall_ms, clock: String::new(), tick_ms: 0 }
}

/// Presses and entries of the ledger in the order of their seconds.
pub(super) fn add_events(w: &Write<'_>, id: i64, run: &RunFile, opened_ms: i64) -> Result<(), StoreError> {
    let mut events: Vec<&(String, f64)> = run.presses.iter().chain(&run.ledger).collect();
    events.sort_by(|a, b| a.1.total_cmp(&b.1));
    for (k, (kind, seconds)) in events.into_iter().enumerate() {
        let at_ms = (seconds * 1000.0) as i64;
        let kind = if kind == "back" { "undo" } else { kind };
        w.put_event(
            id,
            &EventRow {
                kind: kind.to_owned(),
                step: -1,
                row: String::new(),
                reason: String::new(),
                at_ms,
                came_ms: at_ms,
                arrived: Moment { wall_ms: opened_ms + at_ms, clock: String::new(), tick_ms: 0 },
                token: format!("file-{k}"),
            },
        )?;
    }
    Ok(())
}
