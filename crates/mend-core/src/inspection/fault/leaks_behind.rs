//! More flows than on good boards though it is no short: a junction behind the pin has been hurt. A chip behind a port fails with it often.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::LeaksBehind, Suspect::Behind, |pin| {
        // With the part off what is left is the board alone; with it on, a low pin may be dirt in the part.
        pin.off().or(pin.before()) == Some(PinStanding::Low)
    })
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::Volts;

    #[test]
    fn a_pin_that_is_low_speaks_for_what_is_behind_it() {
        assert!(clue(&[pin("A1", Some(Volts(0.3)), None)]).is_some());
        assert_eq!(clue(&[pin("A1", Some(Volts(0.3)), Some(Volts(0.5)))]), None, "it was dirt in the part");
    }
}
