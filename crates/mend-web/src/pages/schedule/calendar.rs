//! One person's day as an iCalendar file (RFC 5545), for their own calendar.

use axum::extract::{Path, State};
use axum::response::Response;
use jiff::ZonedDateTime;

use crate::App;
use crate::extract::Query;
use crate::pages::saved::{CALENDAR, saved};
use crate::refusal::Refusal;
use crate::scheduling::{BenchPlan, bench_plan};

/// A line has no more bytes than this; a longer one is folded (RFC 5545, 3.1).
const LINE: usize = 75;

#[derive(serde::Deserialize)]
pub(crate) struct DayQuery {
    /// `2026-11-30`; left out: today.
    #[serde(default)]
    day: String,
}

pub(crate) async fn show(
    State(app): State<App>,
    Path(person): Path<String>,
    Query(asked): Query<DayQuery>,
) -> Result<Response, Refusal> {
    let person: i64 = person.parse().map_err(|_| Refusal::NotFound("person"))?;
    let plan = bench_plan(&app).await?;
    let place = plan.people.iter().position(|row| row.as_ref().map_or(0, |row| row.id) == person);
    let place = place.ok_or(Refusal::NotFound("person on the schedule"))?;
    let day = match asked.day.as_str() {
        "" => app.now().date(),
        day => day.parse().map_err(|_| Refusal::field("day", format!("“{day}” is no day"), "like 2026-11-30"))?,
    };
    Ok(saved(CALENDAR, "day.ics", calendar(&plan, place, day, &app.now())))
}

fn utc(at: &ZonedDateTime) -> String {
    at.timestamp().strftime("%Y%m%dT%H%M%SZ").to_string()
}

fn calendar(plan: &BenchPlan, place: usize, day: jiff::civil::Date, now: &ZonedDateTime) -> String {
    let mut lines: Vec<String> =
        ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Urgent Mend//Schedule//EN"].map(str::to_owned).into();
    for placed in plan.schedule.placed.iter().filter(|placed| placed.worker == Some(place)) {
        let (from, until) = (plan.hours.moment(placed.from), plan.hours.moment(placed.until));
        if from.date() != day {
            continue;
        }
        let job = &plan.jobs[placed.job];
        let what = format!("{}: {}, job {}", plan.task_name(placed.job, placed.task), job.device, job.id);
        lines.extend([
            "BEGIN:VEVENT".to_owned(),
            format!("UID:job-{}-{}@urgent-mend", job.id, placed.task),
            format!("DTSTAMP:{}", utc(now)),
            format!("DTSTART:{}", utc(&from)),
            format!("DTEND:{}", utc(&until)),
            format!("SUMMARY:{}", escaped(&what)),
            "END:VEVENT".to_owned(),
        ]);
    }
    lines.push("END:VCALENDAR".to_owned());
    lines.iter().map(|line| folded(line)).collect()
}

/// Text as the format wants it (RFC 5545, 3.3.11).
fn escaped(text: &str) -> String {
    text.replace('\\', "\\\\").replace(';', "\\;").replace(',', "\\,").replace(['\r', '\n'], " ")
}

/// A line, folded where it is too long, never within a letter.
fn folded(line: &str) -> String {
    let (mut folded, mut length) = (String::new(), 0);
    for letter in line.chars() {
        if length + letter.len_utf8() > LINE {
            folded.push_str("\r\n ");
            length = 1;
        }
        folded.push(letter);
        length += letter.len_utf8();
    }
    folded + "\r\n"
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_long_line_is_folded_between_letters_and_text_is_escaped() {
        let long = format!("SUMMARY:{}", "ä".repeat(60));
        let lines: Vec<String> = folded(&long).lines().map(str::to_owned).collect();
        assert!(lines.len() == 2 && lines.iter().all(|line| line.len() <= LINE) && lines[1].starts_with(' '));
        assert_eq!(lines[0].clone() + &lines[1][1..], long);
        assert_eq!(escaped("a, b; c\\\nd"), "a\\, b\\; c\\\\ d");
    }
}
