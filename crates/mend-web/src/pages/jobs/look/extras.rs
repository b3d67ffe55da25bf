//! What was found while inside: an extra line that the customer accepts or declines, on record.

use axum::extract::{Path, Request, State};
use axum::response::Redirect;
use mend_core::shop::Stop;
use mend_core::units::Money;
use mend_store::{CustomerWord, ExtraRow, JobPhotoRow};
use serde::Deserialize;

use super::super::{JobPath, number};
use super::view::mending_of;
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::photograph;
use crate::refusal::Refusal;
use crate::upload::{self, UploadedForm};

/// Longest description, and longest name, characters.
const LONGEST: [usize; 2] = [200, 80];

fn fits(field: &'static str, value: &str, most: usize) -> Result<String, Refusal> {
    let value = value.trim();
    if (1..=most).contains(&value.chars().count()) {
        return Ok(value.to_owned());
    }
    Err(Refusal::field(field, "is wanted, and not too long", &format!("1 to {most} characters")))
}

/// What and for how much: as it was typed, or what mending the lands takes, as it is computed.
async fn typed(app: &App, job: &Job, sent: &UploadedForm) -> Result<(String, String), Refusal> {
    if sent.text("of") == "lands" {
        return mending_of(app, job).await?.ok_or(Refusal::NotYet("Every land is whole"));
    }
    let price = match sent.text("price").trim() {
        "" => String::new(),
        price => price
            .parse::<Money>()
            .map(|amount| amount.to_string())
            .map_err(|_| Refusal::field("price", format!("“{price}” is no amount"), "like 12.50; empty: nothing"))?,
    };
    Ok((fits("what was found", &sent.text("what"), LONGEST[0])?, price))
}

pub(crate) async fn add(State(app): State<App>, path: JobPath, request: Request) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let mut sent = upload::read(request, &photograph::FILE).await??;
    let (what, price) = typed(&app, &job, &sent).await?;
    let picture = sent.bytes("photo");
    let picture = if picture.is_empty() { None } else { Some(photograph::decode(picture).await??) };
    let (id, now) = (job.row.id, app.now_ms());
    app.changing(id, move |w| {
        let photo_id = picture.map(|photo| w.add_photo(&photo, now)).transpose()?;
        if let Some(photo_id) = photo_id {
            let stop = Stop::Look.path().to_owned();
            let words = what.clone();
            w.add_job_photo(id, &JobPhotoRow { id: 0, photo_id, stop, words, on_sheet: true, added_ms: now })?;
        }
        let (answer, who) = (String::new(), String::new());
        w.add_extra(id, &ExtraRow { id: 0, what, price, answer, who, found_ms: now, answered_ms: None, photo_id })
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/look#extras")))
}

/// The customer's answer, and who gave it.
#[derive(Deserialize)]
pub(crate) struct AnswerForm {
    answer: String,
    #[serde(default)]
    who: String,
}

pub(crate) async fn answer(
    State(app): State<App>,
    Path((id, extra)): Path<(String, String)>,
    Form(sent): Form<AnswerForm>,
) -> Result<Redirect, Refusal> {
    let id = number(&Path(id))?;
    let extra: i64 = extra.parse().map_err(|_| Refusal::NotFound("line"))?;
    if !["accepted", "declined"].contains(&sent.answer.as_str()) {
        return Err(Refusal::field("answer", format!("“{}” is no answer", sent.answer), "accepted or declined"));
    }
    let (who, now) = (fits("name", &sent.who, LONGEST[1])?, app.now_ms());
    Job::load(&app, id).await?;
    let answer = sent.answer;
    let there = app
        .changing(id, move |w| w.answer_extra(id, extra, CustomerWord { answer: &answer, who: &who, at_ms: now }))
        .await?;
    if !there {
        return Err(Refusal::NotFound("line"));
    }
    Ok(Redirect::to(&format!("/jobs/{id}/look#extras")))
}
