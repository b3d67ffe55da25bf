//! What lies between neighbours, in words.

use mend_core::inspection::insulation::InsulationVerdict;

/// In a heading.
pub(crate) fn insulation_verdict(of: &InsulationVerdict) -> String {
    match of {
        InsulationVerdict::Unfinished { left: 1 } => "One pair to measure".to_owned(),
        InsulationVerdict::Unfinished { left } => format!("{left} pairs to measure"),
        InsulationVerdict::Bridged { pairs } => format!("Bridged: {}", pairs.join(", ")),
        InsulationVerdict::Sound => "No bridge between neighbours".to_owned(),
    }
}

/// What to do about it.
pub(crate) const fn insulation_rework(of: &InsulationVerdict) -> &'static str {
    match of {
        InsulationVerdict::Unfinished { .. } => {
            "A probe on each of two neighbours, continuity: nothing flows between pins of different nets."
        }
        InsulationVerdict::Bridged { .. } => "Flux and a clean tip, drawn off along the pin; then measure again.",
        InsulationVerdict::Sound => "What the board joins by itself, ground beside ground, need not be measured.",
    }
}
