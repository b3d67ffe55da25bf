//! A probe that a logger of the shop records: begun with the air, written down reading by reading, whether or not anybody looks.

use std::net::SocketAddr;
use std::time::Duration;

use askama::Template;
use askama_web::WebTemplate;
use axum::extract::State;
use axum::http::HeaderName;
use axum::response::{IntoResponse, Response};
use mend_core::calibration::probe::ON_S;
use mend_core::units::{Scale, Temperature};
use mend_store::{InstrumentRow, MeasuringKey, TypedField};
use serde::Deserialize;

use super::super::edit::StationPath;
use super::{Measuring, scale_key};
use crate::App;
use crate::extract::Form;
use crate::instruments::Taken;
use crate::pages::instruments::socket;
use crate::refusal::Refusal;
use crate::visitor::Visitor;
use crate::words::instrument_fault;

use super::probe::KIND;

/// Which recording is under way: the clock it counts on, its reading then, and the instrument. Empty: none.
const FIELD: &str = "recording";
const READINGS: &str = "readings";
/// A minute of air, one without, and a little.
const LASTS_S: f64 = 2.0 * ON_S + 3.0;

/// The last readings are written down within so many seconds; the mark of the recording goes with them.
const LATE_S: f64 = 10.0;

/// A recording that has begun.
#[derive(Debug, Clone, PartialEq)]
struct Recording {
    instrument: i64,
    from_ms: i64,
    clock: String,
}

impl Recording {
    fn written(&self) -> String {
        format!("{} {} {}", self.instrument, self.from_ms, self.clock)
    }

    fn read(text: &str) -> Option<Self> {
        let mut parts = text.splitn(3, ' ');
        let instrument = parts.next()?.parse().ok()?;
        Some(Self { instrument, from_ms: parts.next()?.parse().ok()?, clock: parts.next()?.to_owned() })
    }

    /// How long it has gone on; none where whoever wrote it down is gone: the machine or the application was started anew.
    fn seconds(&self, app: &App) -> Option<f64> {
        let now = app.moment();
        let seconds = (now.tick_ms - self.from_ms) as f64 / 1000.0;
        (now.clock == self.clock && (0.0..LASTS_S + LATE_S).contains(&seconds)).then_some(seconds)
    }
}

/// Is a recording under way? What it will teach is asked for once it is over.
pub(super) fn is_under_way(app: &App, kept: &Measuring) -> bool {
    Recording::read(kept.get(FIELD)).is_some_and(|recording| recording.seconds(app).is_some())
}

/// What is shown of it.
#[derive(Template, WebTemplate)]
#[template(path = "stations/measure/record.html")]
pub(crate) struct RecordPart {
    station: i64,
    loggers: Vec<InstrumentRow>,
    under_way: Option<UnderWay>,
}

/// A recording under way.
struct UnderWay {
    air: &'static str,
    left_s: String,
    reading: String,
    fault: String,
}

impl RecordPart {
    pub(super) async fn load(app: &App, kept: &Measuring, visitor: Visitor) -> Result<Self, Refusal> {
        let rows = app.reading(|read| read.instruments()).await?;
        let loggers: Vec<InstrumentRow> = rows.into_iter().filter(|row| row.kind == "thermometer").collect();
        let recording = Recording::read(kept.get(FIELD));
        let under_way = recording.and_then(|recording| {
            let seconds = recording.seconds(app)?;
            let row = loggers.iter().find(|row| row.id == recording.instrument)?;
            let taken = taken(app, socket(&row.address).ok()?, recording.from_ms);
            Some(under_way(seconds, taken.last(), visitor))
        });
        Ok(Self { station: kept.id, loggers, under_way })
    }
}

fn under_way(seconds: f64, last: Option<&Taken<f64>>, visitor: Visitor) -> UnderWay {
    let (air, left) = match ON_S - seconds {
        left if left > 0.0 => ("Air on", left),
        _ => ("Air off", (2.0 * ON_S - seconds).max(0.0)),
    };
    let celsius = last.and_then(|last| last.value.as_ref().ok());
    UnderWay {
        air,
        left_s: format!("{left:.0}"),
        reading: celsius.map_or(String::new(), |celsius| visitor.words().temperature(*celsius)),
        fault: last.and_then(|last| last.value.as_ref().err()).map_or(String::new(), instrument_fault),
    }
}

fn taken(app: &App, address: SocketAddr, from_ms: i64) -> Vec<Taken<f64>> {
    app.instruments.since(address, from_ms, app.clocks())
}

/// Which logger.
#[derive(Deserialize)]
pub(crate) struct RecordForm {
    instrument: i64,
}

pub(crate) async fn start(
    State(app): State<App>,
    visitor: Visitor,
    path: StationPath,
    Form(sent): Form<RecordForm>,
) -> Result<RecordPart, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let row = app.reading(move |read| read.instrument(sent.instrument)).await?;
    let row = row.filter(|row| row.kind == "thermometer").ok_or(Refusal::NotFound("logger"))?;
    let address = socket(&row.address)?;
    let (now, scale) = (app.moment(), kept.scale(visitor));
    let recording = Recording { instrument: row.id, from_ms: now.tick_ms, clock: now.clock };
    let field = |name: &str, value: &str| (name.to_owned(), value.to_owned());
    let fields = vec![
        field(FIELD, &recording.written()),
        field(READINGS, ""),
        field("begins", "0"),
        field("columns", ""),
        field("scale", scale_key(scale)),
    ];
    let kept = Measuring::entered(&app, &path, KIND, fields).await?;
    app.instruments.trigger(address, app.clocks());
    let (for_later, station) = (app.clone(), kept.id);
    tokio::spawn(async move { write_down(&for_later, WritingDown { station, scale, recording, address }).await });
    RecordPart::load(&app, &kept, visitor).await
}

/// Which readings are written down, where to, and in which degrees.
struct WritingDown {
    station: i64,
    scale: Scale,
    recording: Recording,
    address: SocketAddr,
}

/// Writes readings down until it is over, or another one has begun.
async fn write_down(app: &App, wanted: WritingDown) {
    let WritingDown { station, scale, recording, address } = wanted;
    loop {
        tokio::time::sleep(Duration::from_secs(1)).await;
        let over = recording.seconds(app).is_none_or(|seconds| seconds >= LASTS_S);
        let lines = lines(&taken(app, address, recording.from_ms), recording.from_ms, scale);
        let (mark, now) = (recording.written(), app.now_ms());
        let kept = app.writing(move |write| {
            if write.read().measuring(station, KIND)?.get(FIELD) != Some(&mark) {
                return Ok(false);
            }
            write.set_measuring(MeasuringKey { station, kind: KIND }, TypedField::new(READINGS, &lines), now)?;
            if over {
                write.set_measuring(MeasuringKey { station, kind: KIND }, TypedField::new(FIELD, ""), now)?;
            }
            Ok(!over)
        });
        if !matches!(kept.await, Ok(true)) {
            return;
        }
    }
}

/// A line a reading, as somebody would type it; what read nothing is left out.
fn lines(taken: &[Taken<f64>], from_ms: i64, scale: Scale) -> String {
    let line = |taken: &Taken<f64>| {
        let celsius = taken.value.as_ref().ok()?;
        let at_s = (taken.tick_ms - from_ms) as f64 / 1000.0;
        Some(format!("{at_s:.1}, {:.2}", scale.of(Temperature::celsius(*celsius))))
    };
    taken.iter().filter_map(line).collect::<Vec<_>>().join("\n")
}

/// How far it is; once it is over the page is drawn anew, with its readings.
pub(crate) async fn show(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<Response, Refusal> {
    let part = RecordPart::load(&app, &Measuring::load(&app, &path, KIND).await?, visitor).await?;
    let over = part.under_way.is_none();
    let anew = over.then_some((HeaderName::from_static("hx-refresh"), "true"));
    Ok((anew.map(|header| [header]), part).into_response())
}

/// Ends it; what was read stays.
pub(crate) async fn stop(State(app): State<App>, visitor: Visitor, path: StationPath) -> Result<Response, Refusal> {
    let kept = Measuring::load(&app, &path, KIND).await?;
    let (id, now) = (kept.id, app.now_ms());
    app.writing(move |write| {
        write.set_measuring(MeasuringKey { station: id, kind: KIND }, TypedField::new(FIELD, ""), now)
    })
    .await?;
    show(State(app), visitor, path).await
}

#[cfg(test)]
mod tests {
    use mend_core::instrument::InstrumentFault;

    use super::*;

    #[test]
    fn a_recording_is_read_back_and_what_reads_nothing_is_no_line() {
        let recording = Recording { instrument: 3, from_ms: -40, clock: "boot 1 2".to_owned() };
        assert_eq!(Recording::read(&recording.written()), Some(recording));
        assert_eq!(Recording::read(""), None);
        let at = |tick_ms, value| Taken { tick_ms, value };
        let taken = [at(1000, Ok(24.0)), at(2000, Err(InstrumentFault::Open)), at(3020, Ok(26.5))];
        assert_eq!(lines(&taken, 0, Scale::Celsius), "1.0, 24.00\n3.0, 26.50");
        assert_eq!(lines(&taken[..1], 500, Scale::Fahrenheit), "0.5, 75.20");
    }
}
