//! How a pull is shared by what holds, and what each stands.

use crate::board::{Joint, JointShape};
use crate::practice::attempt::Attempt;

/// The laminate's glass transition, °C (D, 130-180 by grade).
const TG_C: f64 = 150.0;
/// It softens over so many kelvin about it (E).
const SOFTENS_OVER_K: f64 = 30.0;
/// Peel strength of a land's copper, N/mm: cold 1.1-1.4 (T, D), and above the transition about 0.2 (E).
const PEEL_N_PER_MM: [f64; 2] = [1.25, 0.2];
/// Bond of a barrel's copper to the resin round it, N/mm²: cold (E, 10-30), and above the transition (E, 0.5-2).
const BARREL_N_PER_MM2: [f64; 2] = [15.0, 1.0];
/// What lifts a part that nothing holds any more, N (E): its weight, and what surface tension holds.
const LIFTS_N: f64 = 0.2;
/// A plastic peg in its hole, N (E, 0.3-2).
const PEG_N: f64 = 0.8;

/// Between a cold and a hot value by how far above the transition it is.
fn softened([cold, hot]: [f64; 2], celsius: f64) -> f64 {
    let share = ((celsius - TG_C) / SOFTENS_OVER_K + 0.5).clamp(0.0, 1.0);
    cold + (hot - cold) * share
}

/// What the land of a solid joint stands before it comes off the board, N.
///
/// A land peels from its end, over the shorter of its sides; a barrel shears along its wall.
pub(super) fn stands_n(joint: &Joint, thickness_mm: f64, celsius: f64) -> f64 {
    match joint.shape {
        JointShape::Pad { width, depth } => softened(PEEL_N_PER_MM, celsius) * width.min(depth),
        JointShape::Hole { drill, .. } => {
            softened(BARREL_N_PER_MM2, celsius) * std::f64::consts::PI * drill * thickness_mm
        }
    }
}

/// A joint that a pull tears off the board, with the force on it, N.
pub(super) struct Torn<'a> {
    pub(super) joint: &'a Joint,
    pub(super) force_n: f64,
}

/// The joints that the pull of this moment tears: it is shared by all that are not liquid and still on the board.
pub(super) fn torn(attempt: &Attempt) -> Vec<Torn<'_>> {
    let held: Vec<usize> = attempt.holding().collect();
    if attempt.hands.pull_n <= 0.0 || attempt.part_off_s.is_some() || !attempt.scene.goal.has_part() {
        return Vec::new();
    }
    let force_n = attempt.hands.pull_n / held.len().max(1) as f64;
    let (board, rig) = (&attempt.scene.board, &attempt.rig);
    let tears = |k: &usize| {
        let joint = &board.connector.joints[*k];
        let celsius = rig.celsius(rig.network.joints[*k]);
        force_n > stands_n(joint, board.stack.thickness.in_mm(), celsius)
    };
    held.into_iter().filter(tears).map(|k| Torn { joint: &board.connector.joints[k], force_n }).collect()
}

/// Does the part come up, now that nothing of it holds?
pub(crate) fn comes_up(attempt: &Attempt) -> bool {
    let pegs = f64::from(attempt.scene.board.connector.pegs) * PEG_N;
    attempt.hands.pull_n >= LIFTS_N + pegs && attempt.holding().next().is_none()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_land_holds_six_times_as_much_cold_as_above_its_transition() {
        assert_eq!(softened(PEEL_N_PER_MM, 23.0), 1.25);
        assert!((softened(PEEL_N_PER_MM, 150.0) - 0.725).abs() < 1e-9);
        assert!((softened(PEEL_N_PER_MM, 220.0) - 0.2).abs() < 1e-9);
    }
}
