//! Intake: every field is kept as it is typed.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use mend_core::shop::{FieldKind, IntakeField, Stop, check_field, consent_terms};
use mend_store::TypedField;
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::Job;
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::FindingView;

/// A field as it stands on the page.
struct IntakeFieldView {
    key: &'static str,
    label: &'static str,
    /// `line`, `text`, `choice`, `tick`, `money` or `day`.
    kind: &'static str,
    choices: &'static [&'static str],
    wanted: bool,
    value: String,
}

/// Fields that are asked together.
struct Section {
    title: &'static str,
    fields: Vec<IntakeFieldView>,
    terms: bool,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/intake.html")]
pub(crate) struct IntakePage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    sections: Vec<Section>,
    terms: [&'static str; 4],
}

/// What comes back when a field was kept, or could not be.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/intake_kept.html")]
struct SavedField {
    head: JobHead,
    oob: bool,
    at: String,
    refused: Option<FindingView>,
}

const SECTIONS: [(&str, &[&str]); 4] = [
    ("Whose and what", &["kind", "customer", "contact", "device", "serial"]),
    ("What happened", &["symptom", "broke", "power_on"]),
    ("As it came", &["earlier_work", "inside", "unchanged"]),
    ("Agreed", &["consent", "terms", "price", "deposit", "due", "waits_for"]),
];

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<IntakePage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let section = |(title, keys): (&'static str, &[&str])| Section {
        title,
        fields: keys.iter().filter_map(|key| IntakeField::named(key)).map(|f| view(f, &job)).collect(),
        terms: title == "Agreed",
    };
    Ok(IntakePage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/intake", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Intake), app.now().date()),
        oob: false,
        sections: SECTIONS.map(section).into_iter().collect(),
        terms: consent_terms(),
    })
}

fn view(field: IntakeField, job: &Job) -> IntakeFieldView {
    let (kind, choices): (_, &[&str]) = match field.kind {
        FieldKind::Line => ("line", &[]),
        FieldKind::Text => ("text", &[]),
        FieldKind::Choice(choices) => ("choice", choices),
        FieldKind::Tick => ("tick", &[]),
        FieldKind::Money => ("money", &[]),
        FieldKind::Day => ("day", &[]),
    };
    // Where nothing was said it is a replacement.
    let value = if field.key == "kind" { job.kind().name().to_owned() } else { job.intake(field.key).to_owned() };
    let (key, label, wanted) = (field.key, field.label, field.is_wanted(job.kind()));
    IntakeFieldView { key, label, kind, choices, wanted, value }
}

/// One field, typed.
#[derive(Deserialize)]
pub(crate) struct IntakeForm {
    field: String,
    /// An unticked box sends none.
    #[serde(default)]
    value: String,
}

pub(crate) async fn keep(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(typed): Form<IntakeForm>,
) -> Result<Response, Refusal> {
    let id = number(&path)?;
    let field = IntakeField::named(&typed.field)
        .ok_or_else(|| Refusal::field(&typed.field, "is no field of the intake", "see the intake page"))?;
    let checked = check_field(field, &typed.value);
    if let Ok(value) = &checked {
        let (value, now) = (value.clone(), app.now_ms());
        let known = app.reading(move |r| r.job(id)).await?;
        known.ok_or(Refusal::NotFound("job"))?;
        app.changing(id, move |w| w.set_intake(id, TypedField::new(field.key, &value), now)).await?;
    }
    let (job, now) = (Job::load(&app, id).await?, app.now());
    let status = if checked.is_ok() { StatusCode::OK } else { StatusCode::UNPROCESSABLE_ENTITY };
    let head = JobHead::from_job(&job, Some(Stop::Intake), now.date());
    let refused = checked.err().map(|finding| visitor.words().finding(&finding));
    let kept = SavedField { head, oob: true, at: now.strftime("%H:%M:%S").to_string(), refused };
    Ok((status, kept).into_response())
}
