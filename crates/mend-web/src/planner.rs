//! Computes plans off the async threads and keeps them.

use mend_core::board::Board;
use mend_core::finding::Finding;
use mend_core::heat::tool::{HotAir, Motion, Station};
use mend_core::planning::plan::plan;
use mend_core::planning::process_window::{ProcessWindow, process_window};
use mend_core::units::{Duration, Flow, Length, Temperature};
use mend_formats::bundle::{Bundle, USUAL_ROOM_C};
use mend_formats::shop::{PlanInputs, write_inputs};
use mend_formats::{plan as plan_format, station};
use mend_store::NewPlan;

use crate::App;
use crate::job::{Job, Planned};
use crate::refusal::Refusal;

/// The shop's stations.
pub(crate) async fn stations(app: &App) -> Result<Vec<Station>, Refusal> {
    let rows = app.reading(|read| read.stations()).await?;
    Ok(rows.iter().filter_map(|row| station::parse(row.file.as_bytes()).ok()).collect())
}

/// What a job starts from before anybody has set anything: the first station, a bare outlet from the far face, the air
/// in the upper half of what the station gives, and the alloy that factories use today.
pub(crate) fn first_inputs(board: &Board, stations: &[Station]) -> Option<PlanInputs> {
    let station = stations.first()?;
    let part = |(low, high): (f64, f64), share: f64| ((low + (high - low) * share) / 5.0).round() * 5.0;
    let set = part((station.set_range.0.in_celsius(), station.set_range.1.in_celsius()), 0.8);
    let flow = part((station.flow_range.0.in_litres_per_minute(), station.flow_range.1.in_litres_per_minute()), 0.7);
    let bare = station.nozzles.iter().copied().fold(Length::mm(0.0), |a, b| if b > a { b } else { a });
    Some(PlanInputs {
        station: station.name.clone(),
        alloy: "SAC305".to_owned(),
        feed: None,
        refit: None,
        part_must_live: false,
        settings: HotAir {
            set: Temperature::celsius(set),
            flow: Flow::litres_per_minute(flow),
            nozzle: bare,
            distance: Length::mm(25.0),
            face: board.connector.face.other(),
            motion: Motion::Still,
            longest: Duration::seconds(240.0),
        },
    })
}

/// Computes the plan of a job for these inputs and keeps it; the newest one again when it was made from the same.
pub(crate) async fn plan_job(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Planned, Refusal> {
    let (board_id, board) = job.board()?.clone();
    if let Some(planned) = job.planned.as_ref().filter(|p| p.inputs == *inputs) {
        return Ok(planned.clone());
    }
    let bundle = bundle(app, board, inputs).await?;
    let computed = tokio::task::spawn_blocking(move || plan(&bundle.order())).await;
    let plan = computed.map_err(|error| Refusal::Broken(error.to_string()))??;
    let broken = |error: serde_json::Error| Refusal::Broken(error.to_string());
    let text = plan_format::write(&plan).map_err(broken)?;
    let new = NewPlan { job_id: job.row.id, board_id, inputs: write_inputs(inputs).map_err(broken)?, plan: text };
    let now = app.now_ms();
    let id = app.writing(move |write| write.add_plan(&new, now)).await?;
    Ok(Planned { id, inputs: inputs.clone(), plan })
}

/// The process window of these inputs, with the bundle that it was computed from.
pub(crate) async fn window_of(app: &App, job: &Job, inputs: &PlanInputs) -> Result<(Bundle, ProcessWindow), Refusal> {
    let bundle = bundle(app, job.board()?.1.clone(), inputs).await?;
    let computed = tokio::task::spawn_blocking(move || process_window(&bundle.order()).map(|map| (bundle, map))).await;
    Ok(computed.map_err(|error| Refusal::Broken(error.to_string()))??)
}

async fn bundle(app: &App, board: Board, inputs: &PlanInputs) -> Result<Bundle, Refusal> {
    let stations = stations(app).await?;
    let named: Vec<&str> = stations.iter().map(|s| s.name.as_str()).collect();
    let unknown = || {
        let message = format!("“{}” is none of the shop's stations", inputs.station);
        vec![Finding::blocking("settings", "station", message).hint(named.join(", "))]
    };
    let station = stations.iter().find(|s| s.name == inputs.station).cloned().ok_or_else(unknown)?;
    Ok(Bundle {
        board,
        part_must_live: inputs.part_must_live,
        charge: inputs.charge()?,
        station,
        air: inputs.settings,
        room: Temperature::celsius(USUAL_ROOM_C),
    })
}
