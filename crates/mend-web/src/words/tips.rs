//! A tip for each class of joints, in words.

use mend_core::board::Role;
use mend_core::planning::tips::{TipChoice, WIDEST_MM};

use super::quantity::count;

/// The class with how many it has: `2 ground pins`, `4 plated anchors`.
pub(crate) fn joint_class(choice: &TipChoice) -> String {
    let (one, many) = match (choice.role, choice.holes) {
        (Role::Signal, false) => ("signal pin", "signal pins"),
        (Role::Signal, true) => ("plated signal pin", "plated signal pins"),
        (Role::Ground, false) => ("ground pin", "ground pins"),
        (Role::Ground, true) => ("plated ground pin", "plated ground pins"),
        (Role::Power, false) => ("supply pin", "supply pins"),
        (Role::Power, true) => ("plated supply pin", "plated supply pins"),
        (Role::Anchor, false) => ("anchor", "anchors"),
        (Role::Anchor, true) => ("plated anchor", "plated anchors"),
    };
    count(choice.joints, one, many)
}

/// The tip that it wants.
pub(crate) fn tip_wanted(choice: &TipChoice) -> String {
    match choice.tip_mm {
        None => format!("{WIDEST_MM} mm on a warmed board; none does on a cold one"),
        Some(mm) if choice.touches_one => format!("{mm} mm"),
        Some(mm) => format!("{mm} mm, wider than one joint: drag it along the row"),
    }
}

/// All of them in a line of a step.
pub(super) fn tips_line(choices: &[TipChoice]) -> String {
    let of = |choice: &TipChoice| format!("{} for {}", tip_wanted(choice), joint_class(choice));
    format!("Tip: {}.", choices.iter().map(of).collect::<Vec<_>>().join("; "))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_class_has_its_tip_and_what_none_does_wants_a_warm_board() {
        let signal = TipChoice {
            role: Role::Signal,
            holes: false,
            joints: 3,
            needs_w: 0.6,
            tip_mm: Some(0.5),
            touches_one: true,
        };
        let anchor = TipChoice { role: Role::Anchor, holes: true, joints: 1, needs_w: 30.0, tip_mm: None, ..signal };
        let line = tips_line(&[signal, anchor]);
        assert_eq!(
            line,
            "Tip: 0.5 mm for 3 signal pins; 6 mm on a warmed board; none does on a cold one for 1 plated anchor."
        );
        assert!(tip_wanted(&TipChoice { touches_one: false, ..signal }).contains("drag"));
    }
}
