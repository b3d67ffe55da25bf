//! The shop's hours as minutes from now, and minutes as moments.

use jiff::civil::{Date, Time};
use jiff::{ToSpan, ZonedDateTime};
use mend_core::shop::schedule::workload::WorkShift;
use mend_formats::shop_settings::{DAYS, ShopSettings};

use crate::people::OwnHours;

/// So many days ahead are planned.
const AHEAD: i64 = 28;

/// When the shop is open, from today on.
#[derive(Debug, Clone)]
pub(crate) struct Hours {
    now: ZonedDateTime,
    /// Day, opening and closing, min from now: today's opening may be past.
    pub(crate) days: Vec<OpenDay>,
}

/// A day of the week as settings name it.
fn day_name(date: Date) -> &'static str {
    DAYS[usize::from(date.weekday().to_monday_zero_offset().unsigned_abs())]
}

/// A day on which the shop is open.
#[derive(Debug, Clone)]
pub(crate) struct OpenDay {
    pub(crate) date: Date,
    pub(crate) opens: i64,
    pub(crate) closes: i64,
}

impl Hours {
    /// A shop's hours. A shop that is open on no day has the hours of every day: somebody is there after all.
    pub(crate) fn new(shop: &ShopSettings, now: ZonedDateTime) -> Self {
        let time = |hour: &str, usual: i8| -> Time {
            format!("{hour}:00").parse().unwrap_or_else(|_| Time::constant(usual, 0, 0, 0))
        };
        let [opens, closes] = [time(&shop.hours[0], 9), time(&shop.hours[1], 17)];
        let is_open = |date: Date| shop.days.is_empty() || shop.days.iter().any(|day| day == day_name(date));
        let minutes = |date: Date, time: Time| {
            let at = date.to_datetime(time).to_zoned_datetime(now.time_zone().clone()).ok()?;
            Some((at.timestamp().as_second() - now.timestamp().as_second()).div_euclid(60))
        };
        let day = |date: Date| {
            let (opens, closes) = (minutes(date, opens)?, minutes(date, closes)?);
            Some(OpenDay { date, opens, closes }).filter(|day| day.closes > 0)
        };
        let dates = (0..AHEAD).filter_map(|days| now.date().checked_add(days.days()).ok());
        let days = dates.filter(|date| is_open(*date)).filter_map(day).collect();
        Self { now, days }
    }

    /// The moment that so many minutes from now are.
    pub(crate) fn moment(&self, minutes: i64) -> ZonedDateTime {
        self.now.checked_add(minutes.minutes()).unwrap_or_else(|_| self.now.clone())
    }

    /// The minute that a moment is.
    pub(crate) fn minute(&self, at_ms: i64) -> i64 {
        (at_ms - self.now.timestamp().as_millisecond()).div_euclid(60_000)
    }

    /// By when something is done that is due on a day: closing time of that day, or of the last open day before it; -1: that was
    /// before today.
    pub(crate) fn closing(&self, date: Date) -> i64 {
        self.days.iter().take_while(|day| day.date <= date).last().map_or(-1, |day| day.closes)
    }

    /// When it opens on a day, or on the first after it.
    pub(crate) fn opening(&self, date: Date) -> i64 {
        self.days.iter().find(|day| day.date >= date).map_or(0, |day| day.opens.max(0))
    }

    /// The shifts of somebody who is there whenever it is open, from now on; within hours of their own, where they have any.
    pub(crate) fn shifts(&self, own: &OwnHours) -> Vec<WorkShift> {
        let at = |date: Date, hour: &str| {
            let time: Time = format!("{hour}:00").parse().ok()?;
            let at = date.to_datetime(time).to_zoned_datetime(self.now.time_zone().clone()).ok()?;
            Some(self.minute(at.timestamp().as_millisecond()))
        };
        let shift = |day: &OpenDay| {
            let from = at(day.date, &own.hours[0]).map_or(day.opens, |from| from.max(day.opens)).max(0);
            let until = at(day.date, &own.hours[1]).map_or(day.closes, |until| until.min(day.closes));
            (own.has_day(day_name(day.date)) && from < until).then_some(WorkShift { from, until })
        };
        self.days.iter().filter_map(shift).collect()
    }

    /// A minute in words: the day where it is not today's, and the time.
    pub(crate) fn in_words(&self, minute: i64) -> String {
        let at = self.moment(minute);
        if at.date() == self.now.date() {
            at.strftime("%H:%M").to_string()
        } else {
            at.strftime("%a %-d %b, %H:%M").to_string()
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn hours(now: &str) -> Hours {
        Hours::new(&ShopSettings::default(), now.parse().expect("a moment"))
    }

    #[test]
    fn a_week_end_is_no_shift_and_what_is_left_of_today_is() {
        // A Friday at three: two hours are left, then Monday from nine.
        let friday = hours("2026-11-27T15:00:00[UTC]");
        let shifts = friday.shifts(&OwnHours::default());
        let mornings = OwnHours { hours: ["09:00".to_owned(), "13:00".to_owned()], days: vec!["monday".to_owned()] };
        let own = friday.shifts(&mornings);
        assert_eq!((own[0].from, own[0].until), (shifts[1].from, shifts[1].from + 240), "Monday morning alone");
        assert_eq!((shifts[0].from, shifts[0].until), (0, 120));
        assert_eq!(shifts[1].from, 2 * 24 * 60 + 18 * 60);
        assert_eq!(friday.in_words(60), "16:00");
        assert_eq!(friday.in_words(shifts[1].from), "Mon 30 Nov, 09:00");
        let closing = |month: i8, day: i8| friday.closing(jiff::civil::date(2026, month, day));
        assert_eq!((closing(11, 30), closing(11, 28), closing(11, 26)), (shifts[1].until, 120, -1));
        assert_eq!(friday.opening(jiff::civil::date(2026, 11, 28)), shifts[1].from);
    }

    #[test]
    fn after_closing_today_is_over() {
        assert_eq!(hours("2026-11-26T18:00:00[UTC]").days[0].date, jiff::civil::date(2026, 11, 27));
    }
}
