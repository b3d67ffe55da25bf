//! What a job takes and costs, before it is done: time stop by stop, a price line by line, a day that can be promised. A quote is
//! a sheet with a number; the customer's word on it stays on record, and another price wants another word.
//!
//! - `estimate`: times and prices; `sheet`: a quote, and the word on it

mod estimate;
mod sheet;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::shop::estimate::price::total;
use mend_core::shop::estimate::stage_time::StageTime;
use mend_core::shop::schedule::promise::promise;
use mend_core::units::Money;
use mend_formats::shop_settings::ShopSettings;
use mend_store::{ExtraRow, NewQuote, QuoteRow};
use serde::{Deserialize, Serialize};

use self::estimate::{Estimate, in_words, minutes};
pub(super) use self::sheet::{answer, sheet};
use super::method::comparison_view::DifficultyView;
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::scheduling::bench_plan;
use crate::visitor::Visitor;

/// Longest name, longest terms, characters.
const LONGEST: [usize; 2] = [80, 2000];

/// A stop's time, in words.
struct TimeView {
    name: &'static str,
    usual: String,
    within: String,
    /// How many jobs of the shop's own stand behind it.
    jobs: usize,
}

/// A line of a price, as it is shown and kept.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct QuoteLine {
    what: String,
    cost: String,
}

/// A quote, as it is kept.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct QuoteText {
    lines: Vec<QuoteLine>,
    /// The day that was promised; empty: none.
    promised: String,
    deposit: String,
    diagnosis_fee: String,
    terms: String,
}

/// A quote with the customer's word.
struct QuoteView {
    row: QuoteRow,
    made: String,
    answered: String,
    newest: bool,
}

/// When it can be promised, in words.
struct PromiseView {
    /// The earliest day that holds in eight of ten.
    day: String,
    usual: String,
    /// `2026-12-04`, as the intake has a day.
    due: String,
    draws: usize,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/quote.html")]
pub(crate) struct QuotePage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    times: Vec<TimeView>,
    hands: TimeView,
    /// Why there is no price yet; empty: there is one.
    unpriced: String,
    lines: Vec<QuoteLine>,
    total: String,
    currency: String,
    /// What was found inside and accepted by itself: a quote leaves it out.
    besides: Vec<QuoteLine>,
    /// Go or no-go; none: there is no board yet.
    difficulty: Option<DifficultyView>,
    /// The shop's fixed price for its kind of connector; empty: none.
    fixed: String,
    /// In how many of a hundred something goes wrong, and why that.
    risk: String,
    loss: String,
    /// None, and why.
    promise: Result<PromiseView, String>,
    quotes: Vec<QuoteView>,
    terms: String,
    deposit: String,
    closed: bool,
}

fn time_view(name: &'static str, time: StageTime, jobs: usize) -> TimeView {
    TimeView { name, usual: minutes(time.usual_s), within: minutes(time.within_s()), jobs }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<QuotePage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let (estimate, past) = Estimate::load(&app, &job).await?;
    let shop = crate::pages::settings::load(&app).await?;
    let id = job.row.id;
    let (quotes, extras) = app.reading(move |read| Ok((read.quotes(id)?, read.extras(id)?))).await?;
    let rate = shop.rate.parse::<Money>();
    let loss = rate.as_ref().map_or(Money::default(), |rate| estimate.loss(*rate));
    let lines = rate.as_ref().map_or_else(|_| Vec::new(), |rate| estimate.lines(*rate, loss));
    let jobs = estimate.stops.iter().map(|(stop, _)| past.count(*stop)).max().unwrap_or(0);
    let connector = job.board.as_ref().map_or("", |(_, board)| board.connector.name.as_str());
    Ok(QuotePage {
        difficulty: DifficultyView::of_job(&app, &job, visitor.words()).await,
        fixed: shop.prices.get(connector).cloned().unwrap_or_default(),
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{id}/quote")),
        head: JobHead::from_job(&job, None, app.now().date()),
        oob: false,
        job: id,
        times: estimate.stops.iter().map(|(stop, time)| time_view(stop.name(), *time, past.count(*stop))).collect(),
        hands: time_view("All together", estimate.hands, jobs),
        unpriced: if rate.is_err() { "The shop has no hourly rate yet".to_owned() } else { String::new() },
        total: total(&lines).to_string(),
        lines: lines.iter().map(in_words).collect(),
        currency: shop.currency,
        besides: extras.into_iter().filter(ExtraRow::is_accepted).map(besides).collect(),
        risk: estimate.risk(),
        loss: loss.to_string(),
        promise: promised(&app, &job).await?,
        quotes: quotes_in_words(&app, quotes),
        terms: if job.intake("terms").is_empty() { shop.terms } else { job.intake("terms").to_owned() },
        deposit: job.intake("deposit").to_owned(),
        closed: job.is_closed(),
    })
}

fn besides(row: ExtraRow) -> QuoteLine {
    QuoteLine { what: row.what, cost: row.price }
}

fn quotes_in_words(app: &App, quotes: Vec<QuoteRow>) -> Vec<QuoteView> {
    let at = |ms: i64| app.moment_of(ms).strftime("%-d %B %Y, %H:%M").to_string();
    let newest = quotes.iter().map(|row| row.id).max();
    let view = |row: QuoteRow| QuoteView {
        made: at(row.made_ms),
        answered: row.answered_ms.map(at).unwrap_or_default(),
        newest: Some(row.id) == newest,
        row,
    };
    quotes.into_iter().rev().map(view).collect()
}

/// The earliest day that holds in eight of ten, with everything else that is open.
async fn promised(app: &App, job: &Job) -> Result<Result<PromiseView, String>, Refusal> {
    let plan = bench_plan(app).await?;
    let Some(place) = plan.place_of(job.row.id) else {
        let waits = job.waits_for();
        let why = if waits.is_empty() { "Nothing is left to do".to_owned() } else { format!("It waits for {waits}") };
        return Ok(Err(why));
    };
    let (drawn, spread) = (plan.clone(), plan.jobs[place].spread);
    let drawn = tokio::task::spawn_blocking(move || promise(&drawn.workload, &drawn.schedule, place, spread)).await;
    let drawn = drawn.map_err(|error| Refusal::Broken(error.to_string()))?;
    let Ok(promise) = drawn else { return Ok(Err("The hours of four weeks are not enough for it".to_owned())) };
    let holds = plan.hours.moment(promise.holds);
    Ok(Ok(PromiseView {
        day: holds.strftime("%A %-d %B").to_string(),
        usual: plan.hours.in_words(promise.usual),
        due: holds.strftime("%Y-%m-%d").to_string(),
        draws: promise.draws,
    }))
}

/// What is typed of a quote.
#[derive(Deserialize)]
pub(crate) struct QuoteForm {
    /// A fixed price; empty: the computed one.
    #[serde(default)]
    fixed: String,
    /// What it costs where it goes wrong.
    #[serde(default)]
    loss: String,
    #[serde(default)]
    deposit: String,
    #[serde(default)]
    diagnosis_fee: String,
    #[serde(default)]
    terms: String,
    /// The day that is promised, `2026-12-04`; empty: none.
    #[serde(default)]
    promised: String,
}

fn amount(place: &str, typed: &str) -> Result<Option<Money>, Refusal> {
    let typed = typed.trim();
    if typed.is_empty() {
        return Ok(None);
    }
    let wrong =
        || Refusal::field(place, format!("“{typed}” is no amount"), "digits with at most two decimals, like 85.50");
    typed.parse().map(Some).map_err(|_| wrong())
}

impl QuoteForm {
    /// The quote and what it comes to.
    fn text(&self, estimate: &Estimate, shop: &ShopSettings) -> Result<(QuoteText, Money), Refusal> {
        let fixed = amount("fixed price", &self.fixed)?;
        let loss = amount("what damage costs", &self.loss)?;
        let [deposit, fee] = [("deposit", &self.deposit), ("diagnosis fee", &self.diagnosis_fee)]
            .map(|(place, typed)| amount(place, typed).map(|money| money.map(|m| m.to_string()).unwrap_or_default()));
        if self.terms.chars().count() > LONGEST[1] {
            return Err(Refusal::field("terms", "are too long", "up to 2000 characters"));
        }
        let promised = self.promised.trim();
        if !promised.is_empty() && promised.parse::<jiff::civil::Date>().is_err() {
            return Err(Refusal::field("promised", format!("“{promised}” is no day"), "like 2026-12-04"));
        }
        let (lines, sum) = match fixed {
            Some(fixed) => (vec![QuoteLine { what: "Fixed price".to_owned(), cost: fixed.to_string() }], fixed),
            None => {
                let hint = "set it in the shop's settings, or type a fixed price";
                let rate = shop.rate.parse::<Money>();
                let rate = rate.map_err(|_| Refusal::field("rate", "The shop has no hourly rate", hint))?;
                let lines = estimate.lines(rate, loss.unwrap_or_else(|| estimate.loss(rate)));
                (lines.iter().map(in_words).collect(), total(&lines))
            }
        };
        let (promised, terms) = (promised.to_owned(), self.terms.trim().to_owned());
        Ok((QuoteText { lines, promised, deposit: deposit?, diagnosis_fee: fee?, terms }, sum))
    }
}

pub(crate) async fn make(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<QuoteForm>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let (estimate, _) = Estimate::load(&app, &job).await?;
    let shop = crate::pages::settings::load(&app).await?;
    let (text, sum) = sent.text(&estimate, &shop)?;
    let (id, says, sum, now_ms) = (job.row.id, serde_json::to_string(&text)?, sum.to_string(), app.now_ms());
    // The job waits for the customer's word from now on.
    let quote = app
        .changing(id, move |write| write.add_quote(id, NewQuote { says: &says, total: &sum, made_ms: now_ms }))
        .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/quote/{quote}")))
}
