//! Temperatures over time: each row's slowest joint, the part's body, what is tightest, and the laminate.

use askama::Template;
use mend_core::board::{Board, row_names};
use mend_core::planning::plan::Plan;
use mend_core::planning::watched::JudgedReplay;
use mend_core::units::{Scale, Temperature};

use super::n;

pub(crate) const LEFT: f64 = 58.0;
pub(crate) const WIDTH: f64 = 760.0;
const TOP: f64 = 12.0;
const HEIGHT: f64 = 300.0;
/// Height that a label takes.
const LABEL: f64 = 18.0;
/// Components that are drawn, the tightest.
const COMPONENTS: usize = 4;

/// A curve on paper.
pub(crate) struct Curve {
    pub(crate) class: &'static str,
    pub(crate) name: String,
    pub(crate) points: String,
    pub(crate) label_y: String,
    pub(crate) end_y: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/curves.svg", escape = "html")]
pub(crate) struct Curves {
    pub(crate) curves: Vec<Curve>,
    pub(crate) time_ticks: Vec<(String, String)>,
    pub(crate) heat_ticks: Vec<(String, String)>,
    pub(crate) melt_y: String,
    /// Moments with their words: the abort time, and when the part comes away.
    pub(crate) moments: Vec<(String, &'static str, &'static str)>,
    /// Where stages before the last end.
    pub(crate) stages: Vec<String>,
    pub(crate) label_x: String,
    pub(crate) bottom: String,
    pub(crate) description: String,
}

/// Where seconds and temperatures stand.
pub(crate) struct CurvePaper {
    seconds: f64,
    highest: f64,
}

impl CurvePaper {
    pub(crate) fn from_replay(replay: &JudgedReplay) -> Self {
        let traces = &replay.recording.traces;
        let all = traces.joints.iter().chain(&traces.components).chain([&traces.body, &traces.laminate]);
        let highest = all.flatten().copied().fold(0.0, f32::max);
        Self { seconds: (traces.len().max(2) - 1) as f64, highest: (f64::from(highest) / 50.0).ceil() * 50.0 }
    }

    pub(crate) fn x(&self, second: f64) -> f64 {
        LEFT + WIDTH * second / self.seconds
    }

    fn y(&self, celsius: f64) -> f64 {
        TOP + (HEIGHT - TOP) * (1.0 - celsius / self.highest)
    }

    /// A curve at every `every` seconds as SVG takes it.
    pub(crate) fn points(&self, curve: impl Iterator<Item = f32>, every: usize) -> String {
        let point = |(k, t): (usize, f32)| format!("{},{}", n(self.x((k * every) as f64)), n(self.y(f64::from(t))));
        curve.enumerate().map(point).collect::<Vec<_>>().join(" ")
    }
}

/// Draws the curves of a replay of a plan on its board.
pub(crate) fn curves(replay: &JudgedReplay, board: &Board, plan: &Plan, scale: Scale) -> Curves {
    let (paper, recording) = (CurvePaper::from_replay(replay), &replay.recording);
    let mut chosen = chosen(replay, board);
    chosen.sort_by(|a, b| last(b.2).total_cmp(&last(a.2)));
    let ends: Vec<f64> = chosen.iter().map(|(_, _, curve)| paper.y(f64::from(last(curve)))).collect();
    let curves = chosen.into_iter().zip(&ends).zip(spread(&ends));
    let curves = curves.map(|(((class, name, curve), end), label)| {
        let points = paper.points(curve.iter().copied(), 1);
        Curve { class, name, points, label_y: n(label), end_y: n(*end) }
    });
    let stop = recording.last_from + plan.abort.at_s;
    let mut moments = Vec::new();
    if plan.abort.spares.is_some() && stop <= paper.seconds {
        moments.push((n(paper.x(stop)), "stop", "abort time"));
    }
    let word = if recording.released { "release" } else { "given up" };
    moments.push((n(paper.x(recording.off)), "off", word));
    let mut begun = 0.0;
    let ends = plan.recipe.preheat.iter().map(|stage| {
        begun += stage.seconds() as f64;
        n(paper.x(begun))
    });
    Curves {
        description: format!("Temperatures over {:.0} s; all off at {:.0} s", paper.seconds, recording.off),
        time_ticks: time_ticks(&paper),
        heat_ticks: heat_ticks(&paper, scale),
        melt_y: n(paper.y(plan.melts_at_c)),
        moments,
        stages: ends.collect(),
        label_x: n(LEFT + WIDTH + 10.0),
        bottom: n(HEIGHT),
        curves: curves.collect(),
    }
}

fn last(curve: &[f32]) -> f32 {
    curve.last().copied().unwrap_or(0.0)
}

type DrawnCurve<'a> = (&'static str, String, &'a [f32]);

fn chosen<'a>(replay: &'a JudgedReplay, board: &Board) -> Vec<DrawnCurve<'a>> {
    let traces = &replay.recording.traces;
    let joints = &board.connector.joints;
    let rows = row_names(joints);
    let melts = |k: &usize| replay.recording.melted[*k].unwrap_or(f64::INFINITY);
    let slowest = |row: &&str| {
        let own = (0..joints.len()).filter(|k| joints[*k].row == **row);
        let k = own.max_by(|a, b| melts(a).total_cmp(&melts(b)))?;
        Some(("joint", joints[k].name.clone(), traces.joints[k].as_slice()))
    };
    let mut chosen: Vec<DrawnCurve<'_>> = rows.iter().filter_map(slowest).collect();
    chosen.push(("body", "part's body".to_owned(), &traces.body));
    chosen.push(("laminate", "laminate".to_owned(), &traces.laminate));
    let headroom = |k: &usize| {
        let hottest = traces.components[*k].iter().copied().fold(f32::MIN, f32::max);
        board.components[*k].limit().in_celsius() - f64::from(hottest)
    };
    let mut near: Vec<usize> = (0..board.components.len()).collect();
    near.sort_by(|a, b| headroom(a).total_cmp(&headroom(b)));
    chosen.extend(
        near.into_iter()
            .take(COMPONENTS)
            .zip(["near n0", "near n1", "near n2", "near n3"])
            .map(|(k, class)| (class, board.components[k].name.clone(), traces.components[k].as_slice())),
    );
    chosen
}

/// Where labels stand whose curves end at these heights, from the top: moved apart until each can be read.
fn spread(ends: &[f64]) -> Vec<f64> {
    let mut free = TOP;
    let place = |(k, end): (usize, &f64)| {
        // Room is left for those below.
        let lowest = HEIGHT - LABEL * (ends.len() - 1 - k) as f64;
        let y = end.clamp(free, lowest.max(free));
        free = y + LABEL;
        y
    };
    ends.iter().enumerate().map(place).collect()
}

fn time_ticks(paper: &CurvePaper) -> Vec<(String, String)> {
    let step = [10.0, 20.0, 30.0, 60.0, 120.0].into_iter().find(|s| paper.seconds / s <= 9.0).unwrap_or(240.0);
    let count = (paper.seconds / step) as usize;
    (0..=count).map(|k| (n(paper.x(k as f64 * step)), format!("{:.0} s", k as f64 * step))).collect()
}

fn heat_ticks(paper: &CurvePaper, scale: Scale) -> Vec<(String, String)> {
    let top = scale.of(Temperature::celsius(paper.highest));
    let step = if top > 400.0 { 100.0 } else { 50.0 };
    let at = |k: usize| k as f64 * step;
    let ticks = (1..).map(at).take_while(|t| *t <= top);
    ticks.map(|t| (n(paper.y(scale.read(t).in_celsius())), format!("{t:.0}"))).collect()
}

#[cfg(test)]
mod tests {
    use askama::Template;
    use mend_core::planning::watched::replay;
    use mend_core::watch::Watch;

    use super::*;
    use crate::fixture::{bundle, planned, power_board};

    #[test]
    fn labels_are_moved_apart_and_stay_on_the_paper() {
        let places = spread(&[100.0, 101.0, 102.0, 250.0, 299.0, 299.5]);
        assert_eq!(places[0], 100.0);
        assert!(places.windows(2).all(|w| w[1] - w[0] >= LABEL - 1e-9), "{places:?}");
        assert!(places.iter().all(|y| (TOP..=HEIGHT).contains(y)), "{places:?}");
        assert!(places[3] >= 196.0 && places[3] <= 250.0, "pushed up only as far as it must: {places:?}");
    }

    #[test]
    fn every_row_the_body_the_laminate_and_the_tightest_are_drawn_with_their_moments() {
        let (inputs, plan) = planned();
        let (bundle, board) = (bundle(inputs), power_board());
        let replay = replay(&bundle.order(&Watch::new())).expect("computed");
        let drawn = curves(&replay, &board, plan, Scale::Fahrenheit);
        // Pins, anchors, body, laminate, four of five components.
        assert_eq!(drawn.curves.len(), 8);
        let words: Vec<&str> = drawn.moments.iter().map(|(_, _, word)| *word).collect();
        assert_eq!(words.last(), Some(&"release"));
        assert!(drawn.heat_ticks.iter().any(|(_, label)| label == "400"), "{:?}", drawn.heat_ticks);
        let svg = drawn.render().expect("renders");
        assert_eq!(svg.matches("<polyline").count(), 8);
        assert!(svg.contains(">part&#39;s body<") && svg.contains(">0 s<"), "{svg}");
        let hottest = CurvePaper::from_replay(&replay).points([0.0, 100.0].into_iter(), 10);
        assert!(hottest.starts_with("58,300 "), "second 0 at 0 °C is the lower left corner: {hottest}");
    }
}
