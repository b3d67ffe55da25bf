//! What is known of a station and a board from lessons, and a station as it is known: what plans depend on.

use mend_core::calibration::lesson::{Lesson, Owner, known_at};
use mend_core::heat::known::{Belief, Knowledge};
use mend_core::units::Length;
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::lesson;
use mend_store::LessonRow;

/// Nozzles are told apart to this, mm.
const SAME_NOZZLE_MM: f64 = 0.3;

/// What lessons are asked for.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Setup {
    pub(crate) station: i64,
    /// None: whatever board.
    pub(crate) board: Option<i64>,
    pub(crate) nozzle: Option<Length>,
}

/// A station's file with the numbers of the lessons that count: a plan that was made from another is none any more.
pub(crate) fn as_known(file: &str, lessons: &[i64]) -> String {
    let numbers: Vec<String> = lessons.iter().map(i64::to_string).collect();
    if numbers.is_empty() { file.to_owned() } else { format!("{file}lessons {}", numbers.join(" ")) }
}

/// What lessons say of a setup now, guessing the rest as widely as its plan would. One that can't be read does not count.
pub(crate) fn known(lessons: &[LessonRow], setup: Setup, bundle: &Bundle, now_ms: i64) -> Knowledge {
    let watch = Watch::new();
    let blind = Bundle { known: Knowledge::NOTHING, ..bundle.clone() };
    let blind = Belief::blind(&blind.order(&watch).case(&[]));
    known_at(&counting(lessons, setup), now_ms as f64 / 1000.0, &blind)
}

/// Kinds of lessons that say that something was changed: what was learnt of it before is learnt of another thing.
pub(crate) const NEW_HEATER: &str = "new-heater";
pub(crate) const NEW_NOZZLE: &str = "new-nozzle";
/// A lesson that came with efficiency and loss, which are in the station's file since: what was learnt before of the air's offset was an
/// offset from others, whether or not the lesson itself is left out.
pub(crate) const NOZZLE_AIR: &str = "nozzle-air";
/// One that set what drives the iron, in the station's file.
pub(crate) const IRON: &str = "iron";

/// The lessons that count for a setup, oldest first: what is left out or can't be read does not, and of what was changed since,
/// nothing.
pub(crate) fn counting(rows: &[LessonRow], setup: Setup) -> Vec<Lesson> {
    let last = |kind: &str| {
        let of = |row: &&LessonRow| {
            let same = kind == NEW_HEATER || same_nozzle(row, setup);
            row.left_out.is_none() && row.lesson.kind == kind && row.lesson.station_id == setup.station && same
        };
        rows.iter().filter(of).map(|row| row.id).max().unwrap_or(0)
    };
    let (heater, nozzle) = (last(NEW_HEATER), last(NEW_NOZZLE));
    let of_air = |row: &&LessonRow| row.lesson.kind == NOZZLE_AIR && row.lesson.station_id == setup.station;
    let air = rows.iter().filter(of_air).map(|row| row.id).max().unwrap_or(0);
    let counts = |row: &LessonRow| {
        let mut lesson = counted(row, setup)?;
        lesson.shares.retain(|owner| match owner {
            Owner::Station => row.id > heater,
            Owner::Air => row.id > heater && row.id >= air,
            Owner::Nozzle => row.id > heater.max(nozzle),
            _ => true,
        });
        Some(lesson)
    };
    rows.iter().filter_map(counts).collect()
}

fn same_nozzle(row: &LessonRow, setup: Setup) -> bool {
    let own = row.lesson.nozzle_mm.zip(setup.nozzle);
    own.is_some_and(|(mm, nozzle)| (nozzle.in_mm() - mm).abs() < SAME_NOZZLE_MM)
}

/// A lesson as far as it counts for a setup; none where it is left out or can't be read.
fn counted(row: &LessonRow, setup: Setup) -> Option<Lesson> {
    if row.left_out.is_some() {
        return None;
    }
    let says = lesson::parse(row.lesson.says.as_bytes()).ok()?;
    let station = row.lesson.station_id == setup.station;
    let nozzle = station && same_nozzle(row, setup);
    let board = setup.board.is_some() && row.lesson.board_id == setup.board;
    let shares = [(Owner::Nozzle, nozzle), (Owner::Station, station), (Owner::Air, station), (Owner::Board, board)];
    let shares = shares.into_iter().filter_map(|(owner, shared)| shared.then_some(owner)).collect();
    Some(Lesson { says, at_s: row.taught_ms as f64 / 1000.0, shares })
}

#[cfg(test)]
mod tests {
    use mend_core::heat::known::Teachable;
    use mend_store::NewLesson;

    use super::*;
    use crate::fixture::{bundle, planned};

    fn row(id: i64, nozzle_mm: Option<f64>, says: Knowledge) -> LessonRow {
        let lesson = NewLesson {
            kind: "probe".to_owned(),
            station_id: 1,
            nozzle_mm,
            board_id: Some(7),
            job_id: None,
            says: lesson::write(&says).expect("written"),
            entered: String::new(),
            figures: String::new(),
        };
        LessonRow { id, lesson, taught_ms: 0, left_out: None }
    }

    #[test]
    fn a_jet_is_known_with_the_nozzle_that_it_was_measured_with_alone() {
        let rows = [row(3, Some(22.0), Knowledge::one(Teachable::Jet, -0.3, 0.08))];
        let with = |station, nozzle| {
            let setup = Setup { station, board: Some(0), nozzle: Some(Length::mm(nozzle)) };
            known(&rows, setup, &bundle(&planned().0), 0).precision.amax()
        };
        assert!(with(1, 22.0) > 50.0);
        assert!(with(1, 10.0) < 1e-9 && with(2, 22.0) < 1e-9);
    }

    #[test]
    fn a_new_heater_is_another_stations_and_a_new_nozzle_has_another_jet() {
        let change = |id, kind: &str, nozzle_mm| {
            let mut row = row(id, nozzle_mm, Knowledge::NOTHING);
            row.lesson.kind = kind.to_owned();
            row
        };
        let jet = || row(1, Some(22.0), Knowledge::one(Teachable::Jet, -0.3, 0.08));
        let flow = || row(2, None, Knowledge::one(Teachable::Flow, -0.2, 0.08));
        let of = |rows: &[LessonRow]| {
            let setup = Setup { station: 1, board: Some(0), nozzle: Some(Length::mm(22.0)) };
            let says = known(rows, setup, &bundle(&planned().0), 0);
            [Teachable::Jet, Teachable::Flow].map(|what| says.teaches(what))
        };
        assert_eq!(of(&[jet(), flow()]), [true, true]);
        assert_eq!(of(&[jet(), flow(), change(3, NEW_NOZZLE, Some(22.0))]), [false, true]);
        assert_eq!(of(&[jet(), flow(), change(3, NEW_NOZZLE, Some(10.0))]), [true, true], "that is another nozzle");
        assert_eq!(of(&[jet(), flow(), change(3, NEW_HEATER, None)]), [false, false]);
        let mut undone = change(3, NEW_HEATER, None);
        undone.left_out = Some("a slip".to_owned());
        assert_eq!(of(&[jet(), flow(), undone]), [true, true]);
    }

    #[test]
    fn with_efficiency_and_loss_measured_an_offset_from_others_counts_no_longer() {
        let said = |id, kind: &str| {
            let mut row = row(id, None, Knowledge::one(Teachable::Outlet, -20.0, 5.0));
            row.lesson.kind = kind.to_owned();
            row
        };
        let precision = |rows: &[LessonRow]| {
            let setup = Setup { station: 1, board: Some(0), nozzle: None };
            known(rows, setup, &bundle(&planned().0), 0).precision[(2, 2)]
        };
        let once = precision(&[said(1, "outlet")]);
        assert!(precision(&[said(1, "outlet"), said(2, "outlet")]) > 1.5 * once, "two say more than one");
        let anew = [said(1, "outlet"), said(2, NOZZLE_AIR)];
        assert!((precision(&anew) - once).abs() < 1e-9, "the second alone");
        let mut out = anew.clone();
        out[1].left_out = Some("held wrong".to_owned());
        assert!(precision(&out) < 1e-9, "what it put into the file stays there");
    }

    #[test]
    fn a_lesson_more_makes_another_station_of_it() {
        assert_eq!(as_known("{}", &[]), "{}");
        assert_ne!(as_known("{}", &[3, 5]), as_known("{}", &[3]));
    }
}
