//! Go or no-go, before a price is agreed: from the board's mass, hidden rows, what stands near and can't be bought,
//! the margins where they are known, and whose hands it is.

use serde::Serialize;

use super::compare::{Lane, tightest};
use super::damaged::Damaged;
use super::make_plan::OPEN_FROM;
use super::plan::{Plan, WindowState, WorksIn};
use crate::board::{Board, ComponentKind, KeepIntact};
use crate::method::equipment::SkillLevel;
use crate::method::subject::Subject;

/// The reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[serde(rename_all = "kebab-case")]
pub enum Go {
    /// A usual job.
    Go,
    /// It can be done; the risk belongs into the price and the consent.
    WithCare,
    /// Not by these hands, or not with what is here.
    No,
}

/// A reading with its reasons.
#[derive(Debug, Clone, PartialEq)]
pub struct Difficulty {
    /// The reading.
    pub go: Go,
    /// Whose hands it wants.
    pub wants: SkillLevel,
    /// Why, heaviest first.
    pub reasons: Vec<Hardship>,
    /// What to do about it.
    pub advice: Advice,
}

/// What makes a job harder than most.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Hardship {
    /// A board that carries much heat away: layers, and its bare weight, g.
    HeavyBoard { layers: u32, bare_g: f64 },
    /// Joints that nobody sees.
    HiddenJoints { joints: usize },
    /// Many pins to set and to walk.
    ManyPins { pins: usize },
    /// Plastic feet that want a pull while all is liquid.
    PlasticFeet { feet: u32 },
    /// A thick board, mm.
    ThickBoard { mm: f64 },
    /// Components near that are hard to come by.
    RareComponents { components: Vec<String> },
    /// Lands that were found torn, lifted, eaten or gone.
    BrokenLands { lands: usize },
    /// No way melts everything before something is damaged.
    NoWay,
    /// The best way brings this near to its limit, K.
    NearLimit { of: Damaged, headroom_k: f64 },
    /// The best way, or the one that is planned, works only so often.
    WorksSeldom { works_in: WorksIn },
}

/// What to do about it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "kebab-case")]
pub enum Advice {
    /// Usual price, usual consent.
    Usual,
    /// The risk is said before the price, with consent on record.
    SayTheRisk,
    /// Another tool, alloy or shield first, or decline.
    OtherMeans,
    /// To practised hands, or decline.
    OtherHands,
}

/// What comparing the methods has come to.
#[derive(Debug, Clone, Copy)]
pub enum Compared<'a> {
    /// They have not been compared.
    NotYet,
    /// They have not been compared, but there is a plan of one of them.
    Planned(&'a Plan),
    /// They have, and none of them is good enough.
    NoneWorks,
    /// This one is recommended.
    Best(&'a Lane),
}

impl<'a> From<Option<&'a Lane>> for Compared<'a> {
    /// Of methods that have been compared, the recommended one.
    fn from(best: Option<&'a Lane>) -> Self {
        best.map_or(Self::NoneWorks, Self::Best)
    }
}

/// The reading of a subject, of what comparing its methods has come to, and of how many lands were found broken.
///
/// ```
/// use mend_core::example::Bench;
/// let bench = Bench::try_new().expect("the example");
/// use mend_core::planning::difficulty::{Advice, Compared, Go, difficulty};
/// let none_works = difficulty(&bench.subject(), Compared::NoneWorks, 0);
/// assert_eq!((none_works.go, none_works.advice), (Go::No, Advice::OtherMeans));
/// ```
pub fn difficulty(subject: &Subject<'_>, compared: Compared<'_>, broken_lands: usize) -> Difficulty {
    let mut weighed = board_reasons(subject.board);
    // Each is mended by hand before the new part goes on, and may not hold (E).
    weighed.push(((broken_lands as u32).min(3), Hardship::BrokenLands { lands: broken_lands }));
    if subject.keep_intact != KeepIntact::Part {
        weighed.extend(rare_components(subject.board));
    }
    weighed.extend(margin_reason(compared));
    weighed.retain(|(weight, _)| *weight > 0);
    weighed.sort_by_key(|(weight, _)| std::cmp::Reverse(*weight));
    let sum: u32 = weighed.iter().map(|(weight, _)| weight).sum();
    let wants = match sum {
        0..=2 => SkillLevel::Learning,
        3..=5 => SkillLevel::Trained,
        _ => SkillLevel::Practised,
    };
    let closed = matches!(compared, Compared::NoneWorks);
    let go = match wants.cmp(&subject.equipment.level) {
        _ if closed => Go::No,
        std::cmp::Ordering::Greater => Go::No,
        std::cmp::Ordering::Equal if wants > SkillLevel::Learning => Go::WithCare,
        _ if sum >= 4 => Go::WithCare,
        _ => Go::Go,
    };
    let advice = match go {
        Go::Go => Advice::Usual,
        Go::WithCare => Advice::SayTheRisk,
        Go::No if closed => Advice::OtherMeans,
        Go::No => Advice::OtherHands,
    };
    let reasons = weighed.into_iter().map(|(_, reason)| reason).collect();
    Difficulty { go, wants, reasons, advice }
}

type DifficultyPoint = (u32, Hardship);

fn board_reasons(board: &Board) -> Vec<DifficultyPoint> {
    let hidden = board.connector.joints.iter().filter(|joint| joint.hidden).count();
    let carries = board.carries_away() * 1e3;
    let thick = board.stack.thickness.in_mm();
    let pins = board.connector.joints.iter().filter(|joint| joint.is_pin()).count();
    vec![
        // 26 mW/K is a usual six-layer board; twice that takes a soak (E).
        (
            u32::from(carries > 45.0) + u32::from(carries > 90.0),
            Hardship::HeavyBoard { layers: board.stack.layers, bare_g: board.bare_weight_g() },
        ),
        (2 * u32::from(hidden > 0), Hardship::HiddenJoints { joints: hidden }),
        (u32::from(pins > 20), Hardship::ManyPins { pins }),
        (u32::from(board.connector.pegs > 0), Hardship::PlasticFeet { feet: board.connector.pegs }),
        (u32::from(thick > 1.8), Hardship::ThickBoard { mm: thick }),
    ]
}

/// Things near that can't be bought singly, within 12 mm of the part (E).
fn rare_components(board: &Board) -> Vec<DifficultyPoint> {
    let rare = |thing| {
        matches!(
            thing,
            ComponentKind::Chip
                | ComponentKind::Microphone
                | ComponentKind::Display
                | ComponentKind::Crystal
                | ComponentKind::FlexLatch
        )
    };
    let near = board
        .components
        .iter()
        .filter(|n| n.what.is_some_and(rare) && crate::method::subject::apart(&board.connector.body, &n.body) < 12.0);
    let components: Vec<String> = near.map(|n| n.name.clone()).collect();
    vec![((components.len() as u32).min(2), Hardship::RareComponents { components })]
}

fn margin_reason(compared: Compared<'_>) -> Option<DifficultyPoint> {
    let (plan, tight) = match compared {
        Compared::NotYet => return None,
        Compared::NoneWorks => return Some((3, Hardship::NoWay)),
        Compared::Planned(plan) => (plan, tightest(&plan.margins)),
        Compared::Best(lane) => (&lane.plan, lane.tightest.clone()),
    };
    let open = plan.window == WindowState::Open;
    match tight.filter(|tight| !tight.inside && plan.chance >= OPEN_FROM) {
        Some(tight) => {
            let near = Hardship::NearLimit { of: tight.of, headroom_k: tight.headroom_k.max(0.0) };
            Some((if open { 1 } else { 3 }, near))
        }
        None => (!open).then(|| (3, Hardship::WorksSeldom { works_in: plan.works_in() })),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::board::{Component, Face, Point, Rect};
    use crate::example::Bench;
    use crate::planning::make_plan;

    fn reading(change: impl FnOnce(&mut Bench)) -> Difficulty {
        let mut bench = Bench::try_new().expect("the example");
        bench.board.components.clear();
        change(&mut bench);
        difficulty(&bench.subject(), Compared::NotYet, 0)
    }

    #[test]
    fn broken_lands_make_a_job_harder_and_are_among_the_reasons() {
        let bench = Bench::try_new().expect("the example");
        let of = |broken| difficulty(&bench.subject(), Compared::NotYet, broken);
        assert!(of(3).wants >= of(0).wants && of(0).reasons.len() < of(3).reasons.len());
        assert!(of(2).reasons.contains(&Hardship::BrokenLands { lands: 2 }));
        assert!(!of(0).reasons.iter().any(|reason| matches!(reason, Hardship::BrokenLands { .. })));
    }

    #[test]
    fn a_plan_that_seldom_works_is_no_usual_job_and_one_with_room_changes_nothing() {
        let bench = Bench::try_new().expect("the example");
        let mut plan = make_plan::plan(&bench.order()).expect("it can be computed");
        let of = |plan: &Plan| difficulty(&bench.subject(), Compared::Planned(plan), 0);
        (plan.window, plan.chance, plan.margins) = (WindowState::Open, 1.0, Vec::new());
        assert_eq!(of(&plan), difficulty(&bench.subject(), Compared::NotYet, 0));
        (plan.window, plan.chance) = (WindowState::Tight, 0.6);
        let tight = of(&plan);
        assert_eq!(tight.reasons[0], Hardship::WorksSeldom { works_in: plan.works_in() }, "the heaviest comes first");
        assert!(tight.go > Go::Go || tight.wants > SkillLevel::Learning, "{tight:?}");
        plan.chance = 0.95;
        let reason = Hardship::WorksSeldom { works_in: plan.works_in() };
        assert!(of(&plan).reasons.contains(&reason), "a tight window is said whatever makes it so");
    }

    #[test]
    fn what_is_hard_is_named_and_the_heaviest_comes_first() {
        let found = reading(|bench| {
            bench.board.connector.pegs = 2;
            for joint in &mut bench.board.connector.joints {
                joint.hidden = joint.row == "row B";
            }
        });
        assert_eq!(found.reasons[0], Hardship::HiddenJoints { joints: 12 }, "it weighs two");
        assert!(found.reasons.contains(&Hardship::PlasticFeet { feet: 2 }));
    }

    #[test]
    fn what_is_hard_to_come_by_counts_near_the_part_and_not_far_from_it() {
        let chip = |y: f64| -> Component {
            ComponentKind::Chip.at("U1", Face::Top, Rect { centre: Point { x: 30.0, y }, width: 4.0, depth: 4.0 })
        };
        let rare = Hardship::RareComponents { components: vec!["U1".to_owned()] };
        assert!(reading(|bench| bench.board.components.push(chip(16.0))).reasons.contains(&rare));
        assert!(!reading(|bench| bench.board.components.push(chip(36.0))).reasons.contains(&rare));
    }

    #[test]
    fn a_heavy_board_wants_better_hands_than_a_light_one() {
        let heavy = reading(|bench| (bench.board.stack.layers, bench.board.stack.planes) = (14, 7));
        assert!(matches!(
            heavy.reasons.iter().find(|r| matches!(r, Hardship::HeavyBoard { .. })),
            Some(Hardship::HeavyBoard { layers: 14, .. })
        ));
        assert!(heavy.wants >= reading(|_| {}).wants);
    }
}
