//! When jobs are due, told below the lanes.

use super::written::{CROSS, LETTER, letters};
use super::{EDGE, LEFT, WIDTH};
use crate::draw::n;

/// From the lanes to the words of what is due, and from line to line of them.
pub(super) const DUE: f64 = 24.0;
pub(super) const LINE: f64 = 15.0;

/// Jobs that are due at a moment.
pub(crate) struct DueShape {
    pub(crate) jobs: String,
    pub(crate) x: String,
    /// At the right end, where its words go to the left.
    pub(crate) at_end: bool,
    pub(crate) late: bool,
    /// How far below the lanes its words stand: lower than those that they would be printed over.
    pub(crate) below: String,
}

/// Where jobs are due on the picture.
pub(super) struct DueMark {
    pub(super) jobs: Vec<i64>,
    pub(super) x: f64,
    pub(super) late: bool,
}

impl DueMark {
    fn jobs(&self) -> String {
        self.jobs.iter().map(i64::to_string).collect::<Vec<_>>().join(", ")
    }

    fn at_end(&self) -> bool {
        self.x > LEFT + WIDTH - EDGE
    }

    /// From where to where its words reach.
    #[allow(clippy::cast_precision_loss, reason = "letters in a line")]
    fn reach(&self) -> (f64, f64) {
        let width = letters(&self.jobs()) as f64 * LETTER + 5.0 * LETTER + if self.late { CROSS } else { 0.0 };
        if self.at_end() { (self.x - width, self.x) } else { (self.x - width / 2.0, self.x + width / 2.0) }
    }
}

/// Marks at the same place become one that names all their jobs.
pub(super) fn together(marks: Vec<DueMark>) -> Vec<DueMark> {
    let mut kept: Vec<DueMark> = Vec::new();
    for mark in marks {
        match kept.iter_mut().find(|known| (known.x - mark.x).abs() < 1.0) {
            Some(known) => {
                known.late |= mark.late;
                known.jobs.extend(mark.jobs);
            }
            None => kept.push(mark),
        }
    }
    kept
}

/// The marks with their words in lines below the lanes, so that none is printed over another; how many lines.
#[allow(clippy::cast_precision_loss, reason = "a handful of lines")]
pub(super) fn due_shapes(mut marks: Vec<DueMark>) -> (Vec<DueShape>, f64) {
    marks.sort_by(|a, b| a.reach().0.total_cmp(&b.reach().0));
    let mut ends: Vec<f64> = Vec::new();
    let shape = |mark: &DueMark| {
        let (from, until) = mark.reach();
        let line = ends.iter().position(|end| *end <= from).unwrap_or_else(|| {
            ends.push(until);
            ends.len() - 1
        });
        ends[line] = until;
        let below = n(DUE + line as f64 * LINE);
        DueShape { jobs: mark.jobs(), x: n(mark.x), at_end: mark.at_end(), late: mark.late, below }
    };
    let shapes = marks.iter().map(shape).collect();
    (shapes, ends.len().max(1) as f64)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_of_what_is_due_are_printed_over_no_others() {
        let mark = |job, x| DueMark { jobs: vec![job], x, late: true };
        let (shapes, lines) =
            due_shapes(together(vec![mark(1, 300.0), mark(2, 300.2), mark(3, 330.0), mark(4, 600.0)]));
        let told: Vec<_> = shapes.iter().map(|due| (due.jobs.as_str(), due.below.as_str())).collect();
        assert_eq!(told, [("1, 2", "24"), ("3", "39"), ("4", "24")]);
        assert_eq!(lines, 2.0);
    }
}
