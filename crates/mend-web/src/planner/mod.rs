//! Computes plans through the computation service and keeps them; [`watching`]: what a run is watched with, and what it teaches.

mod watching;

pub(crate) use self::watching::WatchingAnew;

use std::sync::Arc;

use mend_core::board::{Board, KeepIntact};
use mend_core::finding::{Finding, any_blocking};
use mend_core::heat::known::Knowledge;
use mend_core::heat::purpose::Purpose;
use mend_core::heat::recipe::Recipe;
use mend_core::heat::station::Station;
use mend_core::heat::tool::HotAir;
use mend_core::method::usual;
use mend_core::planning::make_plan::plan;
use mend_core::planning::plan::Plan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::process_window::process_window;
use mend_core::planning::recheck::recheck;
use mend_core::planning::watched::{JudgedReplay, replay};
use mend_core::units::{Flow, Temperature};
use mend_core::watch::Watch;
use mend_formats::bundle::{Bundle, USUAL_AMBIENT_C};
use mend_formats::equipment::EquipmentFile;
use mend_formats::shop::write_inputs;
use mend_formats::station::StationFile;
use mend_formats::{plan as plan_format, station};
use mend_store::NewPlan;

use crate::App;
use crate::computing::{Failed, Key, Rechecked, Stand, Viewer};
use crate::job::{HeatWork, Job, Planned, equipment_or_usual, first_fit};
use crate::known::{Setup, as_known, known};
use crate::refusal::Refusal;
use crate::words::Words;

/// The shop's stations that are in use and can be read.
pub(crate) async fn stations(app: &App) -> Result<Vec<Station>, Refusal> {
    let rows = app.reading(|read| read.stations()).await?;
    let in_use = rows.iter().filter(|row| row.retired_ms.is_none());
    Ok(in_use.filter_map(|row| station::parse(row.file.as_bytes()).ok()).collect())
}

/// A station with the file that it was read from.
pub(crate) struct NamedStation {
    pub(crate) id: i64,
    pub(crate) station: Station,
    pub(crate) file: String,
}

/// The station that has or had this name, retired or not.
pub(crate) async fn station_named(app: &App, name: &str) -> Result<NamedStation, Refusal> {
    let wanted = name.to_owned();
    let row = app.reading(move |read| read.station_named(&wanted)).await?;
    let Some(row) = row else {
        let known: Vec<String> = stations(app).await?.into_iter().map(|station| station.name).collect();
        let message = format!("“{name}” is none of the shop's stations");
        let hint = if known.is_empty() { "add it on the Stations page".to_owned() } else { known.join(", ") };
        return Err(vec![Finding::written("settings", "station", message).hint(hint)].into());
    };
    let station = station::parse(row.file.as_bytes()).map_err(|findings| {
        let message = format!("“{}” can't be read: {}", row.name, Words::default().first(&findings));
        vec![Finding::written("settings", "station", message).hint("set it up anew on the Stations page")]
    })?;
    Ok(NamedStation { id: row.id, station, file: row.file })
}

/// What the shop has and can, as it was entered; else what every shop has.
pub(crate) async fn equipment(app: &App) -> Result<EquipmentFile, Refusal> {
    Ok(equipment_or_usual(app.reading(|read| read.equipment()).await?.as_deref()))
}

/// What a job starts from before anybody has set anything: the first station, a bare nozzle from the far face, the air
/// in the upper half of what the station gives, and the alloy that factories use today.
pub(crate) fn first_inputs(board: &Board, stations: &[Station]) -> Option<PlanInputs> {
    let station = stations.first()?;
    Some(PlanInputs {
        station: station.name.clone(),
        alloy: "SAC305".to_owned(),
        feed: None,
        refit: None,
        method: None,
        purpose: Purpose::Remove,
        keep_intact: KeepIntact::Board,
        settings: Recipe::from(usual::air(board, station)),
    })
}

/// What a run of heat of a job is planned from: as entered or planned, else a first setting.
pub(crate) fn inputs_or_first(job: &Job, work: HeatWork, stations: &[Station]) -> Result<PlanInputs, Refusal> {
    if let Some(inputs) = job.inputs_of(work) {
        return Ok(inputs);
    }
    let board = &job.board()?.1;
    let first = first_inputs(board, stations).ok_or(Refusal::NoStation)?;
    let first = job.of_its_kind(first.with(&job.composition_entry()));
    Ok(if work.is_fit() { first_fit(first, board) } else { first })
}

/// Keeps what a job's heat plan is set to, unless it can't be planned on: that stays in the form, and the last settings that
/// could be stay with the job.
pub(crate) async fn keep_settings(app: &App, job: &Job, inputs: &PlanInputs) -> Result<(), Refusal> {
    let order = Ordered::load(app, job, inputs).await?;
    let refusals = order.bundle.order(&Watch::new()).refusals();
    if any_blocking(&refusals) {
        return Err(Refusal::Bad(refusals));
    }
    let (id, text, now, fits) = (job.row.id, written(inputs)?, app.now_ms(), inputs.purpose.fits());
    app.changing(id, move |write| match fits {
        true => write.set_fit_settings(id, &text, now),
        false => write.set_settings(id, &text, now),
    })
    .await
}

pub(crate) fn written(inputs: &PlanInputs) -> Result<String, Refusal> {
    Ok(write_inputs(inputs)?)
}

/// Some inputs on a board with a station and what is known of the two, and the station as it is known.
async fn known_bundle(
    app: &App,
    inputs: &PlanInputs,
    numbered: (i64, Board),
    NamedStation { id, station, file }: NamedStation,
) -> Result<(Bundle, String), Refusal> {
    let (board_id, board) = numbered;
    let lessons = app.reading(move |read| read.lessons_for(id, board_id)).await?;
    let nozzle = inputs.settings.air.map(|air| air.nozzle);
    let mut bundle = Bundle {
        composition: inputs.heated_composition(&board)?,
        board,
        keep_intact: inputs.keep_intact,
        purpose: inputs.purpose,
        station,
        recipe: inputs.settings.clone(),
        fit: None,
        equipment: equipment(app).await?.equipment()?,
        ambient: Temperature::celsius(USUAL_AMBIENT_C),
        known: Knowledge::NOTHING,
    };
    let setup = Setup { station: id, board: Some(board_id), nozzle };
    bundle.known = known(&lessons, setup, &bundle, app.now_ms());
    let counting: Vec<i64> = lessons.iter().map(|row| row.id).collect();
    Ok((bundle, as_known(&file, &counting)))
}

/// A usual removal on a board: what a measurement of a station is shown on.
pub(crate) async fn usual_bundle(
    app: &App,
    id: i64,
    file: &StationFile,
    board: (i64, Board),
) -> Result<(Bundle, String), Refusal> {
    let station = file.clone().into_station()?;
    let inputs = first_inputs(&board.1, std::slice::from_ref(&station)).ok_or(Refusal::NoStation)?;
    let station = NamedStation { id, station, file: station::write(file)? };
    known_bundle(app, &inputs, board, station).await
}

/// Some inputs on a job's board, with everything that a result depends on.
pub(crate) struct Ordered {
    board_id: i64,
    inputs: PlanInputs,
    /// The station as it is known: its file, and the lessons that count.
    pub(crate) station: String,
    pub(crate) bundle: Bundle,
}

impl Ordered {
    pub(crate) async fn load(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Self, Refusal> {
        let (board_id, board) = job.board()?.clone();
        let named = station_named(app, &inputs.station).await?;
        let (bundle, station) = known_bundle(app, inputs, (board_id, board), named).await?;
        Ok(Self { board_id, inputs: inputs.clone(), station, bundle })
    }

    fn key_of(&self, inputs: &PlanInputs) -> Result<String, Refusal> {
        Ok(format!("{} {} {}", self.board_id, written(inputs)?, self.station))
    }

    /// The key of the plan.
    pub(crate) fn plan_key(&self) -> Result<Key<Plan>, Refusal> {
        Ok(Key::plan(self.key_of(&self.inputs)?))
    }

    /// The key of the replay.
    pub(crate) fn replay_key(&self) -> Result<Key<JudgedReplay>, Refusal> {
        Ok(Key::replay(self.key_of(&self.inputs)?))
    }

    /// The key of the process window: set temperature and flow move in it, so they are no part of it.
    pub(crate) fn window_key(&self) -> Result<Key<Rechecked>, Refusal> {
        let mut fixed = self.inputs.clone();
        let moves = |air: &mut HotAir| (air.set, air.flow) = (Temperature::celsius(0.0), Flow::litres_per_minute(0.0));
        fixed.settings.air.iter_mut().for_each(moves);
        Ok(Key::window(self.key_of(&fixed)?))
    }

    /// The plan, or how far it is.
    pub(crate) async fn plan(&self, app: &App, place: Viewer) -> Result<Stand<Plan>, Refusal> {
        Ok(app.computing.compute(place, &self.plan_key()?, self.plan_work()).await)
    }

    fn plan_work(&self) -> impl Fn(&Watch) -> Result<Plan, Failed> + Clone + Send + 'static {
        let bundle = self.bundle.clone();
        move |watch: &Watch| Ok(plan(&bundle.order(watch))?)
    }

    /// The process window, or how far it is.
    pub(crate) async fn window(&self, app: &App, place: Viewer) -> Result<Stand<Rechecked>, Refusal> {
        let bundle = self.bundle.clone();
        let work = move |watch: &Watch| {
            let map = process_window(&bundle.order(watch))?;
            let rechecked = recheck(&bundle.order(watch), &map)?;
            Ok(Rechecked { map, rechecked })
        };
        Ok(app.computing.compute(place, &self.window_key()?, work).await)
    }

    /// The replay, or how far it is.
    pub(crate) async fn replay(&self, app: &App, place: Viewer) -> Result<Stand<JudgedReplay>, Refusal> {
        let bundle = self.bundle.clone();
        let work = move |watch: &Watch| Ok(replay(&bundle.order(watch))?);
        Ok(app.computing.compute(place, &self.replay_key()?, work).await)
    }

    /// Keeps its plan with the job; two who waited for the same one keep it once. That of a job that has been handed over is
    /// shown and not kept.
    async fn keep(&self, app: &App, job: &Job, plan: &Plan) -> Result<Planned, Refusal> {
        let (job_id, inputs, plan) = (job.row.id, self.inputs.clone(), plan.clone());
        if job.is_closed() {
            return Ok(Planned { id: 0, inputs, plan });
        }
        let (text, station) = (plan_format::write(&plan)?, Some(self.station.clone()));
        let (board_id, fits) = (self.board_id, inputs.purpose.fits());
        let new = NewPlan { job_id, board_id, inputs: written(&inputs)?, plan: text, station, fits };
        let now = app.now_ms();
        let id = app.changing(job_id, move |write| write.add_plan_once(&new, now)).await?;
        Ok(Planned { id, inputs, plan })
    }
}

/// The plan of a job for these inputs, or how far it is; kept once it is there. The newest one again when it was made from
/// the same.
pub(crate) async fn planning(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Stand<Planned>, Refusal> {
    let work = HeatWork::from(inputs.purpose);
    if let Some(planned) = job.newest_plan_of(work).filter(|p| p.inputs == *inputs) {
        return Ok(Stand::Ended(Ok(Arc::new(planned.clone()))));
    }
    let order = Ordered::load(app, job, inputs).await?;
    Ok(match order.plan(app, Viewer::heat(work, job.row.id)).await? {
        Stand::Running(share) => Stand::Running(share),
        Stand::Ended(Err(failed)) => Stand::Ended(Err(failed)),
        Stand::Ended(Ok(plan)) => Stand::Ended(Ok(order.keep(app, job, &plan).await?.into())),
    })
}

/// Computes the plan of a job to its end and keeps it.
pub(crate) async fn plan_job(app: &App, job: &Job, inputs: &PlanInputs) -> Result<Planned, Refusal> {
    let order = Ordered::load(app, job, inputs).await?;
    let work = HeatWork::from(inputs.purpose);
    let ended = app.computing.whole(Viewer::heat(work, job.row.id), &order.plan_key()?, order.plan_work()).await;
    let plan = ended.map_err(unexpected)?;
    order.keep(app, job, &plan).await
}

/// Of a computation that is waited for to its end.
fn unexpected(failed: Failed) -> Refusal {
    match failed {
        Failed::Objections(findings) => Refusal::Bad(findings),
        other => Refusal::Broken(format!("{other:?}")),
    }
}
