//! What an ultrasonic bath would hurt: bond wires, membranes and crystals that ring along with it.

use crate::board::{Board, Component, ComponentKind};
use crate::materials::BodyMaterial;

/// How long a bath takes, min: flux under a shell is out after five to ten (E).
pub const BATH_MIN: i64 = 8;

/// Names of the components near the part that would not stand a bath; none: the board goes in.
///
/// ```
/// use mend_core::example::Bench;
/// use mend_core::planning::bath::hurt_by_bath;
/// let bench = Bench::try_new().expect("the example");
/// assert!(hurt_by_bath(&bench.board).is_empty());
/// ```
pub fn hurt_by_bath(board: &Board) -> Vec<String> {
    board.components.iter().filter(|component| rings(component)).map(|component| component.name.clone()).collect()
}

fn rings(component: &Component) -> bool {
    let delicate =
        matches!(component.material, BodyMaterial::MemsMicrophone | BodyMaterial::Crystal | BodyMaterial::Display);
    delicate || component.what == Some(ComponentKind::Microphone)
}
