//! The process window of a job's heat plan, fetched by the plan once it is there.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;

use super::{JobPath, number};
use crate::App;
use crate::draw::window_map::{WindowMap, window_map};
use crate::job::Job;
use crate::planner::window_of;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "jobs/heat_window.html")]
pub(crate) struct WindowPart {
    map: WindowMap,
    candidates: usize,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<WindowPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let planned = job.current_plan().ok_or(Refusal::NotYet("There is no heat plan for this alloy yet"))?;
    let (bundle, map) = window_of(&app, &job, &planned.inputs).await?;
    let candidates = map.candidates.len();
    Ok(WindowPart { map: window_map(&map, (&bundle.board, &bundle.station, &bundle.air), visitor.scale), candidates })
}
