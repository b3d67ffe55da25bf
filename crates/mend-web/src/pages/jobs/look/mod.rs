//! Look and measure: in what state each land is, and a diode sheet before, with the port off, with the new part on and of a good board.
//!
//! - this file: the page, and what is entered; [`lists`]: which lists there are, [`tabs`] of them
//! - [`view`]: the part that every entry replaces: [`faces`] of the pins, and what the list [`comes_to`]
//! - [`meter`]: readings off a meter, hands-free; [`extras`]: what was found while inside, offered to the customer

mod comes_to;
pub(super) mod extras;
mod faces;
mod lists;
pub(super) mod meter;
mod tabs;
mod view;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::inspection::condition::Condition;
use mend_core::inspection::insulation::Insulation;
use mend_core::inspection::sheet::{DiodeReading, NoReading};
use mend_core::shop::Stop;
use mend_store::{CheckRow, NewCheck};
use serde::Deserialize;

use super::{JobPath, number};
use crate::App;
use crate::extract::{Form, Query};
use crate::job::{Job, SKIPPED, stored};
use crate::pages::Frame;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
pub(super) use lists::LookList;
pub(super) use tabs::{LookTab, inspect_tabs};
use view::LookPart;

#[derive(Template, WebTemplate)]
#[template(path = "jobs/look.html")]
pub(crate) struct LookPage {
    frame: Frame,
    part: LookPart,
}

/// Which list is shown.
#[derive(Deserialize)]
pub(crate) struct Shown {
    #[serde(default)]
    list: String,
}

/// The list of that key; the lands where there is none such.
fn known(list: &str) -> LookList {
    LookList::named(list).unwrap_or(LookList::Lands)
}

pub(crate) async fn show(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Query(shown): Query<Shown>,
) -> Result<LookPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/look", job.row.id));
    Ok(LookPage { frame, part: LookPart::load(&app, &job, known(&shown.list), "").await? })
}

/// An entry as it is sent; an empty value takes back what was there.
#[derive(Deserialize)]
pub(crate) struct CheckForm {
    pub(super) list: String,
    pub(super) name: String,
    #[serde(default)]
    pub(super) value: String,
    pub(super) token: String,
}

impl CheckForm {
    /// As it is to be kept.
    pub(super) fn entry(&self, value: String, at_ms: i64) -> Result<NewCheck, Refusal> {
        if !(1..=64).contains(&self.token.len()) {
            return Err(Refusal::field("token", "must have 1 to 64 characters", "reload the page"));
        }
        let (list, name) = (self.list.clone(), self.name.clone());
        Ok(NewCheck { row: CheckRow { list, name, value, entered_ms: at_ms }, token: self.token.clone() })
    }
}

/// The value as it is kept, of a joint that there is.
fn checked(job: &Job, sent: &CheckForm) -> Result<String, Refusal> {
    if sent.list == SKIPPED && sent.name == Stop::Look.path() {
        return Ok(if sent.value.is_empty() { String::new() } else { "skipped".to_owned() });
    }
    let unknown = || Refusal::field("list", format!("“{}” is no list", sent.list), "reload the page");
    let list = LookList::named(&sent.list).ok_or_else(unknown)?;
    let mut joints = job.board()?.1.connector.joints.iter();
    let there = match list {
        LookList::Between => job.insulation().iter().any(|(pair, _)| pair.left == sent.name),
        _ => joints.any(|joint| joint.name == sent.name && (list.is_lands() || joint.is_pin())),
    };
    if !there {
        let message = format!("“{}” is no pin of this connector", sent.name);
        return Err(Refusal::field("pin", message, "choose one in the picture"));
    }
    match list {
        _ if sent.value.is_empty() => Ok(String::new()),
        LookList::Lands | LookList::Bare => land(&sent.value),
        LookList::Between => between(&sent.value),
        LookList::Sheet(_) => reading(&sent.value),
    }
}

fn land(value: &str) -> Result<String, Refusal> {
    let names = Condition::ALL.map(Condition::name).join(", ");
    let unknown = || Refusal::field("condition", format!("“{value}” is no state of a land"), &names);
    Condition::named(value).map(|state| state.name().to_owned()).ok_or_else(unknown)
}

fn between(value: &str) -> Result<String, Refusal> {
    let unknown = || Refusal::field("between", format!("“{value}” is nothing that lies between pins"), "apart, joined");
    Insulation::named(value).map(|found| found.name().to_owned()).ok_or_else(unknown)
}

fn reading(value: &str) -> Result<String, Refusal> {
    DiodeReading::parse(value).map(stored).map_err(|why| {
        let what = match why {
            NoReading::Unread => "is no reading",
            NoReading::Beyond => "is more than a meter shows in diode mode, or less than nothing",
        };
        let hint = "type volts like 0.482, millivolts like 482, or OL where nothing flows";
        Refusal::field("reading", format!("“{value}” {what}"), hint)
    })
}

pub(crate) async fn enter(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<LookPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let entry = sent.entry(checked(&job, &sent)?, app.now_ms())?;
    let id = job.row.id;
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    let part = LookPart::load(&app, &Job::load(&app, id).await?, known(&sent.list), &sent.name).await?;
    Ok(part.beside_head())
}
