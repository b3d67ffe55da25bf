//! A job with everything known of it, read in one go.

use std::collections::BTreeMap;

use jiff::civil::Date;
use mend_core::board::draft::Photo;
use mend_core::board::{Board, groups};
use mend_core::inspection::{Mark, Verdict, Walked, verdict};
use mend_core::planning::bench_run::{BenchRun, Event, Press};
use mend_core::planning::ledger::{Act, Entry, Ledger};
use mend_core::planning::plan::Plan;
use mend_core::planning::sequence::{Duty, Script, Step, sequence};
use mend_core::shop::{Facts, Field, PinState, RunState};
use mend_core::solder::Charge;
use mend_formats::charge::ChargeFile;
use mend_formats::means::{self, MeansFile};
use mend_formats::shop::PlanInputs;
use mend_formats::{board, draft, plan, shop};
use mend_store::{BoardRow, JobRow, LedgerRow, PlanRow, PressRow, Read, RunRow, StoreError};

use crate::App;
use crate::refusal::Refusal;

/// A plan with what it was made from.
#[derive(Debug, Clone)]
pub(crate) struct Planned {
    pub(crate) id: i64,
    pub(crate) inputs: PlanInputs,
    pub(crate) plan: Plan,
}

/// A bench run that has begun.
#[derive(Debug, Clone)]
pub(crate) struct Bench {
    pub(crate) run: RunRow,
    pub(crate) planned: Planned,
    pub(crate) steps: Vec<Step>,
    pub(crate) presses: Vec<PressRow>,
    pub(crate) state: BenchRun,
    pub(crate) charge: Charge,
    pub(crate) ledger: Ledger,
}

/// The job.
#[derive(Debug, Clone)]
pub(crate) struct Job {
    pub(crate) row: JobRow,
    pub(crate) board: Option<(i64, Board)>,
    /// The model of its board, and which version of it.
    pub(crate) model: Option<i64>,
    pub(crate) version: i64,
    /// Photographs that its board was traced over.
    pub(crate) photos: Vec<Photo>,
    pub(crate) planned: Option<Planned>,
    /// What the heat plan is set to, as it was entered.
    pub(crate) entered: Option<PlanInputs>,
    /// What the joints hold, as it was entered or as the plan had it.
    pub(crate) charge: Option<ChargeFile>,
    pub(crate) bench: Option<Bench>,
    pub(crate) pins: BTreeMap<String, String>,
    /// What the shop has and can.
    pub(crate) means: MeansFile,
}

/// What the store has of a job, before it is understood.
struct Kept {
    row: JobRow,
    board: Option<BoardRow>,
    plan: Option<PlanRow>,
    charge: Option<String>,
    settings: Option<String>,
    run: Option<KeptRun>,
    pins: BTreeMap<String, String>,
    means: Option<String>,
}

/// A run as the store has it.
struct KeptRun {
    run: RunRow,
    plan: Option<PlanRow>,
    presses: Vec<PressRow>,
    ledger: Vec<LedgerRow>,
}

impl KeptRun {
    fn read(read: Read<'_>, run: RunRow) -> Result<Self, StoreError> {
        let (plan, presses, ledger) = (read.plan(run.plan_id)?, read.presses(run.id)?, read.ledger(run.id)?);
        Ok(Self { run, plan, presses, ledger })
    }
}

impl Kept {
    fn read(read: Read<'_>, row: JobRow) -> Result<Self, StoreError> {
        let board = row.board_id.map(|id| read.board(id)).transpose()?.flatten();
        let run = read.run_of(row.id)?.map(|run| KeptRun::read(read, run)).transpose()?;
        let (plan, charge, settings) = (read.plan_of(row.id)?, read.charge(row.id)?, read.settings(row.id)?);
        Ok(Self { board, plan, charge, settings, run, pins: read.pins(row.id)?, means: read.means()?, row })
    }

    fn understood(self) -> Job {
        let (model, version) =
            (self.board.as_ref().map(|row| row.model_id), self.board.as_ref().map_or(0, |row| row.version));
        let described = self.board.as_ref().and_then(|row| draft::parse(row.draft.as_deref()?.as_bytes()).ok());
        let photos = described.map(|draft| draft.photos).unwrap_or_default();
        let board = self.board.and_then(|row| board::parse(row.file.as_bytes()).ok());
        let board = self.row.board_id.zip(board);
        // A plan for another board than the job's present one is no plan.
        let plan = self.plan.filter(|p| Some(p.board_id) == self.row.board_id);
        let means = self.means.and_then(|file| means::parse(file.as_bytes()).ok()).unwrap_or_default();
        let bench = board.as_ref().zip(self.run).and_then(|((_, board), run)| Bench::of((board, &means), run));
        let planned = plan.and_then(Planned::of);
        let entered = self.charge.as_deref().and_then(ChargeFile::parse);
        let charge = entered.or_else(|| planned.as_ref().map(|p| p.inputs.charge_file()));
        let entered = self.settings.as_deref().and_then(shop::read_inputs);
        Job { planned, entered, charge, board, model, version, photos, bench, means, pins: self.pins, row: self.row }
    }
}

impl Planned {
    fn of(row: PlanRow) -> Option<Self> {
        Some(Self { id: row.id, inputs: shop::read_inputs(&row.inputs)?, plan: plan::read(&row.plan)? })
    }

    /// The steps at the bench.
    pub(crate) fn steps(&self, (board, means): (&Board, &MeansFile), charge: &Charge) -> Vec<Step> {
        let choice = self.inputs.method.as_ref();
        let (must_live, sucker) = (self.inputs.must_live, means.sucker);
        sequence(&Script { choice, must_live, sucker, ..Script::plain(board, &self.plan, charge) })
    }

    /// Whatever engine made it: a run keeps the plan that it was begun with.
    fn kept(row: PlanRow) -> Option<Self> {
        Some(Self { id: row.id, inputs: shop::read_inputs(&row.inputs)?, plan: plan::read_kept(&row.plan)? })
    }
}

impl Bench {
    fn of((board, means): (&Board, &MeansFile), kept: KeptRun) -> Option<Self> {
        let KeptRun { run, plan, presses, ledger } = kept;
        let planned = Planned::kept(plan?)?;
        let charge = planned.inputs.charge().ok()?;
        let steps = planned.steps((board, means), &charge);
        let event = |p: &PressRow| Some(Event { press: Press::named(&p.press)?, at_ms: p.at_ms });
        let events: Vec<Event> = presses.iter().filter_map(event).collect();
        let state = BenchRun::after(&steps, run.started_ms, &events);
        let entry =
            |e: &LedgerRow| Some(Entry { act: Act::named(&e.act)?, row: e.row.clone(), reason: e.reason.clone() });
        let entries: Vec<Entry> = ledger.iter().filter_map(entry).collect();
        let ledger = Ledger::after(&charge, &groups(board), &entries);
        Some(Self { run, planned, steps, presses, state, charge, ledger })
    }

    /// Is the next step closed until the ledger is within limits?
    pub(crate) fn is_shut(&self) -> bool {
        let next = self.steps.get(self.state.at + 1);
        next.is_some_and(|step| step.duty == Duty::Fit) && !self.ledger.is_open()
    }
}

impl Job {
    /// One job, or a refusal.
    pub(crate) async fn load(app: &App, id: i64) -> Result<Self, Refusal> {
        let kept = app.reading(move |read| read.job(id)?.map(|row| Kept::read(read, row)).transpose()).await?;
        kept.map(Kept::understood).ok_or(Refusal::NotFound("job"))
    }

    /// All jobs.
    pub(crate) async fn all(app: &App) -> Result<Vec<Self>, Refusal> {
        let read_all =
            |read: Read<'_>| read.jobs()?.into_iter().map(|row| Kept::read(read, row)).collect::<Result<Vec<_>, _>>();
        Ok(app.reading(read_all).await?.into_iter().map(Kept::understood).collect())
    }

    /// A value of the intake; empty where nothing was typed.
    pub(crate) fn intake(&self, key: &str) -> &str {
        self.row.intake.get(key).map_or("", String::as_str)
    }

    /// What to call it.
    pub(crate) fn device(&self) -> &str {
        if self.intake("device").is_empty() { "New device" } else { self.intake("device") }
    }

    /// The board, or a refusal that says that there is none yet.
    pub(crate) fn board(&self) -> Result<&(i64, Board), Refusal> {
        self.board.as_ref().ok_or(Refusal::NotYet("This job has no board yet"))
    }

    /// What the joints hold: as entered, else as guessed with nothing fed.
    pub(crate) fn charge_file(&self) -> ChargeFile {
        self.charge.clone().unwrap_or_default()
    }

    /// What it is to be planned from: as entered, else as planned, for what the joints hold now.
    pub(crate) fn inputs(&self) -> Option<PlanInputs> {
        let set = self.entered.as_ref().or(self.planned.as_ref().map(|p| &p.inputs))?;
        Some(set.clone().with(&self.charge_file()))
    }

    /// The plan, if it is for what is set and what the joints hold now.
    pub(crate) fn current_plan(&self) -> Option<&Planned> {
        let inputs = self.inputs()?;
        self.planned.as_ref().filter(|p| p.inputs == inputs)
    }

    /// The run, or a refusal.
    pub(crate) fn bench(&self) -> Result<&Bench, Refusal> {
        self.bench.as_ref().ok_or(Refusal::NotYet("This job has no bench run yet"))
    }

    /// Every pin with its mark.
    pub(crate) fn walked(&self) -> Vec<Walked> {
        let joints = self.board.iter().flat_map(|(_, board)| &board.connector.joints);
        let walked = |j: &mend_core::board::Joint| Walked {
            name: j.name.clone(),
            hidden: j.hidden,
            mark: self.pins.get(&j.name).and_then(|mark| Mark::named(mark)),
        };
        joints.filter(|j| j.is_pin()).map(walked).collect()
    }

    /// Has every pin been walked and found firm?
    pub(crate) fn is_sound(&self) -> bool {
        let walked = self.walked();
        !walked.is_empty() && verdict(&walked).is_sound()
    }

    /// Where it stands.
    pub(crate) fn facts(&self, today: Date) -> Facts {
        let missing = Field::ALL.iter().filter(|f| f.wanted && self.intake(f.key).is_empty()).count();
        let due: Option<Date> = self.intake("due").parse().ok();
        let run = match &self.bench {
            None => RunState::NotStarted,
            Some(b) if b.state.is_done(&b.steps) => RunState::Done,
            Some(b) => RunState::AtStep(b.state.at + 1, b.steps.len()),
        };
        let pins = match verdict(&self.walked()) {
            _ if self.pins.is_empty() => PinState::NotWalked,
            Verdict::Unfinished { .. } => PinState::Partly,
            Verdict::Sound => PinState::Sound,
            _ => PinState::Rework,
        };
        Facts {
            intake_missing: missing,
            board: self.board.is_some(),
            alloy: self.charge.is_some(),
            method: self.inputs().is_some_and(|inputs| inputs.method.is_some()),
            window: self.current_plan().map(|p| p.plan.window),
            run,
            pins,
            handed_over: self.row.handed_over_ms.is_some(),
            waits_for: self.intake("waits_for").to_owned(),
            due_in_days: due.and_then(|due| today.until(due).ok()).map(|span| i64::from(span.get_days())),
        }
    }
}
