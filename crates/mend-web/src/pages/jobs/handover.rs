//! The customer's sheet: found, done, measured, parts, terms. Printable.

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::response::Redirect;
use mend_core::board::Component;
use mend_core::finding::Finding;
use mend_core::heat::tool::HotAir;
use mend_core::inspection::functional_test::TestResult;
use mend_core::inspection::insulation::insulated;
use mend_core::inspection::sheet::SheetPhase;
use mend_core::inspection::{PinMark, Walked, verdict};
use mend_core::method::JobKind;
use mend_core::opening::tally::Count;
use mend_core::planning::ledger::GroupState;
use mend_core::planning::sequence::stages::helpers;
use mend_core::shop::Stop;
use mend_core::shop::stock::MoveKind;
use mend_formats::shop_settings::ShopSettings;
use mend_store::{ExtraRow, JobPhotoRow, LogRow};
use serde::Deserialize;

use super::ledger_view::in_words;
use super::lesson::LessonPart;
use super::parts as stock_parts;
use super::run::stamp;
use super::{JobPath, number};
use crate::App;
use crate::extract::Form;
use crate::job::{BenchRunView, COMPONENTS, CONDITION, CONDITION_AFTER, DECLINED, Job, VALUES, WENT_BACK};
use crate::learning;
use crate::pages::{Frame, JobHead};
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::{self, shield};

/// A line of the sheet.
struct SheetLine {
    what: String,
    value: String,
}

fn line(what: &str, value: impl Into<String>) -> SheetLine {
    SheetLine { what: what.to_owned(), value: value.into() }
}

/// What a meter read at a pin; empty: nothing.
struct PinReadings {
    pin: String,
    before: String,
    now: String,
}

#[derive(Template, WebTemplate)]
#[template(path = "jobs/handover.html")]
pub(crate) struct HandoverPage {
    frame: Frame,
    head: JobHead,
    oob: bool,
    job: i64,
    taken_in: String,
    today: String,
    found: Vec<SheetLine>,
    done: Vec<SheetLine>,
    measured: Vec<SheetLine>,
    parts: Vec<SheetLine>,
    agreed: Vec<SheetLine>,
    readings: Vec<PinReadings>,
    /// Those that the sheet shows.
    photos: Vec<JobPhotoRow>,
    ready: bool,
    /// What it is for.
    kind: JobKind,
    /// Where to go while it is not ready.
    go_on: String,
    handed_over: Option<String>,
    /// What it taught, once it is given back.
    lesson: Option<LessonPart>,
    /// Handed over and reopened before, in words.
    log: Vec<String>,
    /// The shop as its sheets name it.
    shop: ShopSettings,
}

pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: JobPath) -> Result<HandoverPage, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    let day = |ms: i64| {
        let at = app.moment_of(ms);
        Some(at.strftime("%-d %B %Y, %H:%M").to_string())
    };
    let id = job.row.id;
    let (extras, photos) = app.reading(move |read| Ok((read.extras(id)?, read.job_photos(id)?))).await?;
    let extras: Vec<SheetLine> = extras.iter().map(extra).collect();
    Ok(HandoverPage {
        frame: Frame::new(job.device(), visitor.scale, "bench", format!("/jobs/{}/handover", job.row.id)),
        head: JobHead::from_job(&job, Some(Stop::Handover), app.now().date()),
        oob: false,
        job: job.row.id,
        taken_in: day(job.row.taken_in_ms).unwrap_or_default(),
        today: app.now().strftime("%-d %B %Y").to_string(),
        found: found(&job).into_iter().chain(broken(&job)).chain(extras).collect(),
        done: bench_times(&job, &day)
            .into_iter()
            .chain(done(&job, visitor))
            .chain(reworked(&job, app.now_ms()))
            .collect(),
        measured: measured(&job).into_iter().chain(checked(&job)).collect(),
        parts: parts(&job, visitor),
        agreed: agreed(&job),
        readings: pin_readings(&job),
        photos: photos.into_iter().filter(|photo| photo.on_sheet).collect(),
        ready: job.is_ready(),
        kind: job.kind(),
        go_on: format!("/jobs/{id}"),
        handed_over: job.row.handed_over_ms.and_then(day),
        lesson: if job.is_closed() { Some(LessonPart::load(&app, job.row.id).await?) } else { None },
        log: on_record(&job, &|ms| day(ms).unwrap_or_default()),
        shop: crate::pages::settings::load(&app).await?,
    })
}

/// What is on record besides that it was handed over.
fn on_record(job: &Job, day: &dyn Fn(i64) -> String) -> Vec<String> {
    let plain = job.log.len() == 1 && job.log[0].what == "handed-over";
    if plain { Vec::new() } else { job.log.iter().map(|row| logged(row, day(row.at_ms))).collect() }
}

/// A line of the record.
fn logged(row: &LogRow, at: String) -> String {
    match row.what.as_str() {
        "reopened" => format!("Reopened {at} by {}: {}", row.who, row.reason),
        DECLINED => format!("Given back as it is {at} by {}: {}", row.who, row.reason),
        WENT_BACK => format!("Went back {at} by {}: {}", row.who, row.reason),
        _ => format!("Handed over {at}"),
    }
}

fn typed(job: &Job, what: &str, key: &str) -> Option<SheetLine> {
    Some(job.intake(key)).filter(|value| !value.is_empty()).map(|value| line(what, value))
}

fn found(job: &Job) -> Vec<SheetLine> {
    let lines = [
        typed(job, "Reported", "symptom"),
        typed(job, "How it broke", "broke"),
        typed(job, "Earlier work", "earlier_work"),
        typed(job, "Yours, inside", "inside"),
        typed(job, "Before opening", "power_on"),
    ];
    lines.into_iter().flatten().collect()
}

/// Lands that were not whole, before the heat and with the part off.
fn broken(job: &Job) -> Vec<SheetLine> {
    let lists = [("Lands, as found", CONDITION), ("Lands, part off", CONDITION_AFTER)];
    let of = |(what, list): (&str, &str)| {
        let broken = job.broken_in(list);
        let listed: Vec<String> =
            broken.iter().map(|(joint, state)| format!("{} {}", joint.name, state.name())).collect();
        (!listed.is_empty()).then(|| line(what, listed.join(", ")))
    };
    lists.into_iter().filter_map(of).collect()
}

/// What was found while inside, with the answer.
fn extra(row: &ExtraRow) -> SheetLine {
    let price = if row.price.is_empty() { String::new() } else { format!(", {}", row.price) };
    let answer =
        if row.answer.is_empty() { "not answered".to_owned() } else { format!("{} by {}", row.answer, row.who) };
    line("Found inside", format!("{}{price}: {answer}", row.what))
}

/// What a meter read before and now, and what was tried.
fn checked(job: &Job) -> Vec<SheetLine> {
    let count = |phase: SheetPhase| job.checks.iter().filter(|row| row.list == phase.key()).count();
    let (before, after) = (count(SheetPhase::Before), count(SheetPhase::After));
    let read =
        (before + after > 0).then(|| line("Diode sheet", format!("{before} pins before, {after} with the new part")));
    let tried = job.tests().into_iter().filter(|test| test.open.is_some() || test.closed.is_some());
    let said = |result: Option<TestResult>| result.map_or("not tried", TestResult::name);
    let tests = tried
        .map(|test| line("Tested", format!("{}: {} open, {} closed", test.name, said(test.open), said(test.closed))));
    let skipped = job.has_skipped(Stop::Test).then(|| line("Tested", "skipped"));
    let counted = job.opening.as_ref().map(|opening| {
        let counts = opening.tally().counts;
        let sum = |of: fn(&Count) -> usize| counts.iter().map(of).sum::<usize>();
        line("Opened by its map", format!("{} out, {} back in", sum(|count| count.out), sum(|count| count.back)))
    });
    counted.into_iter().chain(read).chain(near(job)).chain(tests).chain(skipped).collect()
}

/// Pins side by side, and what stands near: what was found, and what was measured.
fn near(job: &Job) -> Vec<SheetLine> {
    let pairs = job.insulation();
    let between = pairs.iter().any(|(_, found)| found.is_some());
    let between = between.then(|| line("Between pins", words::insulation_verdict(&insulated(&pairs))));
    let skipped = job.has_skipped(Stop::Pins).then(|| line("Pins", "not walked: skipped"));
    let components = job.board.iter().flat_map(|(_, board)| &board.components);
    let found = |component: &Component| {
        let (state, value) = (job.check(COMPONENTS, &component.name), job.check(VALUES, &component.name));
        let said = [state.map(str::to_owned), value.map(|value| format!("measured {value}"))];
        let said: Vec<String> = said.into_iter().flatten().collect();
        (!said.is_empty()).then(|| format!("{} {}", component.name, said.join(", ")))
    };
    let found: Vec<String> = components.filter_map(found).collect();
    let found = (!found.is_empty()).then(|| line("Stands near", found.join("; ")));
    between.into_iter().chain(skipped).chain(found).collect()
}

/// The diode sheet pin by pin: before and now, mV.
fn pin_readings(job: &Job) -> Vec<PinReadings> {
    let of = |pin: Walked| {
        let read = |phase| job.reading(phase, &pin.name).map_or(String::new(), words::reading);
        PinReadings { before: read(SheetPhase::Before), now: read(SheetPhase::After), pin: pin.name }
    };
    let read = job.walked().into_iter().map(of);
    read.filter(|readings| !readings.before.is_empty() || !readings.now.is_empty()).collect()
}

/// When it was on the bench.
fn bench_times(job: &Job, day: &dyn Fn(i64) -> Option<String>) -> Option<SheetLine> {
    let bench = job.bench.as_ref()?;
    let opened = bench.run.opened.wall_ms;
    let last = bench.events.last().map_or(opened, |event| event.arrived.wall_ms);
    Some(line("At the bench", format!("from {} to {}", day(opened)?, day(last)?)))
}

/// What was done, from the presses at the bench.
fn done(job: &Job, visitor: Visitor) -> Vec<SheetLine> {
    let Some(bench) = &job.bench else { return vec![line("Work", "No bench run is on record.")] };
    let inputs = &bench.planned.inputs;
    let steps = format!("{} of {} done at the bench", bench.state.at.min(bench.steps.len()), bench.steps.len());
    let mut lines = vec![line("Steps", steps)];
    lines.extend(inputs.settings.air.as_ref().map(|air| blown(air, (&inputs.station, visitor))));
    let words = visitor.words();
    let helpers =
        helpers(&inputs.settings.during).iter().map(|line| words.heat_line(line)).collect::<Vec<_>>().join(" ");
    lines.extend((!helpers.is_empty()).then(|| line("During removal", helpers)));
    let recipe = &inputs.settings;
    if !recipe.preheat.is_empty() {
        let stages = recipe.preheat.iter().map(|stage| format!("{} {:.0} s", stage.name(), stage.lasts.in_seconds()));
        lines.push(line("Preheat stages", stages.collect::<Vec<_>>().join(", ")));
    }
    if !recipe.shields.is_empty() {
        let shields = recipe.shields.iter().map(|s| format!("{}, {} face", shield(s.kind), s.face.name()));
        lines.push(line("Shields", shields.collect::<Vec<_>>().join("; ")));
    }
    if bench.state.stopped > 0 {
        let times = if bench.state.stopped == 1 { "once".to_owned() } else { format!("{} times", bench.state.stopped) };
        lines.push(line("Stopped at the line", format!("{times}, to spare parts nearby")));
    }
    lines
}

/// Loops of rework, with their time.
fn reworked(job: &Job, now_ms: i64) -> Option<SheetLine> {
    let until = job.row.handed_over_ms.unwrap_or(now_ms);
    Some(words::rework_loops(&job.reworked(until))).filter(|loops| !loops.is_empty()).map(|loops| line("Rework", loops))
}

/// The air it came away under.
fn blown(air: &HotAir, (station, visitor): (&str, Visitor)) -> SheetLine {
    let heat = format!(
        "{:.0} {}, {} L/min, {} mm nozzle at {} mm, {} face, {station}",
        visitor.scale.of(air.set),
        visitor.scale.symbol(),
        air.flow.in_litres_per_minute(),
        air.nozzle.in_mm(),
        air.distance.in_mm(),
        air.face.name(),
    );
    line("Heat", heat)
}

/// What was measured: the real release against the plan, and the pins.
fn measured(job: &Job) -> Vec<SheetLine> {
    let mut lines = Vec::new();
    if let Some((bench, stamp)) = job.bench.as_ref().and_then(|b| b.state.release().map(|s| (b, s))) {
        let r = &bench.planned.plan.release;
        let band = match (r.low_s, r.high_s) {
            (Some(low), Some(high)) => format!("expected {low:.0} to {high:.0} s"),
            (Some(low), None) => format!("expected from {low:.0} s on"),
            _ => "not expected to melt".to_owned(),
        };
        lines.push(line("Released", format!("after {:.1} s of air ({band})", stamp.seconds)));
    }
    let stamps = job.bench.iter().flat_map(|bench| bench.state.stamps.iter().map(move |stamp| (bench, stamp)));
    let again = stamps.filter(|(_, stamp)| !stamp.from_cold());
    lines.extend(again.map(|(bench, again)| line("On a warm board", stamp(bench, again))));
    let walked = job.walked();
    for mark in PinMark::ALL {
        let pins: Vec<&str> = walked.iter().filter(|w| w.mark == Some(mark)).map(|w| w.name.as_str()).collect();
        match (mark, pins.len()) {
            (_, 0) => {}
            (PinMark::Firm, n) => lines.push(line("Pins pushed", format!("{n} of {} firm", walked.len()))),
            _ => lines.push(line(&format!("Pins: {}", mark.name()), pins.join(", "))),
        }
    }
    if !walked.is_empty() {
        lines.push(line("Verdict", words::verdict(&verdict(&walked))));
    }
    lines
}

fn parts(job: &Job, visitor: Visitor) -> Vec<SheetLine> {
    let Some((_, board)) = &job.board else { return vec![] };
    let what = format!("{}, {} joints", board.connector.name, board.connector.joints.len());
    let mut lines = vec![line(words::done_to_part(job.kind()), what)];
    if let Some(bench) = &job.bench {
        let (composition, scale) = (&bench.composition, visitor.scale);
        let at = mend_core::solder::MeltTarget::from_metal(&composition.refit)
            .map(|target| super::alloy_view::banded(&target, scale));
        let melts = at.map_or(String::new(), |at| format!(", melts at {at}"));
        lines.push(line("Solder", format!("{}{melts}", composition.refit.name)));
        if let Some(feed) = composition.fed() {
            lines.push(line("Loosened with", feed.metal.name.clone()));
            lines.extend(left_in(bench));
        }
        if composition.refit.has_lead() {
            lines.push(line("Note", "These joints hold lead: keep to local rules when the device is disposed of."));
        }
    }
    lines
}

/// What the cleaning left, by the arithmetic, and the word of who went on against it.
fn left_in(bench: &BenchRunView) -> Vec<SheetLine> {
    let of = |group: &GroupState| {
        let holds = in_words(group);
        (!holds.is_empty()).then(|| format!("{}: {holds}, wicked {}×", group.name, group.passes))
    };
    let left: Vec<String> = bench.ledger.groups.iter().filter_map(of).collect();
    let mut lines = vec![line("Left of it", if left.is_empty() { "nothing".to_owned() } else { left.join("; ") })];
    lines.extend(bench.ledger.reason.iter().map(|reason| line("Fitted all the same", reason.clone())));
    lines
}

fn agreed(job: &Job) -> Vec<SheetLine> {
    let part = job.board.as_ref().map_or("", |(_, board)| board.connector.name.as_str());
    let price = words::price_line(job.kind(), part);
    let declined = job.declined().map(|row| line("Given back as it is", row.reason.clone()));
    let lines = [
        declined,
        // Of a job that was given back as it is only what its reason says is to be paid.
        typed(job, &price, "price").filter(|_| job.declined().is_none()),
        typed(job, "Deposit", "deposit"),
        typed(job, "Terms", "terms"),
        typed(job, "Left unchanged", "unchanged"),
    ];
    lines.into_iter().flatten().collect()
}

pub(crate) async fn close(State(app): State<App>, path: JobPath) -> Result<Redirect, Refusal> {
    let job = Job::load(&app, number(&path)?).await?;
    if !job.is_ready() {
        return Err(Refusal::NotYet(words::not_ready(job.kind())));
    }
    let (id, now) = (job.row.id, app.now_ms());
    let teaches = learning::teaches(&job);
    app.changing(id, move |w| {
        job.keep_outcome(w, now)?;
        w.use_reserved(id, now)?;
        let of_job = |kind| w.read().moved_for(id, kind);
        let (items, used, came) = (w.read().items()?, of_job(MoveKind::Used)?, of_job(MoveKind::Harvested)?);
        let consumed = stock_parts::consumed((&job, &job.runs(w.read())?), (&items, &used), now);
        consumed.iter().chain(&stock_parts::harvested(&job, &came, now)).try_for_each(|new| w.add_move(new))?;
        w.hand_over(id, now)?;
        if teaches { w.await_lesson(id) } else { Ok(()) }
    })
    .await?;
    learning::learn_all(&app);
    Ok(Redirect::to(&format!("/jobs/{id}/handover")))
}

/// Who reopens a closed job, and why.
#[derive(Deserialize)]
pub(crate) struct Reopening {
    #[serde(default)]
    who: String,
    #[serde(default)]
    reason: String,
}

/// Longest name and longest reason, characters.
const LONGEST: [usize; 2] = [80, 300];

pub(crate) async fn reopen(
    State(app): State<App>,
    path: JobPath,
    Form(sent): Form<Reopening>,
) -> Result<Redirect, Refusal> {
    let (id, now) = (number(&path)?, app.now_ms());
    let (who, reason) = (sent.who.trim().to_owned(), sent.reason.trim().to_owned());
    let fits = |text: &str, most: usize| (1..=most).contains(&text.chars().count());
    let object =
        |place: &str, hint: &str| vec![Finding::written("handover", place, "is wanted, and not too long").hint(hint)];
    let mut findings = Vec::new();
    if !fits(&who, LONGEST[0]) {
        findings.extend(object("name", "who opens the record again, up to 80 characters"));
    }
    if !fits(&reason, LONGEST[1]) {
        findings.extend(object("reason", "a sentence that stays on record, up to 300 characters"));
    }
    if !findings.is_empty() {
        return Err(findings.into());
    }
    Job::load(&app, id).await?;
    app.changing(id, move |w| {
        w.drop_outcome(id)?;
        w.reopen(id, (&who, &reason), now)
    })
    .await?;
    Ok(Redirect::to(&format!("/jobs/{id}/handover")))
}
