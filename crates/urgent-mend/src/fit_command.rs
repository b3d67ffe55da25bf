//! `urgent-mend plan FILE --fit --compare`: the ways to fit the new part on one bundle's board.

use std::path::Path;
use std::process::ExitCode;

use mend_core::planning::fit::{FitComparison, FitLane, compare_fits};
use mend_core::planning::order::Unplanned;
use mend_core::watch::Watch;
use mend_formats::fits;
use mend_web::words::{Words, damaged, fit_way};

use crate::method_command::answer;
use crate::plan_command::read;

/// Prints the ways.
pub(crate) fn compare(file: &Path, json: bool) -> anyhow::Result<ExitCode> {
    answer(read(file).and_then(|bundle| {
        let found = compare_fits(&bundle.subject(), bundle.ambient, &Watch::new()).map_err(Unplanned::objections)?;
        Ok(if json { fits::write(&found) } else { Ok(describe(&found)) })
    }))
}

fn describe(found: &FitComparison) -> String {
    let lanes = found.lanes.iter().enumerate().map(|(k, lane)| line(lane, found.preferred == Some(k)));
    let not = found
        .ruled_out
        .iter()
        .map(|(way, why)| format!("{:<30} can't be done here: {}", fit_way(*way), Words::default().fit_obstacle(why)));
    lanes.chain(not).collect::<Vec<_>>().join("\n")
}

fn line(lane: &FitLane, preferred: bool) -> String {
    let tight = lane.tightest.as_ref();
    let tight = tight.map_or("nothing".to_owned(), |t| format!("{:.0} K at {}", t.headroom_k, damaged(&t.of)));
    let liquid = lane.plan.release.mid_s.map_or("never".to_owned(), |t| format!("after {t:.0} s"));
    let mark = if preferred { "  recommended" } else { "" };
    let chance = lane.plan.chance * 100.0;
    format!("{:<30} {chance:>3.0} %, liquid {liquid}, tightest {tight}{mark}", fit_way(lane.way))
}
