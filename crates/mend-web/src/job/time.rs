//! How much a job is, and what its stops took.

use mend_core::heat::purpose::Purpose;
use mend_core::method::equipment::SkillLevel;
use mend_core::method::{MethodChoice, MethodFamily};
use mend_core::planning::bath::hurt_by_bath;
use mend_core::planning::bench_time::{TimedJob, bench_time};
use mend_core::planning::used_up::Use;
use mend_core::planning::used_up::expected::PlannedUse;
use mend_core::shop::Stop;
use mend_core::shop::estimate::prior::{JobSize, prior};
use mend_store::{RecordRow, TimeRow};
use serde::{Deserialize, Serialize};

use super::{BETWEEN, COMPONENTS, CONDITION_AFTER, Job, OPENING, Planned, TEST_CLOSED, TEST_OPEN, VALUES};
use crate::pages::word;

/// A pause longer than this between two entries was spent on something else, ms.
const LONGEST_PAUSE_MS: i64 = 10 * 60 * 1000;

/// What the schedule and the estimates know of a job without reading it.
#[derive(Debug, Clone, Default, Serialize, Deserialize)]
pub(crate) struct JobExtent {
    pub(crate) size: JobSize,
    /// Connector and method, as times are pooled by.
    pub(crate) kind: String,
    /// The station that it is planned for; empty: none yet.
    pub(crate) station: String,
    /// The nozzle that its station wears, mm.
    pub(crate) nozzle_mm: Option<f64>,
    /// Whose hands its method wants.
    pub(crate) level: Option<SkillLevel>,
    /// Would the board stand an ultrasonic bath?
    #[serde(default)]
    pub(crate) bathes: bool,
    /// In how many of a hundred runs nothing is damaged; none: not planned yet.
    pub(crate) works: Option<f64>,
    /// The day until which it waits; empty: it waits for nothing, or nobody knows until when.
    pub(crate) part_comes: String,
}

impl Job {
    /// How much there is to do.
    pub(crate) fn extent(&self) -> JobExtent {
        let planned = self.bench_plan();
        let inputs = self.inputs();
        let family = inputs.as_ref().and_then(|inputs| inputs.method.as_ref()).map(|choice| choice.family);
        let connector = self.board.as_ref().map_or("", |(_, board)| board.connector.name.as_str());
        let method = family.map_or("by hand".to_owned(), |family| word(&family));
        let waits = self.parts.iter().filter(|part| !part.need.day.is_empty() && part.is_waited_for());
        JobExtent {
            size: JobSize {
                items: self.opening.as_ref().map(|opening| opening.map.items.len()).filter(|items| *items > 0),
                pins: self.walked().len(),
                bench_s: planned.and_then(|planned| self.bench_seconds(planned)),
            },
            kind: format!("{connector}, {method}"),
            station: inputs.as_ref().map(|inputs| inputs.station.clone()).unwrap_or_default(),
            nozzle_mm: planned.and_then(|p| p.plan.recipe.air.as_ref()).map(|air| air.nozzle.in_mm()),
            level: family.map(|family| family.method().level()),
            bathes: self.board.as_ref().is_some_and(|(_, board)| hurt_by_bath(board).is_empty()),
            works: planned.map(|planned| planned.plan.chance),
            part_comes: if self.waits_for_nothing_else() {
                waits.map(|part| part.need.day.clone()).max().unwrap_or_default()
            } else {
                String::new()
            },
        }
    }

    /// Does it wait for nothing but parts whose day is known?
    fn waits_for_nothing_else(&self) -> bool {
        let dayless = self.parts.iter().any(|part| part.is_waited_for() && part.need.day.is_empty());
        self.open_quote.is_none() && self.intake("waits_for").is_empty() && !dayless
    }

    /// What its plan expects to use up; nothing where there is none.
    pub(crate) fn planned_uses(&self) -> Vec<Use> {
        let (Some((_, board)), Some(planned)) = (&self.board, self.bench_plan()) else { return Vec::new() };
        let Ok(composition) = planned.inputs.composition() else { return Vec::new() };
        let (plan, keep_intact) = (&planned.plan, planned.inputs.keep_intact);
        PlannedUse { board, composition: &composition, plan, keep_intact }.uses()
    }

    /// Time at the bench by the plan, piece by piece, s.
    fn bench_seconds(&self, planned: &Planned) -> Option<f64> {
        let (_, board) = self.board.as_ref()?;
        let usual = MethodChoice { family: MethodFamily::FromBelow, techniques: Default::default() };
        let choice = planned.inputs.method.clone().unwrap_or(usual);
        let (composition, equipment) = (planned.inputs.composition().ok()?, self.equipment.equipment().ok()?);
        let keep_intact = planned.inputs.keep_intact;
        let timed = TimedJob {
            board,
            composition: &composition,
            plan: &planned.plan,
            choice: &choice,
            equipment: &equipment,
            keep_intact,
        };
        let fits_only = planned.inputs.purpose != Purpose::Remove;
        let seconds: f64 = bench_time(&timed).iter().map(|spent| spent.seconds.mid).sum();
        Some(if fits_only { seconds / 2.0 } else { seconds }).filter(|seconds| seconds.is_finite() && *seconds > 0.0)
    }
}

/// The stop at which something was entered; none: at no stop.
fn stop_of(row: &RecordRow) -> Option<Stop> {
    let list = row.what.split(' ').next().unwrap_or_default();
    match (row.kind.as_str(), list) {
        ("intake" | "taken-in", _) => Some(Stop::Intake),
        ("event", _) => Some(Stop::Run),
        ("pin", _) => Some(Stop::Pins),
        ("check", list) if list == OPENING => Some(if row.value == "back" { Stop::Close } else { Stop::Opening }),
        ("check", list) if list == TEST_OPEN => Some(Stop::Test),
        ("check", list) if list == TEST_CLOSED => Some(Stop::Close),
        ("check", "after") => Some(Stop::Pins),
        ("check", list) if [CONDITION_AFTER, BETWEEN, COMPONENTS, VALUES].contains(&list) => Some(Stop::Pins),
        ("check", _) => Some(Stop::Look),
        ("log", _) => Some(Stop::Handover),
        _ => None,
    }
}

/// What each stop took, from the moments of its entries: pauses that are no longer than ten minutes, added. A stop with a
/// single entry has no time.
pub(crate) fn times_of(job: &Job, record: &[RecordRow]) -> Vec<TimeRow> {
    let extent = job.extent();
    let mut times = Vec::new();
    for stop in Stop::ALL {
        let of: Vec<&RecordRow> = record.iter().filter(|row| stop_of(row) == Some(stop)).collect();
        let pauses = of.windows(2).map(|pair| pair[1].at_ms - pair[0].at_ms);
        let worked: i64 = pauses.filter(|pause| (0..=LONGEST_PAUSE_MS).contains(pause)).sum();
        if worked > 0 {
            #[allow(clippy::cast_precision_loss, reason = "milliseconds of a day")]
            let seconds = worked as f64 / 1000.0;
            let prior_s = prior(stop, extent.size).usual_s;
            let (stop, person) = (stop.path().to_owned(), most(of.iter().map(|row| row.who.as_str())));
            times.push(TimeRow { stop, seconds, prior_s, kind: extent.kind.clone(), person });
        }
    }
    times
}

/// The name that stands most often; empty: none does.
fn most<'a>(names: impl Iterator<Item = &'a str>) -> String {
    let mut count = std::collections::BTreeMap::new();
    names.filter(|name| !name.is_empty()).for_each(|name| *count.entry(name).or_insert(0_usize) += 1);
    count.into_iter().max_by_key(|(_, times)| *times).map(|(name, _)| name.to_owned()).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_entry_belongs_to_the_stop_at_which_it_is_made() {
        let row = |kind: &str, what: &str, value: &str| RecordRow {
            at_ms: 0,
            kind: kind.to_owned(),
            what: what.to_owned(),
            value: value.to_owned(),
            who: String::new(),
        };
        let of = |kind, what, value| stop_of(&row(kind, what, value));
        assert_eq!(of("check", "opening 4", "out"), Some(Stop::Opening));
        assert_eq!(of("check", "opening 4", "back"), Some(Stop::Close));
        assert_eq!(of("check", "before A1", "0.5"), Some(Stop::Look));
        assert_eq!(of("check", "between A1", "apart"), Some(Stop::Pins));
        assert_eq!(of("event", "go", ""), Some(Stop::Run));
        assert_eq!(of("photo", "look", ""), None);
        assert_eq!(most(["Tam", "", "Tilda", "Tam"].into_iter()), "Tam");
    }
}
