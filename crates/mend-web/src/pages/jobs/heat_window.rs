//! The process window of a job's heat plan, fetched by the plan once it is there.

use crate::draw::window_map::{WindowMap, WindowOf, window_map};
use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;

use super::heat_path::HeatPath;
use crate::App;
use crate::computing::{Progress, Viewer};
use crate::job::Job;
use crate::planner::Ordered;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The window, ready to lay out.
struct WindowQuery {
    map: WindowMap,
    candidates: usize,
    rechecked: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_window.html")]
pub(crate) struct WindowPart {
    /// None where no air blows.
    part: Progress<Option<WindowQuery>>,
    base: String,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: HeatPath) -> Result<WindowPart, Refusal> {
    let job = Job::load(&app, path.job).await?;
    // A page that asks for the window of settings that have just been changed waits for their plan.
    let Some(planned) = job.current_plan_of(path.work) else {
        return Ok(WindowPart { part: Progress::Computing(0), base: path.address() });
    };
    let Some(air) = planned.inputs.settings.air else {
        return Ok(WindowPart { part: Progress::Ready(None), base: path.address() });
    };
    let order = Ordered::load(&app, &job, &planned.inputs).await?;
    let (bundle, stand) = (&order.bundle, order.window(&app, Viewer::heat(path.work, path.job)).await?);
    let part = stand.shown(|window| {
        let (map, rechecked) = (&window.map, window.rechecked.as_slice());
        let of = WindowOf { board: &bundle.board, station: &bundle.station, air: &air, tried: &[] };
        let drawn = window_map(map, rechecked, &of, visitor.scale);
        Some(WindowQuery { map: drawn, candidates: map.candidates.len(), rechecked: rechecked.len() })
    })?;
    Ok(WindowPart { part, base: path.address() })
}

pub(crate) async fn cancel(State(app): State<App>, path: HeatPath) -> Result<WindowPart, Refusal> {
    if let Some(order) = ordered(&app, path).await? {
        app.computing.cancel(&order.window_key()?);
    }
    Ok(WindowPart { part: Progress::Cancelled, base: path.address() })
}

pub(crate) async fn again(state: State<App>, visitor: Visitor, path: HeatPath) -> Result<WindowPart, Refusal> {
    if let Some(order) = ordered(&state.0, path).await? {
        state.0.computing.forget(&order.window_key()?);
    }
    show(state, visitor, path).await
}

/// The order of a job's present plan; none where there is none.
pub(super) async fn ordered(app: &App, path: HeatPath) -> Result<Option<Ordered>, Refusal> {
    let job = Job::load(app, path.job).await?;
    match job.current_plan_of(path.work) {
        Some(planned) => Ok(Some(Ordered::load(app, &job, &planned.inputs).await?)),
        None => Ok(None),
    }
}
