//! When somebody or something is free.

use super::workload::WorkShift;

/// What is taken, in order; no two overlap.
#[derive(Debug, Clone, Default)]
pub(super) struct Calendar {
    taken: Vec<(i64, i64)>,
}

impl Calendar {
    /// The first moment from `from` on at which so many minutes are free.
    pub(super) fn free_from(&self, from: i64, minutes: i64) -> i64 {
        let mut at = from;
        let first = self.taken.partition_point(|(_, until)| *until <= at);
        for (begins, until) in &self.taken[first..] {
            if *begins >= at + minutes {
                break;
            }
            at = at.max(*until);
        }
        at
    }

    /// Takes it.
    pub(super) fn take(&mut self, from: i64, until: i64) {
        let at = self.taken.partition_point(|(begins, _)| *begins < from);
        self.taken.insert(at, (from, until));
    }

    /// Of what is taken, minutes until a moment.
    pub(super) fn taken_until(&self, end: i64) -> i64 {
        self.taken.iter().map(|(from, until)| (*until).min(end) - (*from).max(0).min(end)).filter(|m| *m > 0).sum()
    }

    /// The end of the last that is taken.
    pub(super) fn last(&self) -> Option<i64> {
        self.taken.last().map(|(_, until)| *until)
    }
}

/// The first moment from `from` on at which a shift has so many minutes left; none where no shift has.
pub(super) fn within_shift(shifts: &[WorkShift], from: i64, minutes: i64) -> Option<i64> {
    let at = |shift: &WorkShift| Some(from.max(shift.from)).filter(|at| at + minutes <= shift.until);
    shifts.iter().find_map(at)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_gap_is_taken_where_it_is_long_enough_and_the_end_where_none_is() {
        let mut calendar = Calendar::default();
        calendar.take(30, 60);
        calendar.take(0, 10);
        assert_eq!(calendar.free_from(0, 20), 10);
        assert_eq!(calendar.free_from(0, 21), 60);
        assert_eq!(calendar.free_from(5, 0), 10, "in the middle of something nothing is free");
        assert_eq!((calendar.taken_until(40), calendar.last()), (20, Some(60)));
    }

    #[test]
    fn a_task_is_not_split_over_two_shifts() {
        let shifts = [WorkShift { from: 0, until: 60 }, WorkShift { from: 120, until: 300 }];
        assert_eq!(within_shift(&shifts, 10, 50), Some(10));
        assert_eq!(within_shift(&shifts, 11, 50), Some(120));
        assert_eq!(within_shift(&shifts, 0, 181), None);
    }
}
