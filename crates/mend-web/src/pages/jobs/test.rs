//! The functional test: each thing that the port is for, tried open and closed; what fails goes back to a stop that mends it.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
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

/// A test open or closed.
struct TestCell {
    list: &'static str,
    name: String,
    row: usize,
    column: usize,
    /// `works`, `fails`, `not-possible` or `untried`.
    class: &'static str,
    says: &'static str,
}

/// The part that every entry replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/test_part.html")]
pub(crate) struct TestPart {
    head: JobHead,
    oob: bool,
    job: i64,
    rows: Vec<[TestCell; 2]>,
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
    next: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/test.html")]
pub(crate) struct TestPage {
    frame: Frame,
    part: TestPart,
}

fn cell((tried, row): (&TriedTest, usize), column: usize) -> TestCell {
    let (list, result) = [(TEST_OPEN, tried.open), (TEST_CLOSED, tried.closed)][column];
    let class = match result {
        None => "untried",
        Some(TestResult::Works) => "works",
        Some(TestResult::Fails) => "fails",
        Some(TestResult::NotPossible) => "not-possible",
    };
    TestCell { list, name: tried.name.clone(), row, column, class, says: result.map_or("", TestResult::name) }
}

impl TestPart {
    fn from_job(app: &App, job: &Job, (chosen, oob): (&str, bool)) -> Self {
        let (tests, skipped) = (job.tests(), job.has_skipped(Stop::Test));
        let found = judged(&tests);
        let class = match found {
            TestVerdict::Passed => "sound",
            TestVerdict::GoBack { .. } => "rework",
            _ => "open",
        };
        let failed = if let TestVerdict::GoBack { tests } = &found { tests.join(", ") } else { String::new() };
        let kept = [("Leave as it is", "unchanged"), ("The customer's own, back in before it is closed", "inside")];
        let conditions = kept.into_iter().filter(|(_, key)| !job.intake(key).is_empty());
        let next = skipped || found == TestVerdict::Passed;
        Self {
            head: JobHead::from_job(job, Some(Stop::Test), app.now().date()),
            oob,
            job: job.row.id,
            rows: tests
                .iter()
                .enumerate()
                .map(|(row, tried)| [0, 1].map(|column| cell((tried, row), column)))
                .collect(),
            chosen: chosen.to_owned(),
            results: TestResult::ALL.map(|result| (result.name().chars().next().unwrap_or(' '), result.name())),
            title: words::test_verdict(&found),
            class,
            failed,
            back_to: BACK_TO.map(|stop| (stop.path(), stop.name())),
            conditions: conditions.map(|(what, key)| format!("{what}: {}", job.intake(key))).collect(),
            went_back: job.log.iter().filter(|row| row.what == WENT_BACK).map(|row| row.reason.clone()).collect(),
            skipped,
            next,
        }
    }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<TestPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    job.board()?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/test", job.row.id));
    Ok(TestPage { frame, part: TestPart::from_job(&app, &job, ("", false)) })
}

/// The value as it is kept, of a test that there is.
fn checked(job: &Job, sent: &CheckForm) -> Result<String, Refusal> {
    if sent.list == SKIPPED && sent.name == Stop::Test.path() {
        return Ok(if sent.value.is_empty() { String::new() } else { "skipped".to_owned() });
    }
    let there = [TEST_OPEN, TEST_CLOSED].contains(&sent.list.as_str());
    if !there || !job.tests().iter().any(|test| test.name == sent.name) {
        let message = format!("“{}” is no test of this connector", sent.name);
        return Err(Refusal::field("test", message, "choose one of the list"));
    }
    if sent.list == TEST_CLOSED && !sent.value.is_empty() {
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
    let missing = job.opening.as_ref().map_or(0, |opening| opening.tally().missing.len());
    if missing == 0 {
        return Ok(());
    }
    let what = if missing == 1 { "one thing is".to_owned() } else { format!("{missing} things are") };
    Err(Refusal::field(
        "closed",
        format!("{what} out and not back:"),
        "the opening map names them, and where they were",
    ))
}

pub(crate) async fn enter(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<TestPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    job.board()?;
    let entry = sent.entry(checked(&job, &sent)?, app.now_ms())?;
    let (id, chosen) = (job.row.id, format!("{}|{}", sent.list, sent.name));
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    Ok(TestPart::from_job(&app, &Job::load(&app, id).await?, (&chosen, true)))
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
