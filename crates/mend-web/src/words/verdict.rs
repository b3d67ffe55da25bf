//! The verdict of a pin walk, in words.

use mend_core::inspection::Verdict;

/// A verdict, in a few words.
pub fn verdict(verdict: &Verdict) -> String {
    match verdict {
        Verdict::Unfinished { left: 1 } => "1 pin to walk".to_owned(),
        Verdict::Unfinished { left } => format!("{left} pins to walk"),
        Verdict::Sound => "Every pin is firm".to_owned(),
        Verdict::TouchUp { pins } => format!("{} to touch up", pins.len()),
        Verdict::Reflow { count } => format!("{count} loose: reflow"),
        Verdict::StartOver { pins } => format!("Start over: {}", pins.join(", ")),
    }
}

/// The step that mends it.
pub const fn rework(verdict: &Verdict) -> &'static str {
    match verdict {
        Verdict::Unfinished { .. } => "Push each pin a little sideways and mark what it does.",
        Verdict::Sound => "On to the tests, with as little closed up as possible.",
        Verdict::TouchUp { .. } => {
            "Flux and a clean tip on each: bridges drag away, starved pins get a touch of solder, loose pins are pressed \
             down while wet. Clean, then walk these pins again."
        }
        Verdict::Reflow { .. } => {
            "Flux the whole row, air as planned, press flat and level until every pin sinks, hold until solid. Then walk \
             all pins again."
        }
        Verdict::StartOver { .. } => {
            "A joint under the body cannot be reached, and a pin that is gone cannot be mended: lift the part again, \
             re-tin to even domes, fit a good part."
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_verdict_has_its_title_and_what_mends_it() {
        let pins = || vec!["A1".to_owned(), "A2".to_owned()];
        let all = [
            (Verdict::Unfinished { left: 1 }, "1 pin to walk"),
            (Verdict::Unfinished { left: 7 }, "7 pins to walk"),
            (Verdict::Sound, "Every pin is firm"),
            (Verdict::TouchUp { pins: pins() }, "2 to touch up"),
            (Verdict::Reflow { count: 5 }, "5 loose: reflow"),
            (Verdict::StartOver { pins: pins() }, "Start over: A1, A2"),
        ];
        for (found, title) in all {
            assert_eq!(verdict(&found), title);
            assert!(rework(&found).ends_with('.'));
        }
    }
}
