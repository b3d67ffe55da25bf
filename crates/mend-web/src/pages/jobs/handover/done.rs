//! What was done at the bench, and with what.

use mend_core::heat::tool::HotAir;
use mend_core::planning::ledger::GroupState;
use mend_core::planning::sequence::stages::helpers;

use super::super::alloy_view::banded;
use super::super::ledger_view::in_words;
use super::line::{SheetLine, line};
use crate::job::{BenchRunView, Job};
use crate::visitor::Visitor;
use crate::words::{self, shield};

/// When it was on the bench.
pub(super) fn bench_times(job: &Job, day: &dyn Fn(i64) -> Option<String>) -> Option<SheetLine> {
    let bench = job.bench.as_ref()?;
    let opened = bench.run.opened.wall_ms;
    let last = bench.events.last().map_or(opened, |event| event.arrived.wall_ms);
    Some(line("At the bench", format!("from {} to {}", day(opened)?, day(last)?)))
}

/// What was done, from the presses at the bench.
pub(super) fn done(job: &Job, visitor: Visitor) -> Vec<SheetLine> {
    let Some(bench) = &job.bench else { return vec![line("Work", "No bench run is on record.")] };
    let inputs = &bench.planned.inputs;
    let steps = format!("{} of {} done at the bench", bench.state.at.min(bench.steps.len()), bench.steps.len());
    let mut lines = vec![line("Steps", steps)];
    lines.extend(inputs.settings.air.as_ref().map(|air| blown(air, &inputs.station, visitor)));
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
pub(super) fn reworked(job: &Job, now_ms: i64) -> Option<SheetLine> {
    let until = job.row.handed_over_ms.unwrap_or(now_ms);
    Some(words::rework_loops(&job.reworked(until))).filter(|loops| !loops.is_empty()).map(|loops| line("Rework", loops))
}

/// The air it came away under.
fn blown(air: &HotAir, station: &str, visitor: Visitor) -> SheetLine {
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

pub(super) fn parts(job: &Job, visitor: Visitor) -> Vec<SheetLine> {
    let Some((_, board)) = &job.board else { return vec![] };
    let what = format!("{}, {} joints", board.connector.name, board.connector.joints.len());
    let mut lines = vec![line(words::done_to_part(job.kind()), what)];
    if let Some(bench) = &job.bench {
        let (composition, scale) = (&bench.composition, visitor.scale);
        let at = mend_core::solder::MeltTarget::from_metal(&composition.refit).map(|target| banded(&target, scale));
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
