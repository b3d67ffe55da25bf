//! Computes plans off the async threads and keeps them.

use std::sync::Arc;

use mend_core::board::{Board, MustLive};
use mend_core::finding::{Finding, any_blocking};
use mend_core::heat::recipe::Recipe;
use mend_core::heat::tool::{HotAir, Station};
use mend_core::method::usual;
use mend_core::planning::compare::Comparison;
use mend_core::planning::plan::{Plan, plan};
use mend_core::planning::process_window::{ProcessWindow, process_window};
use mend_core::planning::recheck::{Recheck, recheck};
use mend_core::planning::search::Searched;
use mend_core::planning::watched::{Replay, replay};
use mend_core::units::{Flow, Temperature};
use mend_core::watch::Watch;
use mend_formats::bundle::{Bundle, USUAL_ROOM_C};
use mend_formats::means::{self, MeansFile};
use mend_formats::shop::{PlanInputs, write_inputs};
use mend_formats::{plan as plan_format, station};
use mend_store::NewPlan;

use crate::App;
use crate::computing::{Stand, Tasks};
use crate::job::{Job, Planned};
use crate::refusal::Refusal;

/// The shop's stations.
pub(crate) async fn stations(app: &App) -> Result<Vec<Station>, Refusal> {
    let rows = app.reading(|read| read.stations()).await?;
    Ok(rows.iter().filter_map(|row| station::parse(row.file.as_bytes()).ok()).collect())
}

/// What the shop has and can, as it was entered; else what every shop has.
pub(crate) async fn means(app: &App) -> Result<MeansFile, Refusal> {
    let kept = app.reading(|read| read.means()).await?;
    Ok(kept.and_then(|file| means::parse(file.as_bytes()).ok()).unwrap_or_default())
}

/// What a job starts from before anybody has set anything: the first station, a bare outlet from the far face, the air
/// in the upper half of what the station gives, and the alloy that factories use today.
pub(crate) fn first_inputs(board: &Board, stations: &[Station]) -> Option<PlanInputs> {
    let station = stations.first()?;
    Some(PlanInputs {
        station: station.name.clone(),
        alloy: "SAC305".to_owned(),
        feed: None,
        refit: None,
        method: None,
        must_live: MustLive::Board,
        settings: Recipe::from(usual::air(board, station)),
    })
}

/// A process window with what was run again of it.
pub(crate) struct Rechecked {
    pub(crate) map: ProcessWindow,
    pub(crate) rechecked: Vec<Recheck>,
}

/// Long computations of the shop, by kind.
#[derive(Default)]
pub(crate) struct Computing {
    pub(crate) plans: Tasks<Plan>,
    pub(crate) windows: Tasks<Rechecked>,
    pub(crate) replays: Tasks<Replay>,
    pub(crate) comparisons: Tasks<Comparison>,
    /// By job and family: [`crate::methods::searching`].
    pub(crate) searches: Tasks<Searched>,
    /// By variant.
    pub(crate) variants: Tasks<Plan>,
}

/// Keeps what a job's heat plan is set to, unless it can't be planned on: that stays in the form, and the last settings that
/// could be stay with the job.
pub(crate) async fn keep_settings(app: &App, job: &Job, inputs: &PlanInputs) -> Result<(), Refusal> {
    let bundle = bundle(app, job.board()?.1.clone(), inputs).await?;
    let refusals = bundle.order(&Watch::new()).refusals();
    if any_blocking(&refusals) {
        return Err(Refusal::Bad(refusals));
    }
    let (id, text, now) = (job.row.id, written(inputs)?, app.now_ms());
    app.writing(move |write| write.set_settings(id, &text, now)).await
}

pub(crate) fn written(inputs: &PlanInputs) -> Result<String, Refusal> {
    write_inputs(inputs).map_err(|error| Refusal::Broken(error.to_string()))
}

/// The plan of a job for these inputs, or how far it is; kept once it is there. The newest one again when it was made from
/// the same.
pub(crate) async fn planning(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Stand<Planned>, Refusal> {
    if let Some(planned) = job.planned.as_ref().filter(|p| p.inputs == *inputs) {
        return Ok(Stand::Ended(Ok(Arc::new(planned.clone()))));
    }
    let (board_id, board) = job.board()?.clone();
    let bundle = bundle(app, board, inputs).await?;
    let key = format!("{board_id} {}", written(inputs)?);
    let work = move |watch: &Watch| Ok(plan(&bundle.order(watch))?);
    match app.computing.plans.of((job.row.id, key), work).await {
        Stand::Running(share) => Ok(Stand::Running(share)),
        Stand::Ended(Err(failed)) => Ok(Stand::Ended(Err(failed))),
        Stand::Ended(Ok(plan)) => {
            let planned = keep_plan(app, (job.row.id, board_id), (inputs, &plan)).await?;
            Ok(Stand::Ended(Ok(Arc::new(planned))))
        }
    }
}

/// Computes the plan of a job to its end and keeps it.
pub(crate) async fn plan_job(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Planned, Refusal> {
    let (board_id, board) = job.board()?.clone();
    let bundle = bundle(app, board, inputs).await?;
    let computed = tokio::task::spawn_blocking(move || plan(&bundle.order(&Watch::new()))).await;
    let plan = computed.map_err(|error| Refusal::Broken(error.to_string()))?;
    let plan = plan.map_err(|error| Refusal::Bad(error.objections()))?;
    keep_plan(app, (job.row.id, board_id), (inputs, &plan)).await
}

/// Keeps a plan; two who waited for the same one keep it once.
async fn keep_plan(
    app: &App,
    (job_id, board_id): (i64, i64),
    (inputs, plan): (&PlanInputs, &Plan),
) -> Result<Planned, Refusal> {
    let text = plan_format::write(plan).map_err(|error| Refusal::Broken(error.to_string()))?;
    let new = NewPlan { job_id, board_id, inputs: written(inputs)?, plan: text };
    let now = app.now_ms();
    let id = app.writing(move |write| write.add_plan_once(&new, now)).await?;
    Ok(Planned { id, inputs: inputs.clone(), plan: plan.clone() })
}

/// The process window of these inputs, with the bundle that it is for. Set temperature and flow move in it, so they are
/// no part of what it is kept by.
pub(crate) async fn window_of(
    app: &App,
    job: &Job,
    inputs: &PlanInputs,
) -> Result<(Bundle, Stand<Rechecked>), Refusal> {
    let (board_id, board) = job.board()?.clone();
    let bundle = bundle(app, board, inputs).await?;
    let mut fixed = inputs.clone();
    let moves = |air: &mut HotAir| (air.set, air.flow) = (Temperature::celsius(0.0), Flow::litres_per_minute(0.0));
    fixed.settings.air.iter_mut().for_each(moves);
    let key = format!("{board_id} {}", written(&fixed)?);
    let computed = bundle.clone();
    let work = move |watch: &Watch| {
        let map = process_window(&computed.order(watch))?;
        let rechecked = recheck(&computed.order(watch), &map)?;
        Ok(Rechecked { map, rechecked })
    };
    Ok((bundle, app.computing.windows.of((job.row.id, key), work).await))
}

/// The replay of a plan.
pub(crate) async fn replay_of(app: &App, job: &Job, planned: &Planned) -> Result<Stand<Replay>, Refusal> {
    let bundle = bundle(app, job.board()?.1.clone(), &planned.inputs).await?;
    let work = move |watch: &Watch| Ok(replay(&bundle.order(watch))?);
    Ok(app.computing.replays.of((job.row.id, planned.id.to_string()), work).await)
}

pub(crate) async fn bundle(app: &App, board: Board, inputs: &PlanInputs) -> Result<Bundle, Refusal> {
    let stations = stations(app).await?;
    let named: Vec<&str> = stations.iter().map(|s| s.name.as_str()).collect();
    let unknown = || {
        let message = format!("“{}” is none of the shop's stations", inputs.station);
        vec![Finding::blocking("settings", "station", message).hint(named.join(", "))]
    };
    let station = stations.iter().find(|s| s.name == inputs.station).cloned().ok_or_else(unknown)?;
    Ok(Bundle {
        board,
        must_live: inputs.must_live,
        charge: inputs.charge()?,
        station,
        recipe: inputs.settings.clone(),
        means: means(app).await?.means()?,
        room: Temperature::celsius(USUAL_ROOM_C),
    })
}
