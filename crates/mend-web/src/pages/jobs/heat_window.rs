//! The process window of a job's heat plan, fetched by the plan once it is there.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;

use super::{JobPath, number};
use crate::App;
use crate::computing::Part;
use crate::draw::window_map::{WindowMap, window_map};
use crate::job::Job;
use crate::planner::window_of;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The window, ready to lay out.
struct Drawn {
    map: WindowMap,
    candidates: usize,
    rechecked: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_window.html")]
pub(crate) struct WindowPart {
    /// None where no air blows.
    part: Part<Option<Drawn>>,
    job: i64,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<WindowPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    // A page that asks for the window of settings that have just been changed waits for their plan.
    let Some(planned) = job.current_plan() else { return Ok(WindowPart { part: Part::Computing(0), job: job.row.id }) };
    let Some(air) = planned.inputs.settings.air else {
        return Ok(WindowPart { part: Part::Ready(None), job: job.row.id });
    };
    let (bundle, stand) = window_of(&app, &job, &planned.inputs).await?;
    let part = stand.shown(|window| {
        let (map, rechecked) = (&window.map, window.rechecked.as_slice());
        let of = (&bundle.board, &bundle.station, &air);
        let drawn = window_map((map, rechecked), of, visitor.scale);
        Some(Drawn { map: drawn, candidates: map.candidates.len(), rechecked: rechecked.len() })
    })?;
    Ok(WindowPart { part, job: job.row.id })
}

pub(crate) async fn cancel(State(app): State<App>, path: JobPath) -> Result<WindowPart, Refusal> {
    let job = number(&path)?;
    app.computing.windows.cancel(job);
    Ok(WindowPart { part: Part::Cancelled, job })
}

pub(crate) async fn again(state: State<App>, visitor: Visitor, path: JobPath) -> Result<WindowPart, Refusal> {
    state.0.computing.windows.forget(number(&path)?);
    show(state, visitor, path).await
}
