//! What the bench's thermometer reads while the air is on: kept with the run, and told to the twin.

use mend_core::calibration::reading_fault::ReadingFault;
use mend_core::calibration::twin::Twin;
use mend_core::heat::thermocouple::Thermocouple;
use mend_core::instrument::InstrumentFault;
use mend_store::{Moment, ReadingRow};

use crate::App;
use crate::instruments::Taken;
use crate::job::{BenchRunView, Job};
use crate::pages::instruments::socket;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::instrument_fault;

/// What was read of a heating so far.
#[derive(Debug, Default)]
pub(super) struct BenchReadings {
    /// The thermometer's name; empty: there is none.
    name: String,
    /// Seconds from air on, and °C; none: it read nothing.
    rows: Vec<(f64, Option<f64>)>,
    /// Why the last one is none.
    fault: Option<InstrumentFault>,
}

/// Where the bench's thermometer is taped, where there is one.
pub(super) async fn taped(app: &App, job: &Job) -> Result<Vec<Thermocouple>, Refusal> {
    let there = app.reading(|read| read.bench_instrument("thermometer")).await?.is_some();
    Ok(if there { vec![job.bench()?.bead(&job.board()?.1)] } else { Vec::new() })
}

/// The air has gone on: tells the bench's thermometer. The press is kept whatever becomes of that.
pub(super) async fn trigger(app: &App) {
    let row = app.reading(|read| read.bench_instrument("thermometer")).await.ok().flatten();
    if let Some(address) = row.and_then(|row| socket(&row.address).ok()) {
        app.instruments.trigger(address, app.clocks());
    }
}

impl BenchReadings {
    /// Takes over what was read since the air went on, keeps it with the run, and has all of it.
    pub(super) async fn load(app: &App, bench: &BenchRunView, now: &Moment) -> Result<Self, Refusal> {
        let row = app.reading(|read| read.bench_instrument("thermometer")).await?;
        let reached = row.and_then(|row| Some((socket(&row.address).ok()?, row.name)));
        let (Some((address, name)), Some(begun_ms)) = (reached, bench.state.begun_ms()) else {
            return Ok(Self::default());
        };
        let on = &bench.run.taped_on;
        let name = if on.is_empty() { name } else { format!("{name} on {on}") };
        let since_on = bench.phase_ms(now);
        let from_ms = now.tick_ms - since_on;
        let taken = app.instruments.since(address, from_ms, app.clocks());
        let kept = |taken: &Taken<f64>| {
            let celsius = taken.value.as_ref().ok().copied();
            ReadingRow { begun_ms, after_ms: taken.tick_ms - from_ms, celsius }
        };
        let (run, new): (i64, Vec<ReadingRow>) = (bench.run.id, taken.iter().map(kept).collect());
        let rows = app
            .writing(move |write| {
                // The same reading comes again with every look, its moment a few milliseconds off: later ones alone are new.
                let all = write.read().run_readings(run)?;
                let here = all.into_iter().filter(|row| row.begun_ms == begun_ms);
                let mut here: Vec<ReadingRow> = here.collect();
                let last = here.last().map_or(i64::MIN, |row| row.after_ms + SAME_MS);
                let new: Vec<ReadingRow> = new.into_iter().filter(|row| row.after_ms > last).collect();
                write.keep_readings(run, &new)?;
                here.extend(new);
                Ok(here)
            })
            .await?;
        let rows = rows.into_iter().map(|row| (row.after_ms as f64 / 1000.0, row.celsius)).collect();
        let fault = taken.last().and_then(|taken| taken.value.as_ref().err().cloned());
        Ok(Self { name, rows, fault })
    }

    /// Tells the twin; answers why the last reading was left out, if it was.
    pub(super) fn tell(&self, twin: &mut Twin, from_s: f64) -> Option<ReadingFault> {
        let mut last = None;
        for (at_s, celsius) in &self.rows {
            last = twin.read(0, [from_s + at_s, celsius.unwrap_or(f64::NAN)]).err();
        }
        last
    }

    /// Is there any sound reading?
    pub(super) fn any(&self) -> bool {
        self.rows.iter().any(|(_, celsius)| celsius.is_some())
    }

    /// In a line: what it reads against what is expected, or why it does not count.
    pub(super) fn line(
        &self,
        expected: Option<&[f64; 3]>,
        left_out: Option<ReadingFault>,
        visitor: Visitor,
    ) -> Option<String> {
        let (name, words) = (&self.name, visitor.words());
        if name.is_empty() {
            return None;
        }
        if let Some(fault) = &self.fault {
            return Some(format!("{name}: {}", instrument_fault(fault)));
        }
        let (_, celsius) = self.rows.last()?;
        let read = words.temperature((*celsius)?);
        if let Some(fault) = left_out {
            return Some(format!("{name} {read}, left out: {}", why(fault)));
        }
        let band = expected.map(|[low, mid, high]| {
            words.temperature_band(mend_core::planning::band::Band { low: *low, mid: *mid, high: *high })
        });
        Some(format!("{name} {read}, expected {}", band.unwrap_or_default()))
    }
}

/// Readings closer than this are the same one, ms.
const SAME_MS: i64 = 200;

const fn why(fault: ReadingFault) -> &'static str {
    match fault {
        ReadingFault::Open => "no bead reads that",
        ReadingFault::Jump { .. } => "it jumped",
        ReadingFault::Frozen { .. } => "it stands still",
    }
}
