//! The present plan on another station of the shop: the settings there that give the part the same, kept as a variant with its own
//! plan beside the present one.

use axum::extract::State;
use axum::response::Redirect;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::translated::Translated;
use mend_core::watch::Watch;
use serde::Deserialize;

use super::super::{JobPath, number};
use super::what_if::{keep_variant, present};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::planner::{Ordered, station_named, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// The shop's other stations by name.
pub(super) async fn others(app: &App, job: &Job) -> Result<Vec<String>, Refusal> {
    let here = &present(job)?.inputs.station;
    Ok(stations(app).await?.into_iter().map(|station| station.name).filter(|name| name != here).collect())
}

/// Which station.
#[derive(Deserialize)]
pub(crate) struct Elsewhere {
    station: String,
}

pub(crate) async fn translate(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<Elsewhere>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let here = present(&job)?.inputs.clone();
    let station = station_named(&app, &sent.station).await?.station.name;
    let there = PlanInputs { station: station.clone(), ..here.clone() };
    let (here, other) = (Ordered::load(&app, &job, &here).await?, Ordered::load(&app, &job, &there).await?);
    let watch = Watch::new();
    let found = Translated::try_new(&here.bundle.order(&watch), &other.bundle.station, &other.bundle.known)?;
    let no_air = || Refusal::field("station", "no air blows in this plan", "only what the air does is translated");
    let found = found.ok_or_else(no_air)?;
    let mut inputs = there;
    inputs.settings.air = Some(found.air);
    let name = called(&station, &found, &other, visitor);
    keep_variant(&app, job.row.id, name, &inputs).await
}

/// Its settings as that station's own display has them; where it can't give the part the same, how much it gives.
fn called(station: &str, found: &Translated, there: &Ordered, visitor: Visitor) -> String {
    const LONGEST_STATION: usize = 24;
    let air = &found.air;
    let shown = there.bundle.station.display.value(air.flow);
    let flow = shown.map_or_else(
        || format!("{:.0} L/min", air.flow.in_litres_per_minute()),
        |shown| format!("{shown:.0} on its display"),
    );
    let set = visitor.words().temperature(air.set.in_celsius());
    let heat = 100.0 * found.heat();
    let short = if found.is_same() { String::new() } else { format!("; the nearest, {heat:.0} % of the heat") };
    let station: String = station.chars().take(LONGEST_STATION).collect();
    format!("{station}: {set}, {flow}, {} mm{short}", air.nozzle.in_mm())
}
