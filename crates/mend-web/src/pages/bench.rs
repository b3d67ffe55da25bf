//! The bench: what to pick up now, what each job waits for.

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::routing::get;
use mend_core::shop::{self, Facts, RunState};

use crate::App;
use crate::draw::board_map::{BoardMap, Drawing, Window};
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

pub(crate) fn routes() -> Router<App> {
    Router::new().route("/", get(show))
}

/// A job on the bench.
struct Card {
    head: JobHead,
    /// The next step, as an order to oneself.
    call: String,
    href: String,
    connector: String,
    waits_for: String,
    /// The part and what is near it, for the card that is shown large.
    picture: Option<BoardMap>,
}

/// Jobs of one kind.
struct Group {
    title: &'static str,
    cards: Vec<Card>,
}

#[derive(Template, WebTemplate)]
#[template(path = "bench/bench.html")]
struct BenchPage {
    frame: Frame,
    first: Option<Card>,
    groups: Vec<Group>,
    today: String,
}

async fn show(State(app): State<App>, visitor: Visitor) -> Result<BenchPage, Refusal> {
    let now = app.now();
    let jobs = Job::all(&app).await?;
    let mut jobs: Vec<(Facts, Job)> = jobs.into_iter().map(|job| (job.facts(now.date()), job)).collect();
    jobs.sort_by_key(|(facts, job)| (shop::rank(facts), job.row.id));
    let mut first = None;
    let titles = [(0, "Under way"), (1, "Late"), (2, "Ready for the bench"), (3, "Waiting"), (4, "Given back")];
    let mut groups: Vec<Group> = titles.iter().map(|(_, title)| Group { title, cards: vec![] }).collect();
    for (facts, job) in jobs {
        let (rank, _) = shop::rank(&facts);
        let card = Card::of(&facts, &job, now.date());
        if first.is_none() && rank < 3 {
            first = Some(card.with_picture(&job, visitor));
        } else if let Some(group) = groups.get_mut(usize::from(rank)) {
            group.cards.push(card);
        }
    }
    groups.retain(|group| !group.cards.is_empty());
    let today = now.strftime("%A %-d %B").to_string();
    Ok(BenchPage { frame: Frame::new("Bench", visitor.scale, "bench", "/".to_owned()), first, groups, today })
}

impl Card {
    fn of(facts: &Facts, job: &Job, today: jiff::civil::Date) -> Self {
        let next = shop::next(facts);
        let call = match (next, facts.run) {
            (Some(shop::Stop::Run), RunState::AtStep(at, of)) => format!("Go on at step {at} of {of}"),
            (Some(stop), _) => stop.call().to_owned(),
            (None, _) => "Its sheet".to_owned(),
        };
        let path = next.map_or("handover", shop::Stop::path);
        Self {
            head: JobHead::of(job, None, today),
            call,
            href: format!("/jobs/{}/{path}", job.row.id),
            connector: job.board.as_ref().map_or(String::new(), |(_, b)| b.connector.name.clone()),
            waits_for: facts.waits_for.clone(),
            picture: None,
        }
    }

    fn with_picture(self, job: &Job, visitor: Visitor) -> Self {
        let draw = |(_, board): &(i64, mend_core::board::Board)| {
            let (face, margins, scale) = (board.connector.face, &[][..], visitor.scale);
            Drawing {
                board,
                face,
                window: Window::Near(14.0),
                margins,
                photos: &[],
                scale,
                lettering: 3.2,
                overlay: None,
            }
            .draw(None)
        };
        Self { picture: job.board.as_ref().map(draw), ..self }
    }
}
