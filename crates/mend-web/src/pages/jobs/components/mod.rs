//! What stands near, after the heat: those that came near their limit first; in place, knocked off or harmed, and measured where
//! a value is known. What was knocked off goes back by a small plan of its own, on [`back`].

pub(super) mod back;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use mend_core::board::{Component, NominalValue};
use mend_core::inspection::component_check::{ComponentState, ValueStanding, stands};
use mend_core::planning::margin::{LimitStatus, Margin, MarginKind};
use mend_core::planning::plan::Plan;
use mend_core::shop::Stop;

use super::look::{CheckForm, LookTab, inspect_tabs};
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{COMPONENTS, Job, VALUES};
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words;

/// A component as a row.
struct ComponentRow {
    name: String,
    row: usize,
    /// Its place on the board.
    place: usize,
    /// Why it is looked for; empty: it kept well off its limit.
    why: String,
    /// `in-place`, `knocked-off`, `harmed` or `untried`.
    class: &'static str,
    says: &'static str,
    /// What it is worth; empty: nobody said so.
    known: String,
    /// What was measured, and how that stands.
    measured: String,
    stands: &'static str,
    /// It was knocked off and is soldered: it goes back by a plan.
    goes_back: bool,
}

/// The part that every entry replaces.
#[derive(Template, WebTemplate)]
#[template(path = "jobs/components_part.html")]
pub(crate) struct ComponentsPart {
    head: JobHead,
    oob: bool,
    job: i64,
    tabs: Vec<LookTab>,
    rows: Vec<ComponentRow>,
    chosen: String,
    states: [(char, &'static str); 3],
    title: String,
    class: &'static str,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/components.html")]
pub(crate) struct ComponentsPage {
    frame: Frame,
    part: ComponentsPart,
}

const fn state_class(state: Option<ComponentState>) -> &'static str {
    match state {
        None => "untried",
        Some(ComponentState::InPlace) => "works",
        Some(ComponentState::KnockedOff) => "fails",
        Some(ComponentState::Harmed) => "fails harmed",
    }
}

const fn standing_words(standing: ValueStanding) -> &'static str {
    match standing {
        ValueStanding::AsKnown => "as it should be",
        ValueStanding::TooLow => "too low: open or cracked",
        ValueStanding::TooHigh => "too high: open",
        ValueStanding::OtherKind => "not what such a thing is measured in",
    }
}

/// The plan that heated them: that of the run, else the one that there is.
fn plan_of(job: &Job) -> Option<&Plan> {
    let ran = job.bench.as_ref().map(|bench| &bench.planned.plan);
    ran.or_else(|| job.bench_plan().map(|planned| &planned.plan))
}

/// Why a component is looked for by name: how much its plan left it.
fn why(plan: Option<&Plan>, name: &str, words: words::Words) -> String {
    let of = |margin: &&Margin| {
        margin.kind == MarginKind::Component && margin.name == name && margin.status != LimitStatus::Inside
    };
    plan.and_then(|plan| plan.margins.iter().find(of)).map_or(String::new(), |margin| match margin.headroom_k {
        k if k >= 0.0 => format!("{} below its limit", words.apart(k)),
        k => format!("{} past its limit", words.apart(-k)),
    })
}

impl ComponentsPart {
    fn from_job(app: &App, job: &Job, visitor: Visitor, chosen: &str) -> Result<Self, Refusal> {
        let (plan, board) = (plan_of(job), &job.board()?.1);
        let why = |component: &Component| why(plan, &component.name, visitor.words());
        let components = board.components.iter().enumerate();
        let mut rows: Vec<ComponentRow> = components.map(|(place, near)| row(job, place, near, why(near))).collect();
        // Those that the plan names first, the rest as the board has them.
        rows.sort_by_key(|row| row.why.is_empty());
        rows.iter_mut().enumerate().for_each(|(k, row)| row.row = k);
        let (title, class) = said(&rows);
        Ok(Self {
            head: JobHead::from_job(job, Some(Stop::Pins), app.now().date()),
            oob: false,
            job: job.row.id,
            tabs: inspect_tabs(job, &format!("/jobs/{}/components", job.row.id)),
            rows,
            chosen: chosen.to_owned(),
            states: ComponentState::ALL.map(|state| (state.name().chars().next().unwrap_or(' '), state.name())),
            title,
            class,
        })
    }
}

fn row(job: &Job, place: usize, component: &Component, why: String) -> ComponentRow {
    let state = job.check(COMPONENTS, &component.name).and_then(ComponentState::named);
    let measured = job.check(VALUES, &component.name).unwrap_or_default();
    let standing = component.value.zip(measured.parse().ok()).map(|(known, measured)| stands(known, measured));
    ComponentRow {
        row: place,
        place,
        why,
        class: state_class(state),
        says: state.map_or("", ComponentState::name),
        known: component.value.map_or(String::new(), |value| value.to_string()),
        measured: measured.to_owned(),
        stands: standing.map_or("", standing_words),
        goes_back: state == Some(ComponentState::KnockedOff) && component.soldered() > 0.0,
        name: component.name.clone(),
    }
}

/// What all of them come to: those that the plan names are wanted.
fn said(rows: &[ComponentRow]) -> (String, &'static str) {
    let harmed: Vec<&str> =
        rows.iter().filter(|row| row.class.starts_with("fails")).map(|row| row.name.as_str()).collect();
    let wrong = rows.iter().find(|row| !row.stands.is_empty() && row.stands != standing_words(ValueStanding::AsKnown));
    let left = rows.iter().filter(|row| !row.why.is_empty() && row.says.is_empty()).count();
    match (harmed.as_slice(), wrong, left) {
        ([], Some(row), _) => (format!("{}: {}", row.name, row.stands), "rework"),
        ([], None, 0) if rows.iter().all(|row| row.says.is_empty()) => {
            ("Nothing came near its limit".to_owned(), "sound")
        }
        ([], None, 0) => ("All in place".to_owned(), "sound"),
        ([], None, 1) => ("One came near its limit: look at it".to_owned(), "open"),
        ([], None, left) => (format!("{left} came near their limit: look at them"), "open"),
        (harmed, _, _) => (format!("To mend: {}", harmed.join(", ")), "rework"),
    }
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<ComponentsPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let frame = Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/components", job.row.id));
    Ok(ComponentsPage { frame, part: ComponentsPart::from_job(&app, &job, visitor, "")? })
}

/// The value as it is kept, of a component that there is.
fn checked(job: &Job, sent: &CheckForm) -> Result<String, Refusal> {
    let component = job.board()?.1.components.iter().find(|component| component.name == sent.name);
    let component = component.ok_or_else(|| {
        Refusal::field("component", format!("“{}” is no component of this board", sent.name), "choose one of the list")
    })?;
    match sent.list.as_str() {
        _ if sent.value.trim().is_empty() => Ok(String::new()),
        COMPONENTS => {
            let names = ComponentState::ALL.map(ComponentState::name).join(", ");
            let unknown = || Refusal::field("component", format!("“{}” is no state of one", sent.value), &names);
            ComponentState::named(&sent.value).map(|state| state.name().to_owned()).ok_or_else(unknown)
        }
        VALUES => {
            let like = component.value.map_or("100 nF".to_owned(), |value| value.to_string());
            let object = |_| {
                let message = format!("“{}” is no value", sent.value.trim());
                Refusal::field("measured value", message, &format!("with its unit, like {like}"))
            };
            sent.value.parse::<NominalValue>().map(|value| value.to_string()).map_err(object)
        }
        list => Err(Refusal::field("list", format!("“{list}” is no list"), "reload the page")),
    }
}

pub(crate) async fn enter(
    State(app): State<App>,
    visitor: Visitor,
    path: JobPath,
    Form(sent): Form<CheckForm>,
) -> Result<ComponentsPart, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let (id, entry) = (job.row.id, sent.entry(checked(&job, &sent)?, app.now_ms())?);
    app.changing(id, move |w| w.enter_check(id, &entry)).await?;
    let part = ComponentsPart::from_job(&app, &Job::load(&app, id).await?, visitor, &sent.name)?;
    Ok(ComponentsPart { oob: true, ..part })
}
