//! The course of a heat step on one line: nothing yet, expected to move, stop. The script moves the hand along it.

use askama::Template;
use mend_core::planning::band::TimeBand;

use super::n;
use crate::words;

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
    pub(crate) stop_x: String,
    pub(crate) stop_width: String,
    pub(crate) low: String,
    pub(crate) high: String,
    pub(crate) high_x: String,
    pub(crate) stop: String,
    /// The band and the abort time in large type.
    pub(crate) range: String,
    pub(crate) abort_s: String,
    /// Seconds at the right end: what the script scales the hand with.
    pub(crate) end_s: String,
    pub(crate) has_band: bool,
    /// Too narrow for both of its times above it: they stand to either side.
    pub(crate) narrow: bool,
}

/// Draws it.
pub(crate) fn time_bar(release: &TimeBand, abort_s: f64) -> TimeBar {
    let latest = release.high_s.or(release.mid_s).unwrap_or(abort_s);
    let end = (abort_s.max(latest) * 1.18).max(20.0);
    let x = |seconds: f64| WIDTH * (seconds / end).min(1.0);
    let band = release.low_s.map(|low| (low, release.high_s.unwrap_or(end)));
    let (low, high) = band.unwrap_or((abort_s, abort_s));
    let word = |t: Option<f64>| t.map_or("maybe never".to_owned(), |t| format!("{t:.0} s"));
    TimeBar {
        description: format!(
            "Expected to move from {} to {}, stop at {abort_s:.0} s",
            word(release.low_s),
            word(release.high_s)
        ),
        band_x: n(x(low)),
        band_width: n((x(high) - x(low)).max(2.0)),
        mid_x: release.mid_s.map(|t| n(x(t))),
        stop_x: n(x(abort_s)),
        stop_width: n(WIDTH - x(abort_s)),
        low: word(release.low_s),
        high: word(release.high_s),
        high_x: n(x(high)),
        stop: format!("stop {abort_s:.0} s"),
        range: words::release(release),
        abort_s: format!("{abort_s:.0} s"),
        narrow: x(high) - x(low) < 2.0 * LABEL,
        end_s: n(end),
        has_band: band.is_some(),
    }
}
