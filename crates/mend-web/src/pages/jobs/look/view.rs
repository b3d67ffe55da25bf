//! The sheet as it is laid out: the pins with what was found, and what all of it comes to.

use askama::Template;
use askama_web::WebTemplate;
use mend_core::board::Joint;
use mend_core::inspection::condition::{Condition, mending};
use mend_core::inspection::fault::{Suspicion, suspicion};
use mend_core::inspection::sheet::{DiodeReading, PinStanding, SheetPhase, standing};
use mend_core::inspection::{PinMark, Verdict, Walked, verdict};
use mend_core::shop::Stop;
use mend_core::units::Money;
use mend_store::{CheckRow, ExtraRow};

use crate::App;
use crate::draw::pin_rows::{PinFace, PinRows, pin_rows};
use crate::job::{CONDITION, Job, reference};
use crate::pages::JobHead;
use crate::refusal::Refusal;
use crate::words;

/// A list of the stop.
struct LookTab {
    key: &'static str,
    name: &'static str,
    done: usize,
    of: usize,
    here: bool,
}

/// A state of a land, and its key.
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
    list: &'static str,
    tabs: Vec<LookTab>,
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
    /// Is there a meter to read?
    meter: bool,
}

const fn name(list: &str) -> &'static str {
    match list.as_bytes() {
        b"condition" => "Lands",
        b"before" => "Old part on",
        b"off" => "Port off",
        b"after" => "New part on",
        _ => "A good board",
    }
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
    PinFace { class, glyph: glyph.to_owned(), says: state.map_or("not looked at", Condition::name).to_owned() }
}

/// With its unit.
fn measured(reading: DiodeReading) -> String {
    if reading == DiodeReading::Open { "OL".to_owned() } else { format!("{} mV", shown(reading)) }
}

/// A reading as a meter shows it: millivolts, or OL.
fn shown(reading: DiodeReading) -> String {
    match reading {
        DiodeReading::Volts(volts) => format!("{:.0}", 1000.0 * volts),
        DiodeReading::Open => "OL".to_owned(),
    }
}

fn pin_face(job: &Job, (phase, joint): (SheetPhase, &Joint), good: &[CheckRow]) -> PinFace {
    let reference = reference(good, &joint.name);
    let like = reference.as_ref().map_or(String::new(), |good| {
        let boards = if good.boards == 1 { "a good board".to_owned() } else { format!("{} good boards", good.boards) };
        format!(", {boards}: {}", measured(good.middle))
    });
    let Some(reading) = job.reading(phase, &joint.name) else {
        return PinFace { class: "unwalked", glyph: String::new(), says: format!("not read{like}") };
    };
    let (class, stands) = match standing(reading, joint.role, reference.as_ref()) {
        PinStanding::LikeOthers => ("firm", "like the others"),
        PinStanding::High => ("moves", "high"),
        PinStanding::Low => ("moves", "low"),
        PinStanding::Open => ("missing", "open"),
        PinStanding::Short => ("missing", "short"),
        PinStanding::Unknown => ("read", "read"),
    };
    PinFace { class, glyph: shown(reading), says: format!("{}, {stands}{like}", measured(reading)) }
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

impl LookPart {
    pub(super) async fn load(
        app: &App,
        job: &Job,
        (list, chosen, oob): (&'static str, &str, bool),
    ) -> Result<Self, Refusal> {
        let (id, connector) = (job.row.id, &job.board()?.1.connector);
        let model = job.model;
        let read = move |read: mend_store::Read<'_>| {
            let good = model.map(|model| read.good_readings(model, id)).transpose()?;
            Ok((good.unwrap_or_default(), read.extras(id)?, read.instruments()?))
        };
        let (good, extras, instruments) = app.reading(read).await?;
        let phase = SheetPhase::from_key(list);
        let face = |joint: &Joint| match phase {
            Some(phase) => pin_face(job, (phase, joint), &good),
            None => land_face(job.condition(&joint.name)),
        };
        let tab = |key: &'static str| {
            let listed = connector.joints.iter().filter(|joint| key == CONDITION || joint.is_pin());
            let found = |joint: &&Joint| job.check(key, &joint.name).is_some();
            let (of, done) = (listed.clone().count(), listed.filter(found).count());
            LookTab { key, name: name(key), done, of, here: key == list }
        };
        let state = |state: Condition| StateKey {
            key: key(state),
            name: state.name(),
            count: connector.joints.iter().filter(|joint| job.condition(&joint.name) == Some(state)).count(),
        };
        let (title, class, reasons) = said(job, list, &good);
        Ok(Self {
            head: JobHead::from_job(job, Some(Stop::Look), app.now().date()),
            oob,
            job: id,
            list,
            tabs: super::lists().map(tab).into_iter().collect(),
            rows: pin_rows(connector, (&face, phase.is_none()), chosen),
            states: if phase.is_none() { Condition::ALL.map(state).into_iter().collect() } else { Vec::new() },
            title,
            class,
            reasons,
            mending: mending_of(app, job).await?.map_or(String::new(), |(what, price)| format!("{what}: {price}")),
            extras,
            skipped: job.has_skipped(Stop::Look),
            meter: instruments.iter().any(|row| row.kind == "meter"),
        })
    }
}

/// What the list comes to: whether the port is at fault at all, or with the new part on what is left to mend.
fn said(job: &Job, list: &str, good: &[CheckRow]) -> (String, &'static str, Vec<String>) {
    if list == SheetPhase::After.key() {
        let found = verdict(&after(job, good));
        let class = match &found {
            found if found.is_sound() => "sound",
            Verdict::Unfinished { .. } => "open",
            _ => "rework",
        };
        return (words::sheet_verdict(&found), class, Vec::new());
    }
    let found = suspicion(&job.seen_pins(good));
    let class = match found.suspicion {
        Suspicion::Open { .. } => "open",
        Suspicion::Port => "sound",
        _ => "rework",
    };
    let mut reasons: Vec<String> = found.clues.iter().map(words::clue).collect();
    if good.is_empty() && list != CONDITION {
        reasons.push(
            "No good board of this model has been read yet: only opens on ground and shorts are plain.".to_owned(),
        );
    }
    (words::suspicion(&found.suspicion), class, reasons)
}
