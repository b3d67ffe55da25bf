//! A short that was there with the old part and is gone without it was in the part: bent contacts, a crushed shell.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::ShortGoesWithIt, Suspect::Port, |pin| {
        pin.before() == Some(PinStanding::Short) && pin.off().is_some_and(|off| off != PinStanding::Short)
    })
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::Volts;

    #[test]
    fn a_short_that_is_gone_with_the_part_was_in_it() {
        assert!(clue(&[pin("A1", Some(Volts(0.0)), Some(Volts(0.5)))]).is_some());
        assert_eq!(clue(&[pin("A1", Some(Volts(0.0)), Some(Volts(0.0)))]), None);
        assert_eq!(clue(&[pin("A1", Some(Volts(0.0)), None)]), None, "nobody has looked");
    }
}
