//! Predicted and actual, job by job: a bar for the band, a dot for what the bench stamped.

use askama::Template;

use super::n;
use crate::words::seconds_band;

/// When a part came away.
#[derive(Debug, Clone)]
pub(crate) struct Release {
    /// The job's device.
    pub(crate) name: String,
    /// The job.
    pub(crate) job: i64,
    /// One in ten sooner, the middle, one in ten later (none: may never come), s.
    pub(crate) predicted: Option<(f64, f64, Option<f64>)>,
    /// As stamped, s.
    pub(crate) actual_s: f64,
}

impl Release {
    /// Did it come within its band?
    pub(crate) fn is_within(&self) -> bool {
        let in_band = |(low, _, high): (f64, f64, Option<f64>)| {
            self.actual_s >= low && high.is_none_or(|high| self.actual_s <= high)
        };
        self.predicted.is_some_and(in_band)
    }
}

/// One job on paper.
struct AgreementRow {
    y: String,
    bar: Option<(String, String)>,
    open: bool,
    mid: String,
    dot: String,
    within: bool,
    view: String,
}

/// The picture.
#[derive(Template)]
#[template(path = "draw/agreement.svg", escape = "html")]
pub(crate) struct Agreement {
    label: String,
    height: usize,
    rows: Vec<AgreementRow>,
}

/// More jobs than this are too fine to read; the newest are shown.
const MOST: usize = 6;
const WIDTH: f64 = 240.0;
const ROW: usize = 14;

impl Agreement {
    /// The newest jobs on one scale; none where nothing came away.
    pub(crate) fn from_releases(releases: &[Release]) -> Option<Self> {
        let shown = &releases[releases.len().saturating_sub(MOST)..];
        let reach = |r: &Release| r.predicted.map_or(0.0, |(_, mid, high)| high.unwrap_or(1.6 * mid)).max(r.actual_s);
        let longest = shown.iter().map(reach).fold(1.0, f64::max);
        let x = |seconds: f64| n(6.0 + (WIDTH - 12.0) * seconds / longest);
        let row = |(k, release): (usize, &Release)| {
            let bar = release
                .predicted
                .map(|(low, _, high)| (x(low), n((WIDTH - 12.0) * (high.unwrap_or(longest) - low) / longest)));
            AgreementRow {
                y: n((k * ROW + ROW / 2) as f64),
                bar,
                open: release.predicted.is_some_and(|p| p.2.is_none()),
                mid: release.predicted.map(|p| x(p.1)).unwrap_or_default(),
                dot: x(release.actual_s),
                within: release.is_within(),
                view: view(release),
            }
        };
        (!shown.is_empty()).then(|| Self {
            label: "Predicted bands and what was stamped".to_owned(),
            height: shown.len() * ROW,
            rows: shown.iter().enumerate().map(row).collect(),
        })
    }
}

fn view(release: &Release) -> String {
    let band = match release.predicted {
        Some((low, _, Some(high))) => format!("predicted {}", seconds_band(low, high)),
        Some((low, ..)) => format!("predicted from {low:.0} s, may not come"),
        None => "predicted not to come".to_owned(),
    };
    format!("Job {}, {}: {band}, released after {:.0} s", release.job, release.name, release.actual_s)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn release(predicted: Option<(f64, f64, Option<f64>)>, actual_s: f64) -> Release {
        Release { name: "x".to_owned(), job: 1, predicted, actual_s }
    }

    #[test]
    fn within_means_inside_the_band_and_an_open_band_has_no_end() {
        assert!(release(Some((20.0, 30.0, Some(40.0))), 35.0).is_within());
        assert!(!release(Some((20.0, 30.0, Some(40.0))), 45.0).is_within());
        assert!(release(Some((20.0, 30.0, None)), 300.0).is_within());
        assert!(!release(None, 30.0).is_within());
    }

    #[test]
    fn the_newest_six_are_drawn_on_one_scale() {
        assert!(Agreement::from_releases(&[]).is_none());
        let all: Vec<Release> = (0..9).map(|k| release(Some((20.0, 30.0, Some(40.0))), 10.0 * f64::from(k))).collect();
        let drawn = Agreement::from_releases(&all).expect("some");
        assert_eq!((drawn.rows.len(), drawn.height), (6, 84));
        assert_eq!(drawn.rows[5].dot, "234", "the longest ends at the right");
    }
}
