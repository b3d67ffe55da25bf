//! What one measurement or one job taught, and of whom: what is known of a station, a board, a hand and a place adds up from lessons.

use crate::heat::known::{Belief, Knowledge, Teachable, TeachableValues};

/// Whose knowledge it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Owner {
    /// A station with the nozzle that was on it.
    Nozzle,
    /// A station, whatever nozzle is on it.
    Station,
    /// A station's heater, as efficiency and loss of its nozzles have it.
    Air,
    /// A board revision.
    Board,
    /// Who holds the nozzle.
    Person,
    /// Where it is done.
    Place,
}

impl Owner {
    /// All of them.
    pub const ALL: [Self; 6] = [Self::Nozzle, Self::Station, Self::Air, Self::Board, Self::Person, Self::Place];

    /// What can be learnt of one.
    pub const fn teachable(self) -> &'static [Teachable] {
        match self {
            Self::Nozzle => &[Teachable::Jet],
            Self::Station => &[Teachable::Flow],
            Self::Air => &[Teachable::Outlet],
            Self::Board => &[Teachable::Conduction, Teachable::Capacity],
            Self::Person => &[Teachable::Distance],
            Self::Place => &[Teachable::Losses],
        }
    }
}

/// How far a station wanders in a month, of its logarithm: heaters and nozzles age, a board does not (design of the station's pages).
const STATION_WANDERS: f64 = 0.03;
/// A jet is not the same from job to job: how the nozzle sits, what the mains give (E, as between a probe and full heat).
const JET_VARIES: f64 = 0.06;
/// A hand and a room are not the same from job to job: standard deviation of the logarithm within one person and one place (E: six
/// tenths of what is guessed of anybody's and anywhere; the rest is between them).
const HAND_VARIES: f64 = 0.15;
const ROOM_VARIES: f64 = 0.12;

/// Seconds in a month.
const MONTH_S: f64 = 30.44 * 86_400.0;
/// An outlet that wanders by a factor does so of about this rise, K (E: 300 K over ambient).
const OUTLET_RISE_K: f64 = 300.0;

/// A lesson, as far as it counts for a case.
#[derive(Debug, Clone, PartialEq)]
pub struct Lesson {
    /// What was learnt, of all its owners together: what only their sum was seen of stays a sum.
    pub says: Knowledge,
    /// When, s on any clock that only goes on.
    pub at_s: f64,
    /// Which of its owners the case shares.
    pub shares: Vec<Owner>,
}

/// What lessons, in their order, say of a case at a moment: of the owners that it shares with each, the others being guessed as widely
/// as `blind` has them; each aged since it was taught. What varies from job to job a lesson knows of its own job only, and the next
/// job has its own again.
///
/// ```
/// use mend_core::calibration::lesson::{Lesson, Owner, known_at};
/// use mend_core::example::Bench;
/// use mend_core::heat::known::{Belief, Knowledge, Teachable};
/// let bench = Bench::try_new().expect("the example");
/// let blind = Belief::blind(&bench.order().case(&[]));
/// let lesson = Lesson { says: Knowledge::one(Teachable::Jet, -0.2, 0.08), at_s: 0.0, shares: vec![Owner::Nozzle] };
/// let (now, later) = (known_at(&[lesson.clone()], 0.0, &blind), known_at(&[lesson], 3.0e7, &blind));
/// assert!(later.precision[(0, 0)] < now.precision[(0, 0)], "a year later it is known less well");
/// ```
pub fn known_at(lessons: &[Lesson], now_s: f64, blind: &Belief) -> Knowledge {
    let lasting = lasting_at(lessons, now_s, blind);
    if lasting.is_nothing() { lasting } else { lasting.wandered(&varies()) }
}

/// The same of what lasts: without what the next job has of its own.
pub(super) fn lasting_at(lessons: &[Lesson], now_s: f64, blind: &Belief) -> Knowledge {
    let (mut known, mut last_s) = (Knowledge::NOTHING, f64::NEG_INFINITY);
    for lesson in lessons {
        let shared: Vec<Teachable> = lesson.shares.iter().flat_map(|owner| owner.teachable()).copied().collect();
        let says = lesson.says.of(&shared, blind).wandered(&varies());
        known = aged(&known, lesson.at_s - last_s).and(&says);
        last_s = lesson.at_s;
    }
    aged(&known, now_s - last_s)
}

/// A random walk of what ages: variance goes with time.
fn aged(known: &Knowledge, seconds: f64) -> Knowledge {
    if known.is_nothing() || seconds <= 0.0 {
        return *known;
    }
    let by = STATION_WANDERS * (seconds / MONTH_S).sqrt();
    let mut values = TeachableValues::zeros();
    for what in [Owner::Nozzle, Owner::Station, Owner::Air].iter().flat_map(|owner| owner.teachable()) {
        values[*what as usize] = if *what == Teachable::Outlet { by * OUTLET_RISE_K } else { by };
    }
    known.wandered(&values)
}

/// How far things vary from job to job.
fn varies() -> TeachableValues {
    let mut values = TeachableValues::zeros();
    values[Teachable::Jet as usize] = JET_VARIES;
    values[Teachable::Distance as usize] = HAND_VARIES;
    values[Teachable::Losses as usize] = ROOM_VARIES;
    values
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::example::Bench;

    fn known(lessons: &[Lesson], now_s: f64) -> Knowledge {
        let bench = Bench::try_new().expect("the example");
        known_at(lessons, now_s, &Belief::blind(&bench.order().case(&[])))
    }

    fn said(what: Teachable, mean: f64, shares: &[Owner]) -> Lesson {
        Lesson { says: Knowledge::one(what, mean, 0.1), at_s: 0.0, shares: shares.to_vec() }
    }

    #[test]
    fn a_board_does_not_age_and_a_station_does() {
        let year = 12.0 * MONTH_S;
        let board = known(&[said(Teachable::Conduction, 0.3, &[Owner::Board])], year);
        assert!((board.precision[(4, 4)] - 100.0).abs() < 1e-6);
        let station = known(&[said(Teachable::Jet, 0.3, &[Owner::Nozzle])], year);
        let spread = station.precision[(0, 0)].powf(-0.5);
        let expected = [0.1, JET_VARIES, JET_VARIES, STATION_WANDERS * 12.0_f64.sqrt()];
        assert!((spread - expected.iter().map(|s| s * s).sum::<f64>().sqrt()).abs() < 1e-9, "{spread}");
    }

    #[test]
    fn a_lesson_that_is_left_out_was_never_taught_and_one_of_another_board_says_nothing_of_this() {
        let of = [Owner::Person];
        let all = [said(Teachable::Distance, 0.2, &of), said(Teachable::Distance, -0.9, &of)];
        assert!(known(&all, 0.0).pull[3] < 0.0 && known(&all[..1], 0.0).pull[3] > 0.0);
        assert!(known(&[said(Teachable::Conduction, 0.3, &[Owner::Station])], 0.0).precision.amax() < 1e-9);
    }
}
