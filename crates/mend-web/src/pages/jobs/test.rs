//! The functional test: each thing that the port is for, tried open here and closed at the close; what fails goes back to a stop
//! that mends it.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::caution::{Caution, DEFERENCE};
use mend_core::inspection::functional_test::{TestResult, TestVerdict, TriedTest, judged};
use mend_core::shop::Stop;
use mend_store::LogRow;
use serde::Deserialize;

use super::look::CheckForm;
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{Job, SKIPPED, TEST_CLOSED, TEST_OPEN, WENT_BACK};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words;

/// Stops that a failure may go back to.
const BACK_TO: [Stop; 3] = [Stop::Pins, Stop::Run, Stop::Look];
/// Longest reason, and longest name, characters.
const LONGEST: [usize; 2] = [300, 80];

/// A test at this stop: open at the test, closed at the close.
struct TestCell {
    name: String,
    row: usize,
    /// `works`, `fails`, `not-possible` or `untried`.
    class: &'static str,
    says: &'static str,
    /// What it showed when it was open, at the close.
    open: &'static str,
}

/// The part that every entry replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/test_part.html")]
pub(crate) struct TestPart {
    head: JobHead,
    oob: bool,
    job: i64,
    /// `test` or `close`.
    stop: &'static str,
    list: &'static str,
    cells: Vec<TestCell>,
    chosen: String,
    results: [(char, &'static str); 3],
    title: String,
    class: &'static str,
    /// What fails, where something does.
    failed: String,
    back_to: [(&'static str, &'static str); 3],
    /// What the customer wants left as it is, and what of theirs is inside.
    conditions: Vec<String>,
    /// How often it went back, in words.
    went_back: Vec<String>,
    skipped: bool,
    /// The stop after this one, by its address and in words; empty: not yet.
    next: (String, &'static str),
    cautions: [&'static str; 3],
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/test.html")]
pub(crate) struct TestPage {
    frame: Frame,
    part: TestPart,
}

const fn result_class(result: Option<TestResult>) -> &'static str {
    match result {
        None => "untried",
        Some(TestResult::Works) => "works",
        Some(TestResult::Fails) => "fails",
        Some(TestResult::NotPossible) => "not-possible",
    }
}

fn cell(row: usize, tried: &TriedTest, closing: bool) -> TestCell {
    let says = |result: Option<TestResult>| result.map_or("", TestResult::name);
    let result = if closing { tried.closed } else { tried.open };
    let open = if closing { says(tried.open) } else { "" };
    TestCell { name: tried.name.clone(), row, class: result_class(result), says: says(result), open }
}

/// What is said of the tests at a stop, and in which colour.
fn said(job: &Job, stop: Stop, tests: &[TriedTest]) -> (String, &'static str) {
    let found = judged(tests);
    let class = match &found {
        _ if job.has_skipped(stop) => "open",
        TestVerdict::Passed => "sound",
        TestVerdict::GoBack { .. } => "rework",
        TestVerdict::TryClosed { .. } if stop == Stop::Test => "sound",
        _ => "open",
    };
    let title = match stop {
        _ if job.has_skipped(stop) && stop == Stop::Close => "Skipped: it is not closed here".to_owned(),
        _ if job.has_skipped(stop) => "Skipped: nothing is tested".to_owned(),
        _ if tests.is_empty() => "All back in; there is nothing to test".to_owned(),
        _ => words::test_verdict(&found),
    };
    (title, class)
}

impl TestPart {
    /// Of a job at its test, or at its close.
    pub(super) fn from_job(app: &App, job: &Job, stop: Stop, chosen: &str) -> Self {
        let closing = stop == Stop::Close;
        let tests = if closing && !job.tests_closed() { Vec::new() } else { job.tests() };
        let (title, class) = said(job, stop, &tests);
        let failed = if let TestVerdict::GoBack { tests } = judged(&tests) { tests.join(", ") } else { String::new() };
        let kept = [("Leave as it is", "unchanged"), ("The customer's own, back in before it is closed", "inside")];
        let conditions = kept.into_iter().filter(|(_, key)| !job.intake(key).is_empty());
        let next = match stop {
            Stop::Test if job.is_tested() && !job.is_shut() => (format!("/jobs/{}/close", job.row.id), "To the close"),
            Stop::Test | Stop::Close if job.is_shut() => (format!("/jobs/{}/handover", job.row.id), "To the handover"),
            _ => (String::new(), ""),
        };
        Self {
            head: JobHead::from_job(job, Some(stop), app.now().date()),
            oob: false,
            job: job.row.id,
            stop: stop.path(),
            list: if closing { TEST_CLOSED } else { TEST_OPEN },
            cells: tests.iter().enumerate().map(|(row, tried)| cell(row, tried, closing)).collect(),
            chosen: chosen.to_owned(),
            results: TestResult::ALL.map(|result| (result.name().chars().next().unwrap_or(' '), result.name())),
            title,
            class,
            failed,
            back_to: BACK_TO.map(|stop| (stop.path(), stop.name())),
            conditions: conditions.map(|(what, key)| format!("{what}: {}", job.intake(key))).collect(),
            went_back: went_back(job, app.now_ms()),
            skipped: job.has_skipped(stop),
            next,
            cautions: [Caution::LivePower.text(), Caution::Static.text(), DEFERENCE],
        }
    }
}

/// How often and for how long it went back, then each time with its reason.
fn went_back(job: &Job, now_ms: i64) -> Vec<String> {
    let each = job.log.iter().filter(|row| row.what == WENT_BACK).map(|row| row.reason.clone());
    let loops = words::rework_loops(&job.reworked(now_ms));
    Some(loops).filter(|loops| !loops.is_empty()).into_iter().chain(each).collect()
}

/// The page of a stop.
pub(super) fn page(app: &App, visitor: Visitor, job: &Job, stop: Stop) -> TestPage {
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/{}", job.row.id, stop.path()));
    TestPage { frame, part: TestPart::from_job(app, job, stop, "") }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<TestPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    job.board()?;
    Ok(page(&app, visitor, &job, Stop::Test))
}

/// The value as it is kept, of a test that there is at a stop.
fn checked(job: &Job, stop: Stop, sent: &CheckForm) -> Result<String, Refusal> {
    if sent.list == SKIPPED && sent.name == stop.path() {
        return Ok(if sent.value.is_empty() { String::new() } else { "skipped".to_owned() });
    }
    let list = if stop == Stop::Close { TEST_CLOSED } else { TEST_OPEN };
    if sent.list != list || !job.tests().iter().any(|test| test.name == sent.name) {
        let message = format!("“{}” is no test of this connector", sent.name);
        return Err(Refusal::field("test", message, "choose one of the list"));
    }
    if stop == Stop::Close && !sent.value.is_empty() {
        closed(job)?;
    }
    if !sent.value.is_empty() && TestResult::named(&sent.value).is_none() {
        let names = TestResult::ALL.map(TestResult::name).join(", ");
        return Err(Refusal::field("result", format!("“{}” is no result", sent.value), &names));
    }
    Ok(sent.value.clone())
}

/// Nothing is closed while something that came out is not back.
fn closed(job: &Job) -> Result<(), Refusal> {
    let what = match job.missing() {
        0 => return Ok(()),
        1 => "one thing is".to_owned(),
        missing => format!("{missing} things are"),
    };
    Err(Refusal::field(
        "closed",
        format!("{what} out and not back:"),
        "the opening map names them, and where they were",
    ))
}

/// Keeps an entry of a stop, and answers with the part as it is then.
pub(super) async fn entered(app: &App, id: i64, stop: Stop, sent: CheckForm) -> Result<TestPart, Refusal> {
    let job = Job::load(app, id).await?;
    let entry = sent.entry(checked(&job, stop, &sent)?, app.now_ms())?;
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    let part = TestPart::from_job(app, &Job::load(app, id).await?, stop, &sent.name);
    Ok(TestPart { oob: true, ..part })
}

pub(crate) async fn enter(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<TestPart, Refusal> {
    let id = number(&path)?;
    Job::load(&app, id).await?.board()?;
    entered(&app, id, Stop::Test, sent).await
}

/// Where a failure goes back to, who says so, and why.
#[derive(Deserialize)]
pub(crate) struct GoingBack {
    #[serde(default)]
    stop: String,
    #[serde(default)]
    who: String,
    #[serde(default)]
    why: String,
}

/// Back to a stop: on record, with what failed; the tests are tried anew after that.
pub(crate) async fn back(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<GoingBack>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let TestVerdict::GoBack { tests } = judged(&job.tests()) else {
        return Err(Refusal::NotYet("Nothing fails"));
    };
    let stop = BACK_TO.into_iter().find(|stop| stop.path() == sent.stop);
    let stop = stop.ok_or_else(|| {
        Refusal::field("stop", format!("“{}” is no stop to go back to", sent.stop), "choose one of the list")
    })?;
    let fits = |text: &str, most: usize| (1..=most).contains(&text.chars().count());
    let (who, why) = (sent.who.trim().to_owned(), sent.why.trim().to_owned());
    if !fits(&who, LONGEST[1]) || !fits(&why, LONGEST[0]) {
        return Err(Refusal::field(
            "why",
            "who goes back, and why, stay on record",
            "a name, and up to 300 characters",
        ));
    }
    let reason = format!("{} fails: {why}. Back to: {}", tests.join(", "), stop.name());
    let (id, now) = (job.row.id, app.now_ms());
    let row = LogRow { what: WENT_BACK.to_owned(), who, reason, at_ms: now };
    let tried = job.checks.iter().filter(|row| [TEST_OPEN, TEST_CLOSED].contains(&row.list.as_str()));
    let tried: Vec<_> = tried.cloned().collect();
    app.changing(id, move |w| {
        w.log_job(id, &row)?;
        for (k, mut entry) in tried.into_iter().enumerate() {
            (entry.value, entry.entered_ms) = (String::new(), now);
            w.enter_check(id, &mend_store::NewCheck { row: entry, token: format!("back-{now}-{k}") })?;
        }
        Ok(())
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/{}", stop.path())))
}
