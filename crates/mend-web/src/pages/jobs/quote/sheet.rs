//! A quote as its sheet, and the customer's word on it.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::{Path, State};
use axum::response::Redirect;
use mend_formats::shop_settings::ShopSettings;
use mend_store::{CustomerWord, QuoteRow, TypedField};
use serde::Deserialize;

use super::super::number;
use super::{LONGEST, QuoteText, quotes_in_words};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;

#[derive(Template, WebTemplate)]
#[template(path = "jobs/quote_sheet.html")]
pub(crate) struct QuoteSheetPage {
    frame: Frame,
    job: i64,
    device: String,
    customer: String,
    serial: String,
    shop: ShopSettings,
    row: QuoteRow,
    text: QuoteText,
    made: String,
    answered: String,
    promised: String,
    /// May the customer still answer it?
    open: bool,
}

async fn quote(app: &App, job: i64, id: i64) -> Result<(QuoteRow, bool), Refusal> {
    let quotes = app.reading(move |read| read.quotes(job)).await?;
    let newest = quotes.last().map(|row| row.id);
    let found = quotes.into_iter().find(|row| row.id == id).ok_or(Refusal::NotFound("quote"))?;
    let is_newest = Some(found.id) == newest;
    Ok((found, is_newest))
}

pub(crate) async fn sheet(
    State(app): State<App>,
    visitor: Visitor,
    Path((job, id)): Path<(String, i64)>,
) -> Result<QuoteSheetPage, Refusal> {
    let job = Job::load(&app, number(&Path(job))?).await?;
    let (row, is_newest) = quote(&app, job.row.id, id).await?;
    let text: QuoteText = serde_json::from_str(&row.says)?;
    let views = quotes_in_words(&app, vec![row.clone()]);
    let (made, answered) = views.into_iter().map(|view| (view.made, view.answered)).next().unwrap_or_default();
    let promised = text.promised.parse::<jiff::civil::Date>();
    Ok(QuoteSheetPage {
        frame: Frame::new(format!("Quote {id}"), visitor.scale, "bench", format!("/jobs/{}/quote/{id}", job.row.id)),
        job: job.row.id,
        device: job.device().to_owned(),
        customer: job.intake("customer").to_owned(),
        serial: job.intake("serial").to_owned(),
        shop: crate::pages::settings::load(&app).await?,
        promised: promised.map(|day| day.strftime("%A %-d %B %Y").to_string()).unwrap_or_default(),
        open: is_newest && row.answer.is_empty() && !job.is_closed(),
        row,
        text,
        made,
        answered,
    })
}

#[derive(Deserialize)]
pub(crate) struct QuoteAnswer {
    who: String,
    answer: String,
}

/// The customer's word. What was accepted is the price agreed, and its day the day it is due.
pub(crate) async fn answer(
    State(app): State<App>,
    Path((job, id)): Path<(String, i64)>,
    Form(sent): Form<QuoteAnswer>,
) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&Path(job))?).await?;
    if job.is_closed() {
        return Err(Refusal::Closed);
    }
    let who = sent.who.trim().to_owned();
    if !(1..=LONGEST[0]).contains(&who.chars().count()) {
        return Err(Refusal::field("name", "is wanted", "who gives their word, 1 to 80 characters"));
    }
    if !["accepted", "declined"].contains(&sent.answer.as_str()) {
        return Err(Refusal::field("answer", format!("“{}” is no answer", sent.answer), "accepted or declined"));
    }
    let (job_id, now_ms) = (job.row.id, app.now_ms());
    let (row, _) = quote(&app, job_id, id).await?;
    let text: QuoteText = serde_json::from_str(&row.says)?;
    let taken = app.changing(job_id, move |write| {
        let word = CustomerWord { answer: &sent.answer, who: &who, at_ms: now_ms };
        if !write.answer_quote(job_id, id, word)? {
            return Ok(false);
        }
        if sent.answer == "accepted" {
            write.set_intake(job_id, TypedField::new("price", &row.total), now_ms)?;
            for (field, value) in [("due", &text.promised), ("deposit", &text.deposit), ("terms", &text.terms)] {
                if !value.is_empty() {
                    write.set_intake(job_id, TypedField::new(field, value), now_ms)?;
                }
            }
        }
        Ok(true)
    });
    if !taken.await? {
        return Err(Refusal::Outdated("That quote has its answer, or a newer one has taken its place".to_owned()));
    }
    Ok(Redirect::to(&format!("/jobs/{job_id}/quote/{id}")))
}
