//! What came of a job, for the review.

use mend_core::inspection::component_check::ComponentState;
use mend_core::shop::Stop;
use mend_core::shop::review::JobOutcome;
use mend_store::{StoreError, TimeRow, Write};

use super::{COMPONENTS, CONDITION, CONDITION_AFTER, Job, times_of};

impl Job {
    /// What came of it; who did it from what its stops took.
    fn outcome(&self, times: &[TimeRow]) -> JobOutcome {
        let (extent, release) = (self.extent(), self.release());
        let planned = self.bench.as_ref().map(|bench| &bench.planned);
        let method = extent.kind.rsplit_once(", ").map_or("", |(_, method)| method);
        let heated = planned.map(|planned| planned.inputs.station.clone()).unwrap_or_default();
        let person = times.iter().find(|time| time.stop == Stop::Run.path()).map(|time| time.person.clone());
        #[allow(clippy::cast_possible_truncation, reason = "a handful of loops")]
        let reworks = self.reworked(self.row.handed_over_ms.unwrap_or_default()).times as u32;
        JobOutcome {
            job: self.row.id,
            day: 0.0,
            connector: self.board.as_ref().map_or(String::new(), |(_, board)| board.connector.name.clone()),
            method: if heated.is_empty() { String::new() } else { method.to_owned() },
            station: heated,
            board: self.board.as_ref().map_or(String::new(), |(_, board)| board.name.clone()),
            person: person.unwrap_or_default(),
            predicted_s: release
                .as_ref()
                .and_then(|release| release.predicted)
                .map_or([None; 3], |(low, mid, high)| [Some(low), Some(mid), high]),
            actual_s: release.map(|release| release.actual_s),
            chance: planned.map(|planned| planned.plan.chance),
            reworks,
            damaged: self.damaged(),
            returned: false,
            declined: self.declined().is_some(),
            overridden: self.bench.as_ref().is_some_and(|bench| bench.ledger.reason.is_some()),
            stages: Vec::new(),
            waited: Vec::new(),
            probed: false,
        }
    }

    /// What was found damaged after the heat and was whole before: lands, and what stands near.
    fn damaged(&self) -> Vec<String> {
        let before: Vec<String> = self.broken_in(CONDITION).into_iter().map(|(joint, _)| joint.name.clone()).collect();
        let after = self.broken_in(CONDITION_AFTER).into_iter().map(|(joint, _)| joint.name.clone());
        let lands = after.filter(|name| !before.contains(name)).map(|name| format!("land {name}"));
        let whole = ComponentState::ALL[0].name();
        let near = self.checks.iter().filter(|row| row.list == COMPONENTS && row.value != whole);
        lands.chain(near.map(|row| row.name.clone())).collect()
    }

    /// Keeps what came of a job that is closed, and what its stops took. For the transaction that closes it, or a later one.
    pub(crate) fn keep_outcome(&self, write: &Write<'_>, closed_ms: i64) -> Result<(), StoreError> {
        let record = write.read().record(self.row.id)?;
        let times = times_of(self, &record);
        times.iter().try_for_each(|time| write.set_job_time(self.row.id, time, closed_ms))?;
        write.set_outcome(&self.outcome(&times), closed_ms)
    }
}
