//! Where the fault of a port may be, and why, in words.

use mend_core::inspection::Verdict;
use mend_core::inspection::fault::{Clue, ClueKind, Suspicion};

/// What was seen comes to this.
pub fn suspicion(of: &Suspicion) -> String {
    match of {
        Suspicion::Open { left: 0 } => "Not settled yet".to_owned(),
        Suspicion::Open { left: 1 } => "One pin to read".to_owned(),
        Suspicion::Open { left } => format!("{left} pins to read"),
        Suspicion::Port => "The port is at fault".to_owned(),
        Suspicion::PortAndBehind => "The port, and what is behind it".to_owned(),
        Suspicion::Behind => "Not the port: what is behind it".to_owned(),
        Suspicion::Elsewhere => "Not the port: look elsewhere".to_owned(),
    }
}

/// Why.
pub fn clue(of: &Clue) -> String {
    let pins = of.pins.join(", ");
    match of.kind {
        ClueKind::BrokenLand => format!("{pins}: the land is not whole."),
        ClueKind::OpenAtThePort => {
            format!("{pins}: open, where good boards are not. A joint, a contact or a trace of the port.")
        }
        ClueKind::ShortGoesWithIt => format!("{pins}: the short was gone with the part."),
        ClueKind::ShortStays => format!("{pins}: a short that is there with the port off is not the port."),
        ClueKind::ShortToSettle => {
            format!("{pins}: joined to ground. Read with the port off too: then it is settled whose short it is.")
        }
        ClueKind::LeaksBehind => {
            format!("{pins}: lower than on good boards. The chip behind a port often fails with it.")
        }
        ClueKind::LikeTheOthers => "Every pin reads like on good boards.".to_owned(),
    }
}

/// What a sheet with the new part on comes to, and what mends it.
pub fn sheet_verdict(of: &Verdict) -> String {
    match of {
        Verdict::Unfinished { left } => format!("{left} pins to read with the new part on"),
        Verdict::Sound => "Every pin reads as it should".to_owned(),
        Verdict::TouchUp { pins } => format!("{}: flux and iron, pin by pin", pins.join(", ")),
        Verdict::Reflow { count } => format!("{count} pins: flux and air again, pressing"),
        Verdict::StartOver { pins } => format!("{}: under the body, the part comes off again", pins.join(", ")),
    }
}

#[cfg(test)]
mod tests {
    use mend_core::inspection::fault::Suspect;

    use super::*;

    #[test]
    fn a_reason_names_its_pins() {
        let pins = vec!["A4".to_owned(), "B9".to_owned()];
        let short = Clue { kind: ClueKind::ShortStays, suspect: Suspect::Behind, pins };
        assert_eq!(clue(&short), "A4, B9: a short that is there with the port off is not the port.");
        assert_eq!(suspicion(&Suspicion::Open { left: 3 }), "3 pins to read");
    }
}
