//! What each kind of job has of the line of stops, and how its stops are called.

use super::stop::Stop;
use crate::method::JobKind;

/// Has a kind of job this stop?
fn has(kind: JobKind, stop: Stop) -> bool {
    match stop {
        Stop::Intake | Stop::Opening | Stop::Board | Stop::Look | Stop::Handover => true,
        Stop::Method => kind.removes(),
        Stop::Alloy | Stop::Heat | Stop::Run => kind.removes() || kind.fits(),
        Stop::Pins | Stop::Test => kind.fits(),
        // A donor is not closed again.
        Stop::Close => kind != JobKind::Harvest,
    }
}

/// The stops of a kind of job, in order.
///
/// ```
/// use mend_core::method::JobKind;
/// use mend_core::shop::{Stop, stops_of};
/// assert!(stops_of(JobKind::LookOnly).all(|stop| stop != Stop::Heat));
/// assert_eq!(stops_of(JobKind::Replace).count(), Stop::ALL.len());
/// ```
pub fn stops_of(kind: JobKind) -> impl Iterator<Item = Stop> {
    Stop::ALL.into_iter().filter(move |stop| has(kind, *stop))
}

/// A stop's name on the line of a kind of job.
pub fn name_of(kind: JobKind, stop: Stop) -> &'static str {
    match (kind, stop) {
        (JobKind::PutBack, Stop::Heat) => "Fit plan",
        (JobKind::Harvest, Stop::Handover) => "Into stock",
        _ => stop.name(),
    }
}

/// The last part of a stop's address: what only goes on has the plan of its fit.
pub fn path_of(kind: JobKind, stop: Stop) -> &'static str {
    if kind == JobKind::PutBack && stop == Stop::Heat { "fit" } else { stop.path() }
}

/// What to do at a stop, as an order to oneself.
///
/// ```
/// use mend_core::method::JobKind;
/// use mend_core::shop::{Stop, call_of};
/// assert_eq!(call_of(JobKind::Harvest, Stop::Handover), "Put it into stock");
/// ```
pub fn call_of(kind: JobKind, stop: Stop) -> &'static str {
    match (kind, stop) {
        (JobKind::PutBack, Stop::Heat) => "Plan how it goes back",
        (JobKind::PutBack, Stop::Run) => "Put it back at the bench",
        (JobKind::Transfer, Stop::Run) => "Move it over at the bench",
        (JobKind::Harvest, Stop::Run) => "Harvest it at the bench",
        (JobKind::RemoveOnly, Stop::Run) => "Take it off at the bench",
        (JobKind::Harvest, Stop::Handover) => "Put it into stock",
        _ => stop.call(),
    }
}

#[cfg(test)]
mod tests {
    use super::super::stops::{Facts, RunState, next};
    use super::*;
    use crate::planning::plan::WindowState;

    #[test]
    fn a_donor_is_not_tested_or_closed_and_goes_into_stock() {
        let ready = Facts {
            kind: JobKind::Harvest,
            opened: true,
            board: true,
            looked: true,
            alloy: true,
            method: true,
            window: Some(WindowState::Open),
            run: RunState::Done,
            ..Facts::default()
        };
        assert_eq!(next(&ready), Some(Stop::Handover));
        assert_eq!(next(&Facts { kind: JobKind::RemoveOnly, ..ready.clone() }), Some(Stop::Close));
        assert_eq!(next(&Facts { kind: JobKind::Transfer, ..ready }), Some(Stop::Pins));
    }

    #[test]
    fn what_goes_back_has_no_method_of_removal_and_what_is_looked_at_no_heat() {
        let looked = Facts { kind: JobKind::PutBack, opened: true, board: true, looked: true, ..Facts::default() };
        assert_eq!(next(&looked), Some(Stop::Alloy));
        let soldered = Facts { alloy: true, ..looked.clone() };
        assert_eq!((next(&soldered), path_of(JobKind::PutBack, Stop::Heat)), (Some(Stop::Heat), "fit"));
        assert_eq!(next(&Facts { kind: JobKind::LookOnly, ..looked }), Some(Stop::Close));
    }
}
