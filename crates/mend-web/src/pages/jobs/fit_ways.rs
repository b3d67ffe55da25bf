//! The ways to fit the new part, side by side: fetched by the fit's plan, one of them taken over into its settings.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_core::planning::fit::{FitComparison, FitLane, FitWay, compare_fits};
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::solder::JointComposition;
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::equipment;

use super::JobPath;
use super::heat_path::HeatPath;
use super::plan_view::seconds;
use super::recipe_lines::recipe_lines;
use crate::App;
use crate::computing::{Key, Progress, Stand, Viewer};
use crate::job::{HeatWork, Job};
use crate::planner::{Ordered, inputs_or_first, keep_settings, stations};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{self, Words, damaged, fit_way, of_samples};

/// A way in a row of the table.
struct WayRow {
    name: &'static str,
    key: &'static str,
    preferred: bool,
    works: String,
    liquid: String,
    solid: String,
    headroom: String,
    settings: String,
}

/// All of it.
struct Ways {
    rows: Vec<WayRow>,
    ruled_out: Vec<(&'static str, String)>,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/fit_ways.html")]
pub(crate) struct WaysPart {
    part: Progress<Ways>,
    base: String,
}

/// What the ways are compared on: a job's board with the joints as its removal leaves them.
struct FitQuestion {
    inputs: PlanInputs,
    bundle: Bundle,
    key: Key<FitComparison>,
}

impl FitQuestion {
    async fn load(app: &App, job: &Job) -> Result<Self, Refusal> {
        let inputs = inputs_or_first(job, HeatWork::Fit, &stations(app).await?)?;
        let Ordered { bundle, station, .. } = Ordered::load(app, job, &inputs).await?;
        let bundle = Bundle { composition: inputs.composition()?, ..bundle };
        let (have, entry) = (equipment::write(&job.equipment)?, inputs.composition_entry());
        let board = job.board()?.0;
        let key = Key::fits(format!("{board} {} {have} {station}", mend_formats::composition::write(&entry)?));
        Ok(Self { inputs, bundle, key })
    }

    async fn compared(&self, app: &App, job: i64) -> Stand<FitComparison> {
        let bundle = self.bundle.clone();
        let work = move |watch: &Watch| Ok(compare_fits(&bundle.subject(), bundle.ambient, watch)?);
        app.computing.compute(Viewer::Fit(job), &self.key, work).await
    }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: HeatPath) -> Result<WaysPart, Refusal> {
    let job = Job::load(&app, path.job).await?;
    let question = FitQuestion::load(&app, &job).await?;
    let part =
        question.compared(&app, path.job).await.shown(|found| ways(&found, &question.bundle, visitor.words()))?;
    Ok(WaysPart { part, base: path.address() })
}

pub(crate) async fn cancel(State(app): State<App>, path: HeatPath) -> Result<WaysPart, Refusal> {
    let job = Job::load(&app, path.job).await?;
    app.computing.cancel(&FitQuestion::load(&app, &job).await?.key);
    Ok(WaysPart { part: Progress::Cancelled, base: path.address() })
}

pub(crate) async fn again(state: State<App>, visitor: Visitor, path: HeatPath) -> Result<WaysPart, Refusal> {
    let job = Job::load(&state.0, path.job).await?;
    state.0.computing.forget(&FitQuestion::load(&state.0, &job).await?.key);
    show(state, visitor, path).await
}

/// The settings of a way become the fit's.
pub(crate) async fn take(State(app): State<App>, Path((id, way)): Path<(String, String)>) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, super::number(&JobPath::from(Path(id)))?).await?;
    let unknown = || Refusal::field("way", format!("“{way}” is no way to fit a part"), "choose one of the table");
    let way = FitWay::ALL.into_iter().find(|known| known.key() == way).ok_or_else(unknown)?;
    let question = FitQuestion::load(&app, &job).await?;
    let Progress::Ready(lane) = question
        .compared(&app, job.row.id)
        .await
        .shown(|found| found.lanes.iter().find(|lane| lane.way == way).cloned())?
    else {
        return Err(Refusal::NotYet("The ways to fit this part are not computed yet"));
    };
    let not_here = || Refusal::field("way", format!("{} can't be done here", fit_way(way)), "choose one of the table");
    let lane = lane.ok_or_else(not_here)?;
    let inputs = PlanInputs { purpose: way.purpose(), settings: lane.recipe, ..question.inputs };
    keep_settings(&app, &job, &inputs).await?;
    Ok(Redirect::to(&HeatWork::Fit.address(job.row.id)))
}

fn ways(found: &FitComparison, bundle: &Bundle, words: Words) -> Ways {
    let row = |(k, lane): (usize, &FitLane)| way_row(lane, bundle, found.preferred == Some(k), words);
    Ways {
        rows: found.lanes.iter().enumerate().map(row).collect(),
        ruled_out: found.ruled_out.iter().map(|(way, why)| (fit_way(*way), words.fit_obstacle(why))).collect(),
    }
}

fn way_row(lane: &FitLane, bundle: &Bundle, preferred: bool, words: Words) -> WayRow {
    let plan = &lane.plan;
    let before = plan.recipe.seconds_before();
    let after = if before > 0 { format!(" after {before} s") } else { String::new() };
    let headroom = lane.tightest.as_ref().map_or("nothing near".to_owned(), |tightest| match tightest.headroom_k {
        k if k >= 0.0 => format!("{} at {}", words.apart(k), damaged(&tightest.of)),
        k => format!("{} past {}", words.apart(-k), damaged(&tightest.of)),
    });
    // What was fed before the removal is none of the fit's.
    let unfed = JointComposition { feed: None, ..bundle.composition.clone() };
    let settings = recipe_lines(&unfed, &lane.recipe, words);
    let settings: Vec<&str> = settings.iter().map(|line| line.trim_end_matches('.')).collect();
    WayRow {
        name: fit_way(lane.way),
        key: lane.way.key(),
        preferred,
        works: of_samples(plan.works_in()),
        liquid: plan.release.low_s.map_or("may never come".to_owned(), |_| words::release(&plan.release) + &after),
        solid: seconds(plan.solid_after_s),
        headroom,
        settings: settings.join("; "),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{bundle, planned};

    #[test]
    fn a_way_is_a_row_with_its_figures_and_what_it_is_set_to() {
        let (inputs, plan) = planned();
        let bundle = bundle(inputs);
        let (recipe, tightest) = (inputs.settings.clone(), None);
        let lane = FitLane { way: FitWay::AirFromBelow, recipe, plan: plan.clone(), tightest };
        let found = FitComparison { lanes: vec![lane], ruled_out: vec![], preferred: Some(0) };
        let Ways { rows, ruled_out } = ways(&found, &bundle, Words::default());
        assert!(rows[0].preferred && ruled_out.is_empty() && rows[0].headroom == "nothing near");
        assert!(rows[0].settings.contains("L/min") && rows[0].works.ends_with("of 64"), "{}", rows[0].works);
    }
}
