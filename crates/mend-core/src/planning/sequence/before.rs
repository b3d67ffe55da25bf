//! Before any heat: opening, what is protected, flux, alloy, and the wire where one is laid.

use super::super::margin::{LimitStatus, Margin, MarginKind};
use super::line::{BeforeLine, FeedLine};
use super::script::Script;
use super::stages;
use super::step::{Duty, Step, step};
use super::task::Task;
use crate::board::{ComponentKind, JointGroup, KeepIntact, groups};
use crate::caution::Caution;
use crate::heat::wire_path::WirePath;
use crate::materials::BodyMaterial;
use crate::method::techniques::{FLUX, THIN};
use crate::solder::{JointComposition, amount};

/// A wire is cut so much longer than what it joins, mm: to be held while it is laid.
const ENDS_MM: f64 = 5.0;

pub(super) fn ready() -> Step {
    let lines = vec![BeforeLine::Unplug, BeforeLine::BoardOnHolder, BeforeLine::ExtractionAndStrap];
    let cautions =
        [Caution::Lithium, Caution::Mains, Caution::Fumes, Caution::SmokeAlarm, Caution::Static, Caution::HotBench];
    step(Task::MakeReady, lines, &cautions)
}

/// What comes out before heat, by what stands near; and how a case is opened so that it closes again.
pub(super) fn open(script: &Script<'_>) -> Step {
    let out = |thing| {
        matches!(
            thing,
            ComponentKind::LithiumCell
                | ComponentKind::Foam
                | ComponentKind::Cable
                | ComponentKind::Frame
                | ComponentKind::Display
        )
    };
    let near =
        script.board.components.iter().filter(|n| n.what.is_some_and(out) || n.material == BodyMaterial::AcrylicFoam);
    let components: Vec<String> = near.map(|n| n.name.clone()).collect();
    let mut lines = vec![BeforeLine::ScrewMap, BeforeLine::LatchesFirst, BeforeLine::ThermalPads];
    if !components.is_empty() {
        lines.push(BeforeLine::OffBeforeHeat { components });
    }
    step(Task::Open, lines, &[Caution::Static, Caution::Lithium, Caution::LiquidMetal])
}

pub(super) fn protect(script: &Script<'_>) -> Step {
    let close =
        |m: &&Margin| matches!(m.kind, MarginKind::Component) && m.status != LimitStatus::Inside && !m.expendable;
    let face = script.plan.recipe.face(script.board);
    let mut lines = stages::shields(script);
    if script.choice.is_some() && script.keep_intact == KeepIntact::Part {
        lines.push(BeforeLine::DonorIsSpent);
        return step(Task::ProtectPart, lines, &[Caution::Static]);
    }
    if lines.is_empty() {
        let tight = script.plan.margins.iter().filter(close);
        lines.extend(tight.map(|m| BeforeLine::Cover {
            component: m.name.clone(),
            detail: m.detail.clone(),
            headroom_k: m.headroom_k.max(0.0),
        }));
    }
    if lines.is_empty() {
        lines.push(BeforeLine::NoShieldNeeded);
    }
    lines.push(BeforeLine::TapeFace { face, near: script.board.components.iter().filter(|n| n.face == face).count() });
    let map = script.choice.is_some() && !script.plan.recipe.shields.is_empty();
    Step { map, ..step(Task::Protect, lines, &[Caution::Static]) }
}

pub(super) fn flux(script: &Script<'_>) -> Step {
    let connector = &script.board.connector;
    let sparing = match script.technique(&FLUX) {
        "flood" => false,
        "sparing" => true,
        _ => connector.family.has_open_contacts(),
    };
    let how = if sparing { FeedLine::FluxSparingly } else { FeedLine::FluxGenerously };
    let mut lines = vec![FeedLine::FluxJoints { joints: connector.joints.len() }, how];
    if script.choice.is_some() && script.technique(&THIN) == "wick" {
        lines.push(FeedLine::WickFirst);
    }
    step(Task::Flux, lines, &[Caution::Fumes])
}

pub(super) fn alloy(script: &Script<'_>) -> Step {
    let Script { board, composition, .. } = script;
    let metal = composition.fed().map_or(&composition.refit, |feed| &feed.metal);
    let groups = groups(board);
    let mut lines: Vec<FeedLine> = groups.iter().filter_map(|group| fed_line(composition, group)).collect();
    lines.push(match lines.is_empty() {
        true => FeedLine::TouchEveryJoint { alloy: metal.name.clone() },
        false => FeedLine::HoldUntilHot,
    });
    let left = groups.iter().filter(|group| group.hidden && composition.feeds(group).is_none());
    let hidden: usize = left.map(|group| group.joints.len()).sum();
    if hidden > 0 {
        lines.push(FeedLine::HiddenAsFactory { joints: hidden });
    }
    let mut cautions = vec![Caution::Burns, Caution::Fumes];
    if metal.has_lead() {
        cautions.push(Caution::Lead);
    }
    Step { duty: Duty::Feed, ..step(Task::AddAlloy, lines, &cautions) }
}

fn fed_line(composition: &JointComposition, group: &JointGroup) -> Option<FeedLine> {
    let (feed, fed) = (composition.feeds(group)?, amount(composition, group)?);
    Some(FeedLine::FeedRow {
        row: group.name.clone(),
        joints: group.joints.len(),
        mm: fed.length_mm,
        alloy: feed.metal.name.clone(),
        wire_mm: feed.wire.diameter_mm,
        rounds: fed.rounds,
    })
}

/// Laying the wire, where the recipe has one.
pub(super) fn wire(script: &Script<'_>) -> Option<Step> {
    let bridge = script.plan.recipe.bridge.filter(|bridge| bridge.wire_mm > 0.0)?;
    let path = WirePath::from_board(script.board);
    let (long, shape) = (path.as_ref().map_or(0.0, |path| path.length_mm), path.map(|path| path.shape));
    let length = FeedLine::WireLength { mm: long + ENDS_MM, wire_mm: bridge.wire_mm, shape };
    let lines = vec![length, FeedLine::SolderWireDown];
    Some(Step { map: true, ..step(Task::LayWire, lines, &[Caution::Burns, Caution::Fumes]) })
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{job, says};
    use super::*;
    use crate::board::{Component, Face, Point, Rect};
    use crate::planning::sequence::step::StepKind;

    #[test]
    fn foam_cells_and_displays_come_off_before_heat_by_what_they_are() {
        let mut job = job();
        let place = |x| Rect { centre: Point { x, y: 30.0 }, width: 4.0, depth: 4.0 };
        let foam = ComponentKind::Chip.at("pad under the frame", Face::Top, place(10.0));
        job.bench.board.components = vec![
            Component { material: BodyMaterial::AcrylicFoam, ..foam },
            ComponentKind::LithiumCell.at("cell", Face::Top, place(20.0)),
            ComponentKind::Chip.at("U1", Face::Top, place(30.0)),
        ];
        let components = vec!["pad under the frame".to_owned(), "cell".to_owned()];
        assert!(says(&open(&job.script()), BeforeLine::OffBeforeHeat { components }));
    }

    #[test]
    fn a_donors_board_is_not_protected_and_a_customers_is() {
        let mut job = job();
        assert_eq!(protect(&job.script()).task(), Some(&Task::Protect));
        job.keep_intact = KeepIntact::Part;
        let step = protect(&job.script());
        assert_eq!((step.task(), step.map), (Some(&Task::ProtectPart), false));
    }

    #[test]
    fn flux_is_sparing_where_contacts_are_open_or_somebody_wants_it_so() {
        assert!(says(&flux(&job().script()), FeedLine::FluxGenerously), "a closed port");
        assert!(says(&flux(&job().by(&FLUX, "sparing").script()), FeedLine::FluxSparingly));
        assert!(says(&flux(&job().by(&THIN, "wick").script()), FeedLine::WickFirst));
    }

    #[test]
    fn what_is_fed_is_said_row_by_row_with_its_lead() {
        let job = job().fed();
        let step = alloy(&job.script());
        let anchors = |line: &crate::planning::sequence::line::Line| matches!(line, crate::planning::sequence::line::Line::Feed(FeedLine::FeedRow { row, alloy, .. }) if row == "anchors" && alloy == "Sn42Bi58");
        assert!(step.lines().iter().any(anchors), "{step:?}");
        assert!(
            says(&step, FeedLine::HoldUntilHot) && step.duty == Duty::Feed && !step.cautions.contains(&Caution::Lead)
        );
        assert_eq!(step.kind, StepKind::Do);
        assert_eq!(wire(&job.script()), None, "no wire in this recipe");
    }
}
