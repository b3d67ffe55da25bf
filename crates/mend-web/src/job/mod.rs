//! A job with everything known of it, read in one go.
//!
//! - this file: the job and where it stands; [`checks`]: what was found of its lands, pins and tests; [`kept`]: read from the store and understood; [`bench`]: its bench run;
//!   [`summary`]: what lists show of it

mod bench;
mod checks;
mod fit;
mod heat_work;
mod kept;
mod opening;
mod outcome;
mod parts;
mod rehearsals;
mod summary;
mod time;

use std::collections::BTreeMap;

use mend_core::board::Board;
use mend_core::inspection::{PinMark, Verdict, Walked, verdict};
use mend_core::method::JobKind;
use mend_core::planning::plan::Plan;
use mend_core::planning::plan_inputs::PlanInputs;
use mend_core::planning::sequence::script::Script;
use mend_core::planning::sequence::sequence;
use mend_core::planning::sequence::step::Step;
use mend_core::shop::{Facts, IntakeField, PinState, RunState, Stop};
use mend_core::solder::CompositionEntry;
use mend_core::solder::JointComposition;
use mend_formats::equipment::EquipmentFile;
use mend_formats::{plan, shop};
use mend_store::{CheckRow, JobRow, LogRow, PlanRow, Read, StoreError, Write};

use crate::App;
use crate::draw::agreement::Release;
use crate::refusal::Refusal;
pub(crate) use bench::BenchRunView;
pub(crate) use checks::{
    BETWEEN, COMPONENTS, CONDITION, CONDITION_AFTER, SKIPPED, TEST_CLOSED, TEST_OPEN, VALUES, reference, stored,
};
pub(crate) use fit::first_fit;
pub(crate) use heat_work::HeatWork;
use kept::StoredJob;
pub(crate) use kept::equipment_or_usual;
pub(crate) use opening::{JobOpening, MAP, OPENING};
pub(crate) use parts::{LOOK_ALIKE, NeededPart, day_in_words};
pub(crate) use summary::{Summary, index_row};
pub(crate) use time::JobExtent;
use time::times_of;

/// In the log of a job: a test failed, and it went back to a stop; it was given back as it is.
pub(crate) const WENT_BACK: &str = "went-back";
pub(crate) const DECLINED: &str = "declined";
pub(crate) const REOPENED: &str = "reopened";

/// A plan with what it was made from.
#[derive(Debug, Clone)]
pub(crate) struct Planned {
    pub(crate) id: i64,
    pub(crate) inputs: PlanInputs,
    pub(crate) plan: Plan,
}

/// What the steps of a plan are written for besides.
pub(crate) struct Workplace<'a> {
    pub(crate) board: &'a Board,
    pub(crate) equipment: &'a EquipmentFile,
    /// The plan of the fit.
    pub(crate) fit: Option<&'a Planned>,
    /// Joints whose land is not whole.
    pub(crate) broken: Vec<String>,
    /// What the job is for.
    pub(crate) kind: JobKind,
}

/// A part of a job that is there and can't be read.
#[derive(Debug, Clone)]
pub(crate) struct Unread {
    pub(crate) what: &'static str,
    pub(crate) why: String,
}

/// The job.
#[derive(Debug, Clone)]
pub(crate) struct Job {
    pub(crate) row: JobRow,
    pub(crate) board: Option<(i64, Board)>,
    /// The model of its board, and which version of it.
    pub(crate) model: Option<i64>,
    pub(crate) version: i64,
    pub(crate) planned: Option<Planned>,
    /// What the heat plan is set to, as it was entered.
    pub(crate) entered: Option<PlanInputs>,
    /// The plan of its fit.
    pub(crate) fit_planned: Option<Planned>,
    /// What the plan of its fit is set to, as it was entered.
    pub(crate) fit_entered: Option<PlanInputs>,
    /// What the joints hold, as it was entered or as the plan had it.
    pub(crate) composition: Option<CompositionEntry>,
    pub(crate) bench: Option<BenchRunView>,
    /// Is there a bench run, readable or not?
    pub(crate) has_run: bool,
    pub(crate) pins: BTreeMap<String, String>,
    /// What was found of its lands, pins and tests.
    pub(crate) checks: Vec<CheckRow>,
    /// How its device is opened, where it goes by a map.
    pub(crate) opening: Option<JobOpening>,
    /// What the shop has and can.
    pub(crate) equipment: EquipmentFile,
    /// What handing over and reopening left on record.
    pub(crate) log: Vec<LogRow>,
    /// What it needs from the shelf; of a harvest: what comes off.
    pub(crate) parts: Vec<NeededPart>,
    /// A quote that waits for the customer's word.
    pub(crate) open_quote: Option<i64>,
    /// What is there and can't be read.
    pub(crate) unread: Vec<Unread>,
}

impl Planned {
    /// A plan of this version; one of another engine is computed anew.
    fn current(row: PlanRow) -> Option<Self> {
        Some(Self { id: row.id, inputs: shop::read_inputs(&row.inputs)?, plan: plan::read(&row.plan)? })
    }

    /// The steps at the bench, with the times of the fit where it has a plan.
    pub(crate) fn steps(&self, at: &Workplace<'_>, composition: &JointComposition) -> Vec<Step> {
        let choice = self.inputs.method.as_ref();
        let (keep_intact, sucker, bath) = (self.inputs.keep_intact, at.equipment.sucker, at.equipment.bath);
        let plain = Script::plain(at.board, &self.plan, composition);
        let (fit, broken, kind) = (at.fit.map(|fit| &fit.plan), at.broken.as_slice(), at.kind);
        sequence(&Script { choice, keep_intact, sucker, bath, fit, broken, kind, ..plain })
    }

    /// Whatever engine made it: a run keeps the plan that it was begun with.
    fn kept(row: PlanRow) -> Option<Self> {
        Some(Self { id: row.id, inputs: shop::read_inputs(&row.inputs)?, plan: plan::read_kept(&row.plan)? })
    }
}

impl Job {
    /// One job, or a refusal.
    pub(crate) async fn load(app: &App, id: i64) -> Result<Self, Refusal> {
        app.reading(move |read| Self::read(read, id)).await?.ok_or(Refusal::NotFound("job"))
    }

    /// One job, read and understood on the store's own thread.
    pub(crate) fn read(read: Read<'_>, id: i64) -> Result<Option<Self>, StoreError> {
        Ok(read.job(id)?.map(|row| StoredJob::read(read, row)).transpose()?.map(StoredJob::understood))
    }

    /// Puts the job as it is now into the lists. For the transaction that has changed it.
    pub(crate) fn list(write: &Write<'_>, id: i64) -> Result<(), StoreError> {
        match Self::read(write.read(), id)? {
            Some(job) => job.listed(write),
            None => Ok(()),
        }
    }

    /// The same, of a job that has been read since it was changed.
    pub(crate) fn listed(&self, write: &Write<'_>) -> Result<(), StoreError> {
        write.set_waits(self.row.id, &self.wait_causes(), jiff::Timestamp::now().as_millisecond())?;
        match index_row(self) {
            Ok(row) => write.list_job(&row),
            Err(error) => Err(StoreError::Connection(error.to_string())),
        }
    }

    /// A value of the intake; empty where nothing was typed.
    pub(crate) fn intake(&self, key: &str) -> &str {
        self.row.intake.get(key).map_or("", String::as_str)
    }

    /// What to call it.
    pub(crate) fn device(&self) -> &str {
        if self.intake("device").is_empty() { "New device" } else { self.intake("device") }
    }

    /// Why it was given back as it is; none where it was not, or was opened again since.
    pub(crate) fn declined(&self) -> Option<&LogRow> {
        let last = self.log.iter().rev().find(|row| row.what == DECLINED || row.what == REOPENED)?;
        Some(last).filter(|row| row.what == DECLINED)
    }

    /// Has it been handed over? Then nothing of it changes.
    pub(crate) fn is_closed(&self) -> bool {
        self.row.handed_over_ms.is_some()
    }

    /// The board, or a refusal that says that there is none yet.
    pub(crate) fn board(&self) -> Result<&(i64, Board), Refusal> {
        let unread = self.unread.iter().any(|unread| unread.what == "board");
        let none = if unread { "This job's board can't be read" } else { "This job has no board yet" };
        self.board.as_ref().ok_or(Refusal::NotYet(none))
    }

    /// What the joints hold: as entered, else as guessed with nothing fed.
    pub(crate) fn composition_entry(&self) -> CompositionEntry {
        self.composition.clone().unwrap_or_default()
    }

    /// What its removal is to be planned from: as entered, else as planned, for what the joints hold now.
    pub(crate) fn inputs(&self) -> Option<PlanInputs> {
        let set = self.entered.as_ref().or(self.planned.as_ref().map(|p| &p.inputs))?;
        Some(self.of_its_kind(set.clone().with(&self.composition_entry())))
    }

    /// What it is for.
    pub(crate) fn kind(&self) -> JobKind {
        JobKind::named(self.intake("kind"))
    }

    /// With what comes through alive as its kind of job wants it.
    pub(crate) fn of_its_kind(&self, inputs: PlanInputs) -> PlanInputs {
        PlanInputs { keep_intact: self.kind().keep_intact().unwrap_or(inputs.keep_intact), ..inputs }
    }

    /// The run of heat that its bench run goes by.
    pub(crate) fn bench_work(&self) -> HeatWork {
        if self.kind() == JobKind::PutBack { HeatWork::Fit } else { HeatWork::Removal }
    }

    /// The plan that its bench run goes by, if it is for what is set and what the joints hold now.
    pub(crate) fn bench_plan(&self) -> Option<&Planned> {
        self.current_plan_of(self.bench_work())
    }

    /// The plan of its removal, if it is for what is set and what the joints hold now.
    pub(crate) fn current_plan(&self) -> Option<&Planned> {
        let inputs = self.inputs()?;
        self.planned.as_ref().filter(|p| p.inputs == inputs)
    }

    /// The run, or a refusal.
    pub(crate) fn bench(&self) -> Result<&BenchRunView, Refusal> {
        self.bench.as_ref().ok_or(Refusal::NotYet("This job has no bench run yet"))
    }

    /// The release that the plan of its run predicted, with what was stamped.
    pub(crate) fn release(&self) -> Option<Release> {
        let bench = self.bench.as_ref()?;
        let stamp = bench.state.release()?;
        let band = bench.planned.plan.release;
        let predicted = band.low_s.zip(band.mid_s).map(|(low, mid)| (low, mid, band.high_s));
        Some(Release { name: self.device().to_owned(), job: self.row.id, predicted, actual_s: stamp.seconds })
    }

    /// Every pin with its mark.
    pub(crate) fn walked(&self) -> Vec<Walked> {
        let joints = self.board.iter().flat_map(|(_, board)| &board.connector.joints);
        let walked = |j: &mend_core::board::Joint| Walked {
            name: j.name.clone(),
            hidden: j.hidden,
            mark: self.pins.get(&j.name).and_then(|mark| PinMark::named(mark)),
        };
        joints.filter(|j| j.is_pin()).map(walked).collect()
    }

    /// Has every pin been walked and found firm?
    pub(crate) fn is_sound(&self) -> bool {
        let walked = self.walked();
        !walked.is_empty() && verdict(&walked).is_sound()
    }

    /// Has come of it what it is for?
    pub(crate) fn is_ready(&self) -> bool {
        match self.kind() {
            kind if kind.fits() => self.is_sound() || self.has_skipped(Stop::Pins),
            kind if kind.removes() => self.bench.as_ref().is_some_and(BenchRunView::is_done),
            _ => self.is_looked_at(),
        }
    }

    /// Is all out that its map has, or was that skipped?
    fn is_opened(&self) -> bool {
        let out = self
            .opening
            .as_ref()
            .is_some_and(|opening| !opening.map.items.is_empty() && opening.tally().next.is_none());
        out || self.has_skipped(Stop::Opening)
    }

    /// Where it stands; when it is due is for whoever knows the day.
    pub(crate) fn facts(&self) -> Facts {
        let missing =
            IntakeField::ALL.iter().filter(|f| f.is_wanted(self.kind()) && self.intake(f.key).is_empty()).count();
        let run = match &self.bench {
            None => RunState::NotStarted,
            Some(bench) if bench.is_done() => RunState::Done,
            Some(bench) => RunState::AtStep(bench.state.at + 1, bench.steps.len()),
        };
        let pins = match verdict(&self.walked()) {
            _ if self.has_skipped(Stop::Pins) => PinState::Skipped,
            _ if self.pins.is_empty() => PinState::NotWalked,
            Verdict::Unfinished { .. } => PinState::Partly,
            Verdict::Sound => PinState::Sound,
            _ => PinState::Rework,
        };
        Facts {
            kind: self.kind(),
            intake_missing: missing,
            opened: self.is_opened(),
            board: self.board.is_some(),
            looked: self.is_looked_at(),
            alloy: self.composition.is_some(),
            method: self.inputs().is_some_and(|inputs| inputs.method.is_some()),
            window: self.bench_plan().map(|p| p.plan.window),
            run,
            pins,
            tested: self.is_tested(),
            closed: self.is_shut(),
            handed_over: self.is_closed(),
            waits_for: self.waits_for(),
            due_in_days: None,
        }
    }
}
