//! What is known of a thing, over time: the middle and the band after each lesson, and what taught each point.

use askama::Template;

use super::n;

const LEFT: f64 = 62.0;
const WIDTH: f64 = 520.0;
const TOP: f64 = 12.0;
const BOTTOM: f64 = 112.0;
/// Lessons nearer than this on paper are drawn apart.
const APART: f64 = 14.0;

/// A point of the course.
#[derive(Debug, Clone)]
pub(crate) struct KnownPoint {
    /// When, ms since the epoch.
    pub(crate) at_ms: i64,
    /// Eight in ten lie between the first and the last, on the scale of the axis.
    pub(crate) band: [f64; 3],
    /// What taught it, and the day, in words.
    pub(crate) taught: String,
    pub(crate) day: String,
}

/// A point on paper.
struct DrawnPoint {
    x: String,
    y: String,
    taught: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/known_line.svg", escape = "html")]
pub(crate) struct KnownLine {
    band: String,
    middle: String,
    points: Vec<DrawnPoint>,
    zero: Option<String>,
    ticks: Vec<(String, String)>,
    days: [String; 2],
    description: String,
}

impl KnownLine {
    /// Draws a course, oldest first, with its unit; none of fewer than two points.
    pub(crate) fn new(course: &[KnownPoint], name: &str, unit: &str) -> Option<Self> {
        let (first, last) = (course.first()?, course.last()?);
        if course.len() < 2 {
            return None;
        }
        let all = course.iter().flat_map(|point| point.band);
        let (low, high) = all.fold((0.0_f64, 0.0_f64), |(low, high), at| (low.min(at), high.max(at)));
        let room = 0.06 * (high - low).max(1.0);
        let (low, high) = (low - room, high + room);
        let span = (last.at_ms - first.at_ms).max(1) as f64;
        let y = |at: f64| BOTTOM - (BOTTOM - TOP) * (at - low) / (high - low);
        let mut xs: Vec<f64> = Vec::new();
        for (k, point) in course.iter().enumerate() {
            let by_time = LEFT + WIDTH * (point.at_ms - first.at_ms) as f64 / span;
            // What follows needs its room as well.
            let most = LEFT + WIDTH - APART * (course.len() - 1 - k) as f64;
            xs.push(by_time.max(xs.last().map_or(LEFT, |x| x + APART)).min(most.max(LEFT)));
        }
        let at = |k: usize, which: usize| format!("{},{}", n(xs[k]), n(y(course[k].band[which])));
        let upper = (0..course.len()).map(|k| at(k, 2));
        let lower = (0..course.len()).rev().map(|k| at(k, 0));
        let tick = |at: f64| (n(y(at)), format!("{at:+.0} {unit}").replace("+0 ", "0 ").replace('-', "−"));
        Some(Self {
            band: upper.chain(lower).collect::<Vec<_>>().join(" "),
            middle: (0..course.len()).map(|k| at(k, 1)).collect::<Vec<_>>().join(" "),
            points: course
                .iter()
                .zip(&xs)
                .map(|(point, x)| DrawnPoint { x: n(*x), y: n(y(point.band[1])), taught: point.taught.clone() })
                .collect(),
            zero: Some(n(y(0.0))),
            days: [first.day.clone(), last.day.clone()],
            ticks: vec![tick(high - room), tick(low + room)],
            description: format!("{name} after each of {} lessons", course.len()),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_course_has_a_point_a_lesson_and_none_lie_on_each_other() {
        let point = |at_ms, mid: f64| KnownPoint {
            at_ms,
            band: [mid - 10.0, mid, mid + 10.0],
            taught: String::new(),
            day: String::new(),
        };
        assert!(KnownLine::new(&[point(0, 0.0)], "Jet", "%").is_none());
        let drawn = KnownLine::new(&[point(0, -20.0), point(1, -25.0), point(1_000_000, -30.0)], "Jet", "%");
        let drawn = drawn.expect("three lessons");
        let xs: Vec<f64> = drawn.points.iter().filter_map(|point| point.x.parse().ok()).collect();
        assert!(xs[1] - xs[0] >= APART - 0.1 && xs[2] > xs[1], "{xs:?}");
        assert_eq!(drawn.ticks[1].1, "−40 %");
    }
}
