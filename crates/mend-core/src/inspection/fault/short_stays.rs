//! A short that is there with the port off is not the port.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::ShortStays, Suspect::Behind, |pin| pin.off() == Some(PinStanding::Short))
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::Volts;

    #[test]
    fn a_short_without_the_part_is_behind_it() {
        assert!(clue(&[pin("A1", None, Some(Volts(0.001)))]).is_some());
        assert_eq!(clue(&[pin("A1", Some(Volts(0.001)), Some(Volts(0.5)))]), None);
    }
}
