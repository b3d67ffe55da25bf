//! The pin walk: arrows move, a letter marks, the verdict follows.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::board::Joint;
use mend_core::inspection::{PinMark, verdict};
use mend_core::shop::Stop;
use mend_store::NewMark;
use serde::Deserialize;

use super::look::{CheckForm, LookTab, inspect_tabs};
use super::{JobPath, number};
use crate::App;
use crate::draw::pin_rows::{PinFace, PinRows, pin_rows};
use crate::extract::Form;
use crate::job::{Job, SKIPPED};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;

/// A count of one mark.
struct Tally {
    mark: PinMark,
    count: usize,
}

/// The part that every mark replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/pin_walk.html")]
pub(crate) struct PinWalk {
    head: JobHead,
    oob: bool,
    job: i64,
    tabs: Vec<LookTab>,
    rows: PinRows,
    title: String,
    rework: &'static str,
    /// `sound`, `open` or `rework`.
    class: &'static str,
    sound: bool,
    skipped: bool,
    tallies: Vec<Tally>,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/pins.html")]
struct PinsPage {
    frame: Frame,
    walk: PinWalk,
    connector: String,
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
) -> Result<impl axum::response::IntoResponse, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let connector = job.board()?.1.connector.name.clone();
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/pins", job.row.id));
    Ok(PinsPage { frame, walk: PinWalk::from_job(&app, &job, "", false)?, connector })
}

/// A mark as sent; empty takes it back.
#[derive(Deserialize)]
pub(crate) struct MarkForm {
    pin: String,
    #[serde(default)]
    mark: String,
    /// Made by the browser: the same mark sent again has the same one.
    token: String,
}

pub(crate) async fn mark(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<MarkForm>,
) -> Result<PinWalk, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    job.board()?;
    if sent.pin == SKIPPED {
        return skip(&app, job.row.id, sent).await;
    }
    if !job.walked().iter().any(|p| p.name == sent.pin) {
        let message = format!("“{}” is no pin of this connector", sent.pin);
        return Err(Refusal::field("pin", message, "choose one in the picture"));
    }
    if !sent.mark.is_empty() && PinMark::named(&sent.mark).is_none() {
        let names = PinMark::ALL.map(PinMark::name).join(", ");
        return Err(Refusal::field("mark", format!("“{}” is no mark", sent.mark), &names));
    }
    if sent.token.is_empty() || sent.token.len() > 64 {
        return Err(Refusal::field("token", "must have 1 to 64 characters", "reload the page"));
    }
    let id = job.row.id;
    let mark = NewMark { pin: sent.pin.clone(), mark: sent.mark, at_ms: app.now_ms(), token: sent.token };
    app.changing(id, move |w| w.mark_pin(id, &mark)).await?;
    PinWalk::from_job(&app, &Job::load(&app, id).await?, &sent.pin, true)
}

/// The stop is skipped, or is not after all; what was marked stays.
async fn skip(app: &App, id: i64, sent: MarkForm) -> Result<PinWalk, Refusal> {
    let value = if sent.mark.is_empty() { String::new() } else { "skipped".to_owned() };
    let (list, name) = (SKIPPED.to_owned(), Stop::Pins.path().to_owned());
    let form = CheckForm { list, name, value: value.clone(), token: sent.token };
    let entry = form.entry(value, app.now_ms())?;
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    PinWalk::from_job(app, &Job::load(app, id).await?, "", true)
}

impl PinWalk {
    fn from_job(app: &App, job: &Job, chosen: &str, oob: bool) -> Result<Self, Refusal> {
        let walked = job.walked();
        let verdict = verdict(&walked);
        let count = |mark: PinMark| Tally { mark, count: walked.iter().filter(|w| w.mark == Some(mark)).count() };
        let unfinished = matches!(verdict, mend_core::inspection::Verdict::Unfinished { .. });
        let face =
            |joint: &Joint| PinFace::walked(walked.iter().find(|pin| pin.name == joint.name).and_then(|pin| pin.mark));
        Ok(Self {
            head: JobHead::from_job(job, Some(Stop::Pins), app.now().date()),
            oob,
            job: job.row.id,
            tabs: inspect_tabs(job, &format!("/jobs/{}/pins", job.row.id)),
            rows: pin_rows(&job.board()?.1.connector, &face, false, chosen),
            title: crate::words::verdict(&verdict),
            rework: crate::words::rework(&verdict),
            class: if verdict.is_sound() {
                "sound"
            } else if unfinished {
                "open"
            } else {
                "rework"
            },
            sound: verdict.is_sound(),
            skipped: job.has_skipped(Stop::Pins),
            tallies: PinMark::ALL.map(count).into_iter().collect(),
        })
    }
}
