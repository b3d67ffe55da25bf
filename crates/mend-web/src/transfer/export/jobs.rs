//! A job's record: all that is kept of it, under the present names of the formats.

use std::collections::BTreeSet;
use std::sync::Arc;

use mend_formats::record::{
    self, CheckRecord, ExtraRecord, JobPhotoRecord, JobRecord, LogRecord, OpeningRecord, PlanRecord, TapRecord,
    VariantRecord,
};
use mend_formats::renewal;
use mend_store::{CheckRow, ExtraRow, JobPhotoRow, LogRow, PlanRow, Read, StoreError, VariantRow};

use super::runs::run_record;
use super::{CannotFill, Exporting, Placed, failed};
use crate::job::{MAP, OPENING};

impl Exporting<'_> {
    /// Every job's record, in the order in which they were taken in.
    pub(super) async fn jobs(&mut self) -> Result<(), CannotFill> {
        let numbers = self.read(|r| r.job_numbers()).await?;
        let placed = Arc::new(self.placed.clone());
        for (k, id) in numbers.iter().copied().enumerate() {
            let placed = placed.clone();
            let record = self.read(move |read| JobReader { read, id, placed: &placed }.record()).await?;
            let text = record.and_then(|record| record::write(&record).ok());
            let text = text.ok_or_else(|| failed(&format!("job {id}"), "can't be written: see urgent-mend check"))?;
            let file = self.put(&format!("jobs/{:06}.json", k + 1), text.as_bytes())?;
            self.list.jobs.push(file);
        }
        self.placed.jobs = numbers;
        Ok(())
    }
}

/// A job that is being read.
struct JobReader<'a> {
    read: Read<'a>,
    id: i64,
    placed: &'a Placed,
}

impl JobReader<'_> {
    /// All that is on record; none where a part of it is no JSON.
    fn record(&self) -> Result<Option<JobRecord>, StoreError> {
        let (read, id) = (self.read, self.id);
        let Some(row) = read.job(id)? else { return Ok(None) };
        let kept = self.plans()?;
        let runs = read.runs_of(id)?.into_iter();
        let runs = runs.map(|run| run_record(read, &run, &kept)).collect::<Result<Option<Vec<_>>, _>>()?;
        let plans: Option<Vec<PlanRecord>> = kept.iter().map(|plan| self.plan_record(plan)).collect();
        let variants: Option<Vec<VariantRecord>> = read.variants(id)?.into_iter().map(variant_record).collect();
        let (Some(plans), Some(variants), Some(runs)) = (plans, variants, runs) else { return Ok(None) };
        let inputs = |text: String| record::raw(&renewal::inputs(&text));
        let tapped = [OPENING, MAP];
        let checks = read.checks(id)?.into_iter().filter(|row| !tapped.contains(&row.list.as_str()));
        Ok(Some(JobRecord {
            format: record::FORMAT.to_owned(),
            taken_in_ms: row.taken_in_ms,
            handed_over_ms: row.handed_over_ms,
            board: row.board_id.and_then(|id| self.placed.boards.get(&id).cloned()),
            intake: row.intake,
            composition: read.composition(id)?.and_then(|text| record::raw(&renewal::composition(&text))),
            settings: read.settings(id)?.and_then(inputs),
            fit_settings: read.fit_settings(id)?.and_then(inputs),
            plans,
            variants,
            runs,
            pins: read.pins(id)?,
            checks: checks.map(check_record).collect(),
            extras: read.extras(id)?.into_iter().map(|row| self.extra_record(row)).collect(),
            opening: self.opened()?,
            photos: read.job_photos(id)?.into_iter().filter_map(|row| self.photo_record(row)).collect(),
            log: read.job_log(id)?.into_iter().map(log_record).collect(),
        }))
    }

    /// Plans that a run was begun by, and the newest.
    fn plans(&self) -> Result<Vec<PlanRow>, StoreError> {
        let (read, id) = (self.read, self.id);
        let newest = [read.plan_of(id)?, read.fit_plan_of(id)?].into_iter().flatten().map(|plan| plan.id);
        let wanted: BTreeSet<i64> = read.runs_of(id)?.iter().map(|run| run.plan_id).chain(newest).collect();
        let plans = wanted.iter().map(|id| read.plan(*id)).collect::<Result<Vec<_>, _>>()?;
        Ok(plans.into_iter().flatten().collect())
    }

    fn plan_record(&self, plan: &PlanRow) -> Option<PlanRecord> {
        Some(PlanRecord {
            board: self.placed.boards.get(&plan.board_id)?.clone(),
            inputs: record::raw(&renewal::inputs(&plan.inputs))?,
            plan: record::raw(&renewal::plan(&plan.plan))?,
            station: plan.station.clone(),
            made_ms: plan.made_ms,
        })
    }

    /// By which map its device was opened, and what was tapped.
    fn opened(&self) -> Result<Option<OpeningRecord>, StoreError> {
        let row = self.read.opening_of(self.id)?;
        let Some(map) = row.and_then(|row| self.placed.maps.get(&row.id).copied()) else { return Ok(None) };
        let taps = self.read.check_history(self.id, OPENING)?.into_iter();
        let taps = taps.map(|row| TapRecord { item: row.name, tap: row.value, at_ms: row.entered_ms }).collect();
        Ok(Some(OpeningRecord { map: map as usize, taps }))
    }

    fn photo_record(&self, row: JobPhotoRow) -> Option<JobPhotoRecord> {
        let JobPhotoRow { photo_id, stop, words, on_sheet, added_ms, .. } = row;
        Some(JobPhotoRecord { photo: *self.placed.photos.get(&photo_id)?, stop, words, on_sheet, added_ms })
    }

    fn extra_record(&self, row: ExtraRow) -> ExtraRecord {
        let ExtraRow { what, price, answer, who, found_ms, answered_ms, photo_id, .. } = row;
        let photo = photo_id.and_then(|photo| self.placed.photos.get(&photo).copied());
        ExtraRecord { what, price, answer, who, found_ms, answered_ms, photo }
    }
}

fn variant_record(row: VariantRow) -> Option<VariantRecord> {
    Some(VariantRecord { name: row.name, inputs: record::raw(&renewal::inputs(&row.inputs))? })
}

fn log_record(row: LogRow) -> LogRecord {
    LogRecord { what: row.what, who: row.who, reason: row.reason, at_ms: row.at_ms }
}

fn check_record(row: CheckRow) -> CheckRecord {
    CheckRecord { list: row.list, name: row.name, value: row.value, at_ms: row.entered_ms }
}
