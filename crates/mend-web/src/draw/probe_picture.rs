//! A probe on paper: what was read, and the bands in which the runs expected it before and expect it now.

use askama::Template;
use mend_core::calibration::probe::ON_S;
use mend_core::calibration::probed::{Expected, Probed};
use mend_core::units::{Scale, Temperature};

use super::axis::round_numbers;
use super::n;

const LEFT: f64 = 64.0;
const WIDTH: f64 = 700.0;
const TOP: f64 = 14.0;
const BOTTOM: f64 = 290.0;
/// Steps of the temperature axis, on the visitor's scale.
const STEPS: [f64; 5] = [5.0, 10.0, 20.0, 50.0, 100.0];

/// The picture.
#[derive(Template)]
#[template(path = "draw/probe_picture.svg", escape = "html")]
pub(crate) struct ProbePicture {
    before: String,
    after: String,
    middle: String,
    dots: Vec<(String, String)>,
    heat_ticks: Vec<(String, String)>,
    time_ticks: Vec<(String, String)>,
    off_x: String,
    description: String,
}

struct Paper {
    low: f64,
    high: f64,
}

impl Paper {
    fn x(second: f64) -> f64 {
        LEFT + WIDTH * second / (2.0 * ON_S)
    }

    fn y(&self, celsius: f64) -> f64 {
        BOTTOM - (BOTTOM - TOP) * (celsius - self.low) / (self.high - self.low)
    }

    fn point(&self, at_s: f64, celsius: f64) -> String {
        format!("{},{}", n(Self::x(at_s)), n(self.y(celsius)))
    }

    /// The rim of a band: along its upper edge, and back along its lower.
    fn band(&self, expected: &[Expected]) -> String {
        let upper = expected.iter().map(|e| self.point(e.at_s, e.celsius[2]));
        let lower = expected.iter().rev().map(|e| self.point(e.at_s, e.celsius[0]));
        upper.chain(lower).collect::<Vec<_>>().join(" ")
    }
}

impl ProbePicture {
    /// Draws what a probe found.
    pub(crate) fn new(found: &Probed, readings: &[[f64; 2]], scale: Scale) -> Self {
        let [before, after] = &found.expected;
        let read: Vec<[f64; 2]> = readings.iter().filter(|[at_s, _]| *at_s <= 2.0 * ON_S).copied().collect();
        let all = before.iter().chain(after).flat_map(|e| e.celsius).chain(read.iter().map(|[_, celsius]| *celsius));
        let (low, high) = all.fold((f64::MAX, f64::MIN), |(low, high), t| (low.min(t), high.max(t)));
        let paper = Paper { low: low - 2.0, high: high + 3.0 };
        let ends = [paper.low, paper.high].map(|celsius| scale.of(Temperature::celsius(celsius)));
        let heat = round_numbers(ends, &STEPS).into_iter();
        let heat = heat.map(|at| (n(paper.y(scale.read(at).in_celsius())), format!("{at:.0} {}", scale.symbol())));
        let middle = after.iter().map(|e| paper.point(e.at_s, e.celsius[1])).collect::<Vec<_>>().join(" ");
        Self {
            before: paper.band(before),
            after: paper.band(after),
            middle,
            dots: read.iter().map(|[at_s, celsius]| (n(Paper::x(*at_s)), n(paper.y(*celsius)))).collect(),
            heat_ticks: heat.collect(),
            time_ticks: (0..=4).map(|k| 30.0 * f64::from(k)).map(|s| (n(Paper::x(s)), format!("{s:.0} s"))).collect(),
            off_x: n(Paper::x(ON_S)),
            description: format!("{} readings against what was expected before and is expected now", read.len()),
        }
    }
}
