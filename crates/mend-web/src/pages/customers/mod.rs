//! Customers at the counter: found by name or device, with their jobs and whether one is still under warranty; their data given
//! out and forgotten on request. What was done stays without the person.

use askama::Template;
use askama_web::WebTemplate;
use axum::Router;
use axum::extract::State;
use axum::http::Method;
use axum::response::{Redirect, Response};
use axum::routing::{get, post};
use jiff::{Timestamp, ToSpan};
use mend_store::{CustomerJobRow, TypedField};
use serde::{Deserialize, Serialize};

use super::Frame;
use super::saved::{JSON, saved};
use crate::App;
use crate::extract::{Form, Query, escaped};
use crate::job::Job;
use crate::people::Visit;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// Jobs that are shown at a time.
const MOST: u32 = 60;
/// Longest search, characters.
const LONGEST: usize = 80;
const DAY_MS: i64 = 24 * 3600 * 1000;

pub(crate) fn routes() -> Router<App> {
    Router::new()
        .route("/customers", get(show))
        .route("/customers/data", get(data))
        .route("/customers/again", post(again))
        .route("/customers/erase", post(erase))
}

/// A job of a customer, in words.
struct CustomerJobView {
    row: CustomerJobRow,
    taken_in: String,
    stands: String,
    /// Still under warranty.
    warranty: bool,
}

/// A customer with their jobs.
struct CustomerView {
    name: String,
    /// The same as an address has it.
    escaped: String,
    contact: String,
    jobs: Vec<CustomerJobView>,
    in_shop: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "customers/page.html")]
pub(crate) struct CustomersPage {
    frame: Frame,
    q: String,
    customers: Vec<CustomerView>,
    may_erase: bool,
    warranty_days: u32,
}

#[derive(Deserialize)]
pub(crate) struct CustomerQuery {
    #[serde(default)]
    q: String,
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    Query(asked): Query<CustomerQuery>,
) -> Result<CustomersPage, Refusal> {
    let q: String = asked.q.trim().chars().take(LONGEST).collect();
    let words = q.clone();
    let rows = app.reading(move |read| read.customer_jobs(&words, MOST)).await?;
    let warranty_days = super::settings::load(&app).await?.warranty_days;
    let mut customers: Vec<CustomerView> = Vec::new();
    for row in rows {
        let job = view(&app, row, warranty_days);
        match customers.iter_mut().find(|known| known.name.eq_ignore_ascii_case(&job.row.customer)) {
            Some(known) => known.jobs.push(job),
            None => customers.push(CustomerView {
                name: job.row.customer.clone(),
                escaped: escaped(&job.row.customer),
                contact: job.row.contact.clone(),
                in_shop: false,
                jobs: vec![job],
            }),
        }
    }
    for customer in &mut customers {
        customer.in_shop = customer.jobs.iter().any(|job| job.row.handed_over_ms.is_none());
    }
    let frame = Frame::new("Customers", visitor.scale, "customers", "/customers".to_owned());
    let may_erase = Visit::current().opens(&Method::POST, "/customers/erase");
    Ok(CustomersPage { frame, q, customers, may_erase, warranty_days })
}

fn view(app: &App, row: CustomerJobRow, warranty_days: u32) -> CustomerJobView {
    let day = |ms: i64| app.moment_of(ms).strftime("%-d %B %Y").to_string();
    let until = row.handed_over_ms.map(|ms| ms + i64::from(warranty_days) * DAY_MS);
    let warranty = until.is_some_and(|until| app.now_ms() < until);
    let stands = match (row.handed_over_ms, until) {
        (None, _) => "in the shop".to_owned(),
        (Some(back), Some(until)) if warranty => format!("back {}, under warranty until {}", day(back), day(until)),
        (Some(back), _) => format!("back {}", day(back)),
    };
    CustomerJobView { taken_in: day(row.taken_in_ms), stands, warranty, row }
}

#[derive(Deserialize)]
pub(crate) struct AgainForm {
    job: i64,
}

/// The same device comes again: a new job with what is known, that names the first as the one it returns from.
pub(crate) async fn again(State(app): State<App>, Form(sent): Form<AgainForm>) -> Result<Redirect, Refusal> {
    let (first, now_ms) = (Job::load(&app, sent.job).await?, app.now_ms());
    let warranty = i64::from(super::settings::load(&app).await?.warranty_days) * DAY_MS;
    let is_return = first.row.handed_over_ms.is_some_and(|back| now_ms < back + warranty);
    let made = app.writing(move |write| {
        let job = write.add_job(now_ms)?;
        for key in ["customer", "contact", "device", "serial", "unchanged"] {
            let value = first.intake(key);
            if !value.is_empty() {
                write.set_intake(job, TypedField::new(key, value), now_ms)?;
            }
        }
        let when = if is_return { "under warranty" } else { "after its warranty" };
        let earlier = format!("Job {} here, comes again {when}", first.row.id);
        write.set_intake(job, TypedField::new("earlier_work", &earlier), now_ms)?;
        if is_return {
            write.return_of(job, first.row.id)?;
        }
        Job::list(write, job)?;
        Ok(job)
    });
    Ok(Redirect::to(&format!("/jobs/{}/intake", made.await?)))
}

#[derive(Deserialize)]
pub(crate) struct NameQuery {
    name: String,
}

/// A customer's job, as it is given out.
#[derive(Serialize)]
struct GivenOut {
    job: i64,
    taken_in: String,
    handed_over: Option<String>,
    intake: std::collections::BTreeMap<String, String>,
    quotes: Vec<GivenQuote>,
}

/// A quote, as it is given out.
#[derive(Serialize)]
struct GivenQuote {
    number: i64,
    total: String,
    answer: String,
    by: String,
}

/// Everything that is kept of a customer.
pub(crate) async fn data(State(app): State<App>, Query(asked): Query<NameQuery>) -> Result<Response, Refusal> {
    let name = asked.name;
    let read = app.reading(move |read| {
        let rows = read.jobs_of_customer(&name)?;
        rows.into_iter().map(|row| Ok((read.job(row.job)?, read.quotes(row.job)?))).collect::<Result<Vec<_>, _>>()
    });
    let at = |ms: i64| Timestamp::from_millisecond(ms).unwrap_or_default().to_string();
    let given = read.await?.into_iter().filter_map(|(job, quotes)| {
        let job = job?;
        let quote = |row: mend_store::QuoteRow| GivenQuote {
            number: row.id,
            total: row.total,
            answer: row.answer,
            by: row.who,
        };
        Some(GivenOut {
            job: job.id,
            taken_in: at(job.taken_in_ms),
            handed_over: job.handed_over_ms.map(at),
            intake: job.intake,
            quotes: quotes.into_iter().map(quote).collect(),
        })
    });
    let given: Vec<GivenOut> = given.collect();
    if given.is_empty() {
        return Err(Refusal::NotFound("customer"));
    }
    Ok(saved(JSON, "customer.json", serde_json::to_string_pretty(&given)?))
}

/// Forgets a customer, unless something of theirs is in the shop.
pub(crate) async fn erase(State(app): State<App>, Form(sent): Form<NameQuery>) -> Result<Redirect, Refusal> {
    let name = sent.name.clone();
    let rows = app.reading(move |read| read.jobs_of_customer(&name)).await?;
    if rows.is_empty() {
        return Err(Refusal::NotFound("customer"));
    }
    if let Some(open) = rows.iter().find(|row| row.handed_over_ms.is_none()) {
        let hint = "hand it over first: else nobody knows whose it is";
        return Err(Refusal::field("customer", format!("job {} is still in the shop", open.job), hint));
    }
    forget(&app, sent.name).await?;
    Ok(Redirect::to("/customers"))
}

async fn forget(app: &App, name: String) -> Result<(), Refusal> {
    app.writing(move |write| {
        let jobs: Vec<i64> = write.read().jobs_of_customer(&name)?.iter().map(|row| row.job).collect();
        write.erase_customer(&name, &jobs)?;
        jobs.iter().try_for_each(|job| Job::list(write, *job))
    })
    .await
}

/// Forgets who the shop keeps no longer; answers how many.
pub(crate) async fn forget_old(app: &App) -> Result<usize, Refusal> {
    let months = super::settings::load(app).await?.forget_months;
    if months == 0 {
        return Ok(0);
    }
    let before = app.now().checked_sub(i64::from(months).months());
    let before_ms = before.map_err(|error| Refusal::Broken(error.to_string()))?.timestamp().as_millisecond();
    let old = app.reading(move |read| read.customers_until(before_ms)).await?;
    let count = old.len();
    for name in old {
        forget(app, name).await?;
    }
    Ok(count)
}
