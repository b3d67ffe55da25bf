//! Shares with their intervals, one under the other, on one axis from none to all.

use askama::Template;
use mend_core::shop::review::interval::Share;

use super::n;

/// Left edge of the axis, its width, and the height of a row.
const LEFT: f64 = 250.0;
const WIDTH: f64 = 330.0;
const PITCH: f64 = 30.0;
const TOP: f64 = 26.0;

pub(crate) struct IntervalShape {
    pub(crate) name: String,
    pub(crate) y: String,
    pub(crate) low: String,
    pub(crate) high: String,
    pub(crate) at: String,
    pub(crate) says: String,
    /// Too few to say anything: drawn hollow.
    pub(crate) few: bool,
    pub(crate) none: bool,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/intervals.svg", escape = "html")]
pub(crate) struct Intervals {
    pub(crate) title: &'static str,
    pub(crate) rows: Vec<IntervalShape>,
    /// What is wanted, where something is.
    pub(crate) wanted: Option<String>,
    pub(crate) ticks: Vec<(String, &'static str)>,
    pub(crate) height: String,
    pub(crate) bottom: String,
}

impl Intervals {
    /// The picture of named shares; `wanted`: where they ought to be, 0-1.
    #[allow(clippy::cast_precision_loss, reason = "a handful of rows")]
    pub(crate) fn new(title: &'static str, shares: &[(String, Share)], wanted: Option<f64>) -> Self {
        let x = |share: f64| n(LEFT + WIDTH * share);
        let row = |(k, (name, share)): (usize, &(String, Share))| IntervalShape {
            name: name.chars().take(30).collect(),
            y: n(TOP + k as f64 * PITCH),
            low: x(share.low),
            high: x(share.high),
            at: x(share.value()),
            says: if share.n == 0 { "none yet".to_owned() } else { format!("{} of {}", share.of, share.n) },
            few: share.is_few(),
            none: share.n == 0,
        };
        let bottom = TOP + shares.len() as f64 * PITCH;
        Self {
            title,
            rows: shares.iter().enumerate().map(row).collect(),
            wanted: wanted.map(x),
            ticks: [(0.0, "none"), (0.5, "half"), (1.0, "all")].map(|(at, name)| (x(at), name)).into(),
            height: n(bottom + 8.0),
            bottom: n(bottom),
        }
    }
}
