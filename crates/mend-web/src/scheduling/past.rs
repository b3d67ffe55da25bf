//! What stops took in this shop, and how long they will.

use mend_core::shop::Stop;
use mend_core::shop::estimate::pooled::{PastTime, PoolKey, pooled};
use mend_core::shop::estimate::prior::prior;
use mend_core::shop::estimate::stage_time::StageTime;
use mend_store::TimeRow;

use crate::App;
use crate::job::JobExtent;
use crate::refusal::Refusal;

/// The shop's past, stop by stop.
#[derive(Debug, Default)]
pub(crate) struct Past(Vec<(Stop, PastTime)>);

impl Past {
    /// As it is kept.
    pub(crate) async fn load(app: &App) -> Result<Self, Refusal> {
        Ok(Self::from_rows(&app.reading(|read| read.past_times()).await?))
    }

    /// From rows; a stop of a later version teaches nothing.
    pub(super) fn from_rows(rows: &[TimeRow]) -> Self {
        let read = |row: &TimeRow| {
            let stop = Stop::from_path(&row.stop)?;
            let (kind, person) = (row.kind.clone(), row.person.clone());
            Some((stop, PastTime { ratio: row.seconds / row.prior_s, kind, person }))
        };
        Self(rows.iter().filter_map(read).collect())
    }

    /// How long a stop of such a job takes somebody; no name: whoever.
    pub(crate) fn stage(&self, stop: Stop, extent: &JobExtent, person: &str) -> StageTime {
        let prior = prior(stop, extent.size);
        let of: Vec<PastTime> = self.0.iter().filter(|(at, _)| *at == stop).map(|(_, time)| time.clone()).collect();
        StageTime::new(prior, pooled(&of, PoolKey { kind: &extent.kind, person }, prior.spread))
    }

    /// How many jobs stand behind a stop's time.
    pub(crate) fn count(&self, stop: Stop) -> usize {
        self.0.iter().filter(|(at, _)| *at == stop).count()
    }
}
