//! What was measured and tried: the release against the plan, pins, readings, tests.

use mend_core::board::Component;
use mend_core::inspection::functional_test::TestResult;
use mend_core::inspection::insulation::insulated;
use mend_core::inspection::sheet::SheetPhase;
use mend_core::inspection::{PinMark, Walked, verdict};
use mend_core::opening::tally::Count;
use mend_core::shop::Stop;

use super::super::run::stamp;
use super::line::{SheetLine, line};
use crate::job::{COMPONENTS, Job, VALUES};
use crate::words;

/// What a meter read at a pin; empty: nothing.
pub(super) struct PinReadings {
    pub(super) pin: String,
    pub(super) before: String,
    pub(super) now: String,
}

/// What a meter read before and now, and what was tried.
pub(super) fn checked(job: &Job) -> Vec<SheetLine> {
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
pub(super) fn pin_readings(job: &Job) -> Vec<PinReadings> {
    let of = |pin: Walked| {
        let read = |phase| job.reading(phase, &pin.name).map_or(String::new(), words::reading);
        PinReadings { before: read(SheetPhase::Before), now: read(SheetPhase::After), pin: pin.name }
    };
    let read = job.walked().into_iter().map(of);
    read.filter(|readings| !readings.before.is_empty() || !readings.now.is_empty()).collect()
}

/// What was measured: the real release against the plan, and the pins.
pub(super) fn measured(job: &Job) -> Vec<SheetLine> {
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
