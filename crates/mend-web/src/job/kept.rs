//! What the store has of a job, read in one go and understood. What can't be understood spoils only itself, and says so.

use std::collections::BTreeMap;

use mend_formats::equipment::{self, EquipmentFile};
use mend_formats::{board, shop};
use mend_store::{BoardRow, JobRow, LogRow, PlanRow, Read, StationRow, StoreError};

use super::bench::{BenchRunView, KeptRun};
use super::{Job, Planned, Unread};
use crate::words::Words;

/// What the store has of a job, before it is understood.
pub(super) struct StoredJob {
    row: JobRow,
    board: Option<BoardRow>,
    plan: Option<PlanRow>,
    /// The station that the plan names.
    station: Option<StationRow>,
    composition: Option<String>,
    settings: Option<String>,
    run: Option<KeptRun>,
    pins: BTreeMap<String, String>,
    equipment: Option<String>,
    log: Vec<LogRow>,
}

impl StoredJob {
    pub(super) fn read(read: Read<'_>, row: JobRow) -> Result<Self, StoreError> {
        let plan = read.plan_of(row.id)?;
        let named = plan.as_ref().and_then(|plan| Some(shop::read_inputs(&plan.inputs)?.station));
        Ok(Self {
            board: row.board_id.map(|id| read.board(id)).transpose()?.flatten(),
            station: named.map(|name| read.station_named(&name)).transpose()?.flatten(),
            plan,
            composition: read.composition(row.id)?,
            settings: read.settings(row.id)?,
            run: read.run_of(row.id)?.map(|run| KeptRun::read(read, run)).transpose()?,
            pins: read.pins(row.id)?,
            equipment: read.equipment()?,
            log: read.job_log(row.id)?,
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
            let bench = BenchRunView::try_new((board, &equipment), run);
            bench.map_err(|why| unread.push(Unread { what: "bench run", why })).ok()
        });
        // A plan for another board than the job's present one is no plan; nor is one for the station as it was.
        let station = self.station.map(|row| row.file);
        let current =
            |p: &PlanRow| Some(p.board_id) == self.row.board_id && (p.station.is_none() || p.station == station);
        let planned = self.plan.filter(current).and_then(Planned::current);
        let entered = self
            .composition
            .as_deref()
            .and_then(|text| unread.or_note("solder", ours(mend_formats::composition::parse(text))));
        let composition = entered.or_else(|| planned.as_ref().map(|p| p.inputs.composition_entry()));
        let settings = self.settings.as_deref();
        let entered = settings.and_then(|text| unread.or_note("heat settings", ours(shop::read_inputs(text))));
        let (row, pins, log) = (self.row, self.pins, self.log);
        Job { planned, entered, composition, board, model, version, bench, has_run, equipment, pins, log, unread, row }
    }
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
