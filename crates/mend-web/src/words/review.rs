//! What to change, in words, and where to go for it.

use mend_core::shop::Stop;
use mend_core::shop::review::interval::Share;
use mend_core::shop::review::{
    Bias, GroupedBy, JobOutcome, PROBED, Review, ReviewChange, UNPROBED, WaitCause, changes,
};

/// A share as it is read: `8 of 10, 49 to 94 %`.
pub(crate) fn share(share: &Share) -> String {
    if share.n == 0 {
        return "none yet".to_owned();
    }
    let few = if share.is_few() { ", too few to say" } else { "" };
    format!("{} of {}, {:.0} to {:.0} %{few}", share.of, share.n, 100.0 * share.low, 100.0 * share.high)
}

/// How far off: `12 % later, 4 to 20 %`.
pub(crate) fn bias(bias: &Bias) -> String {
    let percent = |log: f64| 100.0 * (log.exp() - 1.0);
    let [mean, low, high] = [bias.mean, bias.low, bias.high].map(percent);
    let way = if mean < 0.0 { "sooner" } else { "later" };
    format!("{:.0} % {way} ({low:+.0} to {high:+.0} %, {} jobs)", mean.abs(), bias.n)
}

/// A day that is counted from the epoch.
#[allow(clippy::cast_possible_truncation, reason = "seconds of this age")]
fn day_in_words(day: f64) -> String {
    let at = jiff::Timestamp::from_second((day * 24.0 * 3600.0) as i64);
    at.map(|at| at.strftime("%-d %B").to_string()).unwrap_or_default()
}

/// A stop's name by the last part of its address.
pub(crate) fn stop_name(path: &str) -> String {
    Stop::from_path(path).map_or_else(|| path.to_owned(), |stop| stop.name().to_owned())
}

/// A change with the page to go to.
pub(crate) struct ChangeView {
    pub(crate) says: String,
    pub(crate) href: &'static str,
    pub(crate) go: &'static str,
}

/// The sentence, its figures in it.
pub(crate) fn change(change: &ReviewChange) -> ChangeView {
    let (says, href, go) = match change {
        ReviewChange::Station { name, bias: off } => {
            let why =
                if off.mean > 0.0 { "it blows weaker than it is known" } else { "it blows stronger than it is known" };
            (format!("{name}: parts come away {}; {why}.", bias(off)), "/stations", "Probe it")
        }
        ReviewChange::Drifted { name, since_day, jobs, by } => {
            let percent = 100.0 * (by.exp() - 1.0);
            let way = if percent < 0.0 { "sooner" } else { "later" };
            let says = format!(
                "{name}: since {} parts come away {:.0} % {way} than before, on {jobs} jobs.",
                day_in_words(*since_day),
                percent.abs()
            );
            (says, "/stations", "Probe it")
        }
        ReviewChange::Bands { inside } => (
            format!("Of the bands that claim eight in ten, {} held what came.", share(inside)),
            "/stations",
            "Measure the stations",
        ),
        ReviewChange::Method { name, own, others } => (
            format!("“{name}” is right at the first go in {}; all else in {}.", share(own), share(others)),
            "/jobs",
            "Look at its jobs",
        ),
        ReviewChange::Stage(stage) => {
            let way = if stage.factor > 1.0 { "more" } else { "less" };
            let percent = 100.0 * (stage.factor - 1.0).abs();
            (
                format!(
                    "The stop “{}” takes {percent:.0} % {way} time than first estimated, on {} jobs; estimates have learnt it, prices may not have.",
                    stop_name(&stage.stop),
                    stage.n
                ),
                "/settings",
                "Look at the rate",
            )
        }
        ReviewChange::Overrides { bad } => (
            format!("Of the jobs that went on against the ledger, {} came back or were reworked.", share(bad)),
            "/jobs",
            "Look at them",
        ),
    };
    ChangeView { says, href, go }
}

/// A group's name as it is read.
pub(crate) fn group_name(name: &str, by: GroupedBy) -> String {
    match (by, name) {
        (GroupedBy::Probed, PROBED) => "after its station was probed".to_owned(),
        (GroupedBy::Probed, UNPROBED) => "before, by guess".to_owned(),
        _ => name.to_owned(),
    }
}

/// Why jobs stood still.
pub(crate) fn wait_cause(cause: WaitCause) -> &'static str {
    match cause {
        WaitCause::Word => "the customer's word",
        WaitCause::Part => "a part",
        WaitCause::Entered => "what was entered at the counter",
    }
}

/// How long, in the unit that reads best.
pub(crate) fn waited(seconds: f64) -> String {
    let hours = seconds / 3600.0;
    match hours {
        h if h < 1.0 => format!("{:.0} min", 60.0 * h),
        h if h < 36.0 => format!("{h:.0} h"),
        h => format!("{:.1} days", h / 24.0),
    }
}

/// A review in lines, for a terminal: what to change, and all jobs together.
pub fn review_lines(outcomes: &[JobOutcome]) -> Vec<String> {
    let review = Review::new(outcomes);
    let (told, all) = (changes(outcomes, &review), review.all);
    let mut lines = vec![format!("{} jobs were given back", outcomes.len())];
    lines.extend(told.iter().map(|told| format!("change: {}", change(told).says)));
    if told.is_empty() {
        lines.push("nothing to change: what is off is within chance".to_owned());
    }
    lines.extend([
        format!("right at the first go: {}", share(&all.first_time_right)),
        format!("reworked: {}", share(&all.reworked)),
        format!("something damaged: {}", share(&all.damaged)),
        format!("came back under warranty: {}", share(&all.returned)),
        format!("release inside its band: {}", share(&all.inside)),
    ]);
    lines
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_share_says_its_interval_and_when_it_is_of_too_few() {
        assert_eq!(share(&Share::new(8, 10)), "8 of 10, 49 to 94 %");
        assert_eq!(share(&Share::new(2, 3)), "2 of 3, 21 to 94 %, too few to say");
        assert_eq!(share(&Share::new(0, 0)), "none yet");
    }

    #[test]
    fn a_station_that_is_late_is_said_with_its_figures() {
        let off = Bias { n: 6, mean: 0.1484, low: 0.0953, high: 0.1989 };
        let said = change(&ReviewChange::Station { name: "Gull".to_owned(), bias: off });
        assert_eq!(
            said.says,
            "Gull: parts come away 16 % later (+10 to +22 %, 6 jobs); it blows weaker than it is known."
        );
        assert_eq!((said.href, said.go), ("/stations", "Probe it"));
    }
}
