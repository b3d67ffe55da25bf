//! The axis of the schedule: open minutes only, from the hour that is now or from a later day on, with its days and hours.

use super::written::whole;
use super::{EDGE, LEFT, WIDTH};
use crate::draw::n;
use crate::scheduling::{Hours, OpenDay};

/// So many open days are drawn: what is left of today, and the next; or two later ones.
pub(super) const DAYS: usize = 2;
/// An hour this near before closing has no room for its word, min.
const CROWDED: i64 = 50;

/// A day's share of the axis.
pub(crate) struct DayShape {
    pub(crate) name: String,
    pub(crate) x: String,
    pub(crate) ticks: Vec<(String, String)>,
}

/// The axis: open minutes only, from the hour that is now or from a later day on.
pub(crate) struct OpenAxis<'a> {
    hours: &'a Hours,
    days: Vec<OpenDay>,
    scale: f64,
}

impl<'a> OpenAxis<'a> {
    /// From an open day on, 0: today, or the next on which the shop is open.
    pub(crate) fn new(hours: &'a Hours, first: usize) -> Self {
        let first = first.min(hours.days.len().saturating_sub(1));
        // The hour in which now is; the first day begins with it where it is open already.
        let hour = -i64::from(hours.moment(0).minute());
        let cut = |day: &OpenDay| OpenDay { opens: day.opens.max(hour), ..day.clone() };
        let days: Vec<OpenDay> = hours.days.iter().skip(first).take(DAYS).map(cut).collect();
        let open: i64 = days.iter().map(|day| day.closes - day.opens).sum();
        #[allow(clippy::cast_precision_loss, reason = "minutes of a few days")]
        let scale = WIDTH / open.max(1) as f64;
        Self { hours, days, scale }
    }

    /// Where a minute stands; what is outside open hours stands at their edge.
    #[allow(clippy::cast_precision_loss, reason = "minutes of four weeks")]
    pub(super) fn x(&self, minute: i64) -> f64 {
        let before = |day: &OpenDay| (minute.clamp(day.opens, day.closes) - day.opens) as f64;
        LEFT + self.scale * self.days.iter().map(before).sum::<f64>()
    }

    /// The minute that stands there.
    #[allow(clippy::cast_possible_truncation, reason = "minutes of a few days")]
    pub(crate) fn minute(&self, x: f64) -> i64 {
        let mut left = ((x - LEFT).max(0.0) / self.scale).round() as i64;
        for day in &self.days {
            if left <= day.closes - day.opens {
                return day.opens + left;
            }
            left -= day.closes - day.opens;
        }
        self.end()
    }

    /// The first minute that is drawn.
    pub(super) fn start(&self) -> i64 {
        self.days.first().map_or(0, |day| day.opens)
    }

    /// The last minute that is drawn.
    pub(super) fn end(&self) -> i64 {
        self.days.last().map_or(0, |day| day.closes)
    }
}

pub(super) fn days(axis: &OpenAxis<'_>) -> Vec<DayShape> {
    let hours = |day: &OpenDay| {
        let first = (0..60).map(|k| day.opens + k).find(|minute| axis.hours.moment(*minute).minute() == 0);
        let each = first.into_iter().flat_map(|first| (0..24).map(move |k| first + 60 * k));
        let shown = each.filter(|minute| minute + CROWDED < day.closes && axis.x(*minute) < LEFT + WIDTH - EDGE);
        shown.map(|minute| (n(axis.x(minute)), axis.hours.moment(minute).strftime("%H:%M").to_string())).collect()
    };
    let shape = |day: &OpenDay| DayShape { name: day_name(axis, day), x: n(axis.x(day.opens)), ticks: hours(day) };
    axis.days.iter().map(shape).collect()
}

/// A day's name, as much of it as its share of the axis has room for: shortly before closing, today has next to none.
fn day_name(axis: &OpenAxis<'_>, day: &OpenDay) -> String {
    let names = ["%A %-d %B", "%a %-d %b", "%a"].map(|form| day.date.strftime(form).to_string());
    whole(names.iter().map(String::as_str), axis.x(day.closes) - axis.x(day.opens))
}

#[cfg(test)]
mod tests {
    use mend_formats::shop_settings::ShopSettings;

    use super::super::written::{LETTER, RIM};
    use super::*;

    #[test]
    fn the_axis_has_open_hours_only_and_reads_back() {
        let hours = Hours::new(&ShopSettings::default(), "2026-11-27T15:00:00[UTC]".parse().expect("a moment"));
        let axis = OpenAxis::new(&hours, 0);
        let monday = hours.days[1].opens;
        assert_eq!(axis.x(120), axis.x(monday), "Friday's closing is Monday's opening");
        for minute in [0, 60, monday + 30, monday + 300] {
            assert_eq!(axis.minute(axis.x(minute)), minute);
        }
        assert!(axis.x(-360) >= LEFT && axis.x(100_000) <= LEFT + WIDTH + 1e-9);
    }

    #[test]
    fn later_days_have_an_axis_of_their_own() {
        let hours = Hours::new(&ShopSettings::default(), "2026-11-27T15:00:00[UTC]".parse().expect("a moment"));
        let axis = OpenAxis::new(&hours, 2);
        assert_eq!((axis.start(), axis.x(0)), (hours.days[2].opens, LEFT), "now is before it");
        assert_eq!(axis.minute(axis.x(hours.days[3].opens + 90)), hours.days[3].opens + 90);
        assert_eq!(axis.end(), hours.days[3].closes);
        assert!(!OpenAxis::new(&hours, 9999).days.is_empty(), "as far as the hours are known");
    }

    #[test]
    fn the_name_of_a_day_has_room_at_every_minute_of_the_day() {
        for minute in 0..24 * 60 {
            let now = format!("2026-11-27T{:02}:{:02}:00[UTC]", minute / 60, minute % 60);
            let hours = Hours::new(&ShopSettings::default(), now.parse().expect("a moment"));
            let axis = OpenAxis::new(&hours, 0);
            for day in &axis.days {
                let share = axis.x(day.closes) - axis.x(day.opens);
                let name = day_name(&axis, day);
                assert!(name.is_empty() || name.len() as f64 * LETTER + RIM <= share, "{now}: {name} in {share}");
            }
        }
    }
}
