//! What to change next time, by rule, the weightiest first, at most three things.

use super::attempt::Attempt;
use super::goal::PracticeGoal;
use super::harm::{Harm, Harmed};
use crate::board::Face;

/// No more than these are said.
const MOST: usize = 3;
/// Who lets a part lie free for longer than this has waited too long, s (E).
const WAITED_S: f64 = 8.0;

/// A thing to change, or that nothing is.
#[derive(Debug, Clone, PartialEq)]
pub enum DebriefPoint {
    /// It was pulled while a joint held.
    PulledEarly {
        /// How many lands and barrels came off.
        torn: usize,
        /// The coldest of them.
        joint: String,
        /// What it lacked, K.
        short_k: f64,
        /// On it, N.
        force_n: f64,
        /// Would a light grip have told? It holds still until everything is free.
        gripped_first: bool,
    },
    /// Something was too hot for too long.
    TooHot {
        /// What.
        what: Harmed,
        /// Damaged, s.
        at_s: f64,
        /// Since when it was to be seen, s.
        seen_s: Option<f64>,
        /// The air met the face that it stands on: from the other side it is spared.
        same_face: bool,
        /// Nothing lay over it.
        bare: bool,
    },
    /// A component went where it should not.
    Moved {
        /// What.
        what: Harmed,
        /// L/min.
        flow: f64,
        /// mm.
        distance_mm: f64,
    },
    /// A joint never let go.
    NeverMelted {
        /// The coldest.
        joint: String,
        /// What it lacked at its hottest, K.
        short_k: f64,
    },
    /// All was free, and nobody lifted it for so long.
    WaitedLong {
        /// s.
        seconds: f64,
    },
    /// A new part has joints that were never wetted.
    NotWetted {
        /// How many.
        joints: usize,
    },
    /// It was moved before its joints were solid.
    MovedWhileLiquid,
    /// What was fed stays in a row.
    AlloyLeft {
        /// The row.
        row: String,
        /// Passes of the joint with the fewest.
        passes: u32,
    },
    /// Nothing went wrong, and what was to be done was not.
    NotDone {
        /// What was to be done.
        goal: PracticeGoal,
    },
    /// Nothing to change.
    Clean {
        /// All of it, s.
        seconds: f64,
    },
}

/// What to change.
///
/// ```
/// use mend_core::practice::{attempt::Attempt, course::course, debrief::{DebriefPoint, debrief}, hands::HandMove};
/// let mut attempt = Attempt::begin(course()[0].scene(1).expect("of the library")).expect("its alloy is known");
/// attempt.does(HandMove::Finish);
/// assert!(matches!(debrief(&attempt)[..], [DebriefPoint::NeverMelted { short_k, .. }] if short_k > 150.0), "nothing was done");
/// ```
pub fn debrief(attempt: &Attempt) -> Vec<DebriefPoint> {
    let mut points: Vec<DebriefPoint> = pulled_early(attempt).into_iter().collect();
    points.extend(attempt.harms.iter().filter_map(|harm| of_harm(attempt, harm)));
    points.extend(not_wetted(attempt));
    points.extend(never_melted(attempt));
    points.extend(waited_long(attempt));
    if points.is_empty() {
        points.push(match attempt.reached() {
            true => DebriefPoint::Clean { seconds: attempt.seconds() },
            false => DebriefPoint::NotDone { goal: attempt.scene.goal },
        });
    }
    points.truncate(MOST);
    points
}

fn pulled_early(attempt: &Attempt) -> Option<DebriefPoint> {
    let torn = attempt.harms.iter().filter_map(|harm| match &harm.what {
        Harmed::PadLifted { joint } | Harmed::BarrelPulled { joint } => Some((joint, harm)),
        _ => None,
    });
    let torn: Vec<(&String, &Harm)> = torn.collect();
    let short = |(joint, harm): &(&String, &Harm)| {
        let k = attempt.scene.board.connector.joints.iter().position(|known| known.name == **joint)?;
        let at = (harm.at_s as usize).min(attempt.traces.joints[k].len() - 1);
        Some(attempt.lets_go_c[k] - f64::from(attempt.traces.joints[k][at]))
    };
    let (short_k, (joint, harm)) =
        torn.iter().filter_map(|torn| Some((short(torn)?, torn))).max_by(|a, b| a.0.total_cmp(&b.0))?;
    let before = attempt.held.iter().take(harm.at_s as usize);
    Some(DebriefPoint::PulledEarly {
        torn: torn.len(),
        joint: (*joint).clone(),
        short_k: short_k.max(0.0),
        force_n: harm.force_n.unwrap_or(0.0),
        gripped_first: before.clone().any(|hands| hands.grips && hands.pull_n == 0.0),
    })
}

fn of_harm(attempt: &Attempt, harm: &Harm) -> Option<DebriefPoint> {
    let hands = attempt.held.get(harm.at_s as usize).unwrap_or(&attempt.hands);
    let component = |name: &str| attempt.scene.board.components.iter().find(|n| n.name == name);
    let too_hot = |face: Option<Face>, bare: bool| DebriefPoint::TooHot {
        what: harm.what.clone(),
        at_s: harm.at_s,
        seen_s: harm.seen_s,
        same_face: face.is_some_and(|face| hands.blows && face == hands.face),
        bare,
    };
    match &harm.what {
        Harmed::Component { name } => {
            let n = component(name);
            let covered =
                |shield: &crate::heat::shield::Shield| n.is_some_and(|n| shield.covers(n.face, &n.body) > 0.0);
            Some(too_hot(n.map(|n| n.face), !attempt.scene.shields.iter().any(covered)))
        }
        Harmed::Part => Some(too_hot(Some(attempt.scene.board.connector.face), false)),
        Harmed::Laminate => Some(too_hot(None, false)),
        Harmed::Floated { .. } | Harmed::BlownAway { .. } | Harmed::Dropped { .. } => {
            Some(DebriefPoint::Moved { what: harm.what.clone(), flow: hands.flow, distance_mm: hands.distance_mm })
        }
        Harmed::AlloyLeft { row } => {
            let joints = attempt.scene.board.connector.joints.iter().zip(&attempt.joints);
            let passes = joints.filter(|(joint, _)| joint.row == *row).map(|(_, fate)| fate.passes).min();
            Some(DebriefPoint::AlloyLeft { row: row.clone(), passes: passes.unwrap_or(0) })
        }
        Harmed::PartMoved => Some(DebriefPoint::MovedWhileLiquid),
        Harmed::PadLifted { .. } | Harmed::BarrelPulled { .. } | Harmed::ColdJoint { .. } => None,
    }
}

fn not_wetted(attempt: &Attempt) -> Option<DebriefPoint> {
    let cold = attempt.harms.iter().filter(|harm| matches!(harm.what, Harmed::ColdJoint { .. })).count();
    (cold > 0).then_some(DebriefPoint::NotWetted { joints: cold })
}

fn never_melted(attempt: &Attempt) -> Option<DebriefPoint> {
    let never = (0..attempt.joints.len()).filter(|k| {
        let fate = &attempt.joints[*k];
        fate.freed_s.is_none() && !fate.torn && (attempt.scene.goal.has_part() || !attempt.is_hidden(*k))
    });
    let short = |k: usize| {
        let hottest = attempt.traces.joints[k].iter().fold(f32::MIN, |hottest, t| hottest.max(*t));
        attempt.lets_go_c[k] - f64::from(hottest)
    };
    let (k, short_k) = never.map(|k| (k, short(k))).max_by(|a, b| a.1.total_cmp(&b.1))?;
    let joint = attempt.scene.board.connector.joints[k].name.clone();
    (!attempt.reached()).then_some(DebriefPoint::NeverMelted { joint, short_k: short_k.max(0.0) })
}

fn waited_long(attempt: &Attempt) -> Option<DebriefPoint> {
    let last = attempt.last_freed_s()?;
    let until = attempt.part_off_s.unwrap_or(attempt.seconds());
    let long = attempt.scene.goal == PracticeGoal::Remove && until - last > WAITED_S;
    long.then_some(DebriefPoint::WaitedLong { seconds: until - last })
}
