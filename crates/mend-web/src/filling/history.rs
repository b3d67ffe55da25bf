//! Two weeks of the demo's past, simulated: jobs like those that are described in full, each with a heating of its own. The release of
//! each is a run of the solver with what nobody knows drawn at random; one jet weakens half-way, which the review finds.

use mend_core::heat::ensemble::run_all;
use mend_core::heat::parameters::ParameterSample;
use mend_core::inspection::component_check::ComponentState;
use mend_core::shop::review::WaitCause;
use mend_core::watch::Watch;
use mend_formats::shop::{JobFile, RunFile};
use mend_store::{CheckRow, LogRow, Moment, NewCheck, NewMark, NewPlan, NewRun, StoreError, TypedField, Write};

use super::plans::add_events;
use crate::App;
use crate::job::{COMPONENTS, Job, WENT_BACK};
use crate::planner::Ordered;
use crate::refusal::Refusal;

/// Jobs like each that is described in full: three batches of the solver's lanes in all, over so many days.
const EACH: usize = 12;
const DAYS: f64 = 14.0;
const DAY_MS: f64 = 24.0 * 3600.0 * 1000.0;
/// From the middle on the jet gives this share of what it gave.
const WEAKENED: f64 = 0.8;
/// Of the jobs of each kind: one goes back to the bench, one has something harmed, and one comes again.
const REWORKED: usize = 3;
const HARMED: usize = 7;
const RETURNED: usize = 5;
/// Every so many-th job waits for the customer's word and every so many-th for a part: on average so many hours.
const WORD: (usize, f64) = (2, 5.0);
const PART: (usize, f64) = (5, 40.0);
/// Pauses between taps, pins and tests of a hand that works, s.
const PAUSES_S: [f64; 4] = [14.0, 22.0, 17.0, 31.0];

/// Customers of those two weeks, most of them once.
const CUSTOMERS: [&str; 24] = [
    "Anders Voll",
    "Birte Sand",
    "Corin Hale",
    "Dagny Moe",
    "Eskil Lund",
    "Fenna Tide",
    "Gorm Reef",
    "Hedda Skar",
    "Ivar Strand",
    "Jutta Brand",
    "Klaas Dune",
    "Liv Aasen",
    "Marit Holm",
    "Nils Oresk",
    "Orla Finch",
    "Pia Lindt",
    "Quirin Vale",
    "Ragna Ness",
    "Silje Voss",
    "Torben Ruud",
    "Una Falk",
    "Vidar Moss",
    "Wenke Bye",
    "Yrsa Dahl",
];

/// A past job that is to be put down.
struct PastJob<'a> {
    like: &'a Job,
    file: &'a JobFile,
    plan: NewPlan,
    /// Its place among those of its kind.
    k: usize,
    /// Air on until it moved, s.
    release_s: f64,
}

/// Adds the past of every job that was described in full and given back.
pub(super) async fn add(app: &App, described: &[(i64, JobFile)]) -> Result<(), Refusal> {
    for (id, file) in described.iter().filter(|(_, file)| file.handed_over && file.run.is_some()) {
        let like = Job::load(app, *id).await?;
        let Some(planned) = like.bench.as_ref().map(|bench| bench.planned.clone()) else { continue };
        let order = Ordered::load(app, &like, &planned.inputs).await?;
        let (bundle, station) = (order.bundle, order.station);
        let drawn = tokio::task::spawn_blocking(move || releases(&bundle)).await;
        let drawn = drawn.map_err(|error| Refusal::Broken(error.to_string()))?;
        let (board_id, _) = *like.board()?;
        for (k, release_s) in drawn.into_iter().enumerate() {
            let plan = NewPlan {
                job_id: 0,
                board_id,
                inputs: crate::planner::written(&planned.inputs)?,
                plan: mend_formats::plan::write(&planned.plan)?,
                station: Some(station.clone()),
                fits: false,
            };
            if let Some(release_s) = release_s {
                put(app, PastJob { like: &like, file, plan, k, release_s }).await?;
            }
        }
    }
    Ok(())
}

/// When the part comes away in each of so many runs, from air on, s; none: it does not.
fn releases(bundle: &mend_formats::bundle::Bundle) -> Vec<Option<f64>> {
    let watch = Watch::new();
    let order = bundle.order(&watch);
    let Ok(melting) = order.composition.targets(order.board) else { return Vec::new() };
    let case = order.case(&melting);
    let mut samples = ParameterSample::samples(EACH, &case);
    samples.iter_mut().skip(EACH / 2).for_each(|sample| sample.jet *= WEAKENED);
    let runs = run_all(&case, &samples, &|run| run.release.is_some());
    runs.iter().map(|run| run.release.map(|release| release - run.last_from)).collect()
}

#[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "moments of two weeks")]
async fn put(app: &App, past: PastJob<'_>) -> Result<(), Refusal> {
    let PastJob { like, file, plan, k, release_s } = past;
    let opened_ms = app.now_ms() - ((DAYS - DAYS * k as f64 / EACH as f64) * DAY_MS) as i64;
    let Some(run) = file.run.as_ref().map(|run| with_release(run, like, release_s)) else { return Ok(()) };
    let Some(steps) = like.bench.as_ref().and_then(|bench| bench.run.steps.clone()) else { return Ok(()) };
    let people = app.reading(|read| read.people()).await?;
    let hands: Vec<i64> = people.iter().filter(|row| row.role != "counter").map(|row| row.id).collect();
    let who = (!hands.is_empty()).then(|| hands[k % hands.len()]);
    let (pins, mut intake) = (file.pins.clone(), file.intake.clone());
    let whose = k + EACH * plan.board_id as usize;
    intake.insert("customer".to_owned(), CUSTOMERS[whose % CUSTOMERS.len()].to_owned());
    intake.entry("serial".to_owned()).and_modify(|serial| *serial = own_serial(serial, whose));
    intake.remove("contact");
    let harmed = like.board()?.1.components.first().map(|component| component.name.clone()).filter(|_| k == HARMED);
    let put = app.writing_as(who, move |write| {
        let id = write.add_job(opened_ms - 3_600_000)?;
        for (field, value) in &intake {
            write.set_intake(id, TypedField::new(field, value), opened_ms - 3_600_000)?;
        }
        waited(write, id, k, opened_ms - 3_600_000)?;
        write.choose_board(id, plan.board_id)?;
        let plan_id = write.add_plan(&NewPlan { job_id: id, ..plan }, opened_ms)?;
        let opened = Moment { wall_ms: opened_ms, clock: String::new(), tick_ms: 0 };
        let (steps, taped_on) = (Some(steps), String::new());
        let run_id = write.add_run(&NewRun { job_id: id, plan_id, opened, steps, taped_on })?;
        add_events(write, run_id, &run, opened_ms)?;
        let ended_ms = opened_ms + (run.presses.last().map_or(0.0, |press| press.1) * 1000.0) as i64;
        let ended_ms = walked(write, id, &pins, ended_ms)?;
        if k == REWORKED {
            let (who, reason) = ("Tam Birk".to_owned(), "the last pin moves".to_owned());
            write.log_job(id, &LogRow { what: WENT_BACK.to_owned(), who, reason, at_ms: ended_ms })?;
        }
        if let Some(name) = harmed {
            let row = CheckRow {
                list: COMPONENTS.to_owned(),
                name,
                value: ComponentState::Harmed.name().to_owned(),
                entered_ms: ended_ms,
            };
            write.enter_check(id, &NewCheck { row, token: "past-harm".to_owned() })?;
        }
        write.hand_over(id, ended_ms + 600_000)?;
        if k == RETURNED {
            // The same device comes once more, and is given back as it was.
            let again = write.add_job(ended_ms + 5 * DAY_MS as i64)?;
            for (field, value) in &intake {
                write.set_intake(again, TypedField::new(field, value), ended_ms)?;
            }
            write.return_of(again, id)?;
            let (who, reason) = ("Olga Quist".to_owned(), "the plug is bent, not the port".to_owned());
            write.log_job(again, &LogRow { what: crate::job::DECLINED.to_owned(), who, reason, at_ms: ended_ms })?;
            write.hand_over(again, ended_ms + 6 * DAY_MS as i64)?;
            Job::list(write, again)?;
        }
        Job::list(write, id)
    });
    put.await
}

/// The number of another device of the same make.
fn own_serial(like: &str, whose: usize) -> String {
    let make = like.rsplit_once('-').map_or(like, |(make, _)| make);
    format!("{make}-{}", 11_030 + 271 * whose)
}

/// What a job waited for before it was opened: of an exponential distribution the quantile that is its own.
#[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "hours of two weeks")]
fn waited(write: &Write<'_>, id: i64, k: usize, until_ms: i64) -> Result<(), StoreError> {
    let hours = |mean: f64| -mean * (1.0 - (k as f64 + 0.5) / EACH as f64).ln();
    for (cause, (every, mean)) in [(WaitCause::Word, WORD), (WaitCause::Part, PART)] {
        if k.is_multiple_of(every) {
            write.set_waits(id, &[cause], until_ms - (3_600_000.0 * hours(mean)) as i64)?;
            write.set_waits(id, &[], until_ms)?;
        }
    }
    Ok(())
}

/// Every pin firm, one after the other; answers when the last was.
#[allow(clippy::cast_possible_truncation, reason = "seconds of a walk")]
fn walked(
    write: &Write<'_>,
    id: i64,
    pins: &std::collections::BTreeMap<String, String>,
    from_ms: i64,
) -> Result<i64, StoreError> {
    let mut at_ms = from_ms + 60_000;
    for (k, pin) in pins.keys().enumerate() {
        let (pin, mark, token) = (pin.clone(), "firm".to_owned(), format!("past-{pin}"));
        write.mark_pin(id, &NewMark { pin, mark, at_ms, token })?;
        at_ms += (PAUSES_S[k % PAUSES_S.len()] * 1000.0) as i64;
    }
    Ok(at_ms)
}

/// The presses of a run, with another release: what came after it comes so much sooner or later.
fn with_release(run: &RunFile, like: &Job, release_s: f64) -> RunFile {
    let stamped = like.release().map_or(release_s, |release| release.actual_s);
    let air_on = run.presses.windows(2).find(|pair| (pair[1].1 - pair[0].1 - stamped).abs() < 0.5);
    let Some(air_on) = air_on.map(|pair| pair[0].1) else { return run.clone() };
    let moved = |(name, at): &(String, f64)| (name.clone(), if *at > air_on { at + release_s - stamped } else { *at });
    RunFile {
        presses: run.presses.iter().map(moved).collect(),
        ledger: run.ledger.iter().map(moved).collect(),
        started_hours_ago: run.started_hours_ago,
    }
}
