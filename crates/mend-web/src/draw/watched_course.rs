//! A heating as it was watched: when the part was expected to move, said each second; the chance of damage; what was seen.

use askama::Template;
use mend_formats::live::SaidState;

use super::axis::round_numbers;
use super::n;

const LEFT: f64 = 70.0;
const WIDTH: f64 = 720.0;
const TOP: f64 = 14.0;
const BOTTOM: f64 = 250.0;
/// The strip of chances below.
const STRIP: [f64; 2] = [282.0, 322.0];
/// Steps of the time axes, s.
const STEPS: [f64; 6] = [5.0, 10.0, 20.0, 50.0, 100.0, 200.0];
/// An open band is drawn up to so many times its middle.
const OPEN: f64 = 1.6;

/// A heating that was watched. Seconds count from air on.
#[derive(Debug, Clone, Default)]
pub(crate) struct WatchedHeating {
    /// What was said, and when.
    pub(crate) said: Vec<(f64, SaidState)>,
    /// From the first tool to air on, s.
    pub(crate) from_s: f64,
    /// Rows that were seen to shine, and when.
    pub(crate) cues: Vec<(String, f64)>,
    /// When it moved.
    pub(crate) moved_s: Option<f64>,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/watched_course.svg", escape = "html")]
pub(crate) struct WatchedCourse {
    band: String,
    middle: String,
    now: [String; 2],
    moved: Option<(String, String, String)>,
    /// Place, height of its word, and the word.
    cues: Vec<(String, usize, String)>,
    chances: String,
    expected_ticks: Vec<(String, String)>,
    time_ticks: Vec<(String, String)>,
    description: String,
}

struct CoursePaper {
    last_s: f64,
    top_s: f64,
}

impl CoursePaper {
    fn x(&self, at_s: f64) -> f64 {
        LEFT + WIDTH * (at_s / self.last_s).min(1.0)
    }

    fn y(&self, expected_s: f64) -> f64 {
        BOTTOM - (BOTTOM - TOP) * (expected_s / self.top_s).min(1.0)
    }

    fn point(&self, at_s: f64, expected_s: f64) -> String {
        format!("{},{}", n(self.x(at_s)), n(self.y(expected_s)))
    }
}

impl WatchedCourse {
    /// Draws it; none where nothing was said.
    pub(crate) fn new(heating: &WatchedHeating) -> Option<Self> {
        let WatchedHeating { said, from_s, cues, moved_s } = heating;
        let last_s = said.last()?.0.max(moved_s.unwrap_or(0.0)).max(5.0);
        let release = |state: &SaidState| state.release_s.map(|at| at.map(|at| at - from_s));
        let highest = |state: &SaidState| release(state).into_iter().flatten().fold(0.0, f64::max);
        let top_s = 1.08 * said.iter().map(|(_, state)| highest(state)).fold(last_s, f64::max);
        let paper = CoursePaper { last_s, top_s };
        let open = |[_, mid, high]: [Option<f64>; 3]| high.or(mid.map(|mid| OPEN * mid)).unwrap_or(top_s);
        let upper = said.iter().map(|(at, state)| paper.point(*at, open(release(state))));
        let lower = said.iter().rev().map(|(at, state)| paper.point(*at, release(state)[0].unwrap_or(top_s)));
        let middle = said.iter().filter_map(|(at, state)| Some(paper.point(*at, release(state)[1]?)));
        let ticks = |end: f64| round_numbers([0.0, end], &STEPS).into_iter();
        let word = |seconds: f64| format!("{seconds:.0} s");
        Some(Self {
            band: upper.chain(lower).collect::<Vec<_>>().join(" "),
            middle: middle.collect::<Vec<_>>().join(" "),
            now: [paper.point(0.0, 0.0), paper.point(last_s, last_s)],
            moved: moved_s.map(|at| (n(paper.x(at)), n(paper.y(at)), format!("moved {at:.0} s"))),
            cues: cues
                .iter()
                .enumerate()
                .map(|(k, (row, at))| (n(paper.x(*at)), 28 + 20 * k, format!("{row} {at:.0} s")))
                .collect(),
            chances: chances(&paper, said),
            expected_ticks: ticks(top_s).map(|at| (n(paper.y(at)), word(at))).collect(),
            time_ticks: ticks(last_s).map(|at| (n(paper.x(at)), word(at))).collect(),
            description: format!("Watched for {last_s:.0} s: when it was expected to move, and how near damage was"),
        })
    }
}

/// The chance of damage within the next seconds, as an area over its strip.
fn chances(paper: &CoursePaper, said: &[(f64, SaidState)]) -> String {
    let [top, bottom] = STRIP;
    let y = |chance: f64| bottom - (bottom - top) * chance.clamp(0.0, 1.0);
    let edge = said.iter().map(|(at, state)| format!("{},{}", n(paper.x(*at)), n(y(state.damage_soon))));
    let ends = |at: Option<&(f64, SaidState)>| at.map(|(at, _)| format!("{},{}", n(paper.x(*at)), n(bottom)));
    ends(said.first()).into_iter().chain(edge).chain(ends(said.last())).collect::<Vec<_>>().join(" ")
}

#[cfg(test)]
mod tests {
    use super::*;

    fn said(at_s: f64, release_s: [Option<f64>; 3]) -> (f64, SaidState) {
        (at_s, SaidState { release_s, damage_soon: 0.5 })
    }

    #[test]
    fn a_band_that_narrows_is_drawn_narrower_and_nothing_said_is_no_picture() {
        assert!(WatchedCourse::new(&WatchedHeating::default()).is_none());
        let states =
            vec![said(0.0, [Some(50.0), Some(80.0), None]), said(40.0, [Some(90.0), Some(100.0), Some(110.0)])];
        let heating = WatchedHeating { said: states, from_s: 45.0, cues: vec![], moved_s: Some(56.0) };
        let drawn = WatchedCourse::new(&heating).expect("something was said");
        let points: Vec<f64> =
            drawn.band.split(' ').filter_map(|point| point.split(',').nth(1)?.parse().ok()).collect();
        let [first_high, last_high, last_low, first_low] = points[..] else { panic!("{points:?}") };
        assert!(first_low - first_high > 2.0 * (last_low - last_high), "{points:?}");
        assert_eq!(drawn.moved.map(|(_, _, word)| word).as_deref(), Some("moved 56 s"));
    }
}
