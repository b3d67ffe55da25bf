//! Few runs of a twin agree with all that was read and seen: a new ensemble is drawn meanwhile, and the page goes on with the old one.

use std::sync::Arc;

use mend_core::calibration::weights::RunWeights;
use mend_core::planning::live::Watching;
use mend_core::planning::sequence::step::StepKind;

use super::readings::taped;
use super::twin::{order, work_of};
use crate::App;
use crate::computing::Viewer;
use crate::job::Job;
use crate::planner::WatchingAnew;
use crate::refusal::Refusal;
use crate::renewals::HeatingKey;

/// The ensemble before, and what its runs say now.
pub(super) struct RenewedFrom {
    pub(super) heating: HeatingKey,
    pub(super) watching: Arc<Watching>,
    pub(super) weights: RunWeights,
}

/// Draws a new ensemble in the background, from what the one before says now.
pub(super) fn renew(app: &App, job: &Job, kind: &StepKind, renewed: RenewedFrom) {
    let RenewedFrom { heating, watching, weights } = renewed;
    let (app, id, work) = (app.clone(), job.row.id, work_of(kind));
    tokio::spawn(async move {
        let drawn = async {
            let job = Job::load(&app, id).await?;
            let taped = taped(&app, &job).await?;
            let order = order(&app, &job, work).await?.ok_or(Refusal::NotFound("plan"))?;
            let place = Viewer::Twin(heating.0);
            order.watching_anew(&app, WatchingAnew { place, taped: &taped, watching, weights }).await
        };
        app.renewals.drawn(heating, drawn.await.ok());
    });
}
