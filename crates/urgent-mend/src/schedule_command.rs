//! `urgent-mend schedule FILE`: when what is done at the benches, and by whom.

use std::path::Path;
use std::process::ExitCode;

use mend_core::finding::Finding;
use mend_core::shop::schedule::workload::Workload;
use mend_core::shop::schedule::{BenchSchedule, schedule};
use mend_formats::schedule::{parse, unplaceable, write};

use crate::plan_command::{BAD_INPUT, objection, print};

/// Prints the schedule to standard output, objections to standard error.
pub(crate) fn run(file: &Path, json: bool) -> anyhow::Result<ExitCode> {
    let made = read(file).and_then(|workload| match schedule(&workload) {
        Ok(made) => Ok((workload, made)),
        Err(at) => Err(vec![unplaceable(&workload, at)]),
    });
    match made {
        Ok((workload, made)) if json => print(&write(&workload, &made)?),
        Ok((workload, made)) => print(&describe(&workload, &made)),
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    }
    Ok(ExitCode::SUCCESS)
}

fn read(file: &Path) -> Result<Workload, Vec<Finding>> {
    let bytes = std::fs::read(file).map_err(|error| {
        let message = format!("{} can't be read: {error}", file.display());
        vec![Finding::written("command", "file", message).hint("name a schedule file that is there")]
    })?;
    parse(&bytes)
}

/// `1 h 20` from now.
fn clock(minutes: i64) -> String {
    let sign = if minutes < 0 { "-" } else { "" };
    format!("{sign}{}:{:02}", minutes.abs() / 60, minutes.abs() % 60)
}

fn describe(workload: &Workload, made: &BenchSchedule) -> String {
    let cost = made.cost;
    let late =
        workload.jobs.iter().zip(&made.done).filter(|(job, done)| job.due.is_some_and(|due| **done > due)).count();
    let mut lines = vec![
        format!("late     {late} of {} jobs, {:.0} weighted minutes", workload.jobs.len(), cost.late),
        format!("hands    {} idle minutes, {} changes of nozzle", cost.idle, cost.changeovers),
    ];
    let task = |placed: &mend_core::shop::schedule::PlacedTask| {
        let job = &workload.jobs[placed.job];
        let by = placed.worker.map_or("by itself", |worker| workload.workers[worker].name.as_str());
        let (from, until) = (clock(placed.from), clock(placed.until));
        format!("{from:>6} to {until:>6}  {by}: {}, {}", job.name, job.tasks[placed.task].name)
    };
    lines.extend(made.placed.iter().map(task));
    lines.join("\n")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moments_are_hours_and_minutes_from_now() {
        assert_eq!([clock(0), clock(75), clock(-5)], ["0:00", "1:15", "-0:05"]);
    }
}
