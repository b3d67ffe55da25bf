//! Methods on one axis of bench time: a lane each, its pieces, its spread, and its margin at the end.

use askama::Template;
use mend_core::planning::bench_time::TimePiece;
use mend_core::planning::compare::{Comparison, Lane};
use mend_core::planning::plan::WindowState;
use mend_core::units::Scale;

use super::n;
use crate::words::{Words, damaged, of_samples};

/// Left edge of the bars, their width at the right end of the axis, and the height of a lane.
const LEFT: f64 = 232.0;
const WIDTH: f64 = 640.0;
const PITCH: f64 = 46.0;
const TOP: f64 = 30.0;
/// A piece narrower than this has no room for its word: a letter's width by its length.
const LETTER: f64 = 7.2;

pub(crate) struct PieceShape {
    pub(crate) class: &'static str,
    pub(crate) x: String,
    pub(crate) width: String,
    pub(crate) middle: String,
    pub(crate) word: &'static str,
}

pub(crate) struct LaneShape {
    pub(crate) name: &'static str,
    pub(crate) href: String,
    pub(crate) y: String,
    pub(crate) recommended: bool,
    pub(crate) chosen: bool,
    pub(crate) pieces: Vec<PieceShape>,
    pub(crate) early: String,
    pub(crate) late: String,
    pub(crate) minutes: String,
    pub(crate) mark: &'static str,
    /// `inside`, `near` or `past`.
    pub(crate) status: &'static str,
    pub(crate) margin: String,
    pub(crate) chance: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/lanes.svg", escape = "html")]
pub(crate) struct Lanes {
    pub(crate) lanes: Vec<LaneShape>,
    pub(crate) ticks: Vec<(String, String)>,
    pub(crate) height: String,
    pub(crate) bottom: String,
    /// Class and word of each piece that occurs.
    pub(crate) legend: Vec<(&'static str, &'static str)>,
}

/// What is drawn: whose comparison, which family is chosen, in which scale.
pub(crate) struct LanesInput<'a> {
    pub(crate) job: i64,
    pub(crate) comparison: &'a Comparison,
    pub(crate) chosen: Option<mend_core::method::MethodFamily>,
    pub(crate) scale: Scale,
}

pub(crate) fn lanes(drawn: &LanesInput<'_>) -> Lanes {
    let all = &drawn.comparison.lanes;
    let end = all.iter().map(|lane| lane.total_s.high).fold(60.0, f64::max);
    let x = |seconds: f64| LEFT + WIDTH * seconds / end;
    let bottom = TOP + PITCH * all.len() as f64;
    let lanes = all.iter().enumerate().map(|(k, lane)| shape(drawn, k, lane, &x)).collect();
    let step = [60.0, 120.0, 300.0, 600.0].into_iter().find(|step| end / step <= 9.0).unwrap_or(1200.0);
    let ticks = (0..).map(|k| f64::from(k) * step).take_while(|t| *t <= end);
    let ticks = ticks.map(|t| (n(x(t)), format!("{:.0} min", t / 60.0))).collect();
    let occurs = |piece: &TimePiece| all.iter().any(|lane| lane.spent.iter().any(|spent| spent.piece == *piece));
    let legend = TimePiece::ALL.into_iter().filter(occurs).map(|piece| (class(piece), piece.name())).collect();
    Lanes { lanes, ticks, height: n(bottom + 12.0), bottom: n(bottom), legend }
}

fn shape(drawn: &LanesInput<'_>, k: usize, lane: &Lane, x: &dyn Fn(f64) -> f64) -> LaneShape {
    let mut at = 0.0;
    let pieces = lane.spent.iter().map(|spent| {
        let from = at;
        at += spent.seconds.mid;
        let (left, width) = (x(from), x(at) - x(from));
        let word = spent.piece.name();
        let fits = width > word.len() as f64 * LETTER + 6.0;
        PieceShape {
            class: class(spent.piece),
            x: n(left),
            width: n(width),
            middle: n(left + width / 2.0),
            word: if fits { word } else { "" },
        }
    });
    let pieces = pieces.collect();
    let (status, mark) = standing(lane);
    let margin = match &lane.tightest {
        Some(tight) => {
            let past = if tight.headroom_k <= -0.5 { "past" } else { "at" };
            format!("{} {past} {}", Words { scale: drawn.scale }.apart(tight.headroom_k.abs()), damaged(&tight.of))
        }
        None => "nothing to damage".to_owned(),
    };
    let minutes = format!("{:.0} min", lane.total_s.mid / 60.0);
    let chance = format!("works in {}", of_samples(lane.plan.works_in()));
    LaneShape {
        name: Words::default().method(lane.choice.family).name,
        href: format!("/jobs/{}/method/{}", drawn.job, lane.choice.family.key()),
        y: n(TOP + PITCH * k as f64),
        recommended: drawn.comparison.recommended == Some(k),
        chosen: drawn.chosen == Some(lane.choice.family),
        pieces,
        early: n(x(lane.total_s.low)),
        late: n(x(lane.total_s.high)),
        minutes,
        mark,
        status,
        margin,
        chance,
    }
}

fn standing(lane: &Lane) -> (&'static str, &'static str) {
    match (lane.plan.window, lane.is_comfortable()) {
        (WindowState::Open, true) => ("inside", "●"),
        (WindowState::Closed, _) => ("past", "✕"),
        _ => ("near", "◆"),
    }
}

fn class(piece: TimePiece) -> &'static str {
    match piece {
        TimePiece::Ready => "ready",
        TimePiece::Feed => "feed",
        TimePiece::Heat => "heat",
        TimePiece::Wick => "wick",
        TimePiece::Holes => "holes",
        TimePiece::Fit => "fit",
        TimePiece::TouchUp => "touch",
        TimePiece::Clean => "wash",
    }
}
