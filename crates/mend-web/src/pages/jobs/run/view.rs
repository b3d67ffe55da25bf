//! The present step of a bench run as it is laid out.

use askama::Template;
use askama_web::WebTemplate;
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::method::JobKind;
use mend_core::planning::bench_run::{RunPhase, Stamp};
use mend_core::planning::sequence::stages::tools;
use mend_core::planning::sequence::step::{HotTool, HotToolKind, StepKind};
use mend_core::units::Scale;
use mend_store::Moment;

use super::super::ledger_view::LedgerView;
use super::super::plan_view::seconds;
use super::super::recipe_lines::shield_maps;
use super::twin::TwinView;
use crate::draw::board_map::BoardMap;
use crate::job::{BenchRunView, Job};
use crate::visitor::Visitor;
use crate::words::{StepWords, Words, after_bench};

/// The present step, ready to lay out.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/run_step.html")]
pub(crate) struct StepView {
    job: i64,
    run: i64,
    device: String,
    /// The step as events name it, from 0.
    step: usize,
    at: usize,
    of: usize,
    title: String,
    lines: Vec<String>,
    cue: String,
    cautions: Vec<Caution>,
    deference: &'static str,
    air: String,
    /// `ready`, `running`, `moved` or `done`.
    phase: &'static str,
    /// How long the phase has lasted when this was laid out, ms.
    elapsed_ms: i64,
    /// The clock stands at this, s.
    stands_s: Option<String>,
    clock_label: String,
    /// What is said where nothing is predicted.
    unpredicted: &'static str,
    /// When it is likely to come away, and how near damage is.
    twin: Option<TwinView>,
    go: String,
    /// Where a pedal goes on to after the last step.
    next: String,
    /// The next step is closed by the cleaning ledger.
    shut: bool,
    heating: bool,
    done: bool,
    undoable: bool,
    closed: bool,
    stamps: Vec<String>,
    ledger: Option<LedgerView>,
    titles: Vec<String>,
    stopped: String,
    why: String,
    /// What to do if it does not come.
    otherwise: Vec<String>,
    /// Where the shields go.
    maps: Vec<BoardMap>,
}

impl StepView {
    pub(super) fn from_run(job: &Job, bench: &BenchRunView, now: &Moment, visitor: Visitor) -> Self {
        let state = &bench.state;
        let step = bench.steps.get(state.at);
        let kind = step.map_or(&StepKind::Do, |s| &s.kind);
        let recipe = &bench.planned.inputs.settings;
        let hot = match kind {
            StepKind::Heat { .. } => tools(recipe.air.as_ref(), &recipe.during),
            StepKind::Soak { tools, .. } => tools.clone(),
            StepKind::Set { fit: Some(fit) } => fit.tools.clone(),
            _ => Vec::new(),
        };
        let stands_s = match state.phase {
            RunPhase::Moved { since_ms, at_ms } => Some(format!("{:.1}", (at_ms - since_ms) as f64 / 1000.0)),
            _ => None,
        };
        let words = visitor.words();
        let view = step.map_or_else(|| after_the_last(job.kind()), |step| words.step(step));
        let done = step.is_none();
        let running = matches!(state.phase, RunPhase::Running { .. });
        Self {
            job: job.row.id,
            run: bench.run.id,
            device: job.device().to_owned(),
            step: state.at,
            at: (state.at + 1).min(bench.steps.len()),
            of: bench.steps.len(),
            title: view.title,
            lines: view.lines,
            cue: view.cue,
            cautions: step.map_or(vec![], |s| s.cautions.clone()),
            deference: DEFERENCE,
            air: in_words(&hot, visitor.scale),
            phase: if done { "done" } else { state.phase.name() },
            elapsed_ms: bench.phase_ms(now),
            stands_s,
            clock_label: clock_label(kind, state.phase),
            unpredicted: unpredicted(kind),
            twin: job.board.as_ref().and_then(|(_, board)| TwinView::planned(bench, board)),
            go: go(job, bench, kind),
            next: if done { format!("/jobs/{}", job.row.id) } else { String::new() },
            shut: bench.is_shut(),
            heating: kind.is_heating() && running,
            done,
            undoable: state.undoable,
            closed: job.is_closed(),
            stamps: state.stamps.iter().map(|of| stamp(bench, of)).collect(),
            ledger: step.and_then(|step| LedgerView::from_run(bench, step.duty, words)),
            titles: bench.steps.iter().map(|step| words.step_title(step)).collect(),
            stopped: if done { String::new() } else { stopped(state.stopped) },
            why: view.why,
            otherwise: view.otherwise,
            maps: step
                .filter(|s| s.map)
                .zip(job.board.as_ref())
                .map_or(vec![], |(_, (_, board))| shield_maps(board, None, recipe, visitor.scale)),
        }
    }
}

/// What stands there once all steps are done.
fn after_the_last(kind: JobKind) -> StepWords {
    let lines = if kind.fits() { vec!["On to the pin walk.".to_owned()] } else { Vec::new() };
    StepWords { title: "All steps done".to_owned(), lines, ..StepWords::default() }
}

/// A release in words: which attempt, and from what.
pub(in crate::pages::jobs) fn stamp(bench: &BenchRunView, stamp: &Stamp) -> String {
    let Stamp { step, seconds: took, attempt, since_off_s, .. } = stamp;
    let step = bench.steps.get(*step).map_or(String::new(), |step| Words::default().step_title(step));
    match since_off_s {
        None => format!("{step}: it moved after {took:.1} s"),
        Some(off) => format!("{step}: it moved after {took:.1} s, attempt {attempt}, {off:.0} s after air off"),
    }
}

fn stopped(times: usize) -> String {
    match times {
        0 => String::new(),
        1 => "Stopped at the line once.".to_owned(),
        times => format!("Stopped at the line {times} times."),
    }
}

/// `400 °C`, or each tool by its name where it is not the air alone.
pub(in crate::pages::jobs) fn in_words(hot: &[HotTool], scale: Scale) -> String {
    let degrees = |tool: &HotTool| Words { scale }.temperature(tool.set_c);
    match hot {
        [air] if air.what == HotToolKind::Air => degrees(air),
        all => {
            all.iter().map(|tool| format!("{} {}", tool_name(tool.what), degrees(tool))).collect::<Vec<_>>().join(" · ")
        }
    }
}

const fn tool_name(tool: HotToolKind) -> &'static str {
    match tool {
        HotToolKind::Air => "air",
        HotToolKind::Preheater => "preheater",
        HotToolKind::Iron => "iron",
    }
}

fn unpredicted(kind: &StepKind) -> &'static str {
    match kind {
        StepKind::Set { fit: None } => {
            "No time is predicted here: the fit was not planned when this run began. Watch the joints, not the clock."
        }
        _ => "",
    }
}

fn clock_label(kind: &StepKind, phase: RunPhase) -> String {
    match (kind, phase) {
        (kind, RunPhase::Ready) if kind.is_heating() => "press when the air is on it".to_owned(),
        (kind, RunPhase::Running { .. }) if kind.is_heating() => "air on".to_owned(),
        (StepKind::Set { .. }, RunPhase::Moved { .. }) => "it sank".to_owned(),
        (StepKind::Heat { .. }, RunPhase::Moved { .. }) => "it moved".to_owned(),
        (StepKind::Soak { .. }, RunPhase::Ready) => "press when it is on".to_owned(),
        (StepKind::Soak { lasts_s, .. }, _) => format!("of {lasts_s:.0} s"),
        (StepKind::WhileWarm { window_s }, _) => format!("since air off; warm enough for {}", seconds(*window_s)),
        (StepKind::Hold { until_s }, _) => format!("since air off; solid after {}", seconds(*until_s)),
        _ => String::new(),
    }
}

/// The button that goes on.
fn go(job: &Job, bench: &BenchRunView, kind: &StepKind) -> String {
    match () {
        () if bench.is_shut() => "Fit is closed".to_owned(),
        () if bench.is_done() => after_bench(job.kind()).to_owned(),
        () => go_label(kind, bench.state.phase),
    }
}

fn go_label(kind: &StepKind, phase: RunPhase) -> String {
    match (kind, phase) {
        (kind, RunPhase::Ready) if kind.is_heating() => "Air on",
        (StepKind::Heat { .. }, RunPhase::Running { .. }) => "It moved",
        (StepKind::Set { .. }, RunPhase::Running { .. }) => "It sank",
        (StepKind::Soak { .. }, RunPhase::Ready) => "It is on",
        (StepKind::Soak { .. }, _) => "On to the next tool",
        (StepKind::Hold { .. }, _) => "It is solid",
        _ => "Done, go on",
    }
    .to_owned()
}
