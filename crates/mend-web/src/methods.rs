//! Compares and searches methods for a job, through the computation service; chooses one.

use mend_core::heat::recipe::Recipe;
use mend_core::method::subject::Subject;
use mend_core::method::{MethodChoice, MethodFamily};
use mend_core::planning::compare::{Comparison, compare};
use mend_core::planning::plan::Plan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::search::request::{Effort, SearchRequest};
use mend_core::planning::search::{SearchResult, search};
use mend_core::solder::CompositionEntry;
use mend_core::solder::JointComposition;
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::comparison::feed;
use mend_formats::equipment;

use crate::App;
use crate::computing::{Key, Stand, Viewer};
use crate::job::{HeatWork, Job};
use crate::planner::{Ordered, inputs_or_first, stations, written};
use crate::refusal::Refusal;

/// A job as methods are weighed on it: nothing is fed yet, that is for the methods to say.
pub(crate) struct MethodInputs {
    pub(crate) inputs: PlanInputs,
    pub(crate) bundle: Bundle,
    key: String,
}

impl MethodInputs {
    pub(crate) async fn load(app: &App, job: &Job) -> Result<Self, Refusal> {
        let (board_id, _) = job.board()?;
        let inputs = inputs_or_first(job, HeatWork::Removal, &stations(app).await?)?;
        let unfed = PlanInputs { feed: None, ..inputs.clone() };
        let Ordered { bundle, station, .. } = Ordered::load(app, job, &unfed).await?;
        let have = equipment::write(&job.equipment)?;
        let PlanInputs { alloy, refit, keep_intact, .. } = &inputs;
        let key = format!("{board_id} {alloy} {refit:?} {} {have} {station}", keep_intact.key());
        Ok(Self { inputs, bundle, key })
    }

    pub(crate) fn subject(&self) -> Subject<'_> {
        self.bundle.subject()
    }

    /// What the plan would be made from.
    pub(crate) fn inputs_of(
        &self,
        choice: &MethodChoice,
        composition: &JointComposition,
        recipe: &Recipe,
    ) -> PlanInputs {
        PlanInputs {
            feed: feed(composition),
            method: Some(choice.clone()),
            settings: recipe.clone(),
            ..self.inputs.clone()
        }
    }

    /// The key of the comparison.
    pub(crate) fn comparison_key(&self) -> Key<Comparison> {
        Key::comparison(self.key.clone())
    }

    /// The key of a family's search.
    pub(crate) fn search_key(&self, family: MethodFamily) -> Key<SearchResult> {
        Key::search(format!("{} {}", family.key(), self.key))
    }
}

/// The comparison of a job's methods, or how far it is.
pub(crate) async fn comparing(app: &App, job: &Job, weighed: &MethodInputs) -> Stand<Comparison> {
    let bundle = weighed.bundle.clone();
    let work = move |watch: &Watch| Ok(compare(&bundle.subject(), bundle.ambient, watch)?);
    app.computing.compute(Viewer::Job(job.row.id), &weighed.comparison_key(), work).await
}

/// The thorough search of a family, or how far it is.
pub(crate) async fn searching(
    app: &App,
    job: &Job,
    weighed: &MethodInputs,
    family: MethodFamily,
) -> Stand<SearchResult> {
    let bundle = weighed.bundle.clone();
    let work = move |watch: &Watch| {
        let subject = bundle.subject();
        let sought = SearchRequest { subject: &subject, ambient: bundle.ambient, effort: Effort::Thorough, watch };
        Ok(search(&sought, family.method())?)
    };
    app.computing.compute(Viewer::Family(job.row.id, family.key()), &weighed.search_key(family), work).await
}

/// The plan of a variant, or how far it is.
pub(crate) async fn varying(app: &App, job: &Job, id: i64, inputs: &PlanInputs) -> Result<Stand<Plan>, Refusal> {
    Ordered::load(app, job, inputs).await?.plan(app, Viewer::Variant(id)).await
}

/// Makes these the inputs of a job: what is fed goes to the alloy stop, the rest to the heat plan.
pub(crate) async fn choose(app: &App, job: &Job, inputs: &PlanInputs) -> Result<(), Refusal> {
    let file = CompositionEntry { feed: inputs.feed.clone(), ..job.composition_entry() };
    let (composition, settings) = (mend_formats::composition::write(&file)?, written(inputs)?);
    let (id, now) = (job.row.id, app.now_ms());
    app.changing(id, move |w| {
        w.set_composition(id, &composition, now)?;
        w.set_settings(id, &settings, now)
    })
    .await
}
