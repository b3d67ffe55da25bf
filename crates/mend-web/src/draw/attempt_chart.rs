//! An attempt over time: what was hidden while it was done. The coldest joint and where it lets go, what stands near, the board; when
//! all was free, and what was harmed when.

use askama::Template;
use mend_core::planning::plan::Plan;
use mend_core::practice::attempt::Attempt;
use mend_core::practice::harm::Harm;
use mend_core::units::{Scale, Temperature};

use super::axis::round_numbers;
use super::n;

const LEFT: f64 = 56.0;
const TOP: f64 = 52.0;
const WIDTH: f64 = 760.0;
const HEIGHT: f64 = 270.0;
/// An attempt that was shorter is drawn as long as this, s.
const SHORTEST_S: f64 = 20.0;
/// Words of marks stand in lines above the picture, so that none is printed over another; a letter's width.
const LINES: [f64; 3] = [9.0, 25.0, 41.0];
const LETTER: f64 = 9.0;

/// A curve.
pub(crate) struct AttemptCurve {
    pub(crate) class: &'static str,
    pub(crate) name: String,
    pub(crate) points: String,
    /// Where its name stands, right of its end.
    pub(crate) y: String,
}

/// A moment.
pub(crate) struct AttemptMark {
    pub(crate) class: &'static str,
    pub(crate) x: String,
    pub(crate) sign: &'static str,
    pub(crate) line: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/attempt_chart.svg", escape = "html")]
pub(crate) struct AttemptChart {
    pub(crate) curves: Vec<AttemptCurve>,
    pub(crate) marks: Vec<AttemptMark>,
    /// Where the coldest joint lets go.
    pub(crate) lets_go: Option<String>,
    pub(crate) temperatures: Vec<(String, String)>,
    pub(crate) seconds: Vec<(String, String)>,
    /// The plan's release, from where to where, and where it says stop; of a rehearsal alone.
    pub(crate) planned: Option<(String, String, Option<String>)>,
    /// The seconds that are drawn, for whoever moves along it.
    pub(crate) longest: usize,
    /// And those that there is room for.
    pub(crate) room_s: String,
}

struct ChartPaper {
    seconds: f64,
    hottest: f64,
    coolest: f64,
}

impl ChartPaper {
    fn x(&self, seconds: f64) -> f64 {
        LEFT + (WIDTH - LEFT) * (seconds / self.seconds).clamp(0.0, 1.0)
    }

    fn y(&self, celsius: f64) -> f64 {
        let share = (celsius - self.coolest) / (self.hottest - self.coolest);
        HEIGHT - (HEIGHT - TOP) * share.clamp(0.0, 1.0)
    }

    fn curve(&self, class: &'static str, name: String, values: &[f32]) -> AttemptCurve {
        #[allow(clippy::cast_precision_loss, reason = "seconds of an attempt")]
        let point = |(k, t): (usize, &f32)| format!("{},{}", n(self.x(k as f64)), n(self.y(f64::from(*t))));
        let points: Vec<String> = values.iter().enumerate().map(point).collect();
        let y = n(values.last().map_or(HEIGHT, |t| self.y(f64::from(*t))));
        AttemptCurve { class, name, points: points.join(" "), y }
    }
}

/// The joint that was the furthest from letting go when it was over, or the last to.
fn coldest(attempt: &Attempt) -> Option<usize> {
    let when = |k: &usize| attempt.joints[*k].freed_s.unwrap_or(f64::INFINITY);
    (0..attempt.joints.len()).max_by(|a, b| when(a).total_cmp(&when(b)))
}

impl AttemptChart {
    #[allow(clippy::cast_precision_loss, reason = "seconds of an attempt")]
    pub(crate) fn new(attempt: &Attempt, plan: Option<&Plan>, scale: Scale) -> Self {
        let (traces, board) = (&attempt.traces, &attempt.scene.board);
        let joint = coldest(attempt);
        let lets_go = joint.map(|k| attempt.lets_go_c[k]);
        let all = traces.components.iter().flatten().chain(&traces.laminate).chain(&traces.body);
        let hottest = all.fold(lets_go.unwrap_or(200.0), |hottest, t| hottest.max(f64::from(*t))) + 15.0;
        let coolest = attempt.scene.ambient.in_celsius() - 5.0;
        let free = plan.and_then(|plan| Some(air_on(attempt)? + plan.release.low_s? * 1.2)).unwrap_or_default();
        let paper = ChartPaper { seconds: attempt.seconds().max(SHORTEST_S).max(free), hottest, coolest };
        let mut curves = vec![paper.curve("laminate", "board, hottest".to_owned(), &traces.laminate)];
        if attempt.scene.goal.has_part() {
            curves.push(paper.curve("body", board.connector.name.clone(), &traces.body));
        }
        let components = board.components.iter().zip(&traces.components);
        curves.extend(components.map(|(part, curve)| paper.curve("component", part.name.clone(), curve)));
        curves.extend(
            joint.map(|k| paper.curve("joint", format!("joint {}", board.connector.joints[k].name), &traces.joints[k])),
        );
        apart(&mut curves);
        let ends = [coolest, hottest].map(|t| scale.of(Temperature::celsius(t)));
        let temperature = |at: f64| (n(paper.y(scale.read(at).in_celsius())), format!("{at:.0}"));
        let second = |at: f64| (n(paper.x(at)), format!("{at:.0}"));
        Self {
            marks: marks(attempt, &paper),
            planned: plan.and_then(|plan| planned(attempt, plan, &paper)),
            lets_go: lets_go.map(|t| n(paper.y(t))),
            temperatures: round_numbers(ends, &[25.0, 50.0, 100.0]).into_iter().map(temperature).collect(),
            seconds: round_numbers([0.0, paper.seconds], &[5.0, 10.0, 20.0, 30.0, 60.0])
                .into_iter()
                .map(second)
                .collect(),
            room_s: n(paper.seconds),
            longest: traces.len().saturating_sub(1),
            curves,
        }
    }
}

/// The second in which the air went on; none: it never did.
#[allow(clippy::cast_precision_loss, reason = "seconds of an attempt")]
fn air_on(attempt: &Attempt) -> Option<f64> {
    attempt.held.iter().position(|hands| hands.blows).map(|second| second as f64)
}

/// The plan counts from its first tool: here from the second in which the air went on.
fn planned(attempt: &Attempt, plan: &Plan, paper: &ChartPaper) -> Option<(String, String, Option<String>)> {
    let from = air_on(attempt)?;
    let low = paper.x(from + plan.release.low_s?);
    let high = plan.release.high_s.map_or(WIDTH, |high| paper.x(from + high));
    let abort = Some(from + plan.abort.at_s).filter(|at| *at <= paper.seconds);
    Some((n(low), n((high - low).max(2.0)), abort.map(|at| n(paper.x(at)))))
}

/// From one name to the next.
const NAME: f64 = 17.0;

/// Names at the right end stand apart, and none below the picture.
fn apart(curves: &mut [AttemptCurve]) {
    let wanted: Vec<f64> = curves.iter().map(|curve| curve.y.parse().unwrap_or(HEIGHT)).collect();
    let mut order: Vec<usize> = (0..curves.len()).collect();
    order.sort_by(|a, b| wanted[*a].total_cmp(&wanted[*b]));
    let mut last = f64::NEG_INFINITY;
    let down = |k: &usize| {
        last = wanted[*k].max(last + NAME);
        last
    };
    let downwards: Vec<f64> = order.iter().map(down).collect();
    // What was pushed beyond the picture goes up again, and what is above it gives way.
    let mut floor = HEIGHT;
    for (k, y) in order.into_iter().zip(downwards).rev() {
        let y = y.min(floor);
        curves[k].y = n(y);
        floor = y - NAME;
    }
}

/// When all was free, when the part came up, and what was harmed.
#[allow(clippy::cast_precision_loss, reason = "letters of a word")]
fn marks(attempt: &Attempt, paper: &ChartPaper) -> Vec<AttemptMark> {
    let harm = |harm: &Harm| (harm.at_s, "harm", "✕");
    let all = attempt.last_freed_s().map(|at| (at, "free", "free"));
    let up = attempt.part_off_s.map(|at| (at, "up", "up"));
    let mut moments: Vec<(f64, &'static str, &'static str)> =
        all.into_iter().chain(up).chain(attempt.harms.iter().map(harm)).collect();
    moments.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut marks: Vec<AttemptMark> = Vec::new();
    let mut ends = LINES.map(|_| f64::NEG_INFINITY);
    for (at_s, class, sign) in moments {
        let x = paper.x(at_s);
        if marks.last().is_some_and(|mark| mark.x == n(x) && mark.class == class) {
            continue;
        }
        let half = sign.chars().count() as f64 * LETTER / 2.0 + 2.0;
        let line = ends.iter().position(|end| *end <= x - half).unwrap_or(LINES.len() - 1);
        ends[line] = x + half;
        marks.push(AttemptMark { class, x: n(x), sign, line: n(LINES[line]) });
    }
    marks
}

#[cfg(test)]
mod tests {
    use super::*;

    fn placed(ends: &[f64]) -> Vec<f64> {
        let curve = |y: &f64| AttemptCurve { class: "component", name: String::new(), points: String::new(), y: n(*y) };
        let mut curves: Vec<AttemptCurve> = ends.iter().map(curve).collect();
        apart(&mut curves);
        curves.iter().map(|curve| curve.y.parse().expect("a number")).collect()
    }

    #[test]
    fn names_of_curves_that_end_alike_stand_apart_within_the_picture() {
        assert_eq!(placed(&[100.0, 240.0]), [100.0, 240.0]);
        assert_eq!(placed(&[100.0, 104.0]), [100.0, 117.0]);
        let cold = placed(&[265.0; 6]);
        let mut sorted = cold.clone();
        sorted.sort_by(f64::total_cmp);
        assert!(sorted.windows(2).all(|pair| pair[1] - pair[0] >= NAME), "{cold:?}");
        assert!(sorted.iter().all(|y| *y <= HEIGHT), "{cold:?}");
    }
}
