//! The course of a heat step on one line: nothing yet, expected to move, stop. The script moves the hand along it.

use askama::Template;
use mend_core::planning::band::TimeBand;

use super::n;

const WIDTH: f64 = 1000.0;
/// Width of a time in its lettering.
const LABEL: f64 = 80.0;

/// The picture.
#[derive(Template)]
#[template(path = "draw/time_bar.svg", escape = "html")]
pub(crate) struct TimeBar {
    pub(crate) description: String,
    pub(crate) band_x: String,
    pub(crate) band_width: String,
    pub(crate) mid_x: Option<String>,
    pub(crate) stop: Option<StopZone>,
    pub(crate) low: String,
    pub(crate) high: String,
    pub(crate) high_x: String,
    /// Seconds at the right end: what the script scales the hand with.
    pub(crate) end_s: String,
    pub(crate) has_band: bool,
    /// Too narrow for both of its times above it: they stand to either side.
    pub(crate) narrow: bool,
}

/// Where the air goes away whatever is to be seen.
pub(crate) struct StopZone {
    pub(crate) x: String,
    pub(crate) width: String,
    pub(crate) words: String,
}

/// What it shows.
#[derive(Clone, Copy)]
pub(crate) struct HeatCourse<'a> {
    pub(crate) release: &'a TimeBand,
    /// When the air goes away whatever is to be seen; none: what is seen says when.
    pub(crate) abort_s: Option<f64>,
    /// The right end, s.
    pub(crate) end_s: f64,
}

impl<'a> HeatCourse<'a> {
    /// As the plan has it.
    pub(crate) fn planned(release: &'a TimeBand, abort_s: f64) -> Self {
        let latest = release.high_s.or(release.mid_s).unwrap_or(abort_s);
        Self { release, abort_s: Some(abort_s), end_s: (abort_s.max(latest) * 1.18).max(20.0) }
    }

    /// Draws it.
    pub(crate) fn bar(&self) -> TimeBar {
        let Self { release, abort_s, end_s } = *self;
        let x = |seconds: f64| WIDTH * (seconds / end_s).min(1.0);
        let band = release.low_s.map(|low| (low, release.high_s.unwrap_or(end_s)));
        let (low, high) = band.unwrap_or((end_s, end_s));
        let word = |t: Option<f64>| t.map_or("maybe never".to_owned(), |t| format!("{t:.0} s"));
        let stops = abort_s.map_or(String::new(), |at| format!(", stop at {at:.0} s"));
        TimeBar {
            description: format!("Expected to move from {} to {}{stops}", word(release.low_s), word(release.high_s)),
            band_x: n(x(low)),
            band_width: n((x(high) - x(low)).max(2.0)),
            mid_x: release.mid_s.map(|t| n(x(t))),
            stop: abort_s.map(|at| StopZone { x: n(x(at)), width: n(WIDTH - x(at)), words: format!("stop {at:.0} s") }),
            low: word(release.low_s),
            high: Some(word(release.high_s)).filter(|high| *high != word(release.low_s)).unwrap_or_default(),
            high_x: n(x(high)),
            narrow: x(high) - x(low) < 2.0 * LABEL,
            end_s: n(end_s),
            has_band: band.is_some(),
        }
    }
}
