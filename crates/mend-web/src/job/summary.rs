//! What lists show of a job: kept in columns by the transaction that changes the job, so that no list reads the job itself.

use jiff::civil::Date;
use mend_core::inspection::functional_test::{TestVerdict, judged};
use mend_core::opening::tally::Count;
use mend_core::planning::plan::WindowState;
use mend_core::shop::{Facts, PinState, RunState, Stop};
use mend_store::{IndexRow, ReleaseRow};
use serde::{Deserialize, Serialize};

use super::{CONDITION, Job, JobExtent};
use crate::draw::agreement::Release;
use crate::pages::window_word;
use crate::words::Words;

/// A job in a list, and at the head of its own pages.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
pub(crate) struct Summary {
    pub(crate) device: String,
    pub(crate) customer: String,
    pub(crate) connector: String,
    /// The version of its board.
    pub(crate) board: Option<i64>,
    /// A day, `2026-11-27`; empty: none.
    due: String,
    facts: Facts,
    /// How much there is to do.
    #[serde(default)]
    pub(crate) extent: JobExtent,
    /// The one key figure of each stop, in their order.
    pub(crate) figures: Vec<String>,
}

impl Summary {
    /// Of a job as it is now.
    pub(crate) fn from_job(job: &Job) -> Self {
        let facts = job.facts();
        Self {
            device: job.device().to_owned(),
            customer: job.intake("customer").to_owned(),
            connector: job.board.as_ref().map_or(String::new(), |(_, board)| board.connector.name.clone()),
            board: job.row.board_id,
            due: job.intake("due").to_owned(),
            figures: Stop::ALL.map(|stop| figure(job, &facts, stop)).to_vec(),
            extent: job.extent(),
            facts,
        }
    }

    /// When it is due; none: no day.
    pub(crate) fn due(&self) -> Option<Date> {
        self.due.parse().ok()
    }

    /// What is known of the job today: days pass without anybody changing it.
    pub(crate) fn facts(&self, today: Date) -> Facts {
        let due: Option<Date> = self.due.parse().ok();
        let due_in_days = due.and_then(|due| today.until(due).ok()).map(|span| i64::from(span.get_days()));
        Facts { due_in_days, ..self.facts.clone() }
    }

    /// As it is read from a list.
    pub(crate) fn parse(json: &str) -> Result<Self, serde_json::Error> {
        serde_json::from_str(json)
    }
}

#[cfg(test)]
impl Summary {
    /// A new job of which nothing is known but how much there is to do.
    pub(crate) fn of_extent(extent: JobExtent) -> Self {
        Self { extent, ..Self::default() }
    }
}

/// The row of a job in the lists.
pub(crate) fn index_row(job: &Job) -> Result<IndexRow, serde_json::Error> {
    let release = job.release();
    let within = release.as_ref().is_some_and(Release::is_within);
    let row = |release: Release| ReleaseRow {
        job_id: job.row.id,
        device: job.device().to_owned(),
        predicted: release.predicted.map_or([None; 3], |(low, mid, high)| [Some(low), Some(mid), high]),
        actual_s: release.actual_s,
    };
    let searched = ["customer", "contact", "device", "serial"].map(|key| job.intake(key));
    Ok(IndexRow {
        job_id: job.row.id,
        open: job.row.handed_over_ms.is_none(),
        model_id: job.model,
        device: job.device().to_owned(),
        summary: serde_json::to_string(&Summary::from_job(job))?,
        release: release.map(row),
        within,
        words: format!("{} {}", searched.join(" "), job.row.id),
    })
}

/// The one figure of a stop.
fn figure(job: &Job, facts: &Facts, stop: Stop) -> String {
    match stop {
        Stop::Intake if facts.intake_missing > 0 => format!("{} to fill in", facts.intake_missing),
        Stop::Intake => match job.intake("price") {
            "" => "received".to_owned(),
            price => price.to_owned(),
        },
        Stop::Opening => opening_figure(job),
        Stop::Board => {
            job.board.as_ref().map_or("none yet".to_owned(), |(_, b)| format!("{} joints", b.connector.joints.len()))
        }
        Stop::Look => look_figure(job),
        Stop::Alloy => alloy_figure(job),
        Stop::Method => match job.inputs().and_then(|inputs| inputs.method) {
            Some(choice) => Words::default().method(choice.family).name.to_owned(),
            None if facts.window.is_some() => "by hand".to_owned(),
            None => "not chosen".to_owned(),
        },
        Stop::Heat => heat_figure(job),
        Stop::Run => run_figure(job, facts),
        Stop::Pins => pins_figure(job, facts),
        Stop::Test => test_figure(job),
        Stop::Close => close_figure(job),
        Stop::Handover if job.declined().is_some() => "as it was".to_owned(),
        Stop::Handover if facts.handed_over => "handed over".to_owned(),
        Stop::Handover => "not yet".to_owned(),
    }
}

/// What is out, and what is not back.
fn opening_figure(job: &Job) -> String {
    let Some(opening) = &job.opening else {
        return if job.has_skipped(Stop::Opening) { "skipped" } else { "no map" }.to_owned();
    };
    let counts = opening.tally().counts;
    let sum = |of: fn(&Count) -> usize| counts.iter().map(of).sum::<usize>();
    match (sum(|count| count.of), sum(|count| count.out), sum(|count| count.back)) {
        (_, out, back) if out > 0 && out == back => "all back".to_owned(),
        (_, out, back) if back > 0 => format!("{} missing", out - back),
        (of, out, _) => format!("{out} of {of} out"),
    }
}

/// How much was looked at.
fn look_figure(job: &Job) -> String {
    let broken = job.broken_lands().len();
    match job.checks.iter().filter(|row| row.list == CONDITION || row.list == "before").count() {
        _ if broken > 0 => format!("{broken} broken"),
        _ if job.has_skipped(Stop::Look) => "skipped".to_owned(),
        0 => "not yet".to_owned(),
        _ if job.is_looked_at() => "looked at".to_owned(),
        found => format!("{found} entries"),
    }
}

/// How the tests stand.
fn test_figure(job: &Job) -> String {
    let tests = job.tests();
    let tried = tests.iter().filter(|test| test.open.is_some()).count();
    match judged(&tests) {
        _ if job.has_skipped(Stop::Test) => "skipped".to_owned(),
        _ if tests.is_empty() => "not yet".to_owned(),
        TestVerdict::Passed | TestVerdict::TryClosed { .. } => "works open".to_owned(),
        TestVerdict::GoBack { .. } => "fails".to_owned(),
        TestVerdict::TryOpen { .. } => format!("{tried} of {}", tests.len()),
    }
}

/// What is not back, or not tried when closed.
fn close_figure(job: &Job) -> String {
    let tests = job.tests();
    let tried = tests.iter().filter(|test| test.closed.is_some()).count();
    match job.missing() {
        _ if job.has_skipped(Stop::Close) => "skipped".to_owned(),
        0 if job.is_shut() => "closed".to_owned(),
        0 if tests.is_empty() => "not yet".to_owned(),
        0 => format!("{tried} of {} closed", tests.len()),
        missing => format!("{missing} out"),
    }
}

/// What is in the joints, and fed.
fn alloy_figure(job: &Job) -> String {
    let Some(composition) = &job.composition else { return "not looked at".to_owned() };
    match composition.feed.as_ref().filter(|feed| feed.is_used()) {
        Some(feed) => format!("fed {:.0} %", feed.mixing_fraction * 100.0),
        None => composition.factory().to_owned(),
    }
}

fn heat_figure(job: &Job) -> String {
    let Some(planned) = job.bench_plan() else { return "no plan".to_owned() };
    let window: WindowState = planned.plan.window;
    let window = window_word(window);
    planned.plan.release.mid_s.map_or(format!("{window}, may not melt"), |t| format!("{window}, ≈ {t:.0} s"))
}

fn run_figure(job: &Job, facts: &Facts) -> String {
    match (facts.run, &job.bench) {
        (RunState::AtStep(at, of), _) => format!("step {at} of {of}"),
        (RunState::Done, Some(bench)) => {
            bench.state.release().map_or("done".to_owned(), |stamp| format!("off at {:.0} s", stamp.seconds))
        }
        _ => "not begun".to_owned(),
    }
}

fn pins_figure(job: &Job, facts: &Facts) -> String {
    let walked = job.walked();
    let marked = walked.iter().filter(|p| p.mark.is_some()).count();
    match facts.pins {
        PinState::Skipped => "skipped".to_owned(),
        PinState::Sound => format!("{marked} firm"),
        PinState::Rework => "rework".to_owned(),
        _ if walked.is_empty() => "no board".to_owned(),
        _ => format!("{marked} of {}", walked.len()),
    }
}
