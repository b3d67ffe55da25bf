//! Hot swap: the old part lifted and the new one set while everything is still liquid.

use super::equipment::SkillLevel;
use super::fit::Fit;
use super::start::{Start, air, unfed};
use super::subject::Subject;
use super::{Method, MethodFamily, MethodText};
use crate::board::KeepIntact;
use crate::caution::Caution;

/// See the head of this file.
#[derive(Debug)]
pub struct HotSwap;

static WORDS: MethodText = MethodText {
    name: "Hot swap",
    how: "The old part comes off and the new one, fluxed and at hand, goes on in the same heat.",
    danger: "one try, alignment",
    early: &[
        "A pad stayed dull when the old part came: stop, do it the other way.",
        "The new part floats on one side: it is not level, lift it and look.",
    ],
    clean_up: "None between: the old metal stays in the new joints.",
    heat: &["New part fluxed, in the other tweezers; old one aside, new one down, air on both, then hold."],
    cue: "Every joint is bright when the old part lifts, and still bright when the new one sinks.",
    not_coming: &["Let it cool and do it in two heats.", "More flow at the same distance.", "A preheater below."],
    cautions: &[Caution::Burns, Caution::Fumes],
    level: SkillLevel::Practised,
};

impl Method for HotSwap {
    fn family(&self) -> MethodFamily {
        MethodFamily::HotSwap
    }

    fn words(&self) -> &'static MethodText {
        &WORDS
    }

    fn fit(&self, subject: &Subject<'_>) -> Fit {
        let level = subject.equipment.level;
        Fit::default()
            .not(subject.station.nozzles.is_empty(), "no hot-air nozzle at this station")
            .not(
                level < SkillLevel::Practised,
                format!("one try: it wants practised hands, these are {}", level.name()),
            )
            .not(subject.keep_intact == KeepIntact::Part, "nothing new goes on a donor's board")
            .not(subject.keep_intact == KeepIntact::Both, "the same part goes back: there is nothing to swap")
            .not(subject.board.connector.pegs > 0, "plastic feet need a push that would tilt it while liquid")
            .not(subject.holes() > 6, format!("{} legs do not find their holes in one try", subject.holes()))
            .good(!subject.is_heavy(), "the board is light enough to stay liquid at a touch of air")
            .good(true, "one heat instead of two")
    }

    fn starts(&self, subject: &Subject<'_>) -> Vec<Start> {
        let faces = [subject.board.hanging(), subject.board.connector.face];
        faces.into_iter().map(|face| air(subject, unfed(subject.composition), face)).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::super::fixture::{against, shop};
    use super::*;

    #[test]
    fn it_wants_practised_hands_and_a_new_part_for_a_customers_board() {
        let mut port = shop("usb-c-top");
        assert!(against(&HotSwap, &port).contains("these are trained"));
        port.equipment.level = SkillLevel::Practised;
        assert_eq!(against(&HotSwap, &port), "");
        assert_eq!(HotSwap.starts(&port.subject()).len(), 2, "from either face");
        port.keep_intact = KeepIntact::Both;
        assert_eq!(against(&HotSwap, &port), "the same part goes back: there is nothing to swap");
        port.keep_intact = KeepIntact::Part;
        assert_eq!(against(&HotSwap, &port), "nothing new goes on a donor's board");
        port.keep_intact = KeepIntact::Board;
        port.board.connector.pegs = 2;
        assert!(against(&HotSwap, &port).contains("plastic feet"));
    }
}
