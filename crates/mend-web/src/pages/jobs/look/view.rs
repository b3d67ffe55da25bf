//! The sheet as it is laid out: the pins with what was found, and what all of it comes to.

use askama::Template;
use askama_web::WebTemplate;
use mend_core::board::Joint;
use mend_core::inspection::condition::{Condition, mending};
use mend_core::inspection::insulation::Insulation;
use mend_core::shop::Stop;
use mend_core::units::Money;
use mend_store::ExtraRow;

use super::LookList;
use super::comes_to::{ListVerdict, over, said};
use super::faces::{bare_face, between_face, land_face, pin_face};
use super::tabs::{LookTab, tabs_of};
use crate::App;
use crate::draw::pin_rows::{PinRows, pin_rows};
use crate::job::{CONDITION, Job};
use crate::pages::JobHead;
use crate::refusal::Refusal;

/// A meter in diode mode drives a current: nothing else may.
const MEASURED_DEAD: &str = "Cell out, supply off and empty, strap on.";

/// A state of a land or a pair, and its key.
struct StateKey {
    key: char,
    name: &'static str,
    count: usize,
}

/// The part that every entry replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/look_part.html")]
pub(crate) struct LookPart {
    pub(super) head: JobHead,
    oob: bool,
    job: i64,
    list: LookList,
    tabs: Vec<LookTab>,
    /// Is it a list of the inspection?
    inspects: bool,
    /// What the verdict is about.
    over: &'static str,
    rows: PinRows,
    states: Vec<StateKey>,
    verdict: ListVerdict,
    /// What mending the lands takes, in words; empty: nothing to mend.
    mending: String,
    extras: Vec<ExtraRow>,
    skipped: bool,
    /// Of a sheet that is read.
    caution: &'static str,
    /// Is there a meter to read?
    meter: bool,
}

const fn key(state: Condition) -> char {
    match state {
        Condition::Whole => 'w',
        Condition::Corroded => 'c',
        Condition::Lifted => 'l',
        Condition::Torn => 't',
        Condition::Missing => 'x',
    }
}

/// What mending the lands takes at the shop's rate, in words and as a price; none where all are whole.
pub(super) async fn mending_of(app: &App, job: &Job) -> Result<Option<(String, String)>, Refusal> {
    let broken = job.broken_lands();
    if broken.is_empty() {
        return Ok(None);
    }
    let seconds: f64 = broken.iter().map(|(joint, state)| mending(joint, *state).in_seconds()).sum();
    let shop = crate::pages::settings::load(app).await?;
    let listed: Vec<String> = broken.iter().map(|(joint, state)| format!("{} {}", joint.name, state.name())).collect();
    let price = shop.rate.parse::<Money>().map_or(String::new(), |rate| rate.for_seconds(seconds).to_string());
    Ok(Some((format!("Mend lands: {} (about {:.0} min)", listed.join(", "), seconds / 60.0), price)))
}

/// The keys of a list; none where readings are typed.
fn states(job: &Job, list: LookList) -> Vec<StateKey> {
    let count = |name: &str| job.checks.iter().filter(|row| row.list == list.key() && row.value == name).count();
    match list {
        LookList::Lands | LookList::Bare => {
            let state = |state: Condition| StateKey { key: key(state), name: state.name(), count: count(state.name()) };
            Condition::ALL.map(state).into_iter().collect()
        }
        LookList::Between => {
            let state = |found: Insulation| StateKey {
                key: found.name().chars().next().unwrap_or(' '),
                name: found.name(),
                count: count(found.name()),
            };
            Insulation::ALL.map(state).into_iter().collect()
        }
        LookList::Sheet(_) => Vec::new(),
    }
}

impl LookPart {
    /// With the head of the page beside it: it is put in place of what is there.
    pub(super) fn beside_head(self) -> Self {
        Self { oob: true, ..self }
    }

    pub(super) async fn load(app: &App, job: &Job, list: LookList, chosen: &str) -> Result<Self, Refusal> {
        let (id, model) = (job.row.id, job.model);
        let mut connector = job.board()?.1.connector.clone();
        let read = move |read: mend_store::Read<'_>| {
            let good = model.map(|model| read.good_readings(model, id)).transpose()?;
            Ok((good.unwrap_or_default(), read.extras(id)?, read.instruments()?))
        };
        let (good, extras, instruments) = app.reading(read).await?;
        let pairs = job.insulation();
        if list == LookList::Between {
            // A pair goes by its left pin: the last of a row has none to its right.
            connector.joints.retain(|joint| pairs.iter().any(|(pair, _)| pair.left == joint.name));
        }
        let face = |joint: &Joint| match list {
            LookList::Lands => land_face(job.condition_in(CONDITION, &joint.name)),
            LookList::Bare => bare_face(job, joint),
            LookList::Between => between_face(&pairs, joint),
            LookList::Sheet(phase) => pin_face(job, phase, joint, &good),
        };
        Ok(Self {
            head: JobHead::from_job(job, Some(list.stop()), app.now().date()),
            oob: false,
            job: id,
            list,
            tabs: tabs_of(job, list),
            inspects: list.stop() == Stop::Pins,
            over: over(list),
            rows: pin_rows(&connector, &face, list.is_lands(), chosen),
            states: states(job, list),
            verdict: said(job, list, &good),
            mending: mending_of(app, job).await?.map_or(String::new(), |(what, price)| format!("{what}: {price}")),
            extras,
            skipped: job.has_skipped(Stop::Look),
            caution: MEASURED_DEAD,
            meter: instruments.iter().any(|row| row.kind == "meter"),
        })
    }
}
