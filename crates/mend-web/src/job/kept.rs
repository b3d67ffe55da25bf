//! What the store has of a job, read in one go and understood. What can't be understood spoils only itself, and says so.

use std::collections::BTreeMap;

use mend_core::planning::plan_inputs::PlanInputs;
use mend_formats::equipment::{self, EquipmentFile};
use mend_formats::{board, shop};
use mend_store::{BoardRow, CheckRow, JobRow, LogRow, OpeningRow, PlanRow, Read, StoreError};

use super::bench::{BenchRunView, KeptRun};
use super::parts::NeededPart;
use super::{Job, JobOpening, OPENING, Planned, Unread};
use crate::known::as_known;
use crate::words::Words;

/// What the store has of a job, before it is understood.
pub(super) struct StoredJob {
    row: JobRow,
    board: Option<BoardRow>,
    plan: Option<KeptPlan>,
    fit_plan: Option<KeptPlan>,
    composition: Option<String>,
    settings: Option<String>,
    fit_settings: Option<String>,
    run: Option<KeptRun>,
    pins: BTreeMap<String, String>,
    checks: Vec<CheckRow>,
    opening: Option<(OpeningRow, Vec<CheckRow>)>,
    equipment: Option<String>,
    log: Vec<LogRow>,
    parts: Vec<NeededPart>,
    open_quote: Option<i64>,
}

/// A plan with the station that it names, as that is known now.
struct KeptPlan {
    plan: PlanRow,
    station: Option<String>,
}

impl KeptPlan {
    fn read(read: Read<'_>, plan: Option<PlanRow>) -> Result<Option<Self>, StoreError> {
        let Some(plan) = plan else { return Ok(None) };
        let named = shop::read_inputs(&plan.inputs).map(|inputs| inputs.station);
        let station = named.map(|name| read.station_named(&name)).transpose()?.flatten();
        let lessons = station.as_ref().map(|row| read.lesson_numbers_for(row.id, plan.board_id)).transpose()?;
        let station = station.zip(lessons).map(|(row, lessons)| as_known(&row.file, &lessons));
        Ok(Some(Self { plan, station }))
    }

    /// What it was made from, on the job's present board: what the next plan starts from where nothing was entered since. A plan that a
    /// lesson has outdated once took its settings with it, and the job began again from the usual ones.
    fn made_from(&self, job: &JobRow) -> Option<PlanInputs> {
        (Some(self.plan.board_id) == job.board_id).then(|| shop::read_inputs(&self.plan.inputs)).flatten()
    }

    /// A plan for another board than the job's present one is no plan; nor is one for the station as it was, unless the job is
    /// closed: that keeps the plan which it went by, whatever it taught.
    fn current(self, job: &JobRow) -> Option<Planned> {
        let same_station = self.plan.station.is_none() || self.plan.station == self.station;
        let is_current = Some(self.plan.board_id) == job.board_id && (same_station || job.handed_over_ms.is_some());
        is_current.then(|| Planned::current(self.plan)).flatten()
    }
}

impl StoredJob {
    pub(super) fn read(read: Read<'_>, row: JobRow) -> Result<Self, StoreError> {
        Ok(Self {
            board: row.board_id.map(|id| read.board(id)).transpose()?.flatten(),
            plan: KeptPlan::read(read, read.plan_of(row.id)?)?,
            fit_plan: KeptPlan::read(read, read.fit_plan_of(row.id)?)?,
            composition: read.composition(row.id)?,
            settings: read.settings(row.id)?,
            fit_settings: read.fit_settings(row.id)?,
            run: read.run_of(row.id)?.map(|run| KeptRun::read(read, run)).transpose()?,
            pins: read.pins(row.id)?,
            checks: read.checks(row.id)?,
            opening: read
                .opening_of(row.id)?
                .map(|map| Ok::<_, StoreError>((map, read.check_history(row.id, OPENING)?)))
                .transpose()?,
            equipment: read.equipment()?,
            log: read.job_log(row.id)?,
            parts: parts(read, row.id)?,
            open_quote: read.quotes(row.id)?.last().filter(|quote| quote.answer.is_empty()).map(|quote| quote.id),
            row,
        })
    }

    pub(super) fn understood(self) -> Job {
        let mut unread = Vec::new();
        let (model, version) =
            (self.board.as_ref().map(|row| row.model_id), self.board.as_ref().map_or(0, |row| row.version));
        let board = self.board.and_then(|row| unread.or_note("board", board::parse(row.file.as_bytes())));
        let board = self.row.board_id.zip(board);
        let equipment = equipment_or_usual(self.equipment.as_deref());
        let run = self.run;
        let has_run = run.is_some();
        let bench = board.as_ref().zip(run).and_then(|((_, board), run)| {
            let bench = BenchRunView::try_new(board, &equipment, run);
            bench.map_err(|why| unread.push(Unread { what: "bench run", why })).ok()
        });
        let [made_from, fit_made_from] =
            [&self.plan, &self.fit_plan].map(|plan| plan.as_ref().and_then(|plan| plan.made_from(&self.row)));
        let planned = self.plan.and_then(|plan| plan.current(&self.row));
        let fit_planned = self.fit_plan.and_then(|plan| plan.current(&self.row));
        let entered = self
            .composition
            .as_deref()
            .and_then(|text| unread.or_note("solder", ours(mend_formats::composition::parse(text))));
        let composition = entered.or_else(|| made_from.as_ref().map(PlanInputs::composition_entry));
        let mut settings =
            |what, text: Option<String>| text.and_then(|text| unread.or_note(what, ours(shop::read_inputs(&text))));
        let entered = settings("heat settings", self.settings).or(made_from);
        let fit_entered = settings("fit's settings", self.fit_settings).or(fit_made_from);
        let opening = self.opening.and_then(|(row, history)| {
            let name = row.name.clone();
            let read = JobOpening::try_new(row, &history);
            if read.is_none() {
                unread.push(Unread { what: "opening map", why: format!("the map of {name} is not of our format") });
            }
            read
        });
        Job {
            planned,
            entered,
            fit_planned,
            fit_entered,
            composition,
            board,
            model,
            version,
            bench,
            has_run,
            equipment,
            pins: self.pins,
            checks: self.checks,
            opening,
            log: self.log,
            parts: self.parts,
            open_quote: self.open_quote,
            unread,
            row: self.row,
        }
    }
}

/// What it needs, each with what it is taken for.
fn parts(read: Read<'_>, job: i64) -> Result<Vec<NeededPart>, StoreError> {
    let part = |need: mend_store::NeedRow| Ok(NeededPart { look_alikes: read.look_alikes(need.item)?, need });
    read.needs(job)?.into_iter().map(part).collect()
}

/// What the shop has and can, as it was entered; else what every shop has.
pub(crate) fn equipment_or_usual(file: Option<&str>) -> EquipmentFile {
    file.and_then(|file| equipment::parse(file.as_bytes()).ok()).unwrap_or_default()
}

/// What was read, or that it is none of ours.
fn ours<T>(read: Option<T>) -> Result<T, String> {
    read.ok_or_else(|| "it is not of our format".to_owned())
}

/// Takes what could be read, and notes what could not.
trait OrNote {
    fn or_note<T>(&mut self, what: &'static str, read: Result<T, impl Why>) -> Option<T>;
}

impl OrNote for Vec<Unread> {
    fn or_note<T>(&mut self, what: &'static str, read: Result<T, impl Why>) -> Option<T> {
        read.map_err(|why| self.push(Unread { what, why: why.why() })).ok()
    }
}

/// A reason in words.
trait Why {
    fn why(self) -> String;
}

impl Why for String {
    fn why(self) -> String {
        self
    }
}

impl Why for Vec<mend_core::finding::Finding> {
    fn why(self) -> String {
        Words::default().first(&self)
    }
}
