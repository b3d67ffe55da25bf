//! A bench run: its stored steps, what happened in it, and where that leads.

use mend_core::board::{Board, groups};
use mend_core::calibration::probe::place;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::method::JobKind;
use mend_core::planning::bench_event::{Event, Happening};
use mend_core::planning::bench_run::{BenchRun, RunPhase};
use mend_core::planning::ledger::Ledger;
use mend_core::planning::sequence::step::{Duty, Step};
use mend_core::solder::JointComposition;
use mend_formats::equipment::EquipmentFile;
use mend_store::{EventRow, Moment, PlanRow, Read, RunRow, StoreError};

use super::{Job, Planned, Workplace};
use crate::words::Words;

/// A bench run that has begun.
#[derive(Debug, Clone)]
pub(crate) struct BenchRunView {
    pub(crate) run: RunRow,
    pub(crate) planned: Planned,
    pub(crate) steps: Vec<Step>,
    pub(crate) events: Vec<EventRow>,
    pub(crate) state: BenchRun,
    pub(crate) composition: JointComposition,
    pub(crate) ledger: Ledger,
}

/// A run as the store has it.
pub(super) struct KeptRun {
    run: RunRow,
    plan: Option<PlanRow>,
    events: Vec<EventRow>,
}

impl KeptRun {
    pub(super) fn read(read: Read<'_>, run: RunRow) -> Result<Self, StoreError> {
        let (plan, events) = (read.plan(run.plan_id)?, read.events(run.id)?);
        Ok(Self { run, plan, events })
    }
}

impl Job {
    /// Every run at its bench that can be understood, the first first: a job that went back has several.
    pub(crate) fn runs(&self, read: Read<'_>) -> Result<Vec<BenchRunView>, StoreError> {
        let Some((_, board)) = &self.board else { return Ok(Vec::new()) };
        let kept = read.runs_of(self.row.id)?.into_iter().map(|run| KeptRun::read(read, run));
        let kept: Vec<KeptRun> = kept.collect::<Result<_, _>>()?;
        Ok(kept.into_iter().filter_map(|kept| BenchRunView::try_new(board, &self.equipment, kept).ok()).collect())
    }
}

impl BenchRunView {
    /// Where the bench's thermometer is taped: onto a component, or beside the part, as the probe's page shows it.
    pub(crate) fn bead(&self, board: &Board) -> Thermocouple {
        let on = board.components.iter().position(|component| component.name == self.run.taped_on);
        Thermocouple { on, ..place(board) }
    }

    /// The run as it is understood, or why it can't be.
    pub(super) fn try_new(board: &Board, equipment: &EquipmentFile, kept: KeptRun) -> Result<Self, String> {
        let KeptRun { run, plan, events } = kept;
        let plan = plan.ok_or("the plan that it follows is gone")?;
        let planned = Planned::kept(plan).ok_or("the plan that it follows is not of our format")?;
        let composition = planned.inputs.composition().map_err(|findings| Words::default().first(&findings))?;
        let steps = match &run.steps {
            Some(steps) => serde_json::from_str(steps).map_err(|error| format!("its steps: {error}"))?,
            // Opened by an older version, which wrote them anew each time.
            None => {
                let (fit, broken, kind) = (None, Vec::new(), JobKind::Replace);
                planned.steps(&Workplace { board, equipment, fit, broken, kind }, &composition)
            }
        };
        let mut bench = Self {
            state: BenchRun::after(&steps, &[]),
            ledger: Ledger::after(&composition, &groups(board), &[]),
            run,
            planned,
            steps,
            events,
            composition,
        };
        bench.fold(board);
        Ok(bench)
    }

    /// The state after all events. What this version does not know of changes nothing.
    pub(crate) fn fold(&mut self, board: &Board) {
        let known = |row: &EventRow| {
            let what = Happening::named(&row.kind, &row.row, &row.reason)?;
            Some(Event { what, at_ms: row.at_ms })
        };
        let events: Vec<Event> = self.events.iter().filter_map(known).collect();
        self.state = BenchRun::after(&self.steps, &events);
        self.ledger = Ledger::after(&self.composition, &groups(board), &self.state.entries);
    }

    /// Is the next step closed until the ledger is within limits?
    pub(crate) fn is_shut(&self) -> bool {
        let next = self.steps.get(self.state.at + 1);
        next.is_some_and(|step| step.duty == Duty::Fit) && !self.ledger.is_open()
    }

    /// All steps done?
    pub(crate) fn is_done(&self) -> bool {
        self.state.is_done(&self.steps)
    }

    /// How long the present phase has lasted, ms: by the clock that nobody sets.
    pub(crate) fn phase_ms(&self, now: &Moment) -> i64 {
        let since = match self.state.phase {
            RunPhase::Ready => return 0,
            RunPhase::Running { since_ms } | RunPhase::Moved { since_ms, .. } => since_ms,
        };
        (self.run.elapsed(self.events.last(), now) - since).max(0)
    }

    /// The step's place and title as a person names them: `step 5, “Heat”`.
    pub(crate) fn place(&self, at: usize) -> String {
        match self.steps.get(at) {
            Some(step) => format!("step {}, “{}”", at + 1, Words::default().step_title(step)),
            None => "the end of the steps".to_owned(),
        }
    }
}
