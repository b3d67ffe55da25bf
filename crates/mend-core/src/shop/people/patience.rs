//! How long after wrong tries the next one is looked at.
//!
//! Four digits have ten thousand values: at a try a minute they last a week of nights, and a slip of the finger costs nothing.

use crate::units::Duration;

/// So many wrong tries in a row cost nothing: a slip of the finger, the other hand's PIN (E).
pub const FREE: u32 = 4;
/// No longer than this: whoever has the right one is there within a minute (E).
pub const LONGEST: Duration = Duration::seconds(60.0);

/// The wait after `wrong` tries in a row, s: nothing at first, then 1 s, doubled with each, up to [`LONGEST`].
///
/// ```
/// use mend_core::shop::people::patience::wait_after;
/// assert_eq!(wait_after(4).in_seconds(), 0.0);
/// assert_eq!(wait_after(7).in_seconds(), 4.0);
/// assert_eq!(wait_after(500).in_seconds(), 60.0);
/// ```
pub fn wait_after(wrong: u32) -> Duration {
    let past = wrong.saturating_sub(FREE);
    if past == 0 {
        return Duration::seconds(0.0);
    }
    let doubled = 2.0_f64.powi(i32::try_from(past - 1).unwrap_or(i32::MAX).min(30));
    Duration::seconds(doubled.min(LONGEST.in_seconds()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn five_hundred_wrong_tries_take_hours_and_never_more_than_a_minute_each() {
        let waits: Vec<f64> = (0..500).map(|wrong| wait_after(wrong).in_seconds()).collect();
        assert!(waits.windows(2).all(|pair| pair[0] <= pair[1]) && waits[499] == LONGEST.in_seconds());
        assert!(waits.iter().sum::<f64>() > 8.0 * 3600.0);
    }
}
