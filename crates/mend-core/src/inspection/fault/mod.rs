//! Is the port the fault at all? Rules over the condition of its lands and the diode sheet, a file each; each speaks for a place where
//! the fault may be, and names its pins.
//!
//! - `clue`: what a rule is given and what it says; a file for each rule
//!
//! A rule is a function from what was seen to a [`Clue`]; it is listed in `RULES` and says nothing where it does not apply. What
//! all of them come to is [`suspicion`]. It finds no fault by itself: it says which of three places to look at first, and why.

mod broken_land;
mod clue;
mod leaks_behind;
mod like_the_others;
mod open_at_the_port;
mod short_goes_with_it;
mod short_stays;
mod short_to_settle;

pub use clue::{Clue, ClueKind, SeenPin, Suspect};

/// What it says of the pins that were seen; none where it does not apply.
type Rule = fn(&[SeenPin]) -> Option<Clue>;

/// All rules, in alphabetic order.
const RULES: [Rule; 7] = [
    broken_land::clue,
    leaks_behind::clue,
    like_the_others::clue,
    open_at_the_port::clue,
    short_goes_with_it::clue,
    short_stays::clue,
    short_to_settle::clue,
];

/// What all that was seen comes to.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Suspicion {
    /// Too little was looked at; pins that have not been read.
    Open {
        /// How many.
        left: usize,
    },
    /// The port.
    Port,
    /// The port, and what is behind it.
    PortAndBehind,
    /// Not the port: what is behind it.
    Behind,
    /// Not the port, and nothing behind it that was measured.
    Elsewhere,
}

/// The reading with its reasons.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FaultReading {
    /// What it comes to.
    pub suspicion: Suspicion,
    /// What speaks for it.
    pub clues: Vec<Clue>,
}

/// Reads the condition and the sheet of a port.
///
/// ```
/// use mend_core::board::Role;
/// use mend_core::inspection::fault::{SeenPin, Suspicion, suspicion};
/// use mend_core::inspection::sheet::DiodeReading::Volts;
/// let short = SeenPin {
///     name: "A4".to_owned(),
///     role: Role::Power,
///     condition: None,
///     before: Some(Volts(0.002)),
///     off: Some(Volts(0.002)),
///     reference: None,
/// };
/// assert_eq!(suspicion(&[short]).suspicion, Suspicion::Behind, "a short that is there with the port off is not the port");
/// ```
pub fn suspicion(pins: &[SeenPin]) -> FaultReading {
    let clues: Vec<Clue> = RULES.iter().filter_map(|rule| rule(pins)).collect();
    let points = |at: Suspect| clues.iter().any(|clue| clue.suspect == at && clue.kind != ClueKind::ShortToSettle);
    let suspicion = match (points(Suspect::Port), points(Suspect::Behind)) {
        (true, true) => Suspicion::PortAndBehind,
        (true, false) => Suspicion::Port,
        (false, true) => Suspicion::Behind,
        (false, false) if points(Suspect::Elsewhere) => Suspicion::Elsewhere,
        (false, false) => Suspicion::Open { left: pins.iter().filter(|pin| pin.before.is_none()).count() },
    };
    FaultReading { suspicion, clues }
}

#[cfg(test)]
mod tests {
    use super::clue::fixture::pin;
    use super::*;
    use crate::inspection::sheet::DiodeReading::{Open, Volts};

    #[test]
    fn what_was_seen_points_to_the_port_behind_it_to_both_or_elsewhere() {
        let like = || pin("A1", Some(Volts(0.5)), None);
        let of = |pins: &[SeenPin]| suspicion(pins).suspicion;
        assert_eq!(of(&[like(), pin("A2", None, None)]), Suspicion::Open { left: 1 });
        assert_eq!(of(&[like(), like()]), Suspicion::Elsewhere);
        assert_eq!(of(&[like(), pin("A2", Some(Open), None)]), Suspicion::Port);
        let stays = || pin("A3", Some(Volts(0.0)), Some(Volts(0.001)));
        assert_eq!(of(&[like(), stays()]), Suspicion::Behind);
        assert_eq!(of(&[pin("A2", Some(Open), None), stays()]), Suspicion::PortAndBehind);
    }

    #[test]
    fn a_short_with_the_part_on_settles_nothing_until_it_is_off() {
        let short = pin("A2", Some(Volts(0.0)), None);
        let read = suspicion(&[short]);
        assert_eq!((read.suspicion, read.clues[0].kind), (Suspicion::Open { left: 0 }, ClueKind::ShortToSettle));
        assert_eq!(suspicion(&[pin("A2", Some(Volts(0.0)), Some(Volts(0.5)))]).suspicion, Suspicion::Port);
    }
}
