//! `urgent-mend calibrate` and `urgent-mend watch`: learning from a probe, and watching a run, on one bundle.

use std::io::BufRead;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use clap::Args;
use mend_core::board::Point;
use mend_core::calibration::probe::{place, recipe};
use mend_core::calibration::probed::{ProbeRequest, Probed, probed};
use mend_core::finding::Finding;
use mend_core::heat::case::Case;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::planning::live::Watching;
use mend_core::planning::order::Unplanned;
use mend_core::units::Scale;
use mend_core::watch::Watch;
use mend_formats::bundle::Bundle;
use mend_formats::live::{self, LiveEvent};
use mend_formats::{calibration, readings};

use crate::method_command::answer;
use crate::plan_command::{BAD_INPUT, objection, print, read};

/// Where the thermocouple is.
#[derive(Args)]
pub(crate) struct Taped {
    /// The bundle (docs/formats/bundle.md).
    bundle: PathBuf,
    /// Where the bead is taped, mm: "34,18"; left out, beside the part as the page says.
    #[arg(long, value_parser = point)]
    at: Option<Point>,
}

fn point(text: &str) -> Result<Point, String> {
    let numbers: Vec<f64> = text.split(',').filter_map(|part| part.trim().parse().ok()).collect();
    match numbers[..] {
        [x, y] if x.is_finite() && y.is_finite() => Ok(Point { x, y }),
        _ => Err("two numbers, like 34,18".to_owned()),
    }
}

impl Taped {
    fn thermocouple(&self, bundle: &Bundle) -> Thermocouple {
        let usual = place(&bundle.board);
        Thermocouple { at: self.at.unwrap_or(usual.at), ..usual }
    }
}

/// Learns from a probe's readings.
pub(crate) fn calibrate(taped: &Taped, file: &Path, json: bool) -> anyhow::Result<ExitCode> {
    answer(read(&taped.bundle).and_then(|bundle| {
        let found = learnt(&bundle, taped.thermocouple(&bundle), file)?;
        Ok(if json { calibration::write(&found) } else { Ok(describe(&found)) })
    }))
}

fn learnt(bundle: &Bundle, taped: Thermocouple, file: &Path) -> Result<Probed, Vec<Finding>> {
    let unread = |error: std::io::Error| {
        vec![Finding::written("readings", "file", error.to_string()).hint("name a file that is there")]
    };
    let text = std::fs::read_to_string(file).map_err(unread)?;
    let readings = readings::parse(&text, Scale::Celsius, None)?.readings;
    let watch = Watch::new();
    let order = bundle.order(&watch);
    let melting = order.composition.targets(order.board)?;
    let (recipe, taped) = (recipe(&bundle.station, &bundle.board), [taped]);
    let next = order.case(&melting);
    let case = Case { recipe: &recipe, thermocouples: &taped, ..next };
    let request = ProbeRequest { case: &case, readings: &readings, next: Some(&next) };
    probed(&request).map_err(|cancelled| Unplanned::from(cancelled).objections())
}

fn describe(found: &Probed) -> String {
    let second = |t: Option<f64>| t.map_or("never".to_owned(), |t| format!("{t:.0} s"));
    let band = |[low, _, high]: [Option<f64>; 3]| format!("{} to {}", second(low), second(high));
    let release = found
        .release_s
        .map_or(String::new(), |[before, after]| format!("release      {} became {}", band(before), band(after)));
    let fits = if found.fits() { "they fit" } else { "they fit no station and board like these" };
    format!("readings     {fits}: {:.1} K are left\n{release}", found.residual_k)
}

/// Watches a run: a line of state for every event.
pub(crate) fn watch(taped: &Taped, events: &Path) -> anyhow::Result<ExitCode> {
    let opened = read(&taped.bundle).and_then(|bundle| {
        let (watch, taped) = (Watch::new(), [taped.thermocouple(&bundle)]);
        let watching = Watching::try_new(&bundle.order(&watch), &taped).map_err(Unplanned::objections)?;
        Ok((bundle, watching.twin()))
    });
    let (bundle, mut twin) = match opened {
        Ok(opened) => opened,
        Err(findings) => {
            findings.iter().for_each(objection);
            return Ok(ExitCode::from(BAD_INPUT));
        }
    };
    for line in std::io::BufReader::new(std::fs::File::open(events)?).lines() {
        let line = line?;
        if line.trim().is_empty() {
            continue;
        }
        let event = match live::parse(&line, &bundle.board) {
            Ok(event) => event,
            Err(findings) => {
                findings.iter().for_each(objection);
                return Ok(ExitCode::from(BAD_INPUT));
            }
        };
        let fault = match &event {
            LiveEvent::Tick { .. } => None,
            LiveEvent::Reading { at_s, celsius } => twin.read(0, [*at_s, *celsius]).err(),
            LiveEvent::Seen { observation, .. } => {
                twin.observe(observation);
                None
            }
        };
        print(&live::write(&twin.state(event.at_s()), &bundle.board, fault)?);
    }
    Ok(ExitCode::SUCCESS)
}
