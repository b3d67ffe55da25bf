//! The sheet as it is laid out: the pins with what was found, and what all of it comes to.

use askama::Template;
use askama_web::WebTemplate;
use mend_core::board::Joint;
use mend_core::inspection::condition::{Condition, mending};
use mend_core::inspection::fault::{Suspicion, suspicion};
use mend_core::inspection::insulation::{Insulation, InsulationVerdict, Neighbours, insulated};
use mend_core::inspection::sheet::{DiodeReading, PinReference, PinStanding, SheetPhase, standing};
use mend_core::inspection::{PinMark, Verdict, Walked, verdict};
use mend_core::shop::Stop;
use mend_core::units::Money;
use mend_store::{CheckRow, ExtraRow};

use super::LookList;
use crate::App;
use crate::draw::pin_rows::{PinFace, PinRows, pin_rows};
use crate::job::{COMPONENTS, CONDITION, CONDITION_AFTER, Job, reference};
use crate::pages::JobHead;
use crate::refusal::Refusal;
use crate::words;

/// A meter in diode mode drives a current: nothing else may.
const MEASURED_DEAD: &str = "Cell out, supply off and empty, strap on.";

/// A list of the stop, as a tab.
pub(crate) struct LookTab {
    pub(crate) href: String,
    pub(crate) name: &'static str,
    pub(crate) done: usize,
    pub(crate) of: usize,
    pub(crate) here: bool,
}

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
    title: String,
    /// `sound`, `open` or `rework`.
    class: &'static str,
    reasons: Vec<String>,
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

fn land_face(state: Option<Condition>) -> PinFace {
    let (class, glyph) = match state {
        None => ("unwalked", ""),
        Some(Condition::Whole) => ("firm", "✓"),
        Some(Condition::Corroded) => ("moves", "≈"),
        Some(Condition::Lifted) => ("moves", "⌒"),
        Some(Condition::Torn) => ("missing", "⁄"),
        Some(Condition::Missing) => ("missing", "✕"),
    };
    PinFace::new(class, glyph, state.map_or("not looked at", Condition::name))
}

/// A land with the part off, held against how it was found.
fn bare_face(job: &Job, joint: &Joint) -> PinFace {
    let face = land_face(job.condition_in(CONDITION_AFTER, &joint.name));
    let before = job.condition_in(CONDITION, &joint.name).map(|state| format!(", {} with the part on", state.name()));
    PinFace { says: face.says + &before.unwrap_or_default(), ..face }
}

/// A pin and the one to its right.
fn between_face(pairs: &[(Neighbours, Option<Insulation>)], joint: &Joint) -> PinFace {
    let Some((pair, found)) = pairs.iter().find(|(pair, _)| pair.left == joint.name) else {
        return PinFace::new("unwalked", "", "");
    };
    let (class, glyph) = match found {
        None if pair.may_be_joined => ("read", ""),
        None => ("unwalked", ""),
        Some(Insulation::Apart) => ("firm", "‖"),
        Some(Insulation::Joined) if pair.may_be_joined => ("read", "∞"),
        Some(Insulation::Joined) => ("missing", "∞"),
    };
    let may = if pair.may_be_joined { ", the board may join them" } else { "" };
    let says = format!("to {}: {}{may}", pair.right, found.map_or("not measured", Insulation::name));
    PinFace::new(class, glyph, says)
}

/// With its unit.
fn measured(reading: DiodeReading) -> String {
    if reading == DiodeReading::Open { "OL".to_owned() } else { format!("{} mV", words::reading(reading)) }
}

fn pin_face(job: &Job, (phase, joint): (SheetPhase, &Joint), good: &[CheckRow]) -> PinFace {
    let reference = reference(good, &joint.name);
    let like = reference.as_ref().map_or(String::new(), |good| {
        let boards = if good.boards == 1 { "a good board".to_owned() } else { format!("{} good boards", good.boards) };
        format!(", {boards}: {}", measured(good.middle))
    });
    // With the new part on, what the old one read stands beside it.
    let before = job.reading(SheetPhase::Before, &joint.name).filter(|_| phase == SheetPhase::After);
    let was = before.map_or(String::new(), |before| format!(", with the old part {}", measured(before)));
    let below = beside(before, reference.as_ref());
    let Some(reading) = job.reading(phase, &joint.name) else {
        return PinFace { below, ..PinFace::new("unwalked", "", format!("not read{like}{was}")) };
    };
    let (class, stands) = match standing(reading, joint.role, reference.as_ref()) {
        PinStanding::LikeOthers => ("firm", "like the others"),
        PinStanding::High => ("moves", "high"),
        PinStanding::Low => ("moves", "low"),
        PinStanding::Open => ("missing", "open"),
        PinStanding::Short => ("missing", "short"),
        PinStanding::Unknown => ("read", "read"),
    };
    let says = format!("{}, {stands}{like}{was}", measured(reading));
    PinFace { below, ..PinFace::new(class, words::reading(reading), says) }
}

/// What was read before, and what good boards read: `548 · =552`.
fn beside(before: Option<DiodeReading>, good: Option<&PinReference>) -> String {
    let good = good.map(|good| format!("={}", words::reading(good.middle)));
    before.map(words::reading).into_iter().chain(good).collect::<Vec<_>>().join(" · ")
}

/// The sheet with the new part on, as the marks of a pin walk.
fn after(job: &Job, good: &[CheckRow]) -> Vec<Walked> {
    let Some((_, board)) = &job.board else { return Vec::new() };
    let walked = |joint: &Joint| {
        let stands = job.reading(SheetPhase::After, &joint.name);
        let stands = stands.map(|read| standing(read, joint.role, reference(good, &joint.name).as_ref()));
        let mark = stands.map(|stands| match stands {
            PinStanding::Open => PinMark::Moves,
            PinStanding::Short => PinMark::Bridged,
            _ => PinMark::Firm,
        });
        Walked { name: joint.name.clone(), hidden: joint.hidden, mark }
    };
    board.connector.joints.iter().filter(|joint| joint.is_pin()).map(walked).collect()
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

/// How many of a list there are, and how many are entered.
fn counted(job: &Job, list: LookList) -> (usize, usize) {
    if list == LookList::Between {
        let pairs = job.insulation();
        return (pairs.len(), pairs.iter().filter(|(_, found)| found.is_some()).count());
    }
    let joints = job.board.iter().flat_map(|(_, board)| &board.connector.joints);
    let listed = joints.filter(|joint| list.is_lands() || joint.is_pin());
    let found = |joint: &&Joint| job.check(list.key(), &joint.name).is_some();
    (listed.clone().count(), listed.filter(found).count())
}

fn tab(job: &Job, list: LookList, here: bool) -> LookTab {
    let (of, done) = counted(job, list);
    LookTab { href: format!("/jobs/{}/look?list={}", job.row.id, list.key()), name: list.name(), done, of, here }
}

/// The tabs of the inspection: the pin walk, the lists, what stands near. `here` is its address.
pub(crate) fn inspect_tabs(job: &Job, here: &str) -> Vec<LookTab> {
    let id = job.row.id;
    let walked = job.walked();
    let marked = walked.iter().filter(|pin| pin.mark.is_some()).count();
    let own = |path: &str, name, (of, done)| {
        let href = format!("/jobs/{id}/{path}");
        LookTab { here: href == here, href, name, done, of }
    };
    let near = job.board.iter().flat_map(|(_, board)| &board.components);
    let found = near.clone().filter(|near| job.check(COMPONENTS, &near.name).is_some()).count();
    let lists = LookList::ALL.into_iter().filter(|list| list.stop() == Stop::Pins);
    let lists = lists.map(|list| tab(job, list, here.ends_with(&format!("list={}", list.key()))));
    let mut tabs = vec![own("pins", "Pin walk", (walked.len(), marked))];
    tabs.extend(lists);
    tabs.push(own("components", "What stands near", (near.count(), found)));
    tabs
}

/// The tabs of the stop that a list belongs to.
fn tabs_of(job: &Job, list: LookList) -> Vec<LookTab> {
    if list.stop() == Stop::Pins {
        return inspect_tabs(job, &format!("/jobs/{}/look?list={}", job.row.id, list.key()));
    }
    let same = LookList::ALL.into_iter().filter(|other| other.stop() == Stop::Look);
    same.map(|other| tab(job, other, other == list)).collect()
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
    pub(super) async fn load(
        app: &App,
        job: &Job,
        (list, chosen, oob): (LookList, &str, bool),
    ) -> Result<Self, Refusal> {
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
            LookList::Sheet(phase) => pin_face(job, (phase, joint), &good),
        };
        let (title, class, reasons) = said(job, list, &good);
        Ok(Self {
            head: JobHead::from_job(job, Some(list.stop()), app.now().date()),
            oob,
            job: id,
            list,
            tabs: tabs_of(job, list),
            inspects: list.stop() == Stop::Pins,
            over: over(list),
            rows: pin_rows(&connector, (&face, list.is_lands()), chosen),
            states: states(job, list),
            title,
            class,
            reasons,
            mending: mending_of(app, job).await?.map_or(String::new(), |(what, price)| format!("{what}: {price}")),
            extras,
            skipped: job.has_skipped(Stop::Look),
            caution: MEASURED_DEAD,
            meter: instruments.iter().any(|row| row.kind == "meter"),
        })
    }
}

/// What the verdict is about.
const fn over(list: LookList) -> &'static str {
    match list {
        LookList::Sheet(SheetPhase::After) => "With the new part on",
        LookList::Between => "Between neighbours",
        LookList::Bare => "What the heat did to the lands",
        _ => "Is the port the fault at all?",
    }
}

/// What the list comes to: whether the port is at fault at all, or with the new part on what is left to mend.
fn said(job: &Job, list: LookList, good: &[CheckRow]) -> (String, &'static str, Vec<String>) {
    match list {
        LookList::Sheet(SheetPhase::After) => sheet_said(&verdict(&after(job, good))),
        LookList::Between => between_said(&insulated(&job.insulation())),
        LookList::Bare => bare_said(job),
        _ => suspected(job, list, good),
    }
}

fn sheet_said(found: &Verdict) -> (String, &'static str, Vec<String>) {
    let class = match found {
        found if found.is_sound() => "sound",
        Verdict::Unfinished { .. } => "open",
        _ => "rework",
    };
    (words::sheet_verdict(found), class, Vec::new())
}

fn between_said(found: &InsulationVerdict) -> (String, &'static str, Vec<String>) {
    let class = match found {
        InsulationVerdict::Sound => "sound",
        InsulationVerdict::Unfinished { .. } => "open",
        InsulationVerdict::Bridged { .. } => "rework",
    };
    (words::insulation_verdict(found), class, vec![words::insulation_rework(found).to_owned()])
}

/// What the heat did to the lands: those that are worse than before.
fn bare_said(job: &Job) -> (String, &'static str, Vec<String>) {
    let broken = job.broken_in(CONDITION_AFTER);
    let worse = |(joint, state): &(&Joint, Condition)| {
        let before = job.condition_in(CONDITION, &joint.name).unwrap_or(Condition::Whole);
        (*state > before).then(|| format!("{}: {}, was {}", joint.name, state.name(), before.name()))
    };
    let worse: Vec<String> = broken.iter().filter_map(worse).collect();
    match (worse.len(), counted(job, LookList::Bare)) {
        (0, (of, done)) if done < of => (format!("{} to look at", of - done), "open", Vec::new()),
        (0, _) => ("The heat has hurt no land".to_owned(), "sound", Vec::new()),
        (1, _) => ("One land is worse than it was".to_owned(), "rework", worse),
        (count, _) => (format!("{count} lands are worse than they were"), "rework", worse),
    }
}

fn suspected(job: &Job, list: LookList, good: &[CheckRow]) -> (String, &'static str, Vec<String>) {
    let found = suspicion(&job.seen_pins(good));
    let class = match found.suspicion {
        Suspicion::Open { .. } => "open",
        Suspicion::Port => "sound",
        _ => "rework",
    };
    let mut reasons: Vec<String> = found.clues.iter().map(words::clue).collect();
    if good.is_empty() && list != LookList::Lands {
        reasons.push(
            "No good board of this model has been read yet: only opens on ground and shorts are plain.".to_owned(),
        );
    }
    (words::suspicion(&found.suspicion), class, reasons)
}
