//! Rework, in words.

use mend_core::inspection::rework::ReworkLoops;

/// How often, and how long until something was tried again: by the clock, nights included. Empty where it never went back.
pub(crate) fn rework_loops(of: &ReworkLoops) -> String {
    let times = match of.times {
        0 => return String::new(),
        1 => "Went back once".to_owned(),
        times => format!("Went back {times} times"),
    };
    let minutes = (of.took.in_seconds() / 60.0).ceil();
    let took = match minutes {
        m if m < 90.0 => format!("{m:.0} min"),
        m if m < 48.0 * 60.0 => format!("{:.1} h", m / 60.0),
        m => format!("{:.0} days", m / (24.0 * 60.0)),
    };
    if of.is_back {
        format!("{times}, not tried again for {took}")
    } else {
        format!("{times}, tried again after {took}")
    }
}

#[cfg(test)]
mod tests {
    use mend_core::units::Duration;

    use super::*;

    #[test]
    fn loops_are_said_with_their_time() {
        let of =
            |times, seconds, is_back| rework_loops(&ReworkLoops { times, took: Duration::seconds(seconds), is_back });
        assert_eq!(of(0, 0.0, false), "");
        assert_eq!(of(1, 610.0, true), "Went back once, not tried again for 11 min");
        assert_eq!(of(3, 9000.0, false), "Went back 3 times, tried again after 2.5 h");
        assert_eq!(of(1, 300_000.0, true), "Went back once, not tried again for 3 days");
    }
}
