//! The list of instruments of a shop that simulated ones are made for, and what they are simulated on.

use std::net::SocketAddr;

use mend_formats::bundle::Bundle;
use mend_store::{InstrumentRow, Write};

use crate::App;
use crate::job::{HeatWork, Job};
use crate::planner::Ordered;

/// What the first open job that is not at the bench yet is planned from: what simulated instruments are made on.
pub async fn bench_bundle(app: &App) -> Option<Bundle> {
    for listed in app.reading(|read| read.open_jobs()).await.ok()? {
        let Ok(job) = Job::load(app, listed.job_id).await else { continue };
        if job.has_run {
            continue;
        }
        let Some(inputs) = job.inputs_of(HeatWork::Removal).filter(|inputs| inputs.settings.air.is_some()) else {
            continue;
        };
        if let Ok(order) = Ordered::load(app, &job, &inputs).await {
            return Some(order.bundle);
        }
    }
    None
}

/// Puts an instrument into the list; one of the same name is elsewhere now.
pub async fn add_instrument(app: &App, name: &str, kind: &str, address: SocketAddr) {
    let (name, kind, address) = (name.to_owned(), kind.to_owned(), address.to_string());
    let put = move |write: &Write<'_>| {
        let same = write.read().instruments()?.into_iter().find(|row| row.name == name);
        let (id, at_bench) = same.map_or((0, false), |row| (row.id, row.at_bench));
        write.put_instrument(&InstrumentRow { id, name, kind, address, at_bench })
    };
    if let Err(refusal) = app.writing(put).await {
        tracing::warn!(?refusal, "an instrument is not in the list");
    }
}
