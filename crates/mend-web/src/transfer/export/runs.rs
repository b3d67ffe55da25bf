//! A run at the bench in a job's record.

use mend_formats::record::{self, EventRecord, ReadingRecord, RunRecord, StateRecord};
use mend_formats::renewal;
use mend_store::{EventRow, PlanRow, Read, ReadingRow, RunRow, StateRow, StoreError};

/// One run with all that was entered and read in it; none where its plan is not among these.
pub(super) fn run_record(read: Read<'_>, run: &RunRow, plans: &[PlanRow]) -> Result<Option<RunRecord>, StoreError> {
    let Some(plan) = plans.iter().position(|plan| plan.id == run.plan_id) else { return Ok(None) };
    Ok(Some(RunRecord {
        plan,
        opened_ms: run.opened.wall_ms,
        steps: run.steps.as_deref().and_then(|text| record::raw(&renewal::steps(text))),
        taped_on: run.taped_on.clone(),
        events: read.events(run.id)?.into_iter().map(event_record).collect(),
        states: read.run_states(run.id)?.into_iter().filter_map(state_record).collect(),
        readings: read.run_readings(run.id)?.into_iter().map(reading_record).collect(),
    }))
}

fn event_record(event: EventRow) -> EventRecord {
    EventRecord {
        kind: event.kind,
        step: event.step,
        row: event.row,
        reason: event.reason,
        at_ms: event.at_ms,
        came_ms: event.came_ms,
        arrived_ms: event.arrived.wall_ms,
        token: event.token,
    }
}

fn state_record(StateRow { step, begun_ms, at_s, says }: StateRow) -> Option<StateRecord> {
    Some(StateRecord { step, begun_ms, at_s, says: record::raw(&says)? })
}

fn reading_record(ReadingRow { begun_ms, after_ms, celsius }: ReadingRow) -> ReadingRecord {
    ReadingRecord { begun_ms, after_ms, celsius }
}
