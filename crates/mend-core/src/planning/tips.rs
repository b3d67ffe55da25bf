//! A tip for each class of joint, from the heat that it must deliver: what hangs on a joint draws it off, and a tip that gives less
//! never gets it to flow. Ground and anchors want more than signal pins.
//!
//! What it delivers is what the joint itself takes up within three seconds, and what its copper and the board round it draw off
//! meanwhile. An order of magnitude: no measured data stand behind it.

use serde::{Deserialize, Serialize};

use crate::board::{Board, Joint, Role};
use crate::heat::bridge::reachable;
use crate::heat::iron::{Iron, TOO_WIDE, pitch_at};
use crate::heat::iron_heater::IronHeater;
use crate::heat::network::{joint_conductance, stored_j};
use crate::method::usual;
use crate::planning::plan::Plan;
use crate::units::{Length, Temperature};

/// Over its melting a joint flows and wets, K (E, 20-40).
const FLOWS_K: f64 = 30.0;
/// Within this a joint is to flow, s (E, 2-4).
const WITHIN_S: f64 = 3.0;
/// Where heat begins to spread round a joint, and how far it gets meanwhile, mm: the square root of diffusivity times time, with
/// 20 W/mK over 2.3 MJ/m3K (E).
const SPREADS_MM: [f64; 2] = [1.0, 5.0];
/// What a tip gives is known to a factor of two: the lower end is counted on, so that no joint is left cold.
const COUNTED_ON: f64 = 0.5;
/// Tips are made in steps of this, mm.
const STEP_MM: f64 = 0.5;
/// The widest that is made, mm (E).
pub const WIDEST_MM: f64 = 6.0;

/// What a class of joints wants.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct TipChoice {
    /// What the joints carry.
    pub role: Role,
    /// In plated holes?
    pub holes: bool,
    /// How many.
    pub joints: usize,
    /// What the tip has to deliver, W.
    pub needs_w: f64,
    /// The finest tip that does, at the usual set temperature, mm; none: none does on a cold board.
    pub tip_mm: Option<f64>,
    /// Is it narrow enough to touch one joint alone?
    pub touches_one: bool,
}

/// A choice for each class of joints that a tip gets to, the thriftiest first; of joints that melt at `melts`, on a board as warm
/// as `begins`, by a tip that `heater` drives.
///
/// ```
/// use mend_core::example::{AMBIENT, Bench};
/// use mend_core::board::Role;
/// use mend_core::planning::tips::tips;
/// use mend_core::units::Temperature;
/// let bench = Bench::try_new().expect("the example");
/// let choices = tips(&bench.board, Temperature::celsius(219.0), AMBIENT, bench.station.iron);
/// let of = |role| choices.iter().find(|choice| choice.role == role).expect("it has such joints");
/// assert!(of(Role::Anchor).needs_w > 2.0 * of(Role::Signal).needs_w);
/// ```
pub fn tips(board: &Board, melts: Temperature, begins: Temperature, heater: IronHeater) -> Vec<TipChoice> {
    let mut choices: Vec<TipChoice> = Vec::new();
    let hand = TipOnBoard { board, works_c: melts.in_celsius() + FLOWS_K, begins, heater };
    for joint in board.connector.joints.iter().filter(|joint| reachable(joint)) {
        let class = |choice: &&mut TipChoice| choice.role == joint.role && choice.holes == joint.shape.is_hole();
        match choices.iter_mut().find(class) {
            Some(choice) => choice.joints += 1,
            None => choices.push(hand.choice(joint)),
        }
    }
    choices.sort_by(|a, b| a.needs_w.total_cmp(&b.needs_w));
    choices
}

/// Ambient temperature where a plan does not say how warm its board begins.
const ROOM: Temperature = Temperature::celsius(23.0);

/// The same for the joints of a plan.
pub fn tips_of(plan: &Plan, board: &Board) -> Vec<TipChoice> {
    tips(board, Temperature::celsius(plan.melts_at_c), plan.recipe.begins_at.unwrap_or(ROOM), plan.heater)
}

/// An iron on a board that begins so warm.
struct TipOnBoard<'a> {
    board: &'a Board,
    /// Where the solder flows, °C.
    works_c: f64,
    begins: Temperature,
    heater: IronHeater,
}

impl TipOnBoard<'_> {
    fn choice(&self, joint: &Joint) -> TipChoice {
        let Self { board, works_c, begins, heater } = *self;
        // Through the joint into its copper, and from there into the board round it: 2 pi k t / ln(R/r).
        let [near, far] = SPREADS_MM;
        let spreads = std::f64::consts::TAU * board.carries_away() / (far / near).ln();
        let draws = 1.0 / (1.0 / joint_conductance(joint) + 1.0 / spreads);
        let rise = works_c - begins.in_celsius();
        let needs_w = draws * rise + stored_j(joint, board, rise) / WITHIN_S;
        let iron = usual::iron(board);
        // What is left between heater and joint once the heat has come through the tip's own shaft.
        let left_k = iron.set.in_celsius() - works_c - needs_w * heater.to_tip;
        let widths = (1..=(WIDEST_MM / STEP_MM) as usize).map(|k| k as f64 * STEP_MM);
        let gives =
            |width: &f64| Iron { tip: Length::mm(*width), ..iron.clone() }.wetted() * COUNTED_ON * left_k >= needs_w;
        let tip_mm = (needs_w < heater.most).then(|| widths.into_iter().find(gives)).flatten();
        let widest = pitch_at(joint, board).map_or(f64::INFINITY, |pitch| TOO_WIDE * pitch);
        let touches_one = tip_mm.is_none_or(|tip| tip <= widest);
        TipChoice { role: joint.role, holes: joint.shape.is_hole(), joints: 1, needs_w, tip_mm, touches_one }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::{AMBIENT, Bench};

    fn of(board: &Board, role: Role, begins: Temperature) -> TipChoice {
        let choices = tips(board, Temperature::celsius(219.0), begins, IronHeater::USUAL);
        *choices.iter().find(|choice| choice.role == role).expect("it has such joints")
    }

    #[test]
    fn ground_and_anchors_want_a_stouter_tip_than_a_signal() {
        let board = Bench::try_new().expect("the example").board;
        let [signal, ground, anchor] = [Role::Signal, Role::Ground, Role::Anchor].map(|role| of(&board, role, AMBIENT));
        assert!(signal.needs_w < ground.needs_w && ground.needs_w < anchor.needs_w);
        assert!(signal.tip_mm <= ground.tip_mm && signal.tip_mm < anchor.tip_mm, "{signal:?} {anchor:?}");
        assert!(signal.tip_mm.is_some_and(|mm| mm <= 1.0), "{signal:?}");
    }

    #[test]
    fn a_warm_board_asks_for_less_and_a_heavy_one_for_more() {
        let mut board = Bench::try_new().expect("the example").board;
        let light = of(&board, Role::Anchor, AMBIENT);
        assert!(of(&board, Role::Anchor, Temperature::celsius(120.0)).needs_w < light.needs_w);
        (board.stack.layers, board.stack.planes, board.stack.thickness) = (12, 8, Length::mm(2.0));
        let heavy = of(&board, Role::Anchor, AMBIENT);
        assert!(heavy.needs_w > light.needs_w && heavy.tip_mm.is_none_or(|mm| Some(mm) > light.tip_mm), "{heavy:?}");
    }
}
