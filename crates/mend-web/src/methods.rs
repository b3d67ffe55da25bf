//! Compares and searches methods for a job, off the async threads; chooses one.

use mend_core::heat::recipe::Recipe;
use mend_core::method::subject::Subject;
use mend_core::method::{Choice, Family};
use mend_core::planning::compare::{Comparison, compare};
use mend_core::planning::plan::{Plan, plan};
use mend_core::planning::search::{Effort, Searched, Sought, search};
use mend_core::solder::Charge;
use mend_formats::bundle::Bundle;
use mend_formats::comparison::feed;
use mend_formats::means;
use mend_formats::shop::PlanInputs;

use crate::App;
use crate::computing::Stand;
use crate::job::Job;
use crate::planner::{bundle, first_inputs, stations, written};
use crate::refusal::Refusal;

/// A job as methods are weighed on it: nothing is fed yet, that is for the methods to say.
pub(crate) struct Weighed {
    pub(crate) inputs: PlanInputs,
    pub(crate) bundle: Bundle,
    key: String,
}

impl Weighed {
    pub(crate) async fn of(app: &App, job: &Job) -> Result<Self, Refusal> {
        let (board_id, board) = job.board()?.clone();
        let first = first_inputs(&board, &stations(app).await?).map(|first| first.with(&job.charge_file()));
        let inputs = job.inputs().or(first).ok_or(Refusal::NotYet("This shop has no station yet"))?;
        let unfed = PlanInputs { feed: None, ..inputs.clone() };
        let bundle = bundle(app, board, &unfed).await?;
        let broken = |error: serde_json::Error| Refusal::Broken(error.to_string());
        let have = means::write(&job.means).map_err(broken)?;
        let PlanInputs { alloy, refit, station, must_live, .. } = &inputs;
        let key = format!("{board_id} {alloy} {refit:?} {station} {} {have}", must_live.key());
        Ok(Self { inputs, bundle, key })
    }

    pub(crate) fn subject(&self) -> Subject<'_> {
        self.bundle.subject()
    }

    /// What the plan would be made from.
    pub(crate) fn inputs_of(&self, choice: &Choice, (charge, recipe): (&Charge, &Recipe)) -> PlanInputs {
        PlanInputs { feed: feed(charge), method: Some(choice.clone()), settings: recipe.clone(), ..self.inputs.clone() }
    }
}

/// The comparison of a job's methods, or how far it is.
pub(crate) async fn comparing(app: &App, job: &Job, weighed: &Weighed) -> Stand<Comparison> {
    let bundle = weighed.bundle.clone();
    let work = move |watch: &mend_core::watch::Watch| Ok(compare((&bundle.subject(), bundle.room), watch)?);
    app.computing.comparisons.of((job.row.id, weighed.key.clone()), work).await
}

/// Where a family's search is kept: a job has one for each.
pub(crate) fn search_place(job: i64, family: Family) -> i64 {
    let place = Family::ALL.iter().position(|known| *known == family).unwrap_or_default();
    job * Family::ALL.len() as i64 + place as i64
}

/// The thorough search of a family, or how far it is.
pub(crate) async fn searching(app: &App, job: &Job, (weighed, family): (&Weighed, Family)) -> Stand<Searched> {
    let bundle = weighed.bundle.clone();
    let work = move |watch: &mend_core::watch::Watch| {
        let subject = bundle.subject();
        let sought = Sought { subject: &subject, room: bundle.room, effort: Effort::Thorough, watch };
        Ok(search(&sought, family.method())?)
    };
    app.computing.searches.of((search_place(job.row.id, family), weighed.key.clone()), work).await
}

/// The plan of a variant, or how far it is.
pub(crate) async fn varying(app: &App, job: &Job, (id, inputs): (i64, &PlanInputs)) -> Result<Stand<Plan>, Refusal> {
    let (board_id, board) = job.board()?.clone();
    let bundle = bundle(app, board, inputs).await?;
    let key = format!("{board_id} {}", written(inputs)?);
    let work = move |watch: &mend_core::watch::Watch| Ok(plan(&bundle.order(watch))?);
    Ok(app.computing.variants.of((id, key), work).await)
}

/// Makes these the inputs of a job: what is fed goes to the alloy room, the rest to the heat plan.
pub(crate) async fn choose(app: &App, job: &Job, inputs: &PlanInputs) -> Result<(), Refusal> {
    let file = mend_formats::charge::ChargeFile { feed: inputs.feed.clone(), ..job.charge_file() };
    let charge = file.write().map_err(|error| Refusal::Broken(error.to_string()))?;
    let (id, settings, now) = (job.row.id, written(inputs)?, app.now_ms());
    app.writing(move |w| {
        w.set_charge(id, &charge, now)?;
        w.set_settings(id, &settings, now)
    })
    .await
}
