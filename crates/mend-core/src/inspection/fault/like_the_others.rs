//! Every pin is read and like those of good boards, and no land is broken: the fault is not here.

use super::clue::{Clue, ClueKind, SeenPin, Suspect};
use crate::inspection::condition::Condition;
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    let like = |pin: &SeenPin| {
        let whole = pin.condition.is_none_or(|condition| condition == Condition::Whole);
        whole && pin.reference.is_some() && pin.before() == Some(PinStanding::LikeOthers)
    };
    let all = !pins.is_empty() && pins.iter().all(like);
    all.then_some(Clue { kind: ClueKind::LikeTheOthers, suspect: Suspect::Elsewhere, pins: Vec::new() })
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::Volts;

    #[test]
    fn all_pins_have_to_be_like_those_of_good_boards() {
        let like = || pin("A1", Some(Volts(0.5)), None);
        assert!(clue(&[like(), like()]).is_some());
        assert_eq!(clue(&[like(), pin("A2", None, None)]), None, "one is not read");
        let unknown = SeenPin { reference: None, ..like() };
        assert_eq!(clue(&[like(), unknown]), None, "nothing to hold it against");
        assert_eq!(clue(&[]), None);
    }
}
