//! A recipe at the bench: its soaks, its helpers and its shields.

use super::line::{BeforeLine, HeatLine};
use super::script::Script;
use super::step::{HotTool, HotToolKind, Step, StepKind, step};
use super::task::Task;
use crate::caution::Caution;
use crate::heat::recipe::{HeatingAids, HeatingStage};
use crate::heat::shield::Shield;
use crate::heat::tool::HotAir;

/// A step for each stage before the last; where joints are emptied in turn, only for those without an iron.
pub(super) fn soaks(script: &Script<'_>, in_turn: bool) -> Vec<Step> {
    script.plan.recipe.preheat.iter().filter(|stage| !in_turn || stage.during.iron.is_none()).map(soak).collect()
}

fn soak(stage: &HeatingStage) -> Step {
    let mut lines: Vec<HeatLine> = stage.air.iter().map(blown).collect();
    lines.extend(helpers(&stage.during));
    let task = match (&stage.air, &stage.during.preheater, &stage.during.iron) {
        (None, None, None) => Task::Pause,
        (None, Some(_), _) => Task::Warm,
        (air, _, _) => Task::Soak { air: air.is_some() },
    };
    if lines.is_empty() {
        lines.push(HeatLine::AllOff);
    }
    if stage.change.in_seconds() >= 1.0 {
        lines.push(HeatLine::NextToolWithin { s: stage.change.in_seconds() });
    }
    let kind = StepKind::Soak { lasts_s: stage.lasts.in_seconds(), tools: tools(stage.air.as_ref(), &stage.during) };
    Step { kind, ..step(task, lines, &[Caution::Burns, Caution::Fumes, Caution::Alcohol]) }
}

fn blown(air: &HotAir) -> HeatLine {
    HeatLine::AirOn {
        face: air.face,
        motion: air.motion,
        distance_mm: air.distance.in_mm(),
        nozzle_mm: air.nozzle.in_mm(),
        lpm: air.flow.in_litres_per_minute(),
    }
}

/// What works beside the air, a line each.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::heat::recipe::HeatingAids;
/// use mend_core::method::usual;
/// use mend_core::planning::sequence::stages::helpers;
/// let during = HeatingAids { preheater: Some(usual::preheater(&bench.board)), ..HeatingAids::default() };
/// assert_eq!(helpers(&during).len(), 1);
/// assert!(helpers(&HeatingAids::default()).is_empty());
/// ```
pub fn helpers(during: &HeatingAids) -> Vec<HeatLine> {
    let preheater = during.preheater.map(|p| HeatLine::PreheaterOn { face: p.face, coupling: p.coupling });
    let irons = during.irons().map(|i| HeatLine::IronOnRow { tip_mm: i.tip.in_mm(), row: i.row.clone() });
    preheater.into_iter().chain(irons).collect()
}

/// What is hot in a stage.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::sequence::stages::tools;
/// let hot = tools(bench.recipe.air.as_ref(), &bench.recipe.during);
/// assert_eq!((hot.len(), hot[0].set_c), (1, 420.0));
/// ```
pub fn tools(air: Option<&HotAir>, during: &HeatingAids) -> Vec<HotTool> {
    let tool = |what, set_c: f64| HotTool { what, set_c };
    let air = air.map(|air| tool(HotToolKind::Air, air.set.in_celsius()));
    let preheater = during.preheater.as_ref().map(|preheater| tool(HotToolKind::Preheater, preheater.set.in_celsius()));
    let irons = during.irons().map(|iron| tool(HotToolKind::Iron, iron.set.in_celsius()));
    air.into_iter().chain(preheater).chain(irons).collect()
}

/// Where each shield goes, a line each.
pub(super) fn shields(script: &Script<'_>) -> Vec<BeforeLine> {
    let shield = |shield: &Shield| {
        let under = script.board.components.iter().filter(|n| shield.covers(n.face, &n.body) > 0.0);
        BeforeLine::LayShield {
            shield: shield.kind,
            over: under.map(|n| n.name.clone()).collect(),
            width_mm: shield.width_mm,
            depth_mm: shield.depth_mm,
            face: shield.face,
        }
    };
    script.plan.recipe.shields.iter().map(shield).collect()
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;
    use crate::heat::shield::ShieldKind;
    use crate::method::usual;
    use crate::units::Duration;

    #[test]
    fn each_stage_is_a_step_that_is_called_by_what_is_hot() {
        let mut job = job();
        let bench = &job.bench;
        let soak_stage = usual::soak(&bench.board, &bench.station, &bench.recipe.air.expect("hot air"));
        let warm =
            usual::warm(HeatingAids { preheater: Some(usual::preheater(&bench.board)), ..HeatingAids::default() });
        let pause = HeatingStage { change: Duration::seconds(5.0), ..usual::warm(HeatingAids::default()) };
        job.plan.recipe.preheat = vec![soak_stage, warm, pause];
        let steps = soaks(&job.script(), false);
        let tasks: Vec<&Task> = steps.iter().filter_map(Step::task).collect();
        assert_eq!(tasks, [&Task::Soak { air: true }, &Task::Warm, &Task::Pause]);
        assert!(says(&steps[2], HeatLine::AllOff) && says(&steps[2], HeatLine::NextToolWithin { s: 5.0 }));
        assert!(matches!(&steps[1].kind, StepKind::Soak { tools, .. } if tools[0].what == HotToolKind::Preheater));
    }

    #[test]
    fn a_shield_says_what_lies_under_it() {
        let mut job = job();
        let latch = &job.bench.board.components[0];
        let kind = ShieldKind::FoilTent { gap_mm: 2.0 };
        job.plan.recipe.shields = usual::shield_over(&job.bench.board, latch, kind).into_iter().collect();
        let lines = shields(&job.script());
        assert!(matches!(&lines[..], [BeforeLine::LayShield { over, .. }] if over == &["latch"]), "{lines:?}");
    }
}
