//! A short with the old part on may be in it or behind it: with the part off it is settled.

use super::clue::{Clue, ClueKind, SeenPin, Suspect, about};
use crate::inspection::sheet::PinStanding;

pub(super) fn clue(pins: &[SeenPin]) -> Option<Clue> {
    about(pins, ClueKind::ShortToSettle, Suspect::Behind, |pin| {
        pin.before() == Some(PinStanding::Short) && pin.off().is_none()
    })
}

#[cfg(test)]
mod tests {
    use super::super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::Volts;

    #[test]
    fn a_short_is_to_be_settled_until_it_is_read_with_the_part_off() {
        assert!(clue(&[pin("A1", Some(Volts(0.0)), None)]).is_some());
        assert_eq!(clue(&[pin("A1", Some(Volts(0.0)), Some(Volts(0.0)))]), None);
    }
}
