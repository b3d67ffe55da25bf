//! Jobs that have been handed over: searched, a page at a time.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::shop::Stop;
use serde::Deserialize;

use crate::App;
use crate::extract::Query;
use crate::job::Summary;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Jobs on a page.
const PAGE: u32 = 40;
/// Longest search, characters.
const LONGEST: usize = 80;

/// What is looked for, and from which job downwards.
#[derive(Deserialize)]
pub(crate) struct JobsQuery {
    #[serde(default)]
    q: String,
    #[serde(default)]
    before: Option<i64>,
}

/// A job in the list.
struct FinishedRow {
    id: i64,
    device: String,
    customer: String,
    connector: String,
    /// How its bench run ended.
    run: String,
    href: String,
    /// Handed over, or still in the shop: a search finds both.
    stands: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "bench/finished.html")]
pub(crate) struct FinishedPage {
    frame: Frame,
    q: String,
    rows: Vec<FinishedRow>,
    /// Jobs whose row can't be read.
    unread: Vec<i64>,
    /// The last job here, where there are more.
    before: Option<i64>,
    is_first: bool,
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Query(asked): Query<JobsQuery>,
) -> Result<FinishedPage, Refusal> {
    let q: String = asked.q.trim().chars().take(LONGEST).collect();
    let (words, from) = (q.clone(), asked.before.unwrap_or(i64::MAX));
    let read = move |read: mend_store::Read<'_>| match words.as_str() {
        "" => read.closed_jobs(from, PAGE + 1),
        words => read.found_jobs(words, from, PAGE + 1),
    };
    let mut listed = app.reading(read).await?;
    let more = listed.len() > PAGE as usize;
    listed.truncate(PAGE as usize);
    let before = listed.last().filter(|_| more).map(|row| row.job_id);
    let (mut rows, mut unread) = (Vec::new(), Vec::new());
    for row in &listed {
        match Summary::parse(&row.summary) {
            Ok(summary) => rows.push(FinishedRow::from_summary(row.job_id, &summary, app.now().date())),
            Err(_) => unread.push(row.job_id),
        }
    }
    let frame = Frame::new("Finished jobs", visitor.scale, "bench", "/jobs".to_owned());
    Ok(FinishedPage { frame, q, rows, unread, before, is_first: asked.before.is_none() })
}

impl FinishedRow {
    fn from_summary(id: i64, summary: &Summary, today: jiff::civil::Date) -> Self {
        let closed = summary.facts(today).handed_over;
        let run = Stop::ALL.iter().position(|stop| *stop == Stop::Run);
        Self {
            id,
            device: summary.device.clone(),
            customer: summary.customer.clone(),
            connector: summary.connector.clone(),
            run: run.and_then(|k| summary.figures.get(k)).cloned().unwrap_or_default(),
            href: if closed { format!("/jobs/{id}/handover") } else { format!("/jobs/{id}") },
            stands: if closed { "handed over" } else { "in the shop" },
        }
    }
}
