//! The bench: what to pick up now, what each job waits for; on a first start, what to do first.

use std::sync::Arc;

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::routing::get;
use jiff::civil::Date;
use mend_core::shop::people::Permission;
use mend_core::shop::{self, Facts, RunState, Stop};
use mend_store::ListedJob;

use crate::App;
use crate::job::Summary;
use crate::pages::{Frame, JobHead, stop_href};
use crate::people::Visit;
use crate::pictures::{View, drawn};
use crate::refusal::Refusal;
use crate::scheduling::bench_plan;
use crate::visitor::Visitor;

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/", get(show))
}

/// A job on the bench.
pub(crate) struct JobCard {
    pub(crate) head: JobHead,
    /// The next step, as an order to oneself.
    pub(crate) call: String,
    pub(crate) href: String,
    pub(crate) connector: String,
    pub(crate) waits_for: String,
    /// The version of its board.
    board: Option<i64>,
}

/// Jobs of one kind.
struct Group {
    title: &'static str,
    cards: Vec<JobCard>,
}

/// A thing that a new shop does first.
struct FirstThing {
    name: &'static str,
    why: &'static str,
    href: &'static str,
    done: bool,
    next: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "bench/bench.html")]
struct BenchPage {
    frame: Frame,
    first: Option<JobCard>,
    picture: Option<Arc<str>>,
    groups: Vec<Group>,
    today: String,
    /// Jobs whose row can't be read.
    unread: Vec<i64>,
    /// So many jobs from files wait for their plans.
    preparing: usize,
    finished: bool,
    first_things: Vec<FirstThing>,
    /// What each person does next, by the schedule.
    next: Vec<NextView>,
}

/// What somebody does next.
struct NextView {
    name: String,
    task: String,
    href: String,
    is_me: bool,
}

/// With more open jobs than this the schedule has a page of its own alone: it would be computed anew with every press.
const MOST_ON_BENCH: usize = 60;

/// What each person does next; nothing where nobody has a name.
async fn next_of_each(app: &App, open: usize) -> Result<Vec<NextView>, Refusal> {
    if open == 0 || open > MOST_ON_BENCH {
        return Ok(Vec::new());
    }
    let plan = bench_plan(app).await?;
    let me = Visit::current().person().map(|person| person.id);
    let of = |(worker, (job, task)): (usize, (usize, usize))| {
        let person = plan.people[worker].as_ref()?;
        let scheduled = &plan.jobs[job];
        Some(NextView {
            name: person.name.clone(),
            task: format!("{}: {}", plan.task_name(job, task), scheduled.device),
            href: format!("/jobs/{}", scheduled.id),
            is_me: me == Some(person.id),
        })
    };
    let mut next: Vec<NextView> = plan.next_tasks().into_iter().filter_map(of).collect();
    next.sort_by_key(|view| !view.is_me);
    Ok(next)
}

/// What the page reads, in one go.
struct ShopState {
    jobs: Vec<ListedJob>,
    finished: bool,
    stations: bool,
    equipment: bool,
    boards: bool,
    any_job: bool,
}

async fn look(app: &App) -> Result<ShopState, Refusal> {
    app.reading(|read| {
        Ok(ShopState {
            jobs: read.open_jobs()?,
            finished: read.has_closed_jobs()?,
            stations: read.stations()?.iter().any(|station| station.retired_ms.is_none()),
            equipment: read.equipment()?.is_some(),
            boards: read.has_boards()?,
            any_job: read.has_jobs()?,
        })
    })
    .await
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<BenchPage, Refusal> {
    let (now, seen) = (app.now(), look(&app).await?);
    let next = next_of_each(&app, seen.jobs.len()).await?;
    let first_things = first_things(&seen);
    let mut unread = Vec::new();
    let mut cards: Vec<(Facts, JobCard)> = Vec::new();
    for row in seen.jobs {
        match Summary::parse(&row.summary) {
            Ok(summary) => {
                cards.push((summary.facts(now.date()), JobCard::from_summary(row.job_id, &summary, now.date())))
            }
            Err(_) => unread.push(row.job_id),
        }
    }
    cards.sort_by_key(|(facts, card)| (shop::rank(facts), card.head.id));
    let titles = [(0, "Under way"), (1, "Late"), (2, "Ready for the bench"), (3, "Waiting")];
    let mut groups: Vec<Group> = titles.iter().map(|(_, title)| Group { title, cards: vec![] }).collect();
    let mut first = None;
    for (facts, card) in cards {
        let (rank, _) = shop::rank(&facts);
        if first.is_none() && rank < 3 {
            first = Some(card);
        } else if let Some(group) = groups.get_mut(usize::from(rank)) {
            group.cards.push(card);
        }
    }
    groups.retain(|group| !group.cards.is_empty());
    let picture = match first.as_ref().and_then(|card| card.board) {
        Some(board) => drawn(&app, board, View::Card, visitor).await?,
        None => None,
    };
    Ok(BenchPage {
        frame: Frame::new("Bench", visitor.scale, "bench", "/".to_owned()),
        first,
        picture,
        groups,
        today: now.strftime("%A %-d %B").to_string(),
        unread,
        preparing: app.preparing(),
        finished: seen.finished,
        first_things,
        next,
    })
}

/// What a new shop does first, until its first job is there.
fn first_things(seen: &ShopState) -> Vec<FirstThing> {
    if (seen.any_job && seen.stations) || !Visit::current().may(Permission::BenchSettings) {
        return Vec::new();
    }
    let things = [
        ("Add your hot-air station", "Every plan is computed for the station that blows.", "/stations", seen.stations),
        (
            "Say what the bench has",
            "Tips, shields, solder: methods that need more are ruled out.",
            "/equipment",
            seen.equipment,
        ),
        ("Draw or import a board", "Its outline, the connector, and what stands near it.", "/boards", seen.boards),
        ("Make the first job", "From the customer's words to the handover sheet.", "/jobs", seen.any_job),
    ];
    let next = things.iter().position(|(.., done)| !done);
    let thing = |(k, (name, why, href, done)): (usize, (&'static str, &'static str, &'static str, bool))| FirstThing {
        name,
        why,
        href,
        done,
        next: Some(k) == next,
    };
    things.into_iter().enumerate().map(thing).collect()
}

impl JobCard {
    /// A job as a list has it.
    pub(crate) fn from_summary(id: i64, summary: &Summary, today: Date) -> Self {
        let facts = summary.facts(today);
        let next = shop::next(&facts);
        let call = match (next, facts.run) {
            (Some(Stop::Run), RunState::AtStep(at, of)) => format!("Go on at step {at} of {of}"),
            (Some(stop), _) => shop::call_of(facts.kind, stop).to_owned(),
            (None, _) => "Its sheet".to_owned(),
        };
        let path = next.map_or("handover", |stop| shop::path_of(facts.kind, stop));
        Self {
            head: JobHead::from_summary(id, summary, None, today),
            call,
            href: Some(stop_href(id, path)).filter(|href| !href.is_empty()).unwrap_or(format!("/jobs/{id}/intake")),
            connector: summary.connector.clone(),
            waits_for: facts.waits_for,
            board: summary.board,
        }
    }
}
