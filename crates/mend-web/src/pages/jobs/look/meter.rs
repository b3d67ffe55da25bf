//! The meter while a probe goes from pin to pin: how many pins it has touched, and what it read at the last.

use axum::Json;
use axum::extract::State;
use serde::Serialize;

use super::super::{JobPath, number};
use crate::App;
use crate::meter::MeterState;
use crate::pages::instruments::socket;
use crate::refusal::Refusal;
use crate::words::instrument_fault;

/// What a page that listens to it needs.
#[derive(Serialize)]
pub(crate) struct MeterView {
    /// Touches since it is read: one more is another pin.
    count: usize,
    /// V, of the last.
    volts: Option<f64>,
    /// Why nothing is read, in words; empty: it is.
    fault: String,
}

pub(crate) async fn show(State(app): State<App>, path: JobPath) -> Result<Json<MeterView>, Refusal> {
    number(&path)?;
    let rows = app.reading(|read| read.instruments()).await?;
    let meter = rows.into_iter().find(|row| row.kind == "meter").ok_or(Refusal::NotFound("meter"))?;
    let MeterState { touches, fault } = app.meters.listen(socket(&meter.address)?);
    let fault = fault.as_ref().map_or(String::new(), |fault| format!("{}: {}", meter.name, instrument_fault(fault)));
    Ok(Json(MeterView { count: touches.count, volts: touches.last_v, fault }))
}
