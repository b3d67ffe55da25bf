//! What a run at the bench is watched with, and what it teaches once it is over.

use std::sync::Arc;

use mend_core::calibration::weights::RunWeights;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::planning::learnt::{Learnt, Observed};
use mend_core::planning::live::Watching;
use mend_core::watch::Watch;

use super::{Ordered, unexpected};
use crate::App;
use crate::computing::{Failed, Key, Stand, Viewer};
use crate::refusal::Refusal;

/// What a twin is drawn anew from.
pub(crate) struct WatchingAnew<'a> {
    pub(crate) place: Viewer,
    pub(crate) taped: &'a [Thermocouple],
    pub(crate) watching: Arc<Watching>,
    /// What its runs say now.
    pub(crate) weights: RunWeights,
}

impl Ordered {
    /// What a run with it is watched with, or how far that is.
    pub(crate) async fn watching(
        &self,
        app: &App,
        place: Viewer,
        taped: &[Thermocouple],
    ) -> Result<Stand<Watching>, Refusal> {
        Ok(app.computing.compute(place, &self.watching_key(taped)?, self.watching_work(taped)).await)
    }

    /// The same, computed to its end: nobody waits for it yet.
    pub(crate) async fn watching_at_leisure(&self, app: &App, place: Viewer, taped: &[Thermocouple]) {
        if let Ok(key) = self.watching_key(taped) {
            let _ = app.computing.whole(place, &key, self.watching_work(taped)).await;
        }
    }

    fn watching_key(&self, taped: &[Thermocouple]) -> Result<Key<Watching>, Refusal> {
        Ok(Key::watching(format!("{} {taped:?}", self.key_of(&self.inputs)?)))
    }

    fn watching_work(
        &self,
        taped: &[Thermocouple],
    ) -> impl Fn(&Watch) -> Result<Watching, Failed> + Clone + Send + 'static {
        let (bundle, taped) = (self.bundle.clone(), taped.to_vec());
        move |watch: &Watch| Ok(Watching::try_new(&bundle.order(watch), &taped)?)
    }

    /// The same drawn anew from what the runs of a twin say with some weights, waited for.
    pub(crate) async fn watching_anew(&self, app: &App, anew: WatchingAnew<'_>) -> Result<Arc<Watching>, Refusal> {
        let WatchingAnew { place, taped, watching, weights } = anew;
        let key = Key::watching(format!("{} {taped:?} {weights:?}", self.key_of(&self.inputs)?));
        let (bundle, taped) = (self.bundle.clone(), taped.to_vec());
        let work = move |watch: &Watch| Ok(watching.renewed(&bundle.order(watch), &taped, &weights)?);
        app.computing.whole(place, &key, work).await.map_err(unexpected)
    }

    /// What was seen while it was carried out teaches, waited for.
    pub(crate) async fn learnt(&self, app: &App, place: Viewer, observed: Observed) -> Result<Arc<Learnt>, Refusal> {
        let key = Key::learnt(format!("{} {observed:?}", self.key_of(&self.inputs)?));
        let bundle = self.bundle.clone();
        let work = move |watch: &Watch| Ok(Learnt::try_new(&bundle.order(watch), &observed)?);
        app.computing.whole(place, &key, work).await.map_err(unexpected)
    }
}
