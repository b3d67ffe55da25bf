//! Rework, in words.

use mend_core::inspection::rework::ReworkLoops;

/// How often and how long; empty where it never went back.
pub(crate) fn rework_loops(of: &ReworkLoops) -> String {
    let times = match of.times {
        0 => return String::new(),
        1 => "Went back once".to_owned(),
        times => format!("Went back {times} times"),
    };
    let minutes = (of.took.in_seconds() / 60.0).ceil();
    let took = if minutes < 90.0 { format!("{minutes:.0} min") } else { format!("{:.1} h", minutes / 60.0) };
    format!("{times}, {took} of rework{}", if of.is_back { " so far" } else { "" })
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
        assert_eq!(of(1, 610.0, true), "Went back once, 11 min of rework so far");
        assert_eq!(of(3, 9000.0, false), "Went back 3 times, 2.5 h of rework");
    }
}
