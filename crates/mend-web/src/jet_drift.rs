//! A jet that is no longer what it was, in words: on its station's page, and on every plan that blows with it.

use jiff::Timestamp;
use jiff::tz::TimeZone;
use mend_core::calibration::drift::drift;
use mend_core::calibration::lesson::{Lesson, Owner};
use mend_core::heat::known::{Belief, Teachable, TeachableValues};
use mend_core::planning::plan_inputs::PlanInputs;
use mend_formats::station::{self, StationFile};
use mend_store::LessonRow;

use crate::App;
use crate::known::{Setup, counting};
use crate::planner::station_named;
use crate::refusal::Refusal;

/// What is guessed of a station as its file has it.
pub(crate) fn guessed_of(file: &StationFile) -> Belief {
    let mut spreads = TeachableValues::repeat(0.2);
    spreads[Teachable::Jet as usize] = file.jet_spread;
    spreads[Teachable::Flow as usize] = file.flow_spread;
    spreads[Teachable::Outlet as usize] = file.outlet_spread_k;
    Belief::from_spreads(&spreads)
}

/// A day as people write it.
pub(crate) fn day(ms: i64, zone: &TimeZone) -> String {
    let at = Timestamp::from_millisecond(ms).ok();
    at.map_or(String::new(), |at| zone.to_datetime(at).strftime("%-d %b %Y").to_string())
}

/// What the lessons of a station say of a nozzle's jet, if it has changed.
pub(crate) fn jet_drift(rows: &[LessonRow], setup: Setup, blind: &Belief, zone: &TimeZone) -> Option<String> {
    let of_jet = |lesson: &Lesson| lesson.shares.contains(&Owner::Nozzle);
    let jets: Vec<Lesson> = counting(rows, setup).into_iter().filter(of_jet).collect();
    let found = drift(&jets, blind)?;
    let since = day((jets.get(found.since.checked_sub(1)?)?.at_s * 1000.0) as i64, zone);
    let percent = 100.0 * (found.change.exp() - 1.0);
    let (how, look) = if percent < 0.0 {
        ("weaker", "Heater or nozzle: look at both, or probe it again")
    } else {
        ("stronger", "Probe it again")
    };
    let nozzle = setup.nozzle?.in_mm();
    Some(format!("The {nozzle} mm jet is {:.0} % {how} than until {since}. {look}.", percent.abs()))
}

/// The same of the jet that a plan blows with; empty where it has not changed.
pub(crate) async fn drift_of(app: &App, inputs: &PlanInputs) -> Result<String, Refusal> {
    let Some(air) = inputs.settings.air else { return Ok(String::new()) };
    let named = station_named(app, &inputs.station).await?;
    let id = named.id;
    let rows = app.reading(move |read| read.lessons_of_station(id)).await?;
    let blind = guessed_of(&station::read(named.file.as_bytes())?);
    let setup = Setup { station: id, board: None, nozzle: Some(air.nozzle) };
    Ok(jet_drift(&rows, setup, &blind, app.now().time_zone()).unwrap_or_default())
}

#[cfg(test)]
mod tests {
    use mend_core::heat::known::Knowledge;
    use mend_core::units::Length;
    use mend_formats::lesson;
    use mend_store::NewLesson;

    use super::*;

    #[test]
    fn a_jet_that_loses_a_third_is_said_to_be_weaker_since_a_day() {
        let week_ms = 7 * 86_400_000;
        let row = |k: i64, mean: f64| LessonRow {
            id: k + 1,
            lesson: NewLesson {
                kind: "probe".to_owned(),
                station_id: 1,
                nozzle_mm: Some(8.0),
                board_id: None,
                job_id: None,
                says: lesson::write(&Knowledge::one(Teachable::Jet, mean, 0.08)).expect("written"),
                entered: String::new(),
                figures: String::new(),
            },
            taught_ms: k * week_ms,
            left_out: None,
        };
        let blind = Belief::from_spreads(&TeachableValues::repeat(0.25));
        let setup = Setup { station: 1, board: None, nozzle: Some(Length::mm(8.0)) };
        let said = |means: &[f64]| {
            let rows: Vec<LessonRow> = means.iter().enumerate().map(|(k, mean)| row(k as i64, *mean)).collect();
            jet_drift(&rows, setup, &blind, &TimeZone::UTC)
        };
        assert_eq!(said(&[-0.1, -0.1, -0.1]), None);
        let line = said(&[-0.1, -0.1, -0.1, -0.5]).expect("a third less");
        assert!(
            line.starts_with("The 8 mm jet is 3") && line.contains("weaker than until 15 Jan 1970. Heater"),
            "{line}"
        );
    }
}
