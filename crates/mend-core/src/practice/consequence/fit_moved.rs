//! A new part is not pulled at while its joints are liquid, and each of them is wetted.

use crate::practice::attempt::Attempt;
use crate::practice::goal::PracticeGoal;
use crate::practice::harm::{Harm, Harmed};

/// A pull that shifts a part which floats, N (E).
const SHIFTS_N: f64 = 0.5;

pub(super) fn look(attempt: &Attempt) -> Vec<Harm> {
    let fits = attempt.scene.goal == PracticeGoal::Fit;
    let floats = attempt.joints.iter().any(|joint| joint.free);
    let moved = fits && floats && (attempt.hands.pull_n >= SHIFTS_N || attempt.finished);
    moved.then(|| harm(attempt, Harmed::PartMoved)).into_iter().collect()
}

/// What the pin walk finds.
pub(super) fn cold(attempt: &Attempt) -> Vec<Harm> {
    if attempt.scene.goal != PracticeGoal::Fit {
        return Vec::new();
    }
    let joints = attempt.joints.iter().zip(&attempt.scene.board.connector.joints);
    let cold = joints.filter(|(fate, _)| !fate.is_wetted());
    cold.map(|(_, joint)| harm(attempt, Harmed::ColdJoint { joint: joint.name.clone() })).collect()
}

fn harm(attempt: &Attempt, what: Harmed) -> Harm {
    Harm { what, at_s: attempt.seconds(), seen_s: None, force_n: None }
}
