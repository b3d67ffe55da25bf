//! Pads and holes, while the board is warm.

use super::super::bench_time;
use super::line::PadsLine;
use super::script::Script;
use super::step::{Duty, Step, StepKind, step};
use super::task::Task;
use crate::board::Joint;
use crate::caution::Caution;
use crate::method::MethodFamily;
use crate::method::equipment::Sucker;
use crate::method::techniques::{BRAID, HOLES, THIN};
use crate::planning::margin::{LimitStatus, Margin, MarginKind};
use crate::planning::small_runs::SmallWork;

/// A window shorter than this is none: nobody gets the braid out in time, s (E).
const COLD_S: f64 = 8.0;

pub(super) fn wick(script: &Script<'_>) -> Step {
    let holes = script.holes();
    let fed = script.composition.fed().is_some();
    let how = match script.technique(&BRAID) {
        "holes-only" if !fed => PadsLine::EvenPads,
        "not-fine" if !fed => PadsLine::BraidWidePads,
        _ => PadsLine::BraidPads,
    };
    let mut lines = vec![how];
    // Where a method is chosen the holes have a step of their own.
    if holes > 0 && script.choice.is_none() {
        lines.push(PadsLine::DrawHoles { holes });
    }
    lines.extend(passes(script));
    let cold = script.plan.wickable_for_s.is_some_and(|warm| warm.high < COLD_S);
    lines.push(if cold { PadsLine::ColdAtOnce } else { PadsLine::BraidSticks });
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if script.composition.has_lead() {
        cautions.push(Caution::Lead);
    }
    let kind = StepKind::WhileWarm { window_s: script.plan.wickable_for_s };
    Step { kind, duty: Duty::Clean, ..step(Task::Wick, lines, &cautions) }
}

/// How many flood-and-wick passes by the arithmetic of residues.
fn passes(script: &Script<'_>) -> Option<PadsLine> {
    script.composition.fed()?;
    let flood = script.composition.refit.name.clone();
    let passes = bench_time::passes(script.board, script.composition);
    Some(passes.map_or(PadsLine::NeverClean, |most| PadsLine::WickPasses { passes: most.max(1), flood }))
}

/// The holes, by the technique that is followed; none where there are none.
pub(super) fn holes(script: &Script<'_>) -> Option<Step> {
    let holes = script.holes();
    if holes == 0 {
        return None;
    }
    let cautions = [Caution::Burns, Caution::Fumes];
    if script.technique(&HOLES) == "drop-in" {
        return Some(step(
            Task::LeaveHolesFilled,
            vec![PadsLine::HolesStayFilled, PadsLine::LookFromFarSide],
            &cautions,
        ));
    }
    let how = match script.sucker {
        _ if script.is(MethodFamily::Pump) => PadsLine::LightThroughEach,
        Sucker::Vacuum => PadsLine::VacuumIron,
        Sucker::Pump => PadsLine::PumpOpposite,
        Sucker::None => PadsLine::BraidEnd,
    };
    let mut lines = vec![PadsLine::HoleCount { holes }];
    if script.technique(&THIN) != "wick" {
        lines.push(PadsLine::FillStarvedHoles);
    }
    lines.push(how);
    let clear = [SmallWork::ClearWithIron, SmallWork::ClearWithAir];
    lines.extend(script.small_runs(&clear).into_iter().map(|run| PadsLine::Timed { run }));
    Some(step(Task::ClearHoles, lines, &cautions))
}

pub(super) fn clean_pads(script: &Script<'_>) -> Step {
    let mut lines = vec![PadsLine::AlcoholAndBrush];
    lines.push(look_for(script).unwrap_or(PadsLine::LookAtPads));
    lines.extend(mend(script));
    lines.push(PadsLine::PutBackNow);
    Step { duty: Duty::Clean, ..step(Task::CleanPads, lines, &[Caution::Alcohol]) }
}

/// Components that came near their limit or past it, by name.
fn look_for(script: &Script<'_>) -> Option<PadsLine> {
    let hot = |margin: &&Margin| {
        margin.kind == MarginKind::Component && !margin.expendable && margin.status != LimitStatus::Inside
    };
    let components: Vec<String> = script.plan.margins.iter().filter(hot).map(|margin| margin.name.clone()).collect();
    (!components.is_empty()).then_some(PadsLine::LookFor { components })
}

/// Lands that were not whole before: a trace is laid to a pad; of a hole the far side has to carry.
fn mend(script: &Script<'_>) -> Option<PadsLine> {
    let broken = script.board.connector.joints.iter().filter(|joint| script.broken.contains(&joint.name));
    let (holes, pads): (Vec<&Joint>, Vec<&Joint>) = broken.partition(|joint| joint.shape.is_hole());
    let [pads, holes] = [pads, holes].map(|of| of.into_iter().map(|joint| joint.name.clone()).collect::<Vec<_>>());
    (!pads.is_empty() || !holes.is_empty()).then_some(PadsLine::MendLands { pads, holes })
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;

    #[test]
    fn what_came_near_its_limit_is_looked_for_by_name_and_what_was_broken_is_mended() {
        let mut job = job();
        job.plan.margins.retain(|margin| margin.kind != MarginKind::Component);
        assert!(says(&clean_pads(&job.script()), PadsLine::LookAtPads));
        let hot = Margin {
            kind: MarginKind::Component,
            name: "mic".to_owned(),
            status: LimitStatus::Near,
            expendable: false,
            ..job.plan.margins[0].clone()
        };
        job.plan.margins.push(hot);
        let joint = job.bench.board.connector.joints[0].name.clone();
        let broken = [joint.clone()];
        let step = clean_pads(&Script { broken: &broken, ..job.script() });
        assert!(says(&step, PadsLine::LookFor { components: vec!["mic".to_owned()] }));
        let hole = job.bench.board.connector.joints[0].shape.is_hole();
        let (pads, holes) = if hole { (vec![], vec![joint]) } else { (vec![joint], vec![]) };
        assert!(says(&step, PadsLine::MendLands { pads, holes }));
    }

    #[test]
    fn braid_goes_where_it_is_wanted_and_everywhere_once_low_melt_was_fed() {
        assert!(says(&wick(&job().script()), PadsLine::BraidPads));
        assert!(says(&wick(&job().by(&BRAID, "holes-only").script()), PadsLine::EvenPads));
        let fed = wick(&job().by(&BRAID, "holes-only").fed().script());
        assert!(says(&fed, PadsLine::BraidPads), "nothing of the feed may stay");
        assert!(matches!(fed.kind, StepKind::WhileWarm { .. }) && fed.duty == Duty::Clean);
    }

    #[test]
    fn holes_are_emptied_with_what_the_shop_has_or_left_for_dropping_in() {
        let mut job = job();
        let cleared = |job: &super::super::fixture::Job| holes(&job.script()).expect("plated anchors");
        assert!(says(&cleared(&job), PadsLine::PumpOpposite));
        job.sucker = Sucker::Vacuum;
        assert!(says(&cleared(&job), PadsLine::VacuumIron) && says(&cleared(&job), PadsLine::FillStarvedHoles));
        job.sucker = Sucker::None;
        assert!(says(&cleared(&job), PadsLine::BraidEnd));
        let filled = job.by(&HOLES, "drop-in");
        assert_eq!(cleared(&filled).task(), Some(&Task::LeaveHolesFilled));
    }

    #[test]
    fn a_board_without_holes_has_no_step_for_them() {
        let mut job = job();
        job.bench.board.connector.joints.retain(|joint| !joint.shape.is_hole());
        assert_eq!(holes(&job.script()), None);
    }
}
