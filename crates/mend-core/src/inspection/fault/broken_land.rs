//! A land that is lifted, torn, eaten or gone is the port's own fault: whatever else is wrong, this is.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::condition::Condition;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::BrokenLand, Suspect::Port, |pin| {
        pin.condition.is_some_and(|condition| condition != Condition::Whole)
    })
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;

    #[test]
    fn a_land_that_is_not_whole_speaks_for_the_port() {
        let lifted = SeenPin { condition: Some(Condition::Lifted), ..pin("A2", None, None) };
        let found = clue(&[pin("A1", None, None), lifted]).expect("one is lifted");
        assert_eq!(found.pins, ["A2"]);
        assert_eq!(clue(&[pin("A1", None, None)]), None);
    }
}
