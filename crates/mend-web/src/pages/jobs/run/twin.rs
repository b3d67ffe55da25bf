//! The live twin beside a heat step: when the part is likely to move, how near the next damage is, and what to do; from the plan's
//! ensemble and from what was seen so far.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::board::{Board, groups};
use mend_core::calibration::reading_fault::ReadingFault;
use mend_core::calibration::twin::{Twin, TwinAdvice, TwinState};
use mend_core::planning::band::{Band, TimeBand};
use mend_core::planning::bench_run::{Cue, RunPhase};
use mend_core::planning::live::{FEW_IN_PLAY, Watching, seen};
use mend_core::planning::sequence::step::StepKind;
use mend_formats::live;
use mend_store::StateRow;
use serde::Deserialize;

use super::super::{JobPath, number};
use super::events::Hand;
use super::readings::{BenchReadings, taped};
use super::readout::{self, Readout};
use super::renew::{RenewedFrom, renew};
use crate::App;
use crate::computing::{Stand, Viewer};
use crate::draw::time_bar::{HeatCourse, TimeBar};
use crate::extract::Form;
use crate::job::{BenchRunView, HeatWork, Job};
use crate::planner::Ordered;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words;

/// What is expected within this is expected now, s.
const NOW_S: f64 = 1.5;
/// Rows have a key each, 1 to 9.
const MOST_KEYS: usize = 9;

/// A row that may shine, and its key.
pub(crate) struct CueKey {
    key: usize,
    row: String,
    /// When it did, s; empty: not yet.
    seen: String,
}

/// All of it.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/run_twin.html")]
pub(crate) struct TwinView {
    /// `plan`, `go-on`, `warning` or `air-away`.
    advice: &'static str,
    range: String,
    /// When the air goes away whatever is to be seen; empty: what is seen says when.
    abort: String,
    bar: TimeBar,
    /// Chance that something is damaged within the next seconds.
    soon: String,
    lines: Vec<String>,
    cues: Vec<CueKey>,
    /// Is it asked for once a second?
    asks: bool,
}

/// What a plan says of the heat of a step.
struct PlannedHeat<'a> {
    release: &'a TimeBand,
    abort_s: f64,
}

impl<'a> PlannedHeat<'a> {
    fn from_kind(kind: &'a StepKind) -> Option<Self> {
        match kind {
            StepKind::Heat { release, abort_s } => Some(Self { release, abort_s: *abort_s }),
            StepKind::Set { fit: Some(fit) } => Some(Self { release: &fit.liquid, abort_s: fit.abort_s }),
            _ => None,
        }
    }
}

impl TwinView {
    /// As the plan has it; none at a step that has no heat of a plan.
    pub(super) fn planned(bench: &BenchRunView, board: &Board) -> Option<Self> {
        let heat = PlannedHeat::from_kind(&bench.steps.get(bench.state.at)?.kind)?;
        let runs = matches!(bench.state.phase, RunPhase::Running { .. });
        let asks = bench.state.is_as_planned(&bench.steps);
        let warm = "Not the first heating: the plan's time is that of a cold board. Go by what is to be seen.";
        Some(Self {
            advice: "plan",
            range: words::release(heat.release),
            abort: format!("{:.0} s", heat.abort_s),
            bar: HeatCourse::planned(heat.release, heat.abort_s).bar(),
            soon: String::new(),
            lines: if runs && !asks { vec![warm.to_owned()] } else { Vec::new() },
            cues: if runs { cue_keys(bench, board) } else { Vec::new() },
            asks,
        })
    }

    /// As it is likely now.
    fn watched(self, kind: &StepKind, live: &LiveState<'_>, visitor: Visitor) -> Self {
        let Some(heat) = PlannedHeat::from_kind(kind) else { return self };
        let from = live.watching.last_from_s;
        let [low_s, mid_s, high_s] = live.state.release_s.map(|at| at.map(|at| at - from));
        let release = TimeBand { low_s, mid_s, high_s, share: 1.0 };
        let planned = HeatCourse::planned(heat.release, heat.abort_s);
        // Until something was seen the plan's own time to abort stands: both come from the same guesses.
        let abort_s = planned.abort_s.filter(|_| !live.observed);
        let course = HeatCourse { release: &release, abort_s, ..planned };
        Self {
            advice: if live.observed { advice(live.state.advice) } else { "go-on" },
            range: match high_s {
                Some(high_s) if high_s < live.seconds + NOW_S => "now".to_owned(),
                _ => words::release(&release),
            },
            abort: abort_s.map_or(String::new(), |at| format!("{at:.0} s")),
            bar: course.bar(),
            soon: chance(live.state.damage_soon),
            ..self.saying(lines(live, visitor))
        }
    }

    fn saying(mut self, lines: impl IntoIterator<Item = String>) -> Self {
        self.lines.extend(lines);
        self
    }
}

/// A row whose joints can be seen has a key.
fn cue_keys(bench: &BenchRunView, board: &Board) -> Vec<CueKey> {
    let mut rows: Vec<String> = Vec::new();
    for group in groups(board).into_iter().filter(|group| !group.hidden) {
        if !rows.contains(&group.name) {
            rows.push(group.name);
        }
    }
    let seen = |row: &str| bench.state.cues_now().find(|cue| cue.row == row);
    let key = |(k, row): (usize, String)| CueKey {
        key: k + 1,
        seen: seen(&row).map_or(String::new(), |cue| format!("{:.0} s", cue.seconds)),
        row,
    };
    rows.into_iter().take(MOST_KEYS).enumerate().map(key).collect()
}

/// A state of the ensemble, and what it was made from.
struct LiveState<'a> {
    watching: &'a Watching,
    state: TwinState,
    /// From air on.
    seconds: f64,
    /// Has anything been seen or read in this heating?
    observed: bool,
    board: &'a Board,
    /// What a thermometer says.
    reading: Option<String>,
}

const fn advice(advice: TwinAdvice) -> &'static str {
    match advice {
        TwinAdvice::GoOn => "go-on",
        TwinAdvice::Warning => "warning",
        TwinAdvice::AirAway => "air-away",
    }
}

fn chance(of: f64) -> String {
    match 100.0 * of {
        percent if percent < 1.0 => "under 1 %".to_owned(),
        percent if percent > 99.0 => "over 99 %".to_owned(),
        percent => format!("{percent:.0} %"),
    }
}

fn lines(live: &LiveState<'_>, visitor: Visitor) -> Vec<String> {
    let words = visitor.words();
    let band = |[low, mid, high]: [f64; 3]| words.temperature_band(Band { low, mid, high });
    let tightest = live.watching.tightest.as_ref().zip(live.state.tightest_c);
    let last = live.state.last_joint.and_then(|(k, share)| Some((live.board.connector.joints.get(k)?, share)));
    let coldest = live.state.coldest_c;
    [
        live.reading.clone(),
        Some(format!("Coldest joint {}", band(coldest))).filter(|_| coldest.iter().all(|t| t.is_finite())),
        tightest.map(|(of, celsius)| format!("{} {}", words::capital(&words::damaged(of)), band(celsius))),
        last.map(|(joint, share)| format!("Last to melt: {}, {} in 10", joint.name, (10.0 * share).round())),
    ]
    .into_iter()
    .flatten()
    .chain(live.state.release_s[1].is_none().then(|| "More likely than not it does not melt like this".to_owned()))
    .collect()
}

/// Which heating was on the screen.
#[derive(Deserialize)]
pub(crate) struct WatchedStep {
    run: i64,
    step: usize,
}

/// The heating under way as it is likely to stand. What is said is kept with the run.
pub(crate) async fn watch(
    State(app): State<App>,
    Hand { arrived: now, visitor }: Hand,
    path: JobPath,
    Form(sent): Form<WatchedStep>,
) -> Result<Response, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let (id, bench, board) = (job.row.id, job.bench()?, &job.board()?.1);
    let here = sent.run == bench.run.id && sent.step == bench.state.at;
    let heating = bench.steps.get(bench.state.at).map(|step| &step.kind).filter(|_| here && !job.is_closed());
    let Some((kind, view)) = heating.zip(TwinView::planned(bench, board)).filter(|(_, view)| view.asks) else {
        return Ok(StatusCode::NO_CONTENT.into_response());
    };
    let readings = BenchReadings::load(&app, bench, &now).await?;
    // The fit's plan may have been changed since the run began.
    let work = work_of(kind);
    let Some(order) = order(&app, &job, work).await? else { return Ok(StatusCode::NO_CONTENT.into_response()) };
    let (planned, otherwise): (Vec<Readout>, Vec<Readout>) =
        readout::read(&app, &order.bundle, visitor).await?.into_iter().partition(|read| read.as_planned);
    let view = view.saying(otherwise.into_iter().map(|read| read.line));
    let watching = match order.watching(&app, Viewer::heat(work, id), &taped(&app, &job).await?).await? {
        Stand::Running(_) => return Ok(view.saying(["The twin is being computed.".to_owned()]).into_response()),
        Stand::Ended(Err(_)) => {
            return Ok(view.saying(["The twin can't be computed for this plan.".to_owned()]).into_response());
        }
        Stand::Ended(Ok(watching)) => watching,
    };
    let seconds = bench.phase_ms(&now) as f64 / 1000.0;
    let heating = (bench.run.id, bench.state.begun_ms().unwrap_or_default());
    let watching = app.renewals.last(heating).unwrap_or(watching);
    let (live, fault, twin) = LiveState::new(&watching, HeatingNow { bench, board, readings: &readings, seconds });
    if live.state.effective < FEW_IN_PLAY && app.renewals.begin(heating) {
        let weights = twin.weights_at(live.state.at_s);
        renew(&app, &job, kind, RenewedFrom { heating, watching: watching.clone(), weights });
    }
    keep(&app, bench, seconds, live::write(&live.state, board, fault)?).await?;
    let reading = readings.line(live.state.expected_c.first(), fault, visitor);
    Ok(view
        .watched(kind, &LiveState { reading, ..live }, visitor)
        .saying(planned.into_iter().map(|read| read.line))
        .into_response())
}

/// A heating under way: what it is of, what was read, and for how long it runs, s.
struct HeatingNow<'a> {
    bench: &'a BenchRunView,
    board: &'a Board,
    readings: &'a BenchReadings,
    seconds: f64,
}

impl<'a> LiveState<'a> {
    /// From what was seen and read so far; and why the last reading was left out, if it was.
    fn new(
        watching: &'a Watching,
        HeatingNow { bench, board, readings, seconds }: HeatingNow<'a>,
    ) -> (Self, Option<ReadingFault>, Twin) {
        let cues: Vec<Cue> = bench.state.cues_now().cloned().collect();
        let mut twin = watching.twin();
        seen(board, watching.last_from_s, &cues).iter().for_each(|observation| twin.observe(observation));
        let fault = readings.tell(&mut twin, watching.last_from_s);
        let state = twin.state(watching.last_from_s + seconds);
        let observed = !cues.is_empty() || readings.any();
        (Self { watching, state, seconds, observed, board, reading: None }, fault, twin)
    }
}

/// For what the heat of a step is.
pub(super) const fn work_of(kind: &StepKind) -> HeatWork {
    if matches!(kind, StepKind::Heat { .. }) { HeatWork::Removal } else { HeatWork::Fit }
}

async fn keep(app: &App, bench: &BenchRunView, seconds: f64, says: String) -> Result<(), Refusal> {
    let (run, state) = (bench.run.id, &bench.state);
    let Some(begun_ms) = state.begun_ms() else { return Ok(()) };
    let row = StateRow { begun_ms, at_s: seconds as i64, step: state.at as i64, says };
    app.writing(move |write| write.keep_state(run, &row)).await
}

/// What a run at the bench goes by.
pub(super) async fn order(app: &App, job: &Job, work: HeatWork) -> Result<Option<Ordered>, Refusal> {
    let planned = match work {
        HeatWork::Removal => job.bench.as_ref().map(|bench| &bench.planned),
        HeatWork::Fit => job.current_plan_of(work),
    };
    match planned {
        Some(planned) => Ok(Some(Ordered::load(app, job, &planned.inputs).await?)),
        None => Ok(None),
    }
}

/// Computes in the background what a run will be watched with: by the time the board is shielded it is there.
pub(super) fn prepare(app: &App, job: Job) {
    let app = app.clone();
    tokio::spawn(async move {
        for work in HeatWork::ALL {
            if let Ok(Some(order)) = order(&app, &job, work).await {
                let taped = taped(&app, &job).await.unwrap_or_default();
                order.watching_at_leisure(&app, Viewer::heat(work, job.row.id), &taped).await;
            }
        }
    });
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_chance_is_never_said_to_be_none_or_sure() {
        assert_eq!([0.0, 0.004, 0.12, 0.996].map(chance), ["under 1 %", "under 1 %", "12 %", "over 99 %"]);
    }
}
