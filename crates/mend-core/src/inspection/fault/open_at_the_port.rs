//! Nothing flows where it does on good boards: a joint, a contact or a trace of the port is open. What is behind a pin would have to be gone altogether to read the same.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::OpenAtThePort, Suspect::Port, |pin| pin.before() == Some(PinStanding::Open))
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::{Open, Volts};

    #[test]
    fn a_pin_that_is_open_where_others_are_not_speaks_for_the_port() {
        let found = clue(&[pin("A1", Some(Volts(0.5)), None), pin("A2", Some(Open), None)]).expect("one is open");
        assert_eq!(found.pins, ["A2"]);
        let unknown = SeenPin { reference: None, ..pin("A2", Some(Open), None) };
        assert_eq!(clue(&[unknown]), None, "pins that are not used are open on every board");
    }
}
