//! How a job's device is opened: its map, and what was tapped.

use mend_core::opening::map::OpeningMap;
use mend_core::opening::tally::{OpeningTally, tally};
use mend_core::opening::taps::{OpeningTap, Taps};
use mend_formats::opening;
use mend_store::{CheckRow, OpeningRow};

/// The list of taps among what was found.
pub(crate) const OPENING: &str = "opening";

/// Changes of the map, by their tokens.
pub(crate) const MAP: &str = "map";

/// A job's map with what was tapped.
#[derive(Debug, Clone)]
pub(crate) struct JobOpening {
    pub(crate) row: OpeningRow,
    pub(crate) map: OpeningMap,
    pub(crate) taps: Taps,
}

/// A tap as it is stored; none where it can't be read.
fn tap(row: &CheckRow) -> Option<OpeningTap> {
    match row.value.as_str() {
        "out" => Some(OpeningTap::Out(row.name.parse().ok()?)),
        "back" => Some(OpeningTap::Back(row.name.parse().ok()?)),
        "undo" => Some(OpeningTap::Undo),
        _ => None,
    }
}

impl JobOpening {
    /// As the store has it; none where the map can't be read.
    pub(crate) fn try_new(row: OpeningRow, history: &[CheckRow]) -> Option<Self> {
        let map = opening::parse(row.map.as_bytes()).ok()?.into_map();
        let taps = Taps::after(&history.iter().filter_map(tap).collect::<Vec<_>>());
        Some(Self { row, map, taps })
    }

    /// Counted.
    pub(crate) fn tally(&self) -> OpeningTally {
        tally(&self.map, &self.taps)
    }
}
